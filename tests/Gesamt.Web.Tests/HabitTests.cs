using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>What a studio does without being asked, and how it writes numbers and days.</summary>
public sealed class HabitTests : IAsyncDisposable
{
    private readonly EmptyStudio studio = new();

    public ValueTask DisposeAsync() => studio.DisposeAsync();

    [Fact]
    public async Task A_day_off_that_is_put_down_moves_what_was_planned_for_it()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await studio.ProposeAsync(owner, client);
        var before = await PlannedAsync();
        var day = before.Min();
        await owner.ChangeStudioAsync(now => now["hours"]!["daysOff"] = new JsonArray(Written(day)));
        await studio.TickAsync();
        var after = await PlannedAsync();
        Assert.Equal(before.Length, after.Length);
        Assert.DoesNotContain(day, after);
        Assert.True(await studio.LookAsync((GesamtDb db) => Sqlite.IsDerivedAsync(db)));

        // and back, as it was
        await owner.ChangeStudioAsync(now => now["hours"]!["daysOff"] = new JsonArray());
        Assert.False(await studio.LookAsync((GesamtDb db) => Sqlite.IsDerivedAsync(db)));
        await studio.TickAsync();
        Assert.Equal(before, await PlannedAsync());

        Task<LocalDate[]> PlannedAsync() =>
            studio.LookAsync(
                async (Desk desk) =>
                    (await desk.Db.PlannedSteps.Where(s => s.State == StepState.Planned && s.Due != null).ToListAsync())
                        .Select(s => desk.Calendar.DateOf(s.Due!.Value))
                        .Order()
                        .ToArray()
            );

