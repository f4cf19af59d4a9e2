using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The ticker after standstills, with two copies, and with answers no person wrote.</summary>
public sealed class TickerTests
{
    [Fact]
    public async Task After_a_standstill_only_the_newest_late_letter_is_held_and_the_others_skipped()
    {
        await using var studio = new EmptyStudio();
        var client = new Visitor(studio);
        var (project, page) = await studio.ProposeAsync(
            await studio.OwnerAsync(),
            client,
            "still@lanternhouse.example"
        );
        await studio.SignedAsync(client, page);
        await studio.TickAsync();
        // nothing ticked for five weeks: the invoice was due on 1 February, and four reminders of it are over a day late
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 3, 1, 12, 0));
        var steps = await studio.LookAsync(db =>
            db.PlannedSteps.AsNoTracking()
                .Where(s => s.ProjectId == new ProjectId(project) && s.Step.StartsWith("late-"))
                .ToDictionaryAsync(s => s.Step, s => s.State)
        );
        Assert.Equal(
            (StepState.Skipped, StepState.Skipped, StepState.Skipped, StepState.Held),
            (steps["late-1"], steps["late-3"], steps["late-7"], steps["late-14"])
        );
        await studio.TickAsync();
        Assert.Equal(
            ["payment-late"],
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Held)
                    .Select(l => l.Template)
                    .ToListAsync()
            )
        );
    }

    [Fact]
    public async Task Two_copies_on_one_folder_send_each_letter_once()
    {
        await using var one = new EmptyStudio();
        _ = one.Services;
        await using var other = new OnFolder(one.Data);
        _ = other.Services;
        var mails = Enumerable.Range(0, 6).Select(i => $"copy{i}@lanternhouse.example").ToList();
        foreach (var (mail, i) in mails.Select((mail, i) => (mail, i)))
        {
            var visitor = new Visitor(i % 2 == 0 ? one : other);
            await visitor.TokenAsync("/forms/mural");
            Assert.True(
                (
                    await visitor.PostAsync(
                        "/forms/mural",
                        new { answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail } }
                    )
                ).IsSuccessStatusCode
            );
        }
        await Task.WhenAll(one.TickAsync(), other.TickAsync(), one.TickAsync(), other.TickAsync());
        var sent = await one.LookAsync(db =>
            db.Letters.Where(l => l.State == LetterState.Sent).Select(l => l.ToMail).ToListAsync()
        );
        Assert.Equal(mails.Order(), sent.Order());
        Assert.Equal(
            mails.Count,
            await one.LookAsync(db => db.Facts.CountAsync(f => f.Kind == nameof(Happening.StepDone)))
        );
    }

    [Fact]
    public async Task A_step_that_fails_holds_up_nothing_else()
    {
        await using var studio = new EmptyStudio();
        await studio.LookAsync(db => db.LetterTemplates.Where(t => t.Key == "thank-you").ExecuteDeleteAsync());
        var project = await studio.InquireAsync(new Visitor(studio), "fails@lanternhouse.example");
        var owner = await studio.OwnerAsync();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new { subject = "Hello", body = "Hello there." }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        Assert.Equal(
            ["Hello"],
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.State == LetterState.Sent).Select(l => l.Subject).ToListAsync()
            )
        );
        Assert.Equal(
            StepState.Planned,
            await studio.LookAsync(db =>
                db.PlannedSteps.Where(s => s.Step == "thank-you").Select(s => s.State).SingleAsync()
            )
        );
    }

    [Fact]
    public async Task Many_steps_due_at_once_act_together_and_one_that_cannot_keeps_none_of_them()
    {
        await using var studio = new EmptyStudio();
        var projects = await DueTogetherAsync(
            studio,
            [.. Enumerable.Range(0, 12).Select(i => $"together{i}@lanternhouse.example")],
            each =>
                studio.LookAsync(db =>
                    db.Facts.Where(f => f.ProjectId == each[4])
                        .ExecuteUpdateAsync(set => set.SetProperty(f => f.Payload, "{"))
                )
        );
        var sent = await studio.LookAsync(db =>
            db.Letters.Where(l => l.State == LetterState.Sent).Select(l => l.ProjectId!.Value).ToListAsync()
        );
        Assert.Equal(projects.Where((_, at) => at != 4), sent.OrderBy(id => id.Value));
    }

    [Fact]
    public async Task Letters_that_become_due_together_go_to_one_address_no_oftener_than_one_by_one()
    {
        await using var studio = new EmptyStudio();
        await DueTogetherAsync(studio, [.. Enumerable.Repeat("victim@elsewhere.example", 5)]);
        var letters = await studio.LookAsync(db => db.Letters.Select(l => l.State).ToListAsync());
        Assert.Equal(3, letters.Count(state => state == LetterState.Sent));
        Assert.Equal(2, letters.Count(state => state == LetterState.Held));
    }

    /// <summary>Inquiries whose first letter could not be written for a while, and then becomes due for all of them at one tick.</summary>
    private static async Task<IReadOnlyList<ProjectId>> DueTogetherAsync(
        EmptyStudio studio,
        IReadOnlyCollection<string> mails,
        Func<IReadOnlyList<ProjectId>, Task>? meanwhile = null
    )
    {
        Task RenameAsync(string from, string to) =>
            studio.LookAsync(db =>
                db.LetterTemplates.Where(t => t.Key == from).ExecuteUpdateAsync(set => set.SetProperty(t => t.Key, to))
            );
        await RenameAsync("thank-you", "mislaid");
        List<ProjectId> projects = [];
        foreach (var mail in mails)
            projects.Add(new(await studio.InquireAsync(new Visitor(studio), mail)));
        await studio.TickAsync();
        Assert.Equal(0, await studio.LookAsync(db => db.Letters.CountAsync()));
        await (meanwhile?.Invoke(projects) ?? Task.CompletedTask);
        await RenameAsync("mislaid", "thank-you");
        await studio.TickAsync();
        return projects;
    }

    [Fact] // RFC 3834: an automatic reply is no answer from the client
    public async Task An_automatic_reply_answers_nothing_and_stops_nothing()
    {
        await using var studio = new EmptyStudio();
        var project = new ProjectId(await studio.InquireAsync(new Visitor(studio), "away@lanternhouse.example"));
        var code = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == project).Select(p => p.Code).SingleAsync()
        );
        var raw = System.Text.Encoding.ASCII.GetBytes(
            $"From: away@lanternhouse.example\r\nTo: {code}@marrin-murals.example\r\nSubject: Away\r\nMessage-ID: <away@lanternhouse.example>\r\nAuto-Submitted: auto-replied\r\n\r\nI am away.\r\n"
        );
        studio.Mail(raw);
        await studio.TickAsync();
        var standing = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == project).Select(p => p.Standing.Waits).SingleAsync()
        );
        Assert.Equal(Core.Waiting.WaitKind.AnswerInquiry, standing);
        Assert.Equal(
            StepState.Planned,
            await studio.LookAsync(db =>
                db.PlannedSteps.Where(s => s.ProjectId == project && s.Step == "still-interested")
                    .Select(s => s.State)
                    .SingleAsync()
            )
        );
    }

    [Fact]
    public async Task Open_screens_learn_of_what_happened()
    {
        await using var studio = new EmptyStudio();
        var live = studio.Services.GetRequiredService<Live>();
        using var stop = new CancellationTokenSource(TimeSpan.FromMinutes(2));
        await using var screen = live.ListenAsync(stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await screen.MoveNextAsync());
        Assert.Equal("hello", screen.Current.EventType);
        var project = await studio.InquireAsync(new Visitor(studio), "live@lanternhouse.example");
        Assert.True(await screen.MoveNextAsync());
        Assert.Equal(("changed", project.ToString()), (screen.Current.EventType, screen.Current.Data));
    }

    [Fact]
    public async Task A_refused_write_can_be_sent_again_under_its_key()
    {
        await using var studio = new EmptyStudio();
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        Assert.Equal(
            400,
            (int)
                (
                    await visitor.PostAsync(
                        "/forms/mural",
                        new { answers = new Dictionary<string, string>() },
                        "key-of-this-form"
                    )
                ).StatusCode
        );
        Assert.Equal(
            200,
            (int)
                (
                    await visitor.PostAsync("/forms/mural", new { answers = Studio.Answers }, "key-of-this-form")
                ).StatusCode
        );
        Assert.Equal(1, await studio.LookAsync(db => db.Projects.CountAsync()));
    }
}
