using System.Net.Http.Json;
using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>A damaged row, or what a stranger pasted, never takes a page with it: its entry is told as such, all others as ever.</summary>
public sealed class BrokenRowTests : IAsyncDisposable
{
    // each damages one of its own
    private readonly EmptyStudio studio = new();

    public ValueTask DisposeAsync() => studio.DisposeAsync();

    private const string Untold = "An entry that cannot be told";

    public static TheoryData<string> Pasted =>
        new(
            "https://pictures.example/" + new string('a', 180),
            new string('墙', 150),
            string.Concat(Enumerable.Repeat("👩‍👩‍👧‍👦", 60)),
            "a" + new string('\u0301', 4_000)
        );

    [Theory, MemberData(nameof(Pasted))]
    public async Task What_a_stranger_pastes_stands_shortened_on_every_page(string text)
    {
        var owner = await studio.OwnerAsync();
        var mail = $"paste{text.Length}@lanternhouse.example";
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        Assert.True(
            (
                await visitor.PostAsync(
                    "/forms/mural",
                    new
                    {
                        answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail, ["wish"] = text },
                    }
                )
            ).IsSuccessStatusCode
        );
        foreach (
            var (from, address) in new[]
            {
                (mail, "isolde@marrin-murals.example"),
                ("stranger@nowhere.example", "isolde@marrin-murals.example"),
            }
        )
            studio.Mail(
                $"From: {from}\r\nTo: {address}\r\nSubject: {Rfc2047(text[..60])}\r\nMessage-ID: <{Guid.NewGuid():n}@x.example>\r\nContent-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: base64\r\n\r\n{Convert.ToBase64String(Encoding.UTF8.GetBytes(text))}\r\n"
            );
        await studio.TickAsync();
        await EveryPageAsync(owner);
    }

    [Fact]
    public async Task A_broken_row_in_every_list_is_told_as_such_and_all_others_stay()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (whole, page) = await studio.ProposeAsync(owner, client, "whole@lanternhouse.example");
        await owner.PostAsync($"/api/projects/{whole}/notes", new { text = "This one is whole." });
        // a project whose own rules are damaged, with a held letter, something asked, something by itself
        var broken = await studio.InquireAsync(new Visitor(studio), "broken@lanternhouse.example");
        await studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) =>
            {
                var (id, now) = (new ProjectId(broken), Instant.FromUtc(2027, 1, 25, 10, 30));
                var run = await db.Runs.Where(r => r.ProjectId == id).Select(r => r.Id).FirstAsync();
                foreach (
                    var (project, kind, payload) in new[]
                    {
                        (new ProjectId(whole), "LetterReceived", """{"letter":99999,"automatic":false}"""),
                        (new ProjectId(whole), "NoSuchThing", "{}"),
                        (new ProjectId(whole), "LetterReceived", "{"),
                        (new ProjectId(whole), "MeetingBooked", """{"meeting":5,"start":"yesterday"}"""),
                    }
                )
                    db.Facts.Add(
                        new()
                        {
                            ProjectId = project,
                            Kind = kind,
                            Version = 2,
                            Payload = payload,
                            By = Actor.Client,
                            Happened = now,
                            Recorded = now,
                        }
                    );
                db.Answers.Add(
                    new()
                    {
                        ProjectId = new(whole),
                        Form = "A form",
                        Items = "[{",
                        At = now,
                    }
                );
                db.Letters.Add(
                    new()
                    {
                        ProjectId = id,
                        State = LetterState.Held,
                        FromName = "",
                        FromMail = "",
                        ToName = "Somebody",
                        ToMail = "a@b.example",
                        Subject = "Held",
                        Body = "b",
                        At = now,
                        RunId = run,
                        Step = "gone-3",
                        Occurrence = 0,
                    }
                );
                db.PlannedSteps.Add(
                    new()
                    {
                        ProjectId = id,
                        RunId = run,
                        Step = "gone-3",
                        Occurrence = 0,
                        State = StepState.Held,
                        Due = now,
                    }
                );
                db.PlannedSteps.Add(
                    new()
                    {
                        ProjectId = id,
                        RunId = run,
                        Step = "gone-1",
                        Occurrence = 0,
                        State = StepState.Held,
                        Due = now,
                    }
                );
                db.PlannedSteps.Add(
                    new()
                    {
                        ProjectId = id,
                        RunId = run,
                        Step = "gone-2",
                        Occurrence = 0,
                        State = StepState.Planned,
                        Due = now + Duration.FromHours(1),
                    }
                );
                db.Meetings.Add(
                    new()
                    {
                        ProjectId = new(whole),
                        PublicId = "m-broken",
                        Uid = "m-broken",
                        Name = "Call",
                        Start = now + Duration.FromHours(2),
                        End = now + Duration.FromHours(3),
                        Zone = "Nowhere/Atall",
                        Answers = "[",
                    }
                );
                db.Reviews.Add(
                    new()
                    {
                        ProjectId = new(whole),
                        PublicId = "r-broken",
                        Files = "{",
                        At = now,
                    }
                );
                await db.SaveChangesAsync();
                await db.Database.ExecuteSqlAsync($"UPDATE PinnedRules SET Rules = '[' WHERE ProjectId = {broken}");
                await db.Database.ExecuteSqlAsync(
                    $"UPDATE Routines SET Routine = '{{' WHERE Id = (SELECT max(Id) FROM Routines)"
                );
                await db.Database.ExecuteSqlAsync(
                    $"UPDATE TaskLists SET Items = 'x' WHERE Id = (SELECT max(Id) FROM TaskLists)"
                );
                await db.Database.ExecuteSqlAsync(
                    $"UPDATE Forms SET Fields = 'x' WHERE Id = (SELECT max(Id) FROM Forms)"
                );
                return true;
            }
        );
        await studio.TickAsync();
        await EveryPageAsync(owner, except: broken);
        var today = (await owner.GetAsync("/api/today")).GetRawText();
        var shown = await owner.GetAsync("/api/today");
        var ready = shown.GetProperty("ready");
        foreach (
            var list in new[]
            {
                shown.GetProperty("yourTurn"),
                ready.GetProperty("letters"),
                ready.GetProperty("asked"),
                ready.GetProperty("byItself"),
                shown.GetProperty("day").GetProperty("cameIn"),
            }
        )
            Assert.Contains(Untold, list.GetRawText());
        Assert.Contains("whole@", (await owner.GetAsync($"/api/projects/{whole}")).GetRawText());
        var line = (await owner.GetAsync($"/api/projects/{whole}"))
            .GetProperty("line")
            .GetProperty("past")
            .GetRawText();
        Assert.Contains(Untold, line);
        Assert.Contains("This one is whole.", line);
        Assert.Contains(Untold, (await owner.GetAsync("/api/turns")).GetRawText());
        Assert.Contains("cannot be read", (await owner.GetAsync("/api/routines")).GetRawText());
        Assert.True((await client.AskAsync($"{page}/api")).IsSuccessStatusCode);
    }

    [Fact]
    public async Task A_damaged_list_or_run_sheet_leaves_the_record_the_client_page_and_the_feed_open()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "lists@lanternhouse.example");
        async Task<string> BeginAsync(string sort) =>
            (
                await (
                    await owner.PostAsync($"/api/projects/{project}/lists", new { name = $"My {sort}", sort })
                ).Content.ReadFromJsonAsync<System.Text.Json.JsonElement>()
            )
                .GetProperty("id")
                .GetString()!;
        var lists = new[] { await BeginAsync("Rows"), await BeginAsync("Notes") };
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/lists/{lists[1]}/entries/a",
            JsonContent.Create(new { edition = 0, cells = new { words = "Whole" } })
        );
        await owner.SendAsync(
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
        foreach (var part in new[] { "Lists", "Notes", "RunSheet" })
            await owner.PostAsync($"/api/projects/{project}/parts", new { part, open = true });
        await studio.LookAsync(db =>
            db.Database.ExecuteSqlRawAsync(
                """
                UPDATE Lists SET Reader = 'Edited';
                UPDATE Lists SET Columns = '[[' WHERE Sort = 'Rows';
                UPDATE ListEntries SET Cells = '[[', NextStep = '2027-01-25';
                UPDATE RunSheets SET Items = '[[';
                """
            )
        );
        await EveryPageAsync(owner);
        foreach (var list in lists)
            Assert.True((await owner.AskAsync($"/api/lists/{list}")).IsSuccessStatusCode);
        Assert.True((await client.AskAsync($"{page}/api")).IsSuccessStatusCode);
        await owner.PostAsync("/api/studio/feed");
        var feed = await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Studio.FeedKey!));
        Assert.True((await owner.AskAsync($"/feed/{feed}.ics")).IsSuccessStatusCode);
    }

    [Fact]
    public async Task Damaged_rules_of_a_kind_leave_the_details_of_the_register_as_they_are_kept()
    {
        var owner = await studio.OwnerAsync();
        await studio.InquireAsync(new Visitor(studio));
        await studio.LookAsync(db => db.Database.ExecuteSqlAsync($"UPDATE Kinds SET Rules = '['"));
        Assert.Contains("\"31\"", (await owner.GetAsync("/api/register?details=wall%20size")).GetRawText());
    }

    /// <summary>Every page of the owner that lists something.</summary>
    private async Task EveryPageAsync(Visitor owner, long except = 0)
    {
        var projects = await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync());
        var people = await studio.LookAsync(db => db.People.Select(p => p.Id).ToListAsync());
        var kinds = await studio.LookAsync(db => db.Kinds.Select(k => k.Id).ToListAsync());
        string[] pages =
        [
            "/api/today",
            "/api/turns",
            "/api/register",
            "/api/people",
            "/api/tray",
            "/api/routines",
            "/api/letter-texts",
            "/api/task-lists",
            "/api/kinds",
            "/api/search?words=lantern",
            "/api/post-office",
            .. projects.Where(p => p.Value != except).Select(p => $"/api/projects/{p.Value}"),
            .. people.Select(p => $"/api/people/{p.Value}"),
            .. kinds.SelectMany(k => new[] { $"/api/kinds/{k.Value}", $"/api/kinds/{k.Value}/forms" }),
        ];
        foreach (var path in pages)
        {
            var answer = await owner.AskAsync(path);
            Assert.True(
                answer.IsSuccessStatusCode,
                $"{path}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}"
            );
        }
    }

    private static string Rfc2047(string text) => $"=?utf-8?B?{Convert.ToBase64String(Encoding.UTF8.GetBytes(text))}?=";
}
