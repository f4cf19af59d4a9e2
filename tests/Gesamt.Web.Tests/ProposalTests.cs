using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;

namespace Gesamt.Web.Tests;

/// <summary>What can come between a proposal and its signature.</summary>
public sealed class ProposalTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task A_second_version_withdraws_the_first_and_is_what_the_page_shows()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "second@lanternhouse.example");
        await SaveAsync(
            owner,
            project,
            offer =>
                offer["parts"] = new[]
                {
                    new
                    {
                        sort = "Why",
                        heading = "",
                        body = "Without the ceiling.",
                    },
                }
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/proposal/send",
                    new { subject = "Changed", body = "[proposal link]" }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        Assert.Equal(
            "Without the ceiling.",
            (await client.GetAsync($"{page}/api"))
                .GetProperty("booking")
                .GetProperty("proposal")
                .GetProperty("parts")[0]
                .GetProperty("text")[0]
                .GetProperty("runs")[0]
                .GetProperty("text")
                .GetString()
        );
        Assert.Equal(1, await CountAsync(project, nameof(Happening.ProposalWithdrawn)));
        Assert.Equal(
            [1, 2],
            await studio.LookAsync(db =>
                db.Versions.Where(v => v.ProjectId == new ProjectId(project))
                    .OrderBy(v => v.Number)
                    .Select(v => v.Number)
                    .ToListAsync()
            )
        );
        var second = await studio.LookAsync(db =>
            db.PlannedSteps.CountAsync(s =>
                s.ProjectId == new ProjectId(project) && s.Step == "did-it-reach-you" && s.Occurrence == 1
            )
        );
        Assert.Equal(1, second);
    }

    [Fact]
    public async Task A_change_asked_for_is_the_owners_turn_with_the_clients_words()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "change@lanternhouse.example");
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await client.PostAsync($"{page}/api/change", new { words = "  " })).StatusCode
        );
        Assert.True(
            (
                await client.PostAsync($"{page}/api/change", new { words = "Could we leave out the ceiling?" })
            ).IsSuccessStatusCode
        );
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.Equal("ChangeAsked", record.GetProperty("path").GetProperty("turn").GetProperty("waits").GetString());
        Assert.Contains("leave out the ceiling", record.GetRawText());
        Assert.True(
            (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("askedForChange").GetBoolean()
        );
    }

    [Fact]
    public async Task What_was_chosen_can_be_chosen_otherwise_until_it_is_signed_and_a_bad_choice_is_named()
    {
        var client = new Visitor(studio);
        var (project, page) = await studio.ProposeAsync(
            await studio.OwnerAsync(),
            client,
            "again@lanternhouse.example"
        );
        Assert.Contains(
            "Choose one of: Scaffold, Scissor lift",
            await TextAsync(client.PostAsync($"{page}/api/accept", new { chosen = Array.Empty<string>() }))
        );
        Assert.Contains(
            "no line",
            await TextAsync(client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s", "carpet" } }))
        );
        Assert.True((await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).IsSuccessStatusCode);
        // twice the same is once
        Assert.True((await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).IsSuccessStatusCode);
        Assert.Equal(1, await CountAsync(project, nameof(Happening.ProposalAccepted)));
        var first = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString();
        Assert.True((await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "l" } })).IsSuccessStatusCode);
        var second = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("contract");
        Assert.Equal(
            (2, 1),
            (
                await CountAsync(project, nameof(Happening.ProposalAccepted)),
                await CountAsync(project, nameof(Happening.ContractVoided))
            )
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona Delarue",
                        agreed = true,
                        hash = first,
                    }
                )
            ).StatusCode
        );
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona Delarue",
                        agreed = true,
                        hash = second.GetProperty("hash").GetString(),
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).StatusCode
        );
    }

    [Fact]
    public async Task A_signature_needs_a_name_a_yes_and_the_version_that_was_read()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "sign@lanternhouse.example");
        Assert.Contains(
            "has not signed yet",
            await TextAsync(
                owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Countersign",
                        on = (string?)null,
                        words = "Isolde",
                        until = (string?)null,
                    }
                )
            )
        );
        await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } });
        var hash = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString();
        Assert.Contains(
            "agreed",
            await TextAsync(
                client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona",
                        agreed = false,
                        hash,
                    }
                )
            )
        );
        Assert.Contains(
            "full name",
            await TextAsync(
                client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = " ",
                        agreed = true,
                        hash,
                    }
                )
            )
        );
        Assert.Contains(
            "was changed",
            await TextAsync(
                client.PostAsync(
                    $"{page}/api/sign",
                    new
                    {
                        name = "Mona",
                        agreed = true,
                        hash = "another",
                    }
                )
            )
        );
        Assert.Equal(0, await CountAsync(project, nameof(Happening.ContractSigned)));
    }

    [Fact]
    public async Task A_proposal_that_ran_out_cannot_be_accepted_and_is_the_owners_turn()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var (project, page) = await own.ProposeAsync(owner, client, "late@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 9, 9, 0));
        Assert.Contains(
            "was valid until 8 February 2027",
            await TextAsync(client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } }))
        );
        owner = await own.OwnerAsync(); // two weeks later the sign-in has run out as well
        Assert.Equal(
            "RanOut",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );
    }

    [Theory]
    [
        InlineData("quantity", "many", "must be a number"),
        InlineData("quantity", "0", "more than 0"),
        InlineData("unitPrice", "-1", "between 0 and"),
        InlineData("tax", "101", "between 0 and 100"),
        InlineData("quantity", "1.1234567", "at most six decimals")
    ]
    public async Task A_line_that_makes_no_sense_is_refused_or_named_as_missing(string field, string text, string said)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"line{field}{text.Length}@lanternhouse.example");
        var answer = await SaveAsync(
            owner,
            project,
            offer =>
                offer["lines"] = new[]
                {
                    new Dictionary<string, object?>
                    {
                        ["key"] = "a",
                        ["role"] = "Included",
                        ["group"] = null,
                        ["title"] = "Wall",
                        ["detail"] = "",
                        ["quantity"] = "1",
                        ["unit"] = "",
                        ["unitPrice"] = "10",
                        ["tax"] = "23",
                        ["suggested"] = false,
                        [field] = text,
                    },
                }
        );
        Assert.Contains(said, await answer.Content.ReadAsStringAsync());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await owner.PostAsync($"/api/projects/{project}/proposal/send", new { subject = "x", body = "x" })
            ).StatusCode
        );
    }

    [Fact] // common practice: won 12,000, then on into delivery: one record, one figure
    public async Task A_booked_project_is_booked_once_with_its_tasks_counted_back()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "booked@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var address = JsonDocument
            .Parse(await TextAsync(client.PostAsync($"{page}/api/pay")))
            .RootElement.GetProperty("address")
            .GetString()!
            .Replace("/cards/", "/card-house/", StringComparison.Ordinal);
        var house = new Visitor(studio);
        await house.TokenAsync(address);
        await house.PostAsync(address, new { number = StandIns.PaymentHouse.Good });
        Task<HttpResponseMessage> CountersignAsync() =>
            owner.PostAsync($"/api/projects/{project}/happened", new { sort = "Countersign", words = "Isolde Marrin" });
        Assert.True((await CountersignAsync()).IsSuccessStatusCode);
        Assert.Contains("You have signed it already", await TextAsync(CountersignAsync()));
        await studio.TickAsync();
        await studio.TickAsync();
        var row = await studio.LookAsync(db =>
            db.Projects.AsNoTracking().SingleAsync(p => p.Id == new ProjectId(project))
        );
        Assert.Equal((Stage.Delivery, 664_200L), (row.Standing.Stage, row.Standing.AgreedMinor!.Value));
        Assert.NotNull(row.Standing.BookedAt);
        var tasks = await studio.LookAsync(db =>
            db.Tasks.Where(t => t.ProjectId == new ProjectId(project)).Select(t => new { t.Title, t.Due }).ToListAsync()
        );
        Assert.Equal(new LocalDate(2027, 4, 16), tasks.Single(t => t.Title == "Order scaffold and lift").Due); // 28 days before 14 May
        Assert.Equal(6, tasks.Count);
    }

    private Task<int> CountAsync(long project, string kind) =>
        studio.LookAsync(db => db.Facts.CountAsync(f => f.ProjectId == new ProjectId(project) && f.Kind == kind));

    private static async Task<string> TextAsync(Task<HttpResponseMessage> answer) =>
        await (await answer).Content.ReadAsStringAsync();

    private static async Task<HttpResponseMessage> SaveAsync(
        Visitor owner,
        long project,
        Action<Dictionary<string, object>> change
    )
    {
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        var offer = JsonSerializer.Deserialize<Dictionary<string, object>>(draft.GetProperty("offer").GetRawText())!;
        change(offer);
        return await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            JsonContent.Create(
                new
                {
                    edition = draft.GetProperty("edition").GetInt32(),
                    offer,
                    contract = draft.GetProperty("contract").GetString(),
                }
            )
        );
    }
}
