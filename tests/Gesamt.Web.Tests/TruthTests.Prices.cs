using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests;

/// <summary>What was agreed stays agreed, however it was said.</summary>
public sealed partial class TruthTests
{
    [Fact]
    public async Task A_second_proposal_after_the_price_is_agreed_is_refused_with_the_reason()
    {
        var (owner, client, project, page) = await SignedAsync("second@lanternhouse.example");
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        Assert.Contains("agreed already", draft.GetProperty("closed").GetString());
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Again", body = "Here: [proposal link]" }
        );
        Assert.Equal(HttpStatusCode.Conflict, sent.StatusCode);
        Assert.Contains("agreed already", await sent.Content.ReadAsStringAsync());
        var chosen = await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "l" } });
        Assert.Equal(HttpStatusCode.Conflict, chosen.StatusCode);
        Assert.Contains("agreed already", await chosen.Content.ReadAsStringAsync());
        Assert.Equal(
            1,
            await studio.LookAsync(db => db.Invoices.CountAsync(i => i.ProjectId == new ProjectId(project)))
        );
    }

    [Fact]
    public async Task A_proposal_on_its_way_stays_here_when_a_price_is_agreed_before_it_leaves()
    {
        await using var studio = new HoldingStudio();
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "overtaken@lanternhouse.example");
        var (id, draft) = (new ProjectId(project), await owner.GetAsync($"/api/projects/{project}/proposal"));
        var offer = JsonSerializer.Deserialize<Dictionary<string, object>>(draft.GetProperty("offer").GetRawText())!;
        offer["lines"] = new[]
        {
            new
            {
                key = "a",
                role = "Included",
                group = (string?)null,
                title = "Wall",
                detail = "",
                quantity = "1",
                unit = "",
                unitPrice = "1 200",
                tax = "23",
                suggested = false,
            },
        };
        Assert.True(
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/proposal",
                    System.Net.Http.Json.JsonContent.Create(
                        new
                        {
                            edition = draft.GetProperty("edition").GetInt32(),
                            offer,
                            contract = "As agreed.",
                        }
                    )
                )
            ).IsSuccessStatusCode
        );
        // claimed, and not handed over yet
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/proposal/send",
                    new { subject = "Your proposal", body = "Here: [proposal link]" }
                )
            ).IsSuccessStatusCode
        );
        Assert.True(
            (
                await SayAsync(
                    owner,
                    project,
                    new
                    {
                        sort = "PriceAgreed",
                        amount = "1,000",
                        tax = "23",
                        onBooking = "40",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 40));
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/post-office?address=overtaken@lanternhouse.example")).EnumerateArray(),
            letter => letter.GetRawText().Contains("Your proposal", StringComparison.Ordinal)
        );
        Assert.Equal(
            0,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f => f.ProjectId == id && f.Kind == nameof(Happening.ProposalSent))
            )
        );
        Assert.Equal(
            123_000,
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == id).Select(p => p.Standing.AgreedMinor).SingleAsync()
            )
        );
    }

    /// <summary>A studio whose letters can be taken back for a while.</summary>
    private sealed class HoldingStudio() : Studio(withProjects: false)
    {
        protected override void ConfigureWebHost(Microsoft.AspNetCore.Hosting.IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Gesamt:HoldSeconds", "60");
        }
    }

    [Fact]
    public async Task A_price_by_phone_gets_its_contract_and_a_signed_paper_can_be_taken_in()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var project = await studio.InquireAsync(new Visitor(studio), "phone@lanternhouse.example");
        Assert.True(
            (
                await SayAsync(
                    owner,
                    project,
                    new
                    {
                        sort = "PriceAgreed",
                        amount = "2,000",
                        tax = "23",
                        onBooking = "40",
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            "SendContract",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );
        var sent = await owner.SendContractAsync(project);
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        Assert.Equal(
            "SignContract",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );
        var page = await studio.EnterAsync(owner, client, "phone@lanternhouse.example");
        var shown = await client.GetAsync($"{page}/api");
        Assert.Equal(
            ("Sign", "€\u00a02\u202f460.00"),
            (
                shown.GetProperty("booking").GetProperty("step").GetString(),
                shown
                    .GetProperty("booking")
                    .GetProperty("contract")
                    .GetProperty("priced")
                    .GetProperty("total")
                    .GetString()
            )
        );
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona Delarue",
                        agreed = true,
                        hash = shown.GetProperty("booking").GetProperty("contract").GetProperty("hash").GetString(),
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            98_400,
            await studio.LookAsync(db =>
                db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).Select(i => i.TotalMinor).SingleAsync()
            )
        );
    }
}