        static string Written(LocalDate date) => date.ToString("uuuu-MM-dd", null);
    }

    [Fact]
    public async Task A_signature_that_is_given_with_every_contract_stands_under_it_as_the_client_reads_it()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await owner.ChangeStudioAsync(now => now["habits"]!["signsAtOnce"] = true);
        var (project, page) = await studio.ProposeAsync(owner, client);
        foreach (var chosen in new[] { new[] { "s", "n" }, ["s"] }) // once more, before it is signed by the client
        {
            Assert.True((await client.PostAsync($"{page}/api/accept", new { chosen })).IsSuccessStatusCode);
            var shown = (await client.GetAsync($"{page}/api")).GetProperty("booking");
            Assert.Equal("Sign", shown.GetProperty("step").GetString());
            Assert.Equal(
                ("Isolde Marrin", "studio"),
                Assert.Single(
                    shown
                        .GetProperty("contract")
                        .GetProperty("signatures")
                        .EnumerateArray()
                        .Select(s => (s.GetProperty("name").GetString(), s.GetProperty("side").GetString()))
                )
            );
        }
        await studio.SignedAsync(client, page);
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.StartsWith(
            "Signed Mon 25 Jan by both",
            record.GetProperty("path").GetProperty("gates")[2].GetProperty("evidence").GetString()
        );
        var signed = await studio.LookAsync(db => db.Signatures.OrderBy(s => s.Id).ToListAsync());
        Assert.Equal(["Isolde Marrin", "Isolde Marrin", "Isolde Marrin", "Mona Delarue"], signed.Select(s => s.Name));
        Assert.DoesNotContain("typing", signed[2].Consent); // nobody typed that one
        Assert.Equal(signed[2].Hash, signed[3].Hash);
    }

    [Fact]
    public async Task A_contract_that_goes_with_a_letter_is_signed_as_the_letter_leaves_and_not_before()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await owner.ChangeStudioAsync(now => now["habits"]!["signsAtOnce"] = true);
        var project = await studio.InquireAsync(client);
        object price = new
        {
            sort = "PriceAgreed",
            amount = "2,000",
            tax = "23",
            onBooking = "40",
        };
        Assert.True((await owner.PostAsync($"/api/projects/{project}/happened", price)).IsSuccessStatusCode);
        Assert.True((await owner.SendContractAsync(project)).IsSuccessStatusCode);
        Assert.Equal(0, await studio.LookAsync(db => db.Signatures.CountAsync()));
        await studio.TickAsync();
        Assert.Equal(
            Core.Facts.Signer.Owner,
            await studio.LookAsync(db => db.Signatures.Select(s => s.Signer).SingleAsync())
        );
        var turn = (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path").GetProperty("turn");
        Assert.Equal("SignContract", turn.GetProperty("waits").GetString());
        // and one that was put before the studio said so is signed as the client signs, and asks nobody
        await owner.ChangeStudioAsync(now => now["habits"]!["signsAtOnce"] = false);
        var (other, page) = await studio.ProposeAsync(owner, client, "ada@lanternhouse.example");
        Assert.True(
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s", "n" } })).IsSuccessStatusCode
        );
        Assert.Equal(1, await studio.LookAsync(db => db.Signatures.CountAsync()));
        await owner.ChangeStudioAsync(now => now["habits"]!["signsAtOnce"] = true);
        await studio.SignedAsync(client, page);
        Assert.StartsWith(
            "Signed Mon 25 Jan by both",
            (await owner.GetAsync($"/api/projects/{other}"))
                .GetProperty("path")
                .GetProperty("gates")[2]
                .GetProperty("evidence")
                .GetString()
        );
    }

    [Fact]
    public async Task An_answer_may_say_a_fit_and_offer_a_call_in_one_act()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        var kind = await studio.LookAsync(db => db.MeetingKinds.Select(k => k.Id).FirstAsync());
        object Answer(string body) =>
            new
            {
                subject = "Your wall",
                body,
                fit = true,
                offers = kind,
            };
        // nobody can choose a time without the way to it
        var refused = await owner.PostAsync($"/api/projects/{project}/letter", Answer("Let us speak."));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("[page link]", await refused.Content.ReadAsStringAsync());
        var path = (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path");
        Assert.False(path.GetProperty("gates")[0].GetProperty("closed").GetBoolean());
        var sent = await owner.PostAsync($"/api/projects/{project}/letter", Answer("Choose a time: [page link]"));
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.StartsWith(
            "Fit",
            record.GetProperty("path").GetProperty("gates")[0].GetProperty("evidence").GetString()
        );
        Assert.Equal(
            JsonValueKind.String,
            record.GetProperty("sheet").GetProperty("meetings").GetProperty("offered").ValueKind
        );
        // and the fit can be taken back
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "FitTakenBack" });
        path = (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path");
        Assert.Contains("your yes", path.GetProperty("gates")[0].GetProperty("lacks").GetRawText());
    }

    [Fact]
    public async Task A_title_and_a_source_can_be_changed_and_a_clients_other_projects_stand_under_the_head()
    {
        var owner = await studio.OwnerAsync();
        var first = await studio.InquireAsync(new Visitor(studio));
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{first}/head",
            // as long as an inquiry that is taken down may say it
            JsonContent.Create(
                new { title = " The lantern wall ", source = $"a fair {new string('s', HeadLimits.Source - 7)}" }
            )
        );
        Assert.Equal(HttpStatusCode.NoContent, saved.StatusCode);
        var head = (await owner.GetAsync($"/api/projects/{first}")).GetProperty("head");
        Assert.Equal("The lantern wall", head.GetProperty("title").GetString());
        Assert.StartsWith("a fair", head.GetProperty("source").GetString());
        Assert.Contains("The lantern wall", (await owner.GetAsync("/api/search?words=lantern")).GetRawText());
        var client = head.GetProperty("client").GetProperty("id").GetInt64();
        var second = (
            await (
                await owner.PostAsync(
                    "/api/inquiries",
                    Booking.TypedIn(
                        await studio.LookAsync(db =>
                            db.Kinds.OrderBy(k => k.Position).Select(k => k.Id.Value).FirstAsync()
                        ),
                        "Mona Delarue",
                        "mona@lanternhouse.example",
                        client
                    )
                )
            ).Content.ReadFromJsonAsync<JsonElement>()
        )
            .GetProperty("id")
            .GetInt64();
        var other = Assert.Single(
            (await owner.GetAsync($"/api/projects/{second}")).GetProperty("head").GetProperty("others").EnumerateArray()
        );
        Assert.Equal("The lantern wall", other.GetProperty("title").GetString());
        foreach (
            var (title, source, field) in new[]
            {
                (" ", "", "title"),
                ("x", new string('s', HeadLimits.Source + 1), "source"),
            }
        )
        {
            var refused = await owner.SendAsync(
                HttpMethod.Put,
                $"/api/projects/{first}/head",
                JsonContent.Create(new { title, source })
            );
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
    }

    [Fact]
    public async Task A_project_is_of_further_kinds_and_is_offered_what_they_offer()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        var kinds = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .ToDictionary(kind => kind.GetProperty("name").GetString()!, kind => kind.GetProperty("id").GetInt64());
        Task<HttpResponseMessage> SaveAsync(params long[] further) =>
            owner.SendAsync(
                HttpMethod.Put,
                $"/api/projects/{project}/head",
                JsonContent.Create(
                    new
                    {
                        title = "Of two kinds",
                        source = "",
                        kinds = further,
                    }
                )
            );
        async Task<bool> FoundAsync(string kind) =>
            (await owner.GetAsync($"/api/register?kind={Uri.EscapeDataString(kind)}"))
                .GetRawText()
                .Contains("Of two kinds", StringComparison.Ordinal);
        async Task<string> ServicesAsync() =>
            (await owner.GetAsync($"/api/projects/{project}/rate-sheet")).GetRawText();

        Assert.Equal(HttpStatusCode.NoContent, (await SaveAsync()).StatusCode);
        Assert.True(await FoundAsync("Mural"));
        Assert.False(await FoundAsync("Workshop"));
        Assert.DoesNotContain("Workshop day", await ServicesAsync());
        // its own again and one twice are no further ones
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await SaveAsync(kinds["Workshop"], kinds["Mural"], kinds["Workshop"])).StatusCode
        );
        var head = (await owner.GetAsync($"/api/projects/{project}")).GetProperty("head");
        Assert.Equal("Mural", head.GetProperty("kind").GetString());
        Assert.Equal(
            "Workshop",
            Assert.Single(head.GetProperty("furtherKinds").EnumerateArray()).GetProperty("name").GetString()
        );
        Assert.True(await FoundAsync("Mural"));
        Assert.True(await FoundAsync("Workshop"));
        Assert.Contains("Workshop day", await ServicesAsync());
        var refused = await SaveAsync(kinds["Workshop"], 4_711);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("\"kinds\"", await refused.Content.ReadAsStringAsync());
        // who saves the title alone leaves them
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/head",
            JsonContent.Create(new { title = "Of two kinds still" })
        );
        Assert.True(await FoundAsync("Workshop"));
    }

    [Fact]
    public async Task A_dropped_file_finds_its_place_and_can_be_put_elsewhere_until_it_was_shown()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        using var content = new ByteArrayContent(Demo.DemoPictures.Draw("a"));
        content.Headers.ContentType = new("application/octet-stream");
        var kept = await (
            await owner.SendAsync(HttpMethod.Post, $"/api/projects/{project}/files?name=sketch-1.png", content)
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal("Supplied", kept.GetProperty("group").GetString()); // it is not booked yet
        var file = kept.GetProperty("id").GetInt64();
        Task<HttpResponseMessage> PlaceAsync(string group, string? phase) =>
            owner.PostAsync($"/api/projects/{project}/files/{file}/place", new { group, phase });
        Assert.Equal(HttpStatusCode.BadRequest, (await PlaceAsync("Drafts", "no such phase")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await PlaceAsync("Drafts", "sketch")).StatusCode);
        Assert.Contains("draft 1, sketch", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
        await owner.PostAsync($"/api/projects/{project}/files/{file}/shown", new { shown = true, use = (string?)null });
        Assert.Equal(HttpStatusCode.Conflict, (await PlaceAsync("Supplied", null)).StatusCode);
    }

    [Fact]
    public async Task A_proposal_begins_as_an_earlier_one_at_todays_prices_in_the_quantities_that_are_known()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await studio.ProposeAsync(owner, client);
        await studio.LookAsync(db =>
            db.Services.Where(s => s.Title == "Gable mural")
                .ExecuteUpdateAsync(set => set.SetProperty(s => s.UnitPrice, 150m))
        );
        var project = await studio.InquireAsync(new Visitor(studio), "second@lanternhouse.example");
        var services = await owner.GetAsync($"/api/projects/{project}/services");
        Assert.Equal("31", services[0].GetProperty("line").GetProperty("quantity").GetString()); // m², as the form asked
        Assert.Equal("1", services[1].GetProperty("line").GetProperty("quantity").GetString());
        var earlier = await owner.GetAsync($"/api/projects/{project}/proposal/beginnings");
        var version = Assert.Single(earlier.EnumerateArray()).GetProperty("version").GetInt64();
        var begun = await owner.PostAsync(
            $"/api/projects/{project}/proposal/begin",
            new { template = (int?)null, version }
        );
        var lines = JsonDocument
            .Parse(await begun.Content.ReadAsStringAsync())
            .RootElement.GetProperty("offer")
            .GetProperty("lines")
            .EnumerateArray()
            .ToList();
        Assert.Equal(
            [
                ("Gable mural", "31", "150"),
                ("Scaffold", "6", "130"),
                ("Scissor lift", "4", "140"),
                ("Name", "14", "20"),
            ],
            lines.Select(line =>
                (
                    line.GetProperty("title").GetString(),
                    line.GetProperty("quantity").GetString(),
                    line.GetProperty("unitPrice").GetString()
                )
            )
        );
        Assert.Equal("OneOf", lines[1].GetProperty("role").GetString());
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/proposal/begin",
                    new { template = (int?)null, version = 999_999 }
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task A_finished_project_is_put_away_after_the_days_of_the_studio()
    {
        var owner = await studio.OwnerAsync();
        await owner.ChangeStudioAsync(now => now["habits"]!["putAwayDays"] = 30);
        var project = await studio.InquireAsync(new Visitor(studio));
        foreach (var _ in Enumerable.Range(0, 5))
            await owner.PostAsync(
                $"/api/projects/{project}/happened",
                new { sort = "Waived", words = "done elsewhere" }
            );
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "NoAnswerNeeded" });
        async Task<bool> IsAwayAsync() =>
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path").GetProperty("putAway").GetBoolean();
        var finished = Instant.FromUtc(2027, 1, 25, 10, 30);
        await studio.WaitUntilAsync(finished + Duration.FromDays(29));
        owner = await studio.OwnerAsync();
        Assert.False(await IsAwayAsync());
        await studio.WaitUntilAsync(finished + Duration.FromDays(31));
        owner = await studio.OwnerAsync();
        Assert.True(await IsAwayAsync());
    }

    [Fact]
    public async Task Invoices_are_numbered_in_the_series_of_the_studio_from_where_it_begins()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await owner.ChangeStudioAsync(now =>
            (now["money"]!["invoiceSeries"], now["money"]!["invoiceFirst"]) = ("MU", 57)
        );
        async Task<string?> NextAsync() =>
            (await owner.GetAsync("/api/studio"))
                .GetProperty("said")
                .GetProperty("money")
                .GetProperty("nextNumber")
                .GetString();
        Assert.Equal("MU2027-057", await NextAsync());
        var (_, page) = await studio.ProposeAsync(owner, client);
        await studio.SignedAsync(client, page);
        Assert.Equal(["MU2027-057"], await studio.LookAsync(db => db.Invoices.Select(i => i.Number).ToListAsync()));
        Assert.Equal("MU2027-058", await NextAsync());
        // another series begins by itself, and the first number is for the year it was said in
        await owner.ChangeStudioAsync(now => now["money"]!["invoiceSeries"] = "W");
        Assert.Equal("W2027-057", await NextAsync());
        // an agreed price keeps its currency
        var said = JsonNode.Parse((await owner.GetAsync("/api/studio")).GetProperty("said").GetRawText())!;
        said["money"]!["currency"] = "USD";
        var refused = await owner.SendAsync(HttpMethod.Put, "/api/studio", JsonContent.Create(said));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("\"money.currency\"", await refused.Content.ReadAsStringAsync());
    }

    [Theory]
    [InlineData("money.bic", "AIBK", "money.bic"), InlineData("names.site", "studio.example", "names.site")]
    [InlineData("names.clientAddress", "https://a.example/path", "names.clientAddress")]
    [InlineData("habits.onBooking", "101", "habits.onBooking"), InlineData("habits.validDays", 0, "habits.validDays")]
    [
        InlineData("money.invoiceSeries", "a b", "money.invoiceSeries"),
        InlineData("style.zone", "Mars/Olympus", "style.zone")
    ]
    public async Task What_is_not_allowed_of_the_studio_is_named_by_its_place(string at, object value, string field)
    {
        var owner = await studio.OwnerAsync();
        var said = JsonNode.Parse((await owner.GetAsync("/api/studio")).GetProperty("said").GetRawText())!;
        var parts = at.Split('.');
        said[parts[0]]![parts[1]] = JsonValue.Create(value);
        var refused = await owner.SendAsync(HttpMethod.Put, "/api/studio", JsonContent.Create(said));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors");
        Assert.Equal([field], errors.EnumerateObject().Select(error => error.Name));
    }

    [Fact] // what the owner sees, and what a client sees
    public async Task Numbers_days_and_times_are_written_in_the_style_of_the_house()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        await owner.ChangeStudioAsync(now =>
            (now["style"]!["numbers"], now["style"]!["days"], now["style"]!["clock"]) = (
                "PointComma",
                "MonthFirst",
                "Twelve"
            )
        );
        var (project, page) = await studio.ProposeAsync(owner, client);
        static string Plain(JsonElement json) =>
            json.GetRawText().Replace("\\u00A0", " ", StringComparison.OrdinalIgnoreCase);
        Assert.Contains("6.297,60", Plain(await client.GetAsync($"{page}/api")));
        var record = Plain(await owner.GetAsync($"/api/projects/{project}"));
        Assert.Contains("Fri May 14", record);
        Assert.Contains("10:30 am", record);
        Assert.Equal("Monday, January 25", (await owner.GetAsync("/api/today")).GetProperty("date").GetString());
        var wall = JsonContent.Create(new { values = new Dictionary<string, string> { ["wall size"] = "31,5" } });
        Assert.True(
            (await owner.SendAsync(HttpMethod.Put, $"/api/projects/{project}/details", wall)).IsSuccessStatusCode
        );
        Assert.Contains("\"31,5\"", (await owner.GetAsync("/api/register?details=wall%20size")).GetRawText());
        // a table for other programs keeps the point
        var csv = await (await owner.AskAsync("/api/register.csv?details=wall%20size")).Content.ReadAsStringAsync();
        Assert.Contains("31.5", csv);
        Assert.Equal("4,5", (await owner.GetAsync("/typed/amount?text=4%2C50")).GetProperty("value").GetString());
        Assert.Contains("data-clock=\"Twelve\"", await (await owner.AskAsync("/today")).Content.ReadAsStringAsync());
    }
}
