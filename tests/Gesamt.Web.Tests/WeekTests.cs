using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Meetings;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Gesamt.Web.Planning;

namespace Gesamt.Web.Tests;

/// <summary>The week and the month: which work is done on which day, how full the days are, what falls into them.</summary>
public sealed class WeekTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly Instant Morning = Instant.FromUtc(2027, 1, 25, 10, 30);

    private Task<long> BeginAsync(string who) => studio.InquireAsync(new Visitor(studio), $"{who}@week.example");

    private static async Task<long> TaskAsync(
        Visitor owner,
        long project,
        string title,
        string? due = null,
        bool isClients = false
    )
    {
        var made = await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title,
                due,
                phase = (string?)null,
                isClients,
            }
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        return (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
    }

    private static async Task PutOnAsync(Visitor owner, long project, long task, string? day) =>
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/projects/{project}/tasks/{task}/day", new { day })).StatusCode
        );

    private static async Task TakesAsync(Visitor owner, long project, long task, string estimate) =>
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/projects/{project}/tasks/{task}/estimate", new { estimate })).StatusCode
        );

    private static JsonElement RowOf(JsonElement week, long project) =>
        week.GetProperty("rows").EnumerateArray().Single(row => row.GetProperty("project").GetInt64() == project);

    private static string?[] TitlesOf(JsonElement row, string day) =>
        [
            .. row.GetProperty("tasks")
                .EnumerateArray()
                .Where(task => task.GetProperty("day").GetString() == day)
                .Select(task => task.GetProperty("title").GetString()),
        ];

    private static string?[] Beside(JsonElement week, string group) =>
        [
            .. week.GetProperty("beside")
                .GetProperty("groups")
                .EnumerateArray()
                .Where(one => one.GetProperty("name").GetString() == group)
                .SelectMany(one => one.GetProperty("tasks").EnumerateArray())
                .Select(task => task.GetProperty("title").GetString()),
        ];

    private static string Load(JsonElement week, int day) =>
        week.GetProperty("days")[day].GetProperty("load").GetProperty("words").GetString()!;

    [Fact]
    public async Task A_task_moves_from_day_to_day_and_its_due_day_stays()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("moves"));
        var task = await TaskAsync(owner, project, "Sketch the gable", "2027-01-29");
        Assert.Contains("Sketch the gable", Beside(await owner.GetAsync("/api/week"), "Due in this week"));
        await PutOnAsync(owner, project, task, "2027-01-26");
        var week = await owner.GetAsync("/api/week?day=2027-01-31");
        Assert.Equal(["Sketch the gable"], TitlesOf(RowOf(week, project), "2027-01-26"));
        Assert.DoesNotContain("Sketch the gable", Beside(week, "Due in this week"));
        Assert.Contains(
            RowOf(week, project).GetProperty("notes").EnumerateArray(),
            note =>
                note.GetProperty("day").GetString() == "2027-01-29"
                && note.GetProperty("words").GetString() == "due: Sketch the gable"
        );
        // on its due day it is not named twice
        await PutOnAsync(owner, project, task, "2027-01-29");
        Assert.DoesNotContain(
            RowOf(await owner.GetAsync("/api/week"), project).GetProperty("notes").EnumerateArray(),
            note => note.GetProperty("words").GetString()!.StartsWith("due:", StringComparison.Ordinal)
        );
        var kept = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("tasks")
            .GetProperty("open")[0]
            .GetProperty("kept");
        Assert.Equal("2027-01-29", kept.GetProperty("due").GetString());
        await PutOnAsync(owner, project, task, null);
        Assert.Contains("Sketch the gable", Beside(await owner.GetAsync("/api/week"), "Due in this week"));
    }

    [Fact]
    public async Task A_save_from_before_the_move_is_answered_as_stale()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("stale"));
        var task = await TaskAsync(owner, project, "Prime the wall");
        await PutOnAsync(owner, project, task, "2027-01-27");
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/tasks/{task}",
            JsonContent.Create(
                new
                {
                    title = "Prime the wall",
                    due = (string?)null,
                    phase = (string?)null,
                    edition = 0,
                }
            )
        );
        Assert.Equal(HttpStatusCode.Conflict, saved.StatusCode);
    }

    [Fact]
    public async Task An_estimate_is_read_as_people_write_it_and_refused_with_what_is_allowed()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("estimate"));
        var task = await TaskAsync(owner, project, "Mix the blue");
        await TakesAsync(owner, project, task, "1:30");
        await PutOnAsync(owner, project, task, "2027-02-09");
        var week = await owner.GetAsync("/api/week?day=2027-02-09");
        Assert.Equal("1 h 30 min", RowOf(week, project).GetProperty("tasks")[0].GetProperty("estimate").GetString());
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/tasks/{task}/estimate",
            new { estimate = "ages" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("Write 3 h", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await TakesAsync(owner, project, task, "");
        Assert.Equal(
            "1 task says no hours",
            (await owner.GetAsync("/api/week?day=2027-02-09"))
                .GetProperty("days")[1]
                .GetProperty("load")
                .GetProperty("unsaid")
                .GetString()
        );
    }

    [Fact]
    public async Task What_is_done_stays_in_its_day_and_what_was_done_before_stands_on_that_day()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("done"));
        var task = await TaskAsync(owner, project, "Tape the edges");
        await TakesAsync(owner, project, task, "2 h");
        await PutOnAsync(owner, project, task, "2027-01-28");
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{project}/tasks/{task}/done", new { done = true })
            ).IsSuccessStatusCode
        );
        var row = RowOf(await owner.GetAsync("/api/week"), project);
        Assert.Equal(["Tape the edges"], TitlesOf(row, "2027-01-25"));
        Assert.True(row.GetProperty("tasks")[0].GetProperty("marks").GetProperty("done").GetBoolean());
        Assert.Contains("Tape the edges", Beside(await owner.GetAsync("/api/week?beside=Done"), "Monday 25 January"));
    }

    [Fact]
    public async Task What_an_earlier_week_was_to_do_is_not_lost()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("left"));
        var task = await TaskAsync(owner, project, "Return the ladder");
        await PutOnAsync(owner, project, task, "2027-01-21");
        Assert.Contains("Return the ladder", Beside(await owner.GetAsync("/api/week"), "Left from an earlier week"));
        var past = RowOf(await owner.GetAsync("/api/week?day=2027-01-21"), project);
        Assert.True(past.GetProperty("tasks")[0].GetProperty("marks").GetProperty("left").GetBoolean());
    }

    [Fact]
    public async Task The_clients_tasks_are_named_when_they_fall_due_and_are_no_load()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("theirs"));
        var task = await TaskAsync(owner, project, "Clear the bins", "2027-03-10", isClients: true);
        await TakesAsync(owner, project, task, "8 h");
        await PutOnAsync(owner, project, task, "2027-03-09");
        var week = await owner.GetAsync("/api/week?day=2027-03-10");
        var row = RowOf(week, project);
        Assert.Empty(row.GetProperty("tasks").EnumerateArray());
        Assert.StartsWith(
            "due from ",
            row.GetProperty("notes")[0].GetProperty("words").GetString(),
            StringComparison.Ordinal
        );
        Assert.EndsWith(" open", Load(week, 1), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_rehearsal_stands_in_no_week()
    {
        var owner = await studio.OwnerAsync();
        var kind = await studio.LookAsync(
            (GesamtDb db) => db.Kinds.Where(k => k.Key == "mural").Select(k => k.Id.Value).SingleAsync()
        );
        var begun = await owner.PostAsync(
            "/api/rehearsals",
            new
            {
                kind,
                name = "Nobody Atall",
                date = (string?)null,
                toOwner = false,
            }
        );
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        var rehearsal = await studio.LookAsync(db => db.Rehearsals.Select(p => p.Id.Value).FirstAsync());
        var task = await TaskAsync(owner, rehearsal, "Never planned");
        await PutOnAsync(owner, rehearsal, task, "2027-01-26");
        var week = await owner.GetAsync("/api/week?beside=Project");
        Assert.DoesNotContain("Never planned", week.GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_own_appointment_stands_among_the_meetings_and_no_client_is_offered_its_time()
    {
        var owner = await studio.OwnerAsync();
        var kept = await owner.PostAsync(
            "/api/appointments",
            new
            {
                what = "Dentist",
                where = "Quay Street 4",
                from = "2027-01-27T10:00:00",
                until = "2027-01-27T12:30:00",
            }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        var id = (await kept.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt32();
        var week = await owner.GetAsync("/api/week");
        var meeting = week.GetProperty("meetings").EnumerateArray().Single();
        Assert.Equal(
            ("2027-01-27", "10:00", "Dentist", id),
            (
                meeting.GetProperty("day").GetString(),
                meeting.GetProperty("time").GetString(),
                meeting.GetProperty("words").GetString(),
                meeting.GetProperty("appointment").GetInt32()
            )
        );
        Assert.StartsWith("2 h 30 min of ", Load(week, 2), StringComparison.Ordinal);
        Assert.Equal(
            Load(week, 2),
            (await owner.GetAsync("/api/today"))
                .GetProperty("day")
                .GetProperty("load")
                .GetProperty("days")[2]
                .GetProperty("load")
                .GetProperty("words")
                .GetString()
        );
        var offered = await studio.LookAsync(
            async (Desk desk) =>
            {
                await using var scope = studio.Services.CreateAsyncScope();
                var scheduling = scope.ServiceProvider.GetRequiredService<Meetings.Scheduling>();
                var kind = await desk.Db.MeetingKinds.AsNoTracking().FirstAsync(k => !k.Removed);
                return (await scheduling.OpenAsync(kind)).Select(start => desk.Calendar.LocalOf(start)).ToList();
            }
        );
        Assert.DoesNotContain(
            offered,
            at => at.Date == new LocalDate(2027, 1, 27) && at.TimeOfDay < new LocalTime(12, 30)
        );
        Assert.Contains(offered, at => at.Date == new LocalDate(2027, 1, 28) && at.TimeOfDay < new LocalTime(12, 30));
        var project = await BeginAsync("dentist");
        var met = await studio.LookAsync(
            (GesamtDb db) => db.MeetingKinds.Where(k => !k.Removed).Select(k => k.Id).FirstAsync()
        );
        var set = await owner.PostAsync(
            $"/api/projects/{project}/meetings",
            new { kind = met, start = "2027-01-27T12:00:00" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, set.StatusCode);
        Assert.Contains("for yourself: Dentist", await set.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/appointments/{id}/removed", new { removed = true })).StatusCode
        );
        Assert.Empty((await owner.GetAsync("/api/week")).GetProperty("meetings").EnumerateArray());
    }

    [Fact]
    public async Task An_appointment_that_cannot_be_is_refused_by_field()
    {
        var owner = await studio.OwnerAsync();
        async Task<string> RefusedAsync(string what, string from, string until)
        {
            var answer = await owner.PostAsync(
                "/api/appointments",
                new
                {
                    what,
                    where = "",
                    from,
                    until,
                }
            );
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            return (await answer.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
                .GetProperty("errors")
                .GetRawText();
        }
        Assert.Contains(
            "what",
            await RefusedAsync(" ", "2027-01-27T10:00:00", "2027-01-27T11:00:00"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "until",
            await RefusedAsync("Fair", "2027-01-27T10:00:00", "2027-01-27T10:00:00"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "days off",
            await RefusedAsync("Fair", "2027-01-27T10:00:00", "2027-03-27T10:00:00"),
            StringComparison.Ordinal
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.PostAsync("/api/appointments/4711/removed", new { removed = true })).StatusCode
        );
    }

    [Theory]
    [InlineData("/api/week?day=monday", "day")]
    [InlineData("/api/week?day=9999-12-31", "day")]
    [InlineData("/api/month?day=2027-13-01", "day")]
    [InlineData("/api/season?months=0", "months")]
    [InlineData("/api/season?months=1000", "months")]
    [InlineData("/api/season?day=1850-01-01", "day")]
    public async Task An_address_that_names_no_day_says_what_is_allowed(string address, string field)
    {
        var owner = await studio.OwnerAsync();
        var answer = await owner.SendAsync(HttpMethod.Get, address, null);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains($"\"{field}\"", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_load_of_a_week_equals_a_recount_over_random_plans()
    {
        var (owner, random) = (await studio.OwnerAsync(), new Random(20270125));
        // a week of its own, far from those of the other tests
        var monday = new LocalDate(2027, 6, 7);
        List<long> projects = [];
        for (var i = 0; i < 4; i++)
            projects.Add(await BeginAsync($"recount{i}"));
        for (var i = 0; i < 60; i++)
        {
            var project = projects[random.Next(projects.Count)];
            var task = await TaskAsync(owner, project, $"Task {i}", isClients: random.Next(6) == 0);
            if (random.Next(5) > 0)
                await TakesAsync(owner, project, task, $"{random.Next(10, 300)} min");
            if (random.Next(6) > 0)
                await PutOnAsync(owner, project, task, Iso(monday.PlusDays(random.Next(-3, 10))));
            if (random.Next(5) == 0)
                await owner.PostAsync($"/api/projects/{project}/tasks/{task}/removed", new { removed = true });
            if (random.Next(5) == 0)
                await owner.PostAsync($"/api/projects/{project}/tasks/{task}/done", new { done = true });
        }
        for (var i = 0; i < 6; i++)
        {
            var at = monday.PlusDays(random.Next(7)).At(new LocalTime(random.Next(8, 18), 0));
            await owner.PostAsync(
                "/api/appointments",
                new
                {
                    what = $"Own {i}",
                    where = "",
                    from = Iso(at),
                    until = Iso(at.PlusMinutes(random.Next(15, 200))),
                }
            );
        }
        var (loads, recount) = await studio.LookAsync(
            async (Desk desk) =>
            {
                var held = await HeldDays.OfAsync(desk, monday, 7);
                var hours = StoreJson.Read<List<OpenSpan>>(desk.Studio.OpenHours);
                var tasks = await desk.Db.Tasks.AsNoTracking().ToListAsync();
                var times = await desk.Db.Appointments.AsNoTracking().Where(a => !a.Removed).ToListAsync();
                return (
                    held.Loads.Select(one => (one.Day, one.Open, one.Planned, one.Unestimated)).ToList(),
                    Enumerable
                        .Range(0, 7)
                        .Select(at => monday.PlusDays(at))
                        .Select(day =>
                        {
                            // done today, long before their days, none of the done ones stands in this week
                            var of = tasks
                                .Where(t => t is { Removed: false, PublicId: null, DoneAt: null } && t.WorkOn == day)
                                .ToList();
                            return (
                                day,
                                hours
                                    .Where(span => span.Day == day.DayOfWeek)
                                    .Sum(span =>
                                        (int)Period.Between(span.From, span.Until, PeriodUnits.Minutes).Minutes
                                    ),
                                of.Sum(t => t.EstimateMinutes ?? 0)
                                    + times
                                        .Where(a => desk.Calendar.DateOf(a.Start) == day)
                                        .Sum(a => (int)(a.End - a.Start).TotalMinutes),
                                of.Count(t => t.EstimateMinutes is null)
                            );
                        })
                        .ToList()
                );
            }
        );
        Assert.Equal(recount, loads);
        Assert.Contains(loads, day => day.Planned > 0);
        // the page says the same
        var week = await owner.GetAsync($"/api/week?day={Iso(monday)}");
        Assert.Equal(
            loads.Sum(day => day.Planned),
            WorkTime.Read(week.GetProperty("load").GetString()!.Split(" planned")[0], 10_000)
        );
    }

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    private static string Iso(LocalDateTime at) => NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(at);

    [Fact]
    public async Task A_month_shows_the_days_of_its_weeks()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("month"));
        var task = await TaskAsync(owner, project, "Paint the shutters");
        await PutOnAsync(owner, project, task, "2027-04-30");
        var month = await owner.GetAsync("/api/month?day=2027-05-10");
        var days = month.GetProperty("days").EnumerateArray().ToList();
        Assert.Equal(("May 2027", 42), (month.GetProperty("title").GetString(), days.Count));
        Assert.Equal("2027-04-26", days[0].GetProperty("head").GetProperty("day").GetString());
        var friday = days[4];
        Assert.False(friday.GetProperty("isOfMonth").GetBoolean());
        Assert.Equal("Paint the shutters", friday.GetProperty("entries")[0].GetProperty("words").GetString());
    }

    [Fact]
    public async Task A_held_clock_says_what_a_new_day_makes_late()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("late"));
        var task = await TaskAsync(owner, project, "Post the samples", "2027-01-26");
        await PutOnAsync(owner, project, task, "2027-01-26");
        await studio.WaitUntilAsync(Morning + Duration.FromDays(2));
        var row = RowOf(await owner.GetAsync("/api/week"), project);
        Assert.Contains("Post the samples is late", row.GetProperty("under").GetString(), StringComparison.Ordinal);
        await studio.WaitUntilAsync(Morning);
    }

    [Fact]
    public async Task A_date_besides_the_one_that_matters_is_named_on_its_day()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("fitting");
        await studio.LookAsync(
            async (Hosting.Desk desk) =>
            {
                await desk.ActAsync(async act =>
                    await act.RecordAsync(
                        await act.OpenAsync(new(project)),
                        Core.Facts.Actor.Owner,
                        new Core.Facts.Happening.DateSet("fitting", new(2027, 1, 20), null),
                        new Core.Facts.Happening.DateSet("fitting", new(2027, 1, 28), null)
                    )
                );
                return true;
            }
        );
        var notes = RowOf(await owner.GetAsync("/api/week"), project).GetProperty("notes").EnumerateArray().ToList();
        Assert.Equal(
            ["2027-01-28"],
            notes
                .Where(note => note.GetProperty("words").GetString() == "fitting")
                .Select(note => note.GetProperty("day").GetString())
        );
    }
}
