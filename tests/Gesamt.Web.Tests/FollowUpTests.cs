using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>Routines of the owner's making on the real server: all their acts, offered late, kept off, stopped at once, rehearsed.</summary>
public sealed partial class FollowUpTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<JsonElement> ReadAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonDocument.Parse(text).RootElement;
    }

    private static async Task<long> KindAsync(Visitor owner, string key = "mural") =>
        (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .Single(k => k.GetProperty("key").GetString() == key)
            .GetProperty("id")
            .GetInt64();

    /// <summary>A routine from text, turned on.</summary>
    private static async Task<int> AddAsync(Visitor owner, string text)
    {
        var id = (
            await ReadAsync(
                await owner.PostAsync(
                    "/api/routines",
                    new
                    {
                        kind = await KindAsync(owner),
                        name = (string?)null,
                        text,
                        copy = (int?)null,
                    }
                )
            )
        ).GetProperty("id").GetInt32();
        var on = await owner.PostAsync($"/api/routines/{id}/off", new { off = false });
        Assert.True(on.IsSuccessStatusCode, await on.Content.ReadAsStringAsync());
        return id;
    }

    private async Task<Instant> NowAsync() => await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now));

    private Task RecordAsync(long project, params Happening[] what) =>
        studio.LookAsync(
            async (Desk desk) =>
            {
                await desk.ActAsync(async act =>
                    await act.RecordAsync(await act.OpenAsync(new(project)), Actor.Owner, what)
                );
                return true;
            }
        );

    private Task<List<PlannedStep>> PlanAsync(long project, string routine) =>
        studio.LookAsync(
            async (Desk desk) =>
                (await desk.OpenAsync(new(project))).Case is var @case
                    ? Plan.Of(@case)
                        .Where(step => @case.Runs.Single(run => run.Id == step.Ref.Run).Routine.Name == routine)
                        .ToList()
                    : []
        );

    [Fact]
    public async Task A_step_does_whatever_it_says()
    {
        var owner = await studio.OwnerAsync();
        await AddAsync(
            owner,
            """
            routine: All acts
            begins with: meeting held
            step: label
            when: with meeting held
            do: label "spoken with"
            mode: by itself
            step: part
            when: with meeting held
            do: open help
            mode: by itself
            step: form
            when: with meeting held
            do: form mural-start with letter start-questions
            mode: by itself
            any hour: yes
            step: times
            when: with meeting held
            do: times for "First call" with letter meeting-choice
            mode: by itself
            any hour: yes
            step: tell
            when: with meeting held
            do: tell me "Look at the wall yourself."
            step: follow
            when: with meeting held
            do: project upkeep
            step: tasks
            when: with meeting held
            do: tasks mural
            mode: asks first
            """
        );
        var project = await studio.InquireAsync(new Visitor(studio), "acts@lanternhouse.example");
        await RecordAsync(project, new Happening.MeetingHeld(new MeetingId(99)));
        await studio.TickAsync();
        Assert.Equal(
            1,
            await studio.LookAsync(db =>
                db.Labels.CountAsync(l => l.ProjectId == new ProjectId(project) && l.Label == "spoken with")
            )
        );
        var facts = await studio.LookAsync(async (Desk desk) => (await desk.OpenAsync(new(project))).History);
        Assert.True(
            facts.Any<Happening.PartOpened>(part => part.Part == PagePart.Help)
                && facts.Any<Happening.FormAsked>()
                && facts.Any<Happening.MeetingOffered>()
        );
        var asked = (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("asked")
            .EnumerateArray()
            .Where(a => a.GetProperty("project").GetInt64() == project)
            .ToList();
        Assert.Equal(
            ["Begin a project “Upkeep” with the same client?", "Look at the wall yourself.", "Make the tasks “Mural”?"],
            asked.Select(a => a.GetProperty("words").GetString()).Order()
        );
        async Task<HttpResponseMessage> PostAsync(string to, string words, bool yes)
        {
            var one = asked.Single(a =>
                a.GetProperty("words").GetString()!.StartsWith(words, StringComparison.Ordinal)
            );
            return await owner.PostAsync(
                $"/api/projects/{project}/{to}",
                new
                {
                    run = one.GetProperty("run").GetInt64(),
                    step = one.GetProperty("step").GetString(),
                    occurrence = one.GetProperty("occurrence").GetInt32(),
                    yes,
                }
            );
        }
        async Task<JsonElement> SayAsync(string words, bool yes) =>
            await ReadAsync(await PostAsync("asked", words, yes));
        // what a step made besides is told by its instant
        studio.LetTimeGoOn();
        await SayAsync("Look", true);
        await TakesBackTasksAsync(
            owner,
            project,
            () => SayAsync("Make", true),
            () => PostAsync("asked/again", "Make", true)
        );
        var next = (await SayAsync("Begin", true)).GetProperty("project").GetInt64();
        var (old, made) = await studio.LookAsync(async db =>
            (
                await db.Projects.SingleAsync(p => p.Id == new ProjectId(project)),
                await db.Projects.Include(p => p.Kind).SingleAsync(p => p.Id == new ProjectId(next))
            )
        );
        Assert.Equal((old.ClientId, "upkeep"), (made.ClientId, made.Kind!.Key));
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("asked").EnumerateArray(),
            a => a.GetProperty("project").GetInt64() == project
        );
    }

    /// <summary>Tasks that a yes made go again with it, until one of them is done.</summary>
    private async Task TakesBackTasksAsync(
        Visitor owner,
        long project,
        Func<Task<JsonElement>> make,
        Func<Task<HttpResponseMessage>> again
    )
    {
        Task<List<TaskRow>> OpenAsync() =>
            studio.LookAsync(db =>
                db.Tasks.Where(t => t.ProjectId == new ProjectId(project) && !t.Removed).ToListAsync()
            );
        Assert.True((await make()).GetProperty("canAskAgain").GetBoolean());
        var made = await OpenAsync();
        Assert.NotEmpty(made);
        Assert.Equal(HttpStatusCode.NoContent, (await again()).StatusCode);
        Assert.Empty(await OpenAsync());
        await make();
        var anew = await OpenAsync();
        Assert.Equal(made.Select(t => t.Title), anew.Select(t => t.Title));
        await owner.PostAsync($"/api/projects/{project}/tasks/{anew[0].Id.Value}/done", new { done = true });
        Assert.Equal(HttpStatusCode.Conflict, (await again()).StatusCode);
        Assert.Equal(made.Count, (await OpenAsync()).Count);
    }

    [Fact]
    public async Task A_late_booking_is_offered_the_short_variant_and_begins_it_only_by_a_yes()
    {
        var owner = await studio.OwnerAsync();
        await AddAsync(
            owner,
            "routine: Lead time\nbegins with: approved\nvariant: in full, 3 months ahead\nvariant: short, 1 month ahead\nstep: one\nwhen: 5 days before the date\ndo: tell me \"a\""
        );
        var today = await studio.LookAsync((Desk desk) => Task.FromResult(desk.Today));
        var (late, early, chosen) = (
            await studio.InquireAsync(new Visitor(studio), "late@lanternhouse.example"),
            await studio.InquireAsync(new Visitor(studio), "early@lanternhouse.example"),
            await studio.InquireAsync(new Visitor(studio), "chosen@lanternhouse.example")
        );
        var id = (await owner.GetAsync($"/api/projects/{chosen}/routines"))
            .GetProperty("waiting")
            .EnumerateArray()
            .Single(w => w.GetProperty("name").GetString() == "Lead time")
            .GetProperty("id")
            .GetInt32();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.PostAsync(
                    $"/api/projects/{chosen}/routines/variant",
                    new { routine = id, variant = "in full" }
                )
            ).StatusCode
        );
        await RecordAsync(
            late,
            new Happening.DateSet("opening day", today.PlusDays(20), null),
            new Happening.Approved()
        );
        await RecordAsync(
            early,
            new Happening.DateSet("opening day", today.PlusDays(40), null),
            new Happening.Approved()
        );
        await RecordAsync(
            chosen,
            new Happening.DateSet("opening day", today.PlusDays(20), null),
            new Happening.Approved()
        );
        Assert.Empty(await PlanAsync(late, "Lead time, short"));
        Assert.Single(await PlanAsync(early, "Lead time, short"));
        Assert.Single(await PlanAsync(chosen, "Lead time, in full"));
        var offer = (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("asked")
            .EnumerateArray()
            .Single(a => a.GetProperty("project").GetInt64() == late);
        Assert.Equal("Begin “Lead time, short”?", offer.GetProperty("words").GetString());
        var answer = new
        {
            run = offer.GetProperty("run").GetInt64(),
            step = (string?)null,
            occurrence = 0,
            yes = true,
        };
        var left = await ReadAsync(await owner.PostAsync($"/api/projects/{late}/asked", answer with { yes = false }));
        Assert.True(left.GetProperty("canAskAgain").GetBoolean());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/projects/{late}/asked/again", answer)).StatusCode
        );
        await ReadAsync(await owner.PostAsync($"/api/projects/{late}/asked", answer));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{late}/asked/again", answer)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{late}/asked", answer)).StatusCode
        );
        Assert.Single(await PlanAsync(late, "Lead time, short"));
    }

    [Fact]
    public async Task What_a_routine_lacks_keeps_it_off_and_says_so_until_it_is_back()
    {
        var owner = await studio.OwnerAsync();
        var made = (
            await ReadAsync(
                await owner.PostAsync(
                    "/api/letter-texts",
                    new
                    {
                        name = "Only for now",
                        number = (int?)null,
                        subject = "x",
                        body = "x",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            )
        );
        var (key, number) = (made.GetProperty("key").GetString(), made.GetProperty("id").GetInt32());
        var id = await AddAsync(
            owner,
            $"routine: Needs a letter\nbegins with: form returned\nstep: one\nwhen: 1 day after form returned\ndo: letter {key}"
        );
        async Task<JsonElement> RowAsync() =>
            (await owner.GetAsync("/api/routines")).EnumerateArray().Single(r => r.GetProperty("id").GetInt32() == id);
        Assert.Empty((await RowAsync()).GetProperty("trouble").EnumerateArray());
        Assert.True(
            (await owner.PostAsync($"/api/letter-texts/{number}/removed", new { removed = true })).IsSuccessStatusCode
        );
        Assert.Contains($"There is no letter “{key}”", (await RowAsync()).GetProperty("trouble")[0].GetString());
        var project = await studio.InquireAsync(new Visitor(studio), "kept-off@lanternhouse.example");
        await RecordAsync(project, new Happening.FormReturned(1, new AnswersId(1)));
        Assert.Empty(await PlanAsync(project, "Needs a letter"));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/routines/begin",
                    new
                    {
                        routine = id,
                        variant = (string?)null,
                        leaveOut = Array.Empty<string>(),
                    }
                )
            ).StatusCode
        );
        Assert.True(
            (await owner.PostAsync($"/api/letter-texts/{number}/removed", new { removed = false })).IsSuccessStatusCode
        );
        await RecordAsync(project, new Happening.NoAnswerNeeded());
        Assert.Single(await PlanAsync(project, "Needs a letter"));
        Assert.Equal(
            (1, 0),
            (await RowAsync()) is var row
                ? (row.GetProperty("inIt").GetInt32(), row.GetProperty("failed").GetInt32())
                : default
        );
    }

    [Fact]
    public async Task One_act_stops_all_that_is_pending_and_what_lies_ahead_goes_on_again()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAndAnswerAsync("stop@lanternhouse.example");
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new
                    {
                        subject = "Later",
                        body = "Later.",
                        sendAt = $"{(await studio.LookAsync((Desk desk) => Task.FromResult(desk.Today))).PlusDays(30):uuuu-MM-dd}T09:00:00",
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            4,
            (await ReadAsync(await owner.PostAsync($"/api/projects/{project}/stop-pending")))
                .GetProperty("count")
                .GetInt32()
        );
        Assert.All(
            (await PlanAsync(project, "After an inquiry")).Skip(1),
            step => Assert.Equal((StepState.Stopped, StopRule.ByHand), (step.State, step.Why))
        );
        Assert.Equal(
            0,
            await studio.LookAsync(db =>
                db.Outbox.CountAsync(o => o.ProjectId == new ProjectId(project) && o.State == OutboxState.Claimed)
            )
        );
        var now = await NowAsync();
        await studio.WaitUntilAsync(now + Duration.FromDays(12));
        owner = await studio.OwnerAsync();
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("letters").EnumerateArray(),
            r => r.GetProperty("for").GetProperty("project").GetInt64() == project
        );
        // nothing that merely happens resumes what a hand stopped
        await RecordAsync(project, new Happening.PaymentVoided(new PaymentId(77)));
        Assert.All(
            (await PlanAsync(project, "After an inquiry")).Skip(1),
            step => Assert.Equal(StepState.Stopped, step.State)
        );
        var goOn = await ReadAsync(await owner.PostAsync($"/api/projects/{project}/go-on"));
        Assert.Equal(
            (2, "the letter “Are you still thinking about it?”"),
            (
                goOn.GetProperty("ahead").GetInt32(),
                Assert.Single(goOn.GetProperty("missed").EnumerateArray()).GetString()
            )
        );
        // what was missed is skipped, and what hangs on it has a time again
        Assert.Equal(
            [StepState.Skipped, StepState.Planned, StepState.Parked],
            (await PlanAsync(project, "After an inquiry")).Skip(1).Select(step => step.State)
        );
    }

    [Fact]
    public async Task A_routine_begins_by_hand_without_what_does_not_apply_and_again_when_asked()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "byhand@lanternhouse.example");
        var id = (await owner.GetAsync($"/api/projects/{project}/routines"))
            .GetProperty("waiting")
            .EnumerateArray()
            .Single(w => w.GetProperty("name").GetString() == "After the handover")
            .GetProperty("id")
            .GetInt32();
        async Task<HttpResponseMessage> BeginAsync(params string[] leaveOut) =>
            await owner.PostAsync(
                $"/api/projects/{project}/routines/begin",
                new
                {
                    routine = id,
                    variant = (string?)null,
                    leaveOut,
                }
            );
        Assert.Contains(
            "leaveOut",
            await (
                await BeginAsync("look-it-over", "look-it-over-again", "tell-unanswered")
            ).Content.ReadAsStringAsync()
        );
        Assert.Equal(HttpStatusCode.NoContent, (await BeginAsync("look-it-over-again")).StatusCode);
        Assert.Equal(
            ["look-it-over", "tell-unanswered"],
            (await PlanAsync(project, "After the handover")).Select(step => step.Ref.Step)
        );
        Assert.Equal(HttpStatusCode.NoContent, (await BeginAsync()).StatusCode);
        Assert.Equal(
            2,
            await studio.LookAsync(db =>
                db.Runs.CountAsync(r => r.ProjectId == new ProjectId(project) && r.Key.StartsWith("delivery"))
            )
        );
    }
}
