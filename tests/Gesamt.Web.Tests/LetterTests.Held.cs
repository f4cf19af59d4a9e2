using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Letters that go later, wait for an OK, or answer another.</summary>
public sealed partial class LetterTests
{
    [Fact]
    public async Task A_letter_goes_out_later_and_can_be_taken_back_until_then()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "later@lanternhouse.example");
        var today = await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Today));
        async Task<long> SendAsync(string at) =>
            JsonDocument
                .Parse(
                    await (
                        await owner.PostAsync(
                            $"/api/projects/{project}/letter",
                            new
                            {
                                subject = "Later",
                                body = "Later.",
                                sendAt = at,
                            }
                        )
                    ).Content.ReadAsStringAsync()
                )
                .RootElement.GetProperty("letter")
                .GetInt64();
        var at = $"{today.PlusDays(2):uuuu-MM-dd}T09:15:00";
        var (goes, back) = (await SendAsync(at), await SendAsync(at));
        await studio.TickAsync();
        Assert.Equal((LetterState.Ready, LetterState.Ready), (await StateAsync(goes), await StateAsync(back)));
        Assert.Contains(
            "goes later",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("line").GetProperty("ahead").GetRawText()
        );
        Assert.True((await owner.PostAsync($"/api/letters/{back}/take-back")).IsSuccessStatusCode);
        await AdvanceAsync(Duration.FromDays(3));
        Assert.Equal((LetterState.Sent, LetterState.Draft), (await StateAsync(goes), await StateAsync(back)));
        var past = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "x",
                body = "x",
                sendAt = "2020-01-01T09:00:00",
            }
        );
        Assert.Contains("\"later\"", await past.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task An_answer_refers_to_the_letter_it_answers()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "answer@lanternhouse.example");
        var thanks = (await owner.GetAsync("/api/post-office?address=answer@lanternhouse.example"))[0]
            .GetProperty("id")
            .GetInt64();
        foreach (var words in new[] { "First.", "Second." })
            Assert.True(
                (await owner.PostAsync($"/api/post-office/{thanks}/answer", new { text = words })).IsSuccessStatusCode
            );
        await studio.TickAsync();
        var first = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.Body == "First.").SingleAsync()
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new
                    {
                        subject = "Re",
                        body = "To the first.",
                        answers = first.Id.Value,
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(first.MessageId, (await NewestToAsync(owner, "answer@lanternhouse.example")).InReplyTo);
    }

    [Fact]
    public async Task Held_letters_are_put_off_with_their_text_and_sent_together()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var projects = new List<long>();
        for (var i = 0; i < 3; i++)
            projects.Add(await own.InquireAndAnswerAsync($"held{i}@lanternhouse.example"));
        var now = await own.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now));
        await own.WaitUntilAsync(now + Duration.FromDays(10));
        owner = await own.OwnerAsync();
        var ready = (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("letters")
            .EnumerateArray()
            .ToList();
        Assert.Equal(3, ready.Count);
        var letter = ready[0].GetProperty("letter").GetInt64();
        Assert.Contains(
            "\"until\"",
            await (
                await owner.PostAsync(
                    $"/api/letters/{letter}/later",
                    new
                    {
                        until = "2020-01-01T09:00:00",
                        subject = (string?)null,
                        body = (string?)null,
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.PostAsync(
                    $"/api/letters/{letter}/later",
                    new
                    {
                        until = "2027-02-10T10:00:00",
                        subject = "Still?",
                        body = "In my own words.",
                    }
                )
            ).StatusCode
        );
        Assert.Equal(
            2,
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("letters").GetArrayLength()
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/letters/{letter}/release",
                    new { subject = (string?)null, body = (string?)null }
                )
            ).StatusCode
        );
        var all = JsonDocument
            .Parse(
                await (
                    await owner.PostAsync("/api/letters/release", new { template = "still-interested" })
                ).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal(2, all.GetProperty("count").GetInt32());
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 10, 10, 1));
        owner = await own.OwnerAsync();
        var again = Assert.Single(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("letters").EnumerateArray()
        );
        Assert.Equal(
            (letter, "Still?", "In my own words."),
            (
                again.GetProperty("letter").GetInt64(),
                again.GetProperty("text").GetProperty("subject").GetString(),
                again.GetProperty("text").GetProperty("preview").GetString()
            )
        );
    }

    [Fact]
    public async Task A_skip_is_taken_back_but_not_once_the_client_has_answered()
    {
        await using var own = new EmptyStudio();
        var project = await own.InquireAndAnswerAsync("skip@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0));
        var owner = await own.OwnerAsync();
        async Task<JsonElement> ReadyAsync() =>
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("letters");
        var held = (await ReadyAsync())[0];
        var letter = held.GetProperty("letter").GetInt64();
        async Task<HttpStatusCode> SkipAsync(bool skipped) =>
            (await owner.PostAsync($"/api/letters/{letter}/skipped", new { skipped })).StatusCode;
        async Task<bool> LineSaysSkippedAsync() =>
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("line")
                .GetProperty("past")
                .GetRawText()
                .Contains(" skipped\"", StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Conflict, await SkipAsync(false));

        Assert.Equal(HttpStatusCode.NoContent, await SkipAsync(true));
        Assert.Equal(0, (await ReadyAsync()).GetArrayLength());
        Assert.True(await LineSaysSkippedAsync());
        Assert.Equal(HttpStatusCode.NoContent, await SkipAsync(false));
        Assert.Equal(held.GetRawText(), (await ReadyAsync())[0].GetRawText());
        Assert.False(await LineSaysSkippedAsync());
        Assert.Equal(HttpStatusCode.Conflict, await SkipAsync(false));

        Assert.Equal(HttpStatusCode.NoContent, await SkipAsync(true));
        var came = (await owner.GetAsync("/api/post-office?address=skip@lanternhouse.example"))[0]
            .GetProperty("id")
            .GetInt64();
        Assert.True(
            (await owner.PostAsync($"/api/post-office/{came}/answer", new { text = "Yes, still." })).IsSuccessStatusCode
        );
        await own.TickAsync();
        Assert.Equal(HttpStatusCode.NoContent, await SkipAsync(false));
        // their answer stopped it, as it would have without the skip
        Assert.Equal(0, (await ReadyAsync()).GetArrayLength());
        Assert.Equal(
            LetterState.Stopped,
            await own.LookAsync(db =>
                db.Letters.Where(l => l.Id == new LetterId(letter)).Select(l => l.State).SingleAsync()
            )
        );
    }

    [Fact]
    public async Task A_held_letter_goes_to_the_address_the_record_has_when_it_leaves()
    {
        await using var own = new EmptyStudio();
        await own.InquireAndAnswerAsync("old@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0));
        await own.LookAsync(db =>
            db.People.Where(p => p.Mail == "old@lanternhouse.example")
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.Mail, "new@lanternhouse.example"))
        );
        var owner = await own.OwnerAsync();
        var letter = (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("letters")[0]
            .GetProperty("letter")
            .GetInt64();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/letters/{letter}/release",
                    new { subject = (string?)null, body = (string?)null }
                )
            ).IsSuccessStatusCode
        );
        await own.TickAsync();
        Assert.Equal(1, (await owner.GetAsync("/api/post-office?address=new@lanternhouse.example")).GetArrayLength());
    }
}
