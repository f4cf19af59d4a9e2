using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>Run sheets: written, laid, agreed, provisional again, printed for each reader.</summary>
public sealed class RunSheetTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Mine = "Hide the cake";

    private static object Item(string what, int day, string start, string whom = "Everybody", string length = "") =>
        new
        {
            key = what,
            day,
            start,
            length,
            what,
            where = "the yard",
            who = "",
            @for = whom,
            earlier = (int?)null,
        };

    private static readonly object[] TwoDays =
    [
        Item("Doors", 0, "18:00:00", length: "2 h"),
        Item("Van comes", -1, "08:30:00", "Suppliers"),
        Item(Mine, 0, "07:00:00", "Me"),
        Item("Seats", 0, "19:10:00", "Guests"),
    ];

    /// <summary>A project with its client’s page open.</summary>
    private async Task<(Visitor Owner, Visitor Client, long Project, string Page)> BeginAsync(string who)
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var mail = $"{who}@runs.example";
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        await AskedAsync(
            owner.PostAsync(
                $"/api/projects/{project}/letter",
                new { subject = "Here", body = "Your page: [page link]" }
            )
        );
        await studio.TickAsync();
        return (owner, client, project, await studio.EnterAsync(owner, client, mail));
    }

    private static async Task<JsonElement> AskedAsync(Task<HttpResponseMessage> asked)
    {
        var answer = await asked;
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return text.Length > 0 ? JsonDocument.Parse(text).RootElement : default;
    }

    private static async Task<HttpResponseMessage> SavingAsync(
        Visitor owner,
        long project,
        object[] items,
        int earlier = 30
    )
    {
        var sheet = await owner.GetAsync($"/api/projects/{project}/run-sheet");
        return await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/run-sheet",
            JsonContent.Create(
                new
                {
                    edition = sheet.GetProperty("edition").GetInt32(),
                    dateName = sheet.GetProperty("dateName").GetString(),
                    earlier,
                    items,
                }
            )
        );
    }

    private static async Task<JsonElement> SaveAsync(Visitor owner, long project, object[] items, int earlier = 30) =>
        await AskedAsync(SavingAsync(owner, project, items, earlier));

    private static async Task<JsonElement> ShownAsync(Visitor client, string page) =>
        (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("runSheet");

    private static Task OpenAsync(Visitor owner, long project) =>
        AskedAsync(owner.PostAsync($"/api/projects/{project}/parts", new { part = "RunSheet", open = true }));

    [Fact]
    public async Task It_is_kept_by_day_and_hour_and_told_in_one_line_of_the_record()
    {
        var (owner, _, project, _) = await BeginAsync("kept");
        Assert.Equal(
            JsonValueKind.Null,
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("runSheet").ValueKind
        );
        var sheet = await SaveAsync(owner, project, TwoDays);
        Assert.Equal(
            ["Van comes", Mine, "Doors", "Seats"],
            sheet.GetProperty("items").EnumerateArray().Select(item => item.GetProperty("what").GetString())
        );
        Assert.Equal("2 h", sheet.GetProperty("items")[2].GetProperty("length").GetString());
        Assert.Equal(
            "provisional, 2 days, 4 items",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("runSheet").GetString()
        );
    }

    [Fact]
    public async Task What_is_wrong_is_named_by_its_line_and_an_older_text_does_not_win()
    {
        var (owner, _, project, _) = await BeginAsync("wrong");
        var refused = await SavingAsync(
            owner,
            project,
            [Item("Doors", 0, "18:00:00", length: "a while"), Item(" ", 90, "08:00:00")],
            earlier: 900
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var said = await refused.Content.ReadAsStringAsync();
        Assert.Contains("items[0].length", said);
        Assert.Contains("items[1].what", said);
        Assert.Contains("items[1].day", said);
        await SaveAsync(owner, project, TwoDays);
        var stale = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/run-sheet",
            JsonContent.Create(
                new
                {
                    edition = 0,
                    dateName = "opening day",
                    earlier = 0,
                    items = Array.Empty<object>(),
                }
            )
        );
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
    }

    [Fact]
    public async Task The_client_agrees_to_what_they_read_and_any_change_makes_it_provisional_again()
    {
        var (owner, client, project, page) = await BeginAsync("agrees");
        await SaveAsync(owner, project, TwoDays);
        // not before its part is open
        Assert.Equal(JsonValueKind.Null, (await ShownAsync(client, page)).ValueKind);
        var closed = await client.PostAsync($"{page}/api/run-sheet/agree", new { hash = "x" });
        Assert.Equal(HttpStatusCode.NotFound, closed.StatusCode);
        await OpenAsync(owner, project);
        var shown = await ShownAsync(client, page);
        Assert.DoesNotContain(Mine, shown.GetRawText());
        Assert.Equal("17:30", shown.GetProperty("days")[1].GetProperty("lines")[0].GetProperty("guests").GetString());
        var agree = new { hash = shown.GetProperty("hash").GetString() };
        await AskedAsync(client.PostAsync($"{page}/api/run-sheet/agree", agree));
        Assert.Equal("Mon 25 Jan", (await ShownAsync(client, page)).GetProperty("agreed").GetString());

        // what is the owner's alone changes nothing that was agreed
        await SaveAsync(owner, project, [.. TwoDays, Item("Ring my mother", 0, "06:00:00", "Me")]);
        Assert.Equal("Mon 25 Jan", (await ShownAsync(client, page)).GetProperty("agreed").GetString());

        var changed = await SaveAsync(
            owner,
            project,
            [TwoDays[1], TwoDays[2], TwoDays[3], Item("Doors", 0, "19:00:00", length: "2 h")]
        );
        Assert.Equal("provisional, changed since it was agreed", changed.GetProperty("state").GetString());
        var again = await ShownAsync(client, page);
        Assert.Equal(JsonValueKind.Null, again.GetProperty("agreed").ValueKind);
        Assert.Equal(
            ["Doors: 19:00 instead of 18:00"],
            again.GetProperty("changes").EnumerateArray().Select(one => one.GetString())
        );
        // nobody agrees to what they have not read
        var late = await client.PostAsync($"{page}/api/run-sheet/agree", agree);
        Assert.Contains("changed while you read it", await late.Content.ReadAsStringAsync());
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/run-sheet/agreed", new { }));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/run-sheet/agreed", new { })).StatusCode
        );
    }

    [Fact]
    public async Task It_moves_with_its_date()
    {
        var (owner, client, project, page) = await BeginAsync("moves");
        await SaveAsync(owner, project, TwoDays);
        await OpenAsync(owner, project);
        var before = (await ShownAsync(client, page)).GetProperty("days")[1].GetProperty("words").GetString();
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/run-sheet/agreed", new { }));
        await AskedAsync(
            owner.PostAsync(
                $"/api/projects/{project}/date",
                new
                {
                    to = "2027-10-02",
                    also = Array.Empty<string>(),
                    confirmed = true,
                }
            )
        );
        var after = await ShownAsync(client, page);
        Assert.Equal(
            ["Friday 1 October 2027", "Saturday 2 October 2027"],
            after.GetProperty("days").EnumerateArray().Select(day => day.GetProperty("words").GetString())
        );
        Assert.Equal(
            $"The day is Saturday 2 October 2027 instead of {before}",
            Assert.Single(after.GetProperty("changes").EnumerateArray()).GetString()
        );
    }

    [Fact]
    public async Task One_that_was_kept_is_laid_on_the_date_with_its_days_shown_before()
    {
        var (owner, _, project, _) = await BeginAsync("laid");
        var made = await AskedAsync(
            owner.PostAsync(
                "/api/run-sheets",
                new
                {
                    name = "Two-day workshop",
                    edition = 0,
                    items = TwoDays,
                }
            )
        );
        var key = made.GetProperty("key").GetString();
        var offered = (await owner.GetAsync($"/api/projects/{project}/run-sheet/templates"))
            .EnumerateArray()
            .Single(one => one.GetProperty("key").GetString() == key);
        Assert.Equal(2, offered.GetProperty("days").GetArrayLength());
        var day = offered.GetProperty("days")[1].GetProperty("words").GetString();
        var sheet = await AskedAsync(
            owner.PostAsync($"/api/projects/{project}/run-sheet/lay", new { key, edition = 0 })
        );
        Assert.Equal(4, sheet.GetProperty("items").GetArrayLength());
        Assert.Equal(day, sheet.GetProperty("days")[1].GetProperty("words").GetString());
        // laid again, it stands beside itself: nothing that was written is lost
        var twice = await AskedAsync(
            owner.PostAsync($"/api/projects/{project}/run-sheet/lay", new { key, edition = 1 })
        );
        Assert.Equal(8, twice.GetProperty("items").GetArrayLength());
        await AskedAsync(owner.PostAsync($"/api/run-sheets/{key}/removed", new { removed = true }));
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/run-sheets")).EnumerateArray(),
            one => one.GetProperty("key").GetString() == key
        );
        Assert.Equal(
            8,
            (await owner.GetAsync($"/api/projects/{project}/run-sheet")).GetProperty("items").GetArrayLength()
        );
    }

    [Fact]
    public async Task Each_reader_has_a_printed_copy_of_their_own_one_day_a_page()
    {
        var (owner, client, project, page) = await BeginAsync("prints");
        await SaveAsync(owner, project, TwoDays);
        await OpenAsync(owner, project);
        async Task<string[]> PagesAsync(Visitor who, string address)
        {
            var file = await who.AskAsync(address);
            Assert.Equal(HttpStatusCode.OK, file.StatusCode);
            return PdfTools
                .Run("pdftotext", await file.Content.ReadAsByteArrayAsync(), "-layout", "FILE", "-")
                .Said.TrimEnd('\f')
                .Split('\f');
        }
        var mine = await PagesAsync(owner, $"/api/projects/{project}/run-sheet.pdf");
        Assert.Equal(2, mine.Length);
        Assert.Contains("Van comes", mine[0]);
        Assert.Contains(Mine, mine[1]);
        Assert.Contains("Provisional", mine[0]);
        Assert.Contains("guests are told 17:30", mine[1]);
        var guests = await PagesAsync(owner, $"/api/projects/{project}/run-sheet.pdf?reader=Guests");
        Assert.Contains("17:30", Assert.Single(guests));
        Assert.DoesNotContain("18:00", guests[0]);
        Assert.DoesNotContain("Van comes", guests[0]);
        Assert.Contains(
            "18:00",
            (await PagesAsync(owner, $"/api/projects/{project}/run-sheet.pdf?reader=Suppliers"))[1]
        );
        var theirs = string.Concat(await PagesAsync(client, $"{page}/api/run-sheet.pdf"));
        Assert.Contains("Van comes", theirs);
        Assert.DoesNotContain(Mine, theirs);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await client.AskAsync($"{page}/api/run-sheet.pdf?reader=Me")).StatusCode
        );
    }

    [Fact]
    public async Task A_question_about_a_part_is_the_owners_to_answer()
    {
        var (owner, client, project, page) = await BeginAsync("asks");
        await SaveAsync(owner, project, TwoDays);
        var closed = await client.PostAsync($"{page}/api/ask", new { part = "RunSheet", words = "Where?" });
        Assert.Equal(HttpStatusCode.NotFound, closed.StatusCode);
        await OpenAsync(owner, project);
        await AskedAsync(client.PostAsync($"{page}/api/ask", new { part = "RunSheet", words = "Where do we park?" }));
        var turn = (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path").GetProperty("turn");
        Assert.Equal("Yours", turn.GetProperty("side").GetString());
        Assert.Equal("They ask about the run sheet", turn.GetProperty("words").GetString());
        await AskedAsync(
            owner.PostAsync($"/api/projects/{project}/letter", new { subject = "Parking", body = "Behind the hall." })
        );
        await studio.TickAsync();
        Assert.NotEqual(
            "They ask about the run sheet",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("words")
                .GetString()
        );
    }

    /// <summary>STATUS:TENTATIVE until it is agreed (RFC 5545, 3.8.1.11).</summary>
    [Fact]
    public async Task Its_hours_stand_in_the_owners_feed_and_say_that_they_are_provisional()
    {
        var (owner, _, project, _) = await BeginAsync("feed");
        await SaveAsync(owner, project, TwoDays);
        await owner.PostAsync("/api/studio/feed");
        var feed = (await owner.GetAsync("/api/studio")).GetProperty("feed").GetString()!;
        async Task<string[]> EventsAsync() =>
            [
                .. (
                    await (
                        await new Visitor(studio).AskAsync(
                            feed.Replace("http://studio.example", "", StringComparison.Ordinal)
                        )
                    ).Content.ReadAsStringAsync()
                )
                    .Split("BEGIN:VEVENT")
                    .Where(one => one.Contains($"UID:run-{project}-", StringComparison.Ordinal)),
            ];
        var events = await EventsAsync();
        Assert.Equal(4, events.Length);
        Assert.All(events, one => Assert.Contains("STATUS:TENTATIVE", one));
        // the day before 14 May 2027, 08:30 in Dublin's summer
        Assert.Contains(events, one => one.Contains("DTSTART:20270513T073000Z", StringComparison.Ordinal));
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/run-sheet/agreed", new { }));
        Assert.All(await EventsAsync(), one => Assert.Contains("STATUS:CONFIRMED", one));
    }
}
