using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Store.Model;
using Gesamt.Web.StandIns;

namespace Gesamt.Web.Tests;

/// <summary>A cancelled project is settled by the terms of its kind: shown first, then credited, billed and given back.</summary>
public sealed class CancellingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    /// <summary>The kind of the mural keeps so much when it is cancelled within so many days; terms are pinned, so it is said before a project begins.</summary>
    private async Task TermsAsync(params (int Days, string Keeps)[] terms)
    {
        var owner = await studio.OwnerAsync();
        var kind = await studio.LookAsync(db => db.Kinds.Where(k => k.Key == "mural").Select(k => k.Id).SingleAsync());
        var settings = JsonNode.Parse(
            (await owner.GetAsync($"/api/kinds/{kind.Value}")).GetProperty("settings").GetRawText()
        )!;
        settings["work"]!["cancelTerms"] = new JsonArray([
            .. terms.Select(step => new JsonObject { ["daysBefore"] = step.Days, ["keeps"] = step.Keeps }),
        ]);
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/kinds/{kind.Value}/settings",
            JsonContent.Create(settings)
        );
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
    }

    private static async Task<string[]> LinesAsync(Visitor owner, long project) =>
        [
            .. (await owner.GetAsync($"/api/projects/{project}/cancelling"))
                .GetProperty("lines")
                .EnumerateArray()
                .Select(line => line.GetString()!.Replace('\u202F', ' ').Replace('\u00A0', ' ')),
        ];

    private static async Task CancelAsync(Visitor owner, long project)
    {
        var ended = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new { sort = "Cancelled", terms = true }
        );
        Assert.True(ended.IsSuccessStatusCode, await ended.Content.ReadAsStringAsync());
    }

    private async Task PayByCardAsync(Visitor client, string page)
    {
        var begun = await client.PostAsync($"{page}/api/pay", new { means = "Card" });
        var address = (await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("address").GetString()!;
        var house = new Visitor(studio);
        var door = address.Replace("/cards/", "/card-house/", StringComparison.Ordinal);
        await house.TokenAsync(door);
        Assert.True((await house.PostAsync(door, new { number = PaymentHouse.Good })).IsSuccessStatusCode);
        await studio.TickAsync();
    }

    private Task<StandingColumns> StandingAsync(long project) =>
        studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );

    [Fact]
    public async Task What_was_paid_over_the_terms_goes_back_the_way_it_came()
    {
        // whenever it is, a fifth of the price is kept
        await TermsAsync((1000, "20"));
        var (owner, client, project, page) = await studio.SignedByAllAsync("fifth@lanternhouse.example");
        await PayByCardAsync(client, page);
        var lines = await LinesAsync(owner, project);
        Assert.Contains(lines, line => line.Contains("the terms keep 20 %", StringComparison.Ordinal));
        Assert.Contains(
            lines,
            line => line.EndsWith("goes back the way it came, through the provider.", StringComparison.Ordinal)
        );
        // nothing was done yet
        Assert.Equal(265_680L, (await StandingAsync(project)).PaidMinor);
        await CancelAsync(owner, project);
        await studio.TickAsync();
        await studio.TickAsync();
        var agreed = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.AgreedMinor).SingleAsync()
        );
        var kept = (long)Math.Round(agreed!.Value * 0.2m, MidpointRounding.AwayFromZero);
        var standing = await StandingAsync(project);
        Assert.Equal((kept, 0L), (standing.PaidMinor, standing.OwedMinor));
        var refund = await studio.LookAsync(db =>
            db.Refunds.AsNoTracking().SingleAsync(r => r.ProjectId == new ProjectId(project))
        );
        Assert.Equal(
            (RefundState.Done, 265_680L - kept, PaymentMeans.Card),
            (refund.State, refund.AmountMinor, refund.Means)
        );
        Assert.Equal(
            265_680L - kept,
            await studio.LookAsync(db =>
                db.Invoices.Where(i => i.ProjectId == new ProjectId(project) && i.Sort == InvoiceSort.CreditNote)
                    .SumAsync(i => i.TotalMinor)
            )
        );
    }

    [Fact]
    public async Task What_the_terms_keep_and_was_not_billed_is_billed()
    {
        await TermsAsync((1000, "100"));
        var (owner, client, project, page) = await studio.SignedByAllAsync("all@lanternhouse.example");
        await PayByCardAsync(client, page);
        var agreed = (await StandingAsync(project)).AgreedMinor!.Value;
        Assert.Contains(
            await LinesAsync(owner, project),
            line => line.Contains("was not billed yet", StringComparison.Ordinal)
        );
        await CancelAsync(owner, project);
        Assert.Equal(
            agreed - 265_680L,
            await studio.LookAsync(db =>
                db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).SumAsync(i => i.OwedMinor)
            )
        );
        // nothing to settle where no price is agreed
        var inquiry = await studio.InquireAsync(new Visitor(studio), "inquiry@lanternhouse.example");
        Assert.Empty(await LinesAsync(owner, inquiry));
    }

    [Fact]
    public async Task What_came_by_transfer_is_given_back_by_the_owner_and_a_task_says_so()
    {
        await TermsAsync((1000, "0"));
        var (owner, _, project, _) = await studio.SignedByAllAsync("transfer@lanternhouse.example");
        var invoice = await studio.LookAsync(db =>
            db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).Select(i => i.Id).SingleAsync()
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Paid",
                        amount = "2656.80",
                        means = "Transfer",
                        invoice = invoice.Value,
                    }
                )
            ).IsSuccessStatusCode
        );
        await CancelAsync(owner, project);
        var task = await studio.LookAsync(db =>
            db.Tasks.AsNoTracking()
                .SingleAsync(t => t.ProjectId == new ProjectId(project) && t.Title.StartsWith("Give "))
        );
        Assert.Contains("656.80", task.Title);
        Assert.Equal(
            0,
            await studio.LookAsync(db => db.Refunds.CountAsync(r => r.ProjectId == new ProjectId(project)))
        );
    }

    [Fact]
    public async Task Terms_that_cannot_be_are_named()
    {
        var owner = await studio.OwnerAsync();
        var kind = await studio.LookAsync(db => db.Kinds.Where(k => k.Key == "mural").Select(k => k.Id).SingleAsync());
        var settings = JsonNode.Parse(
            (await owner.GetAsync($"/api/kinds/{kind.Value}")).GetProperty("settings").GetRawText()
        )!;
        settings["work"]!["cancelTerms"] = new JsonArray(
            new JsonObject { ["daysBefore"] = -1, ["keeps"] = "50" },
            new JsonObject { ["daysBefore"] = 14, ["keeps"] = "much" },
            new JsonObject { ["daysBefore"] = 14, ["keeps"] = "101" }
        );
        var refused = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/kinds/{kind.Value}/settings",
            JsonContent.Create(settings)
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors");
        foreach (
            var field in new[]
            {
                "work.cancelTerms[0].daysBefore",
                "work.cancelTerms[1].keeps",
                "work.cancelTerms[2].daysBefore",
                "work.cancelTerms[2].keeps",
            }
        )
            Assert.True(errors.TryGetProperty(field, out _), field);
    }
}
