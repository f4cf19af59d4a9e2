using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Letters and routine steps on the real database.</summary>
public sealed class SendingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task An_inquiry_sent_twice_under_one_key_is_one_project_one_run_and_one_thank_you()
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var body = new
        {
            answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = "twice@lanternhouse.example" },
        };
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => visitor.PostAsync("/forms/mural", body, "the-same-key-again"))
        );
        Assert.Single((await Task.WhenAll(answers.Select(a => a.Content.ReadAsStringAsync()))).Distinct());
        await studio.TickAsync();
        var project = await studio.LookAsync(db =>
            db.Projects.SingleAsync(p => p.Client!.Mail == "twice@lanternhouse.example")
        );
        Assert.Equal(1, await studio.LookAsync(db => db.Runs.CountAsync(r => r.ProjectId == project.Id)));
        var owner = await studio.OwnerAsync();
        Assert.Equal(1, (await owner.GetAsync("/api/post-office?address=twice@lanternhouse.example")).GetArrayLength());
    }

    [Fact]
    public async Task A_letter_with_a_gap_is_refused_and_the_blank_is_named()
    {
        var project = await studio.InquireAsync(new Visitor(studio), "gap@lanternhouse.example");
        var owner = await studio.OwnerAsync();
        var answer = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new { subject = "Invoice", body = "Invoice [invoice number] is open." }
        );
        Assert.Equal(400, (int)answer.StatusCode);
        Assert.Contains("blank:invoice number", await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_letter_can_be_taken_back_until_it_is_handed_over()
    {
        var project = await studio.InquireAsync(new Visitor(studio), "back@lanternhouse.example");
        var owner = await studio.OwnerAsync();
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new { subject = "Hello", body = "Hello there." }
        );
        var letter = System
            .Text.Json.JsonDocument.Parse(await sent.Content.ReadAsStringAsync())
            .RootElement.GetProperty("letter")
            .GetInt64();
        await studio.TickAsync();
        Assert.Equal(409, (int)(await owner.PostAsync($"/api/letters/{letter}/take-back")).StatusCode);
        Assert.Equal(
            LetterState.Sent,
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.Id == new LetterId(letter)).Select(l => l.State).SingleAsync()
            )
        );
    }

    [Fact]
    public async Task A_held_letter_is_stopped_by_the_clients_own_answer_and_cannot_be_sent_any_more()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAndAnswerAsync("held@lanternhouse.example");
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 2, 3, 9, 0));
        var held = await studio.LookAsync(db =>
            db.Letters.SingleAsync(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Held)
        );
        var thanks = (await owner.GetAsync("/api/post-office?address=held@lanternhouse.example"))[0]
            .GetProperty("id")
            .GetInt64();
        Assert.True(
            (
                await owner.PostAsync($"/api/post-office/{thanks}/answer", new { text = "Still interested." })
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        Assert.Equal(
            LetterState.Stopped,
            await studio.LookAsync(db => db.Letters.Where(l => l.Id == held.Id).Select(l => l.State).SingleAsync())
        );
        Assert.Contains(
            "stopped by itself",
            await (
                await owner.PostAsync(
                    $"/api/letters/{held.Id.Value}/release",
                    new { subject = (string?)null, body = (string?)null }
                )
            ).Content.ReadAsStringAsync()
        );
        // and the two that hang on it: each is a fact of its own
        Assert.Equal(
            3,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f =>
                    f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.StepStopped)
                )
            )
        );
    }

    [Fact]
    public async Task A_letter_from_nobody_known_waits_unfiled_and_one_to_a_project_is_filed()
    {
        var project = await studio.InquireAsync(new Visitor(studio), "filed@lanternhouse.example");
        var code = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Code).SingleAsync()
        );
        var post = studio.Services.GetRequiredService<StandIns.PostOffice>();
        post.Write(
            new("Somebody", "somebody@nowhere.example"),
            new("", "isolde@marrin-murals.example"),
            "Hello",
            "Who are you?",
            DateTimeOffset.UnixEpoch,
            null
        );
        post.Write(
            new("A neighbour", "neighbour@nowhere.example"),
            new("", $"{code}@marrin-murals.example"),
            "The wall",
            "I saw the wall.",
            DateTimeOffset.UnixEpoch,
            null
        );
        await studio.TickAsync();
        await studio.TickAsync();
        Assert.Equal(
            LetterState.Unfiled,
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.FromMail == "somebody@nowhere.example").Select(l => l.State).SingleAsync()
            )
        );
        Assert.Equal(
            new ProjectId(project),
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.FromMail == "neighbour@nowhere.example").Select(l => l.ProjectId).SingleAsync()
            )
        );
    }
}
