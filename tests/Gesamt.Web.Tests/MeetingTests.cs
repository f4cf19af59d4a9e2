using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using NodaTime.Text;

namespace Gesamt.Web.Tests;

/// <summary>Meetings from the offer to the notes, on the real server.</summary>
public sealed class MeetingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private async Task<(long Project, Visitor Client, string Page, string Mail)> OfferAsync(Visitor owner, string mail)
    {
        var client = new Visitor(studio);
        await client.TokenAsync("/forms/mural");
        Assert.True(
            (
                await client.PostAsync(
                    "/forms/mural",
                    new { answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail } }
                )
            ).IsSuccessStatusCode
        );
        var project = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Projects.OrderByDescending(p => p.Id).Select(p => p.Id).FirstAsync()
        );
        var kind = (await owner.GetAsync("/api/meeting-kinds"))[0].GetProperty("id").GetInt32();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project.Value}/meetings/offer",
                    new
                    {
                        kind,
                        subject = "Shall we speak?",
                        body = "Choose here: [page link]",
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var link = System
            .Text.RegularExpressions.Regex.Match(
                await LetterAsync(owner, mail, "Shall we speak?"),
                @"http://studio\.example(/p/\S+)"
            )
            .Groups[1]
            .Value;
        var page = (await client.AskAsync(link)).Headers.Location!.ToString();
        await client.TokenAsync($"{page}/api");
        return (project.Value, client, page, mail);
    }

    private static List<(string Day, Instant Start, string Words)> Times(JsonElement times) =>
        [
            .. times
                .GetProperty("days")
                .EnumerateArray()
                .SelectMany(day =>
                    day.GetProperty("times")
                        .EnumerateArray()
                        .Select(time =>
                            (
                                day.GetProperty("day").GetString()!,
                                InstantPattern.ExtendedIso.Parse(time.GetProperty("start").GetString()!).Value,
                                time.GetProperty("words").GetString()!
                            )
                        )
                ),
        ];

    [Fact]
    public async Task A_time_is_chosen_in_the_clients_zone_confirmed_moved_and_reminded_of_once()
    {
        var owner = await studio.OwnerAsync();
        var (project, client, page, mail) = await OfferAsync(owner, "zone@lanternhouse.example");
        var times = await client.GetAsync($"{page}/api/times?zone=America/New_York");
        Assert.Equal(
            ("America/New_York", "Europe/Dublin"),
            (times.GetProperty("zone").GetString(), times.GetProperty("studioZone").GetString())
        );
        var first = Times(times)[0];
        // the studio's ten in the morning is five in New York in winter
        Assert.Equal(("Tue 26 Jan", "05:00"), (first.Day, first.Words));
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/times",
                    new
                    {
                        start = InstantPattern.ExtendedIso.Format(first.Start),
                        zone = "America/New_York",
                        answers = new[] { "Mona and Jan", "" },
                    }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var letter = await LetterAsync(owner, mail, "first call");
        Assert.Contains("05:00 (America/New_York), 10:00 in Europe/Dublin", letter);
        Assert.Contains("passcode", letter);
        Assert.Equal(
            "Planned",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );

        var meeting = (await client.GetAsync($"{page}/api"))
            .GetProperty("meetings")
            .GetProperty("all")[0]
            .GetProperty("id")
            .GetString();
        var later = Times(await client.GetAsync($"{page}/api/times?zone=America/New_York&moving={meeting}"))
            .First(t => t.Start > first.Start + Duration.FromDays(1));
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/meetings/{meeting}/move",
                    new { start = InstantPattern.ExtendedIso.Format(later.Start) }
                )
            ).IsSuccessStatusCode
        );
        await studio.WaitUntilAsync(later.Start - Duration.FromHours(23));
        await studio.TickAsync();
        var letters = (await owner.GetAsync($"/api/post-office?address={mail}"))
            .EnumerateArray()
            .Select(one => one.GetProperty("subject").GetString()!)
            .ToList();
        Assert.Single(letters, subject => subject.StartsWith("A reminder", StringComparison.Ordinal));
        // too near to be changed by the client, by the owner's notice of four hours
        await studio.WaitUntilAsync(later.Start - Duration.FromHours(3));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await client.PostAsync($"{page}/api/meetings/{meeting}/cancel")).StatusCode
        );
        await studio.WaitUntilAsync(later.Start + Duration.FromHours(1));
        Assert.Equal(
            "NoteMeeting",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );
        var id = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("meetings")
            .GetProperty("all")[0]
            .GetProperty("id")
            .GetInt64();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/meetings/{id}/held",
                    new { notes = "The neighbour decides.", agenda = "" }
                )
            ).IsSuccessStatusCode
        );
        Assert.DoesNotContain("neighbour", (await client.GetAsync($"{page}/api")).ToString());
    }

    [Fact]
    public async Task A_meeting_whose_time_is_over_asks_on_today_and_the_answer_can_be_taken_back()
    {
        await using var own = new EmptyStudio();
        var project = await own.InquireAndAnswerAsync("asks@lanternhouse.example");
        var owner = await own.OwnerAsync();
        var kind = (await owner.GetAsync("/api/meeting-kinds"))[0].GetProperty("id").GetInt32();
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{project}/meetings", new { kind, start = "2027-01-28T15:00:00" })
            ).IsSuccessStatusCode
        );
        // a task that a talk fulfils
        static object Task(string? doneBy) =>
            new
            {
                title = "Speak about the gable",
                due = (string?)null,
                phase = (string?)null,
                doneBy,
            };
        var task = (
            await (
                await owner.PostAsync($"/api/projects/{project}/tasks", Task(null))
            ).Content.ReadFromJsonAsync<JsonElement>()
        )
            .GetProperty("id")
            .GetInt64();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/tasks/{task}",
                    JsonContent.Create(Task("MeetingHeld"))
                )
            ).StatusCode
        );
        async Task<int> OpenTasksAsync() =>
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("tasks")
                .GetProperty("open")
                .GetArrayLength();
        async Task<List<(long Meeting, string When, bool IsOver)>> TodayAsync() =>
            [
                .. (await owner.GetAsync("/api/today"))
                    .GetProperty("day")
                    .GetProperty("meetings")
                    .EnumerateArray()
                    .Select(m =>
                        (
                            m.GetProperty("meeting").GetInt64(),
                            m.GetProperty("when").GetString()!,
                            m.GetProperty("isOver").GetBoolean()
                        )
                    ),
            ];
        async Task<string> WaitsAsync() =>
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()!;
        await own.WaitUntilAsync(Instant.FromUtc(2027, 1, 28, 9, 0));
        owner = await own.OwnerAsync();
        var meeting = Assert.Single(await TodayAsync()).Meeting;
        async Task<HttpStatusCode> SayAsync(string what) =>
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/meetings/{meeting}/{what}",
                    what == "held" ? new { notes = (string?)null, agenda = (string?)null } : null
                )
            ).StatusCode;
        Assert.Equal(HttpStatusCode.Conflict, await SayAsync("missed")); // still to come
        Assert.Equal(HttpStatusCode.Conflict, await SayAsync("again"));

        async Task<string> UnderAsync() =>
            (await owner.GetAsync($"/api/projects/{project}/entries/Meeting/{meeting}"))
                .GetProperty("under")
                .GetString()!;

        // it asks on the days after, too
        await own.WaitUntilAsync(Instant.FromUtc(2027, 1, 30, 9, 0));
        owner = await own.OwnerAsync();
        (long, string, bool)[] asks = [(meeting, "Thu 28 Jan, 15:00", true)];
        Assert.Equal(asks, await TodayAsync());
        Assert.Equal("NoteMeeting", await WaitsAsync());
        foreach (var said in new[] { "missed", "held" })
        {
            Assert.Equal(HttpStatusCode.NoContent, await SayAsync(said));
            Assert.Empty(await TodayAsync());
            Assert.NotEqual("NoteMeeting", await WaitsAsync());
            Assert.Equal(said == "held" ? 0 : 1, await OpenTasksAsync());
            Assert.Contains(
                said == "held" ? "First call held" : "First call did not take place",
                (await owner.GetAsync($"/api/projects/{project}")).GetProperty("line").GetRawText()
            );
            var told = said == "held" ? "held" : "did not take place";
            Assert.EndsWith($", {told}", await UnderAsync());
            Assert.Equal(HttpStatusCode.Conflict, await SayAsync("missed"));
            Assert.Equal(HttpStatusCode.NoContent, await SayAsync("again"));
            Assert.Equal(asks, await TodayAsync());
            Assert.Equal("NoteMeeting", await WaitsAsync());
            Assert.Equal(1, await OpenTasksAsync()); // what the talk had ticked off is open again
        }
        // what is over asks nothing any more
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Lost",
                        words = (string?)null,
                        credit = false,
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Empty(await TodayAsync());
        // nobody was written to
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/post-office?address=asks@lanternhouse.example")).EnumerateArray(),
            letter => letter.GetProperty("subject").GetString()!.Contains("cancel", StringComparison.OrdinalIgnoreCase)
        );
    }

    private static async Task<string> LetterAsync(Visitor owner, string mail, string subject)
    {
        var letter = (await owner.GetAsync($"/api/post-office?address={mail}"))
            .EnumerateArray()
            .First(one =>
                one.GetProperty("subject").GetString()!.Contains(subject, StringComparison.OrdinalIgnoreCase)
            );
        return (await owner.GetAsync($"/api/post-office/{letter.GetProperty("id").GetInt64()}"))
            .GetProperty("text")
            .GetString()!;
    }

    [Fact]
    public async Task Of_many_visitors_one_gets_a_time_and_the_others_are_refused_kindly()
    {
        var owner = await studio.OwnerAsync();
        List<(long Project, Visitor Client, string Page, string Mail)> all = [];
        for (var i = 0; i < 6; i++)
            all.Add(await OfferAsync(owner, $"race{i}@lanternhouse.example"));
        var start = Times(await all[0].Client.GetAsync($"{all[0].Page}/api/times"))[^1].Start;
        var answers = await Task.WhenAll(
            all.Select(one =>
                one.Client.PostAsync(
                    $"{one.Page}/api/times",
                    new { start = InstantPattern.ExtendedIso.Format(start), zone = "Europe/Dublin" }
                )
            )
        );
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.All(
            answers.Where(answer => !answer.IsSuccessStatusCode),
            answer => Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode)
        );
        Assert.Contains(
            "taken a moment ago",
            await answers.First(answer => !answer.IsSuccessStatusCode).Content.ReadAsStringAsync()
        );
        Assert.Equal(
            1,
            await studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Meetings.CountAsync(m => m.Start == start))
        );
    }

    [Fact]
    public async Task What_the_outside_calendar_took_while_the_page_was_open_is_refused_kindly()
    {
        var owner = await studio.OwnerAsync();
        Assert.True(
            (
                await owner.PostAsync(
                    "/api/calendars",
                    new
                    {
                        name = "Home",
                        address = "stand-in:calendar",
                        content = (string?)null,
                    }
                )
            ).IsSuccessStatusCode
        );
        var (_, client, page, _) = await OfferAsync(owner, "outside@lanternhouse.example");
        var chosen = Times(await client.GetAsync($"{page}/api/times"))[^4];
        var local = World(chosen.Start);
        Assert.True(
            (
                await owner.PostAsync(
                    "/api/outside-calendar",
                    new
                    {
                        id = 0,
                        title = "Dentist",
                        start = local,
                        minutes = 30,
                    }
                )
            ).IsSuccessStatusCode
        );
        var refused = await client.PostAsync(
            $"{page}/api/times",
            new { start = InstantPattern.ExtendedIso.Format(chosen.Start), zone = "Europe/Dublin" }
        );
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.DoesNotContain(Times(await client.GetAsync($"{page}/api/times")), time => time.Start == chosen.Start);
    }

    private static string World(Instant at) =>
        LocalDateTimePattern.GeneralIso.Format(at.InZone(DateTimeZoneProviders.Tzdb["Europe/Dublin"]).LocalDateTime);

    [Fact]
    public async Task A_link_of_ones_own_takes_the_place_of_a_room()
    {
        var owner = await studio.OwnerAsync();
        var kinds = (await owner.GetAsync("/api/meeting-kinds")).EnumerateArray().ToList();
        int Kind(bool video) =>
            kinds.First(kind => kind.GetProperty("place").GetString() == "Video" == video).GetProperty("id").GetInt32();
        var project = await studio.InquireAsync(new Visitor(studio), "link@meet.example");
        var at = $"/api/projects/{project}/meetings";
        foreach (var (kind, link) in new[] { (Kind(true), "javascript:alert(1)"), (Kind(false), "https://a.example") })
        {
            var refused = await owner.PostAsync(
                at,
                new
                {
                    kind,
                    start = "2027-03-02T10:00:00",
                    link,
                }
            );
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains("\"link\"", await refused.Content.ReadAsStringAsync());
        }
        var set = await owner.PostAsync(
            at,
            new
            {
                kind = Kind(true),
                start = "2027-03-02T10:00:00",
                link = "www.calls.example/marrin",
            }
        );
        Assert.True(set.IsSuccessStatusCode, await set.Content.ReadAsStringAsync());
        var (room, code) = await studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) =>
            {
                var meeting = await db.Meetings.SingleAsync(m => m.ProjectId == new ProjectId(project));
                return (meeting.Room, meeting.Passcode);
            }
        );
        Assert.Equal(("https://www.calls.example/marrin", null), (room, code));
        await studio.TickAsync();
        var kindName = kinds
            .First(kind => kind.GetProperty("id").GetInt32() == Kind(true))
            .GetProperty("name")
            .GetString()!;
        var letter = await LetterAsync(owner, "link@meet.example", kindName.ToLowerInvariant());
        Assert.Contains("By video: https://www.calls.example/marrin", letter, StringComparison.Ordinal);
        Assert.DoesNotContain("passcode", letter, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_room_opens_by_its_passcode_alone()
    {
        var owner = await studio.OwnerAsync();
        var (project, client, page, mail) = await OfferAsync(owner, "room@lanternhouse.example");
        var start = Times(await client.GetAsync($"{page}/api/times"))[^2].Start;
        await client.PostAsync(
            $"{page}/api/times",
            new { start = InstantPattern.ExtendedIso.Format(start), zone = "Europe/Dublin" }
        );
        await studio.TickAsync();
        var match = System.Text.RegularExpressions.Regex.Match(
            await LetterAsync(owner, mail, "first call"),
            @"/rooms/(\w+) \(passcode (\d+)\)"
        );
        var guest = new Visitor(studio);
        await guest.TokenAsync($"/rooms/{match.Groups[1].Value}/door");
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await guest.PostAsync($"/rooms/{match.Groups[1].Value}/door", new { passcode = "1" })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await guest.PostAsync($"/rooms/{match.Groups[1].Value}/door", new { passcode = match.Groups[2].Value })
            ).StatusCode
        );
        Assert.True(project > 0);
    }

    [Fact]
    public async Task The_feed_opens_by_its_key_and_a_new_one_closes_the_old()
    {
        var owner = await studio.OwnerAsync();
        await owner.PostAsync("/api/studio/feed");
        string Path(JsonElement of) =>
            of.GetProperty("feed").GetString()!.Replace("http://studio.example", "", StringComparison.Ordinal);
        var path = Path(await owner.GetAsync("/api/studio"));
        var anybody = new Visitor(studio);
        Assert.StartsWith("BEGIN:VCALENDAR", await (await anybody.AskAsync(path)).Content.ReadAsStringAsync());
        await owner.PostAsync("/api/studio/feed");
        Assert.Equal(HttpStatusCode.NotFound, (await anybody.AskAsync(path)).StatusCode);
        Assert.NotEqual(path, Path(await owner.GetAsync("/api/studio")));
    }

    [Theory]
    [InlineData("minutes", 0, "From 5 to 480")]
    [InlineData("daysAhead", 400, "From 1 to 365")]
    [InlineData("buffer", -1, "From 0 to 240")]
    public async Task A_kind_of_meeting_out_of_range_names_the_field(string field, int value, string said)
    {
        var owner = await studio.OwnerAsync();
        var kind = JsonSerializer.SerializeToNode((await owner.GetAsync("/api/meeting-kinds"))[0])!.AsObject();
        kind[field] = value;
        var answer = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/meeting-kinds/{kind["id"]}",
            JsonContent.Create(kind)
        );
        var text = await answer.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains($"\"{field}\"", text);
        Assert.Contains(said, text);
    }

    [Fact]
    public async Task A_calendar_inside_the_house_or_none_at_all_is_refused()
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var address in new[]
            {
                "http://127.0.0.1:9/cal.ics",
                "http://[::1]/cal.ics",
                "http://192.168.1.1/cal.ics",
                "ftp://x",
                "nonsense",
            }
        )
            Assert.Contains(
                "\"address\"",
                await (
                    await owner.PostAsync(
                        "/api/calendars",
                        new
                        {
                            name = "Inside",
                            address,
                            content = (string?)null,
                        }
                    )
                ).Content.ReadAsStringAsync()
            );
        Assert.Contains(
            "\"content\"",
            await (
                await owner.PostAsync(
                    "/api/calendars",
                    new
                    {
                        name = "File",
                        address = (string?)null,
                        content = "hello",
                    }
                )
            ).Content.ReadAsStringAsync()
        );
    }

    [Theory]
    [InlineData("127.0.0.1", true)]
    [InlineData("10.1.2.3", true)]
    [InlineData("172.31.0.1", true)]
    [InlineData("172.32.0.1", false)]
    [InlineData("169.254.169.254", true)]
    [InlineData("100.64.0.1", true)]
    [InlineData("::ffff:10.0.0.1", true)]
    [InlineData("fd00::1", true)]
    [InlineData("fe80::1", true)]
    [InlineData("93.184.216.34", false)]
    [InlineData("2606:2800:220:1::1", false)]
    public void Addresses_inside_the_house_are_known(string address, bool inside) =>
        Assert.Equal(inside, Gesamt.Web.Hosting.OutsideConnections.IsInside(IPAddress.Parse(address)));
}
