using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;

namespace Gesamt.Web.Tests;

/// <summary>What a project's work is made of, changed on the one project: its phases, quotes of suppliers, tasks after an end.</summary>
public sealed class WorkTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private Task<long> BeginAsync(string who) => studio.InquireAsync(new Visitor(studio), $"{who}@work.example");

    private static async Task<JsonElement> SheetAsync(Visitor owner, long project) =>
        (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet");

    private static async Task<string[]> PhasesAsync(Visitor owner, long project) =>
        [
            .. (await SheetAsync(owner, project))
                .GetProperty("work")
                .GetProperty("phases")
                .EnumerateArray()
                .Select(phase => $"{phase.GetProperty("name")} {phase.GetProperty("state")}"),
        ];

    private static Task<HttpResponseMessage> ArrangeAsync(
        Visitor owner,
        long project,
        params (string Name, string? Was)[] phases
    ) =>
        owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/phases",
            JsonContent.Create(
                new
                {
                    phases = phases.Select(phase => new
                    {
                        name = phase.Name,
                        was = phase.Was,
                        days = (int?)null,
                    }),
                }
            )
        );

    [Fact]
    public async Task Phases_of_one_project_are_arranged_and_its_kind_and_others_stay()
    {
        var owner = await studio.OwnerAsync();
        var (project, other) = (await BeginAsync("phases"), await BeginAsync("others"));
        var before = await PhasesAsync(owner, other);
        Assert.Equal("survey Ahead", before[0]);
        var task = await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title = "Scale the drawing",
                due = (string?)null,
                phase = "sketch",
            }
        );
        Assert.True(task.IsSuccessStatusCode);
        await owner.PostAsync($"/api/projects/{project}/phases", new { phase = "sketch", state = "InWork" });
        var arranged = await ArrangeAsync(
            owner,
            project,
            ("drawing", "sketch"),
            ("stencils", null),
            ("paint", "paint")
        );
        Assert.True(arranged.IsSuccessStatusCode, await arranged.Content.ReadAsStringAsync());
        Assert.Equal(["drawing InWork", "stencils Ahead", "paint Ahead"], await PhasesAsync(owner, project));
        Assert.Equal(
            "drawing",
            (await SheetAsync(owner, project))
                .GetProperty("tasks")
                .GetProperty("open")[0]
                .GetProperty("kept")
                .GetProperty("phase")
                .GetString()
        );
        Assert.Equal(before, await PhasesAsync(owner, other));
        foreach (
            var (phases, field) in new ((string, string?)[], string)[]
            {
                ([("", null)], "phases[0].name"),
                ([("paint", "paint"), ("Paint", null)], "phases[1].name"),
                ([("wax", "varnish")], "phases[0].name"),
                ([.. Enumerable.Range(0, 31).Select(i => ($"phase {i}", (string?)null))], "phases"),
            }
        )
        {
            var refused = await ArrangeAsync(owner, project, phases);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
        // all of them dropped, it is work without phases
        Assert.True((await ArrangeAsync(owner, project)).IsSuccessStatusCode);
        Assert.Empty(await PhasesAsync(owner, project));
    }

    [Fact]
    public async Task A_quote_is_kept_with_its_file_and_becomes_a_cost_once()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("quote"));
        object Quote(string amount = "369", string supplier = "Northgate Hire") =>
            new
            {
                supplier,
                what = "Scissor lift, three days",
                amount,
                tax = "23",
                validUntil = "2027-01-20",
            };
        foreach (var (quote, field) in new[] { (Quote(amount: "much"), "amount"), (Quote(supplier: " "), "supplier") })
        {
            var refused = await owner.PostAsync($"/api/projects/{project}/quotes", quote);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
        var made = await owner.PostAsync($"/api/projects/{project}/quotes", Quote());
        var id = (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
        var filed = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/quotes/{id}/file?name=quote.pdf",
            new ByteArrayContent(Encoding.ASCII.GetBytes("%PDF-1.4 quote"))
            {
                Headers = { ContentType = new("application/octet-stream") },
            }
        );
        Assert.Equal(HttpStatusCode.NoContent, filed.StatusCode);
        async Task<JsonElement> OneAsync() =>
            (await owner.GetAsync($"/api/projects/{project}/spent")).GetProperty("quotes")[0];
        Assert.Equal("ran out Wed 20 Jan", (await OneAsync()).GetProperty("stands").GetString());
        var taken = await owner.PostAsync($"/api/projects/{project}/quotes/{id}/take");
        Assert.True(taken.IsSuccessStatusCode, await taken.Content.ReadAsStringAsync());
        var spent = await owner.GetAsync($"/api/projects/{project}/spent");
        var cost = Assert.Single(spent.GetProperty("costs").EnumerateArray());
        Assert.Equal(
            ("Scissor lift, three days", "Northgate Hire", "quote.pdf"),
            (
                cost.GetProperty("what").GetString(),
                cost.GetProperty("payee").GetString(),
                cost.GetProperty("receipt").GetString()
            )
        );
        Assert.Equal("taken", (await OneAsync()).GetProperty("stands").GetString());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/quotes/{id}/take")).StatusCode
        );
        // the cost taken out, the quote is free again
        await owner.PostAsync(
            $"/api/projects/{project}/costs/{cost.GetProperty("id").GetInt64()}/removed",
            new { removed = true }
        );
        Assert.False((await OneAsync()).GetProperty("taken").GetBoolean());
    }

    [Fact]
    public async Task An_ending_begins_its_routine_whose_tasks_come_up_on_their_day_and_go_when_it_is_taken_up_again()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var kind = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .First(one => one.GetProperty("key").GetString() == "mural")
            .GetProperty("id")
            .GetInt64();
        var list = await owner.PostAsync(
            "/api/task-lists",
            new
            {
                name = "After a no",
                edition = 0,
                items = new[]
                {
                    new
                    {
                        title = "Send the photographs back",
                        count = 0,
                        unit = "Days",
                        phase = (string?)null,
                        doneBy = (string?)null,
                    },
                },
            }
        );
        var key = (await list.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("key")
            .GetString();
        await own.LookAsync(async db =>
        {
            var routine = RoutineText.Read(
                $"routine: After a no\nkey: after-no\nbegins with: ended\n\nstep: closing\nwhen: 0 days after ended\ndo: tasks {key}\nmode: by itself\n\nstep: word\nwhen: 2 days after the step before at 09:00\ndo: letter first-answer\nmode: asks first\n"
            );
            db.Routines.Add(
                new()
                {
                    KindId = new(kind),
                    Key = routine.Key,
                    Routine = StoreJson.Write(routine),
                    Position = 90,
                }
            );
            return await db.SaveChangesAsync();
        });
        var project = await own.InquireAsync(new Visitor(own), "no@work.example");
        await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title = "Measure the wall",
                due = "2027-01-26",
                phase = (string?)null,
            }
        );
        async Task<Gesamt.Core.Turns.Side> TurnAsync() =>
            await own.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.Turn).SingleAsync()
            );
        await own.WaitUntilAsync(NodaTime.Instant.FromUtc(2027, 1, 27, 12, 0));
        var ended = await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "Lost" });
        Assert.True(ended.IsSuccessStatusCode, await ended.Content.ReadAsStringAsync());
        await own.TickAsync();
        // the task of the routine is due; the one that was open at the end asks for nothing any more
        var open = (await SheetAsync(owner, project)).GetProperty("tasks").GetProperty("open");
        Assert.Equal(2, open.GetArrayLength());
        Assert.Contains("Send the photographs back", open.GetRawText());
        var closing = open.EnumerateArray()
            .Single(task => task.GetProperty("kept").GetProperty("title").GetString() == "Send the photographs back");
        var id = closing.GetProperty("id").GetInt64();
        // the list counts from the opening day, which lies ahead: it comes up on its day
        Assert.Equal(Gesamt.Core.Turns.Side.Nobodys, await TurnAsync());
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/tasks/{id}",
            JsonContent.Create(
                new
                {
                    title = "Send the photographs back",
                    due = "2027-01-28",
                    phase = (string?)null,
                }
            )
        );
        await own.WaitUntilAsync(NodaTime.Instant.FromUtc(2027, 1, 28, 9, 0));
        Assert.Equal(Gesamt.Core.Turns.Side.Yours, await TurnAsync());
        await owner.PostAsync($"/api/projects/{project}/tasks/{id}/done", new { done = true });
        Assert.Equal(Gesamt.Core.Turns.Side.Nobodys, await TurnAsync());
        // a letter of the routine waits for an OK as any other, and goes once the project is taken up again
        await own.WaitUntilAsync(NodaTime.Instant.FromUtc(2027, 1, 29, 9, 0));
        string Held(JsonElement record) =>
            string.Join(
                ' ',
                record
                    .GetProperty("line")
                    .GetProperty("ahead")
                    .EnumerateArray()
                    .Where(one => one.GetProperty("acts").GetProperty("held").GetBoolean())
                    .Select(one => one.GetProperty("title").GetString())
            );
        Assert.NotEqual("", Held(await owner.GetAsync($"/api/projects/{project}")));
        await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "TakenUp" });
        await own.TickAsync();
        Assert.Equal("", Held(await owner.GetAsync($"/api/projects/{project}")));
    }

    [Fact]
    public async Task Other_dates_are_set_moved_and_told_beside_the_one_that_matters()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("dates"));
        async Task<HttpResponseMessage> SetAsync(string? name, string to, bool confirmed = true) =>
            await owner.PostAsync(
                $"/api/projects/{project}/date",
                new
                {
                    to,
                    also = Array.Empty<string>(),
                    confirmed,
                    name,
                }
            );
        async Task<string[]> DatesAsync() =>
            [
                .. (await owner.GetAsync($"/api/projects/{project}"))
                    .GetProperty("head")
                    .GetProperty("dates")
                    .EnumerateArray()
                    .Select(date => $"{date.GetProperty("name")} {date.GetProperty("day")}"),
            ];
        Assert.Empty(await DatesAsync());
        var looked = await SetAsync("print deadline", "2027-03-01", confirmed: false);
        Assert.True(looked.IsSuccessStatusCode, await looked.Content.ReadAsStringAsync());
        Assert.Empty(await DatesAsync());
        await SetAsync("print deadline", "2027-03-01");
        await SetAsync("hanging", "2027-02-20");
        await SetAsync("Print Deadline ", "2027-03-08");
        Assert.Equal(["hanging 2027-02-20", "print deadline 2027-03-08"], await DatesAsync());
        Assert.Contains(
            "Print deadline: 8 March 2027",
            (await owner.GetAsync($"/api/projects/{project}")).GetRawText()
        );
        foreach (
            var (name, to, field) in new[]
            {
                (" ", "2027-03-01", "name"),
                (new string('x', 41), "2027-03-01", "name"),
                ("hanging", "2027-02-20", "to"),
                ("hanging", "2057-02-20", "to"),
            }
        )
        {
            var refused = await SetAsync(name, to);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
        // the name of the date that matters is that date, however it is written
        await SetAsync("Opening Day", "2027-05-01");
        Assert.Equal(2, (await DatesAsync()).Length);
        Assert.Equal(
            "2027-05-01",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("head")
                .GetProperty("date")
                .GetProperty("day")
                .GetString()
        );
    }
}
