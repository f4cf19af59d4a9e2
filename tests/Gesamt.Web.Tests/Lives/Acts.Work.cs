using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with the work and the people of it.</summary>
public static partial class Acts
{
    private static async Task TaskAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var tasks = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Tasks.Where(t => t.ProjectId == new ProjectId(project)).Select(t => t.Id.Value).ToListAsync()
        );
        if (tasks.Count > 0 && random.Next(2) == 0)
        {
            var task = Operations.Pick(tasks, random);
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/tasks/{task}/{(random.Next(3) == 0 ? "removed" : "done")}",
                random.Next(4) == 0
                    ? new JsonObject { ["removed"] = false, ["done"] = false }
                    : new JsonObject { ["removed"] = true, ["done"] = true }
            );
            return;
        }
        var title = $"Paint {random.Next(1_000_000)} {Life.Private}";
        var (status, made) = await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/tasks",
            new
            {
                title,
                due = random.Next(2) == 0
                    ? life.Today.PlusDays(random.Next(-5, 40)).ToString("uuuu-MM-dd", null)
                    : null,
                phase = (string?)null,
            }
        );
        if (status != HttpStatusCode.OK)
            return;
        // by its number: it may be given another title later
        var id = new TaskId(JsonNode.Parse(made)!["id"]!.GetValue<long>());
        life.Confirmed.Add(
            (
                $"task {id.Value}",
                () => life.Studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Tasks.AnyAsync(t => t.Id == id))
            )
        );
        if (random.Next(2) == 0)
            await life.OwnerAsync(
                "PUT",
                $"/api/projects/{project}/tasks/{id.Value}",
                new
                {
                    title,
                    due = (string?)null,
                    phase = (string?)null,
                    doneBy = Operations.Pick(Enum.GetValues<Core.Projects.Fulfilment>(), random).ToString(),
                }
            );
    }

    private static async Task NoteAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var text = $"Note {random.Next(1_000_000)} {Life.Private}";
        var notes = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Notes.Where(n => n.ProjectId == new ProjectId(project)).Select(n => n.Id.Value).ToListAsync()
        );
        if (notes.Count > 0 && random.Next(3) == 0)
        {
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/notes/{Operations.Pick(notes, random)}/removed",
                new { removed = random.Next(2) == 0 }
            );
            return;
        }
        var (status, _) = await life.OwnerAsync("POST", $"/api/projects/{project}/notes", new { text });
        if (status is not (HttpStatusCode.OK or HttpStatusCode.NoContent))
            return;
        // by its number: an odd act may write it otherwise, as its owner can
        var kept = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Notes.Where(n => n.Text == text).Select(n => n.Id).SingleOrDefaultAsync()
        );
        life.Confirmed.Add(
            (
                $"note {text}",
                () => life.Studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Notes.AnyAsync(n => n.Id == kept))
            )
        );
    }

    private static async Task DateAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/date",
            new
            {
                to = life.Today.PlusDays(random.Next(-20, 200)).ToString("uuuu-MM-dd", null),
                also = Array.Empty<string>(),
                confirmed = random.Next(4) > 0,
            }
        );
        await life.Studio.TickAsync();
    }

    private static async Task FileAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var files = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Files.Where(f => f.ProjectId == new ProjectId(project)).Select(f => f.Id.Value).ToListAsync()
        );
        if (files.Count > 0 && random.Next(2) == 0)
        {
            var file = Operations.Pick(files, random);
            await (
                random.Next(3) == 0
                    ? life.OwnerAsync(
                        "POST",
                        $"/api/projects/{project}/files/{file}/removed",
                        new { removed = random.Next(2) == 0 }
                    )
                    : life.OwnerAsync(
                        "POST",
                        $"/api/projects/{project}/files/{file}/shown",
                        new { shown = random.Next(3) > 0, use = "For the printer" }
                    )
            );
            return;
        }
        var bytes = Encoding.UTF8.GetBytes($"A drawing in words {random.Next()}");
        var (status, body) = await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/files?name=drawing{random.Next(99)}.txt&group={Operations.Pick(["Supplied", "Drafts", "Final"], random)}",
            Bytes(bytes)
        );
        if (status != HttpStatusCode.OK)
            return;
        var id = JsonNode.Parse(body)!["id"]!.GetValue<long>();
        life.Confirmed.Add(
            (
                $"file {id}",
                async () =>
                    await (await life.Owner.AskAsync($"/api/files/{id}")).Content.ReadAsByteArrayAsync() is var kept
                    && kept.AsSpan().SequenceEqual(bytes)
            )
        );
    }

    private static async Task ReviewAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var drafts = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Files.Where(f =>
                        f.ProjectId == new ProjectId(project) && f.Group == FileGroup.Drafts && !f.Removed
                    )
                    .Select(f => f.Id.Value)
                    .ToListAsync()
        );
        var reviews = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Reviews.Where(r => r.ProjectId == new ProjectId(project)).Select(r => r.Id.Value).ToListAsync()
        );
        if (reviews.Count > 0 && random.Next(4) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/reviews/{Operations.Pick(reviews, random)}/{(random.Next(2) == 0 ? "withdraw" : "reopen")}"
            );
        else
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/reviews",
                new
                {
                    files = drafts.Take(2),
                    phase = (string?)null,
                    subject = "A draft to look at",
                    body = "Here: [page link]",
                    beyond = random.Next(2) == 0,
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HandoverAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/handover",
            new
            {
                files = Array.Empty<object>(),
                subject = "It is finished",
                body = "Look here: [page link]",
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
        _ = random;
    }

    private static async Task AwayAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is { } project)
            await life.OwnerAsync("POST", $"/api/projects/{project}/away", new { away = random.Next(4) > 0 });
    }

    private static async Task MeetingAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var kinds = (await life.LookAsync(life.Owner, "/api/meeting-kinds"))!.Value;
        var kind =
            kinds.GetArrayLength() == 0 ? 1 : kinds[random.Next(kinds.GetArrayLength())].GetProperty("id").GetInt32();
        var meetings = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Meetings.Where(m => m.ProjectId == new ProjectId(project)).Select(m => m.Id.Value).ToListAsync()
        );
        var at = $"{life.Today.PlusDays(random.Next(-1, 20)):uuuu-MM-dd}T{random.Next(8, 18):00}:00:00";
        var one = meetings.Count == 0 ? 1 : Operations.Pick(meetings, random);
        await (
            random.Next(8) switch
            {
                0 or 1 => life.OwnerAsync(
                    "POST",
                    $"/api/projects/{project}/meetings/offer",
                    new
                    {
                        kind,
                        subject = "Shall we speak?",
                        body = "Choose here: [page link]",
                    }
                ),
                2 => life.OwnerAsync("POST", $"/api/projects/{project}/meetings", new { kind, start = at }),
                3 => life.OwnerAsync("POST", $"/api/projects/{project}/meetings/{one}/move", new { start = at }),
                4 => life.OwnerAsync(
                    "POST",
                    $"/api/projects/{project}/meetings/{one}/held",
                    new { notes = $"It went well. {Life.Private}", agenda = "" }
                ),
                5 => life.OwnerAsync("POST", $"/api/projects/{project}/meetings/{one}/missed"),
                6 => life.OwnerAsync("POST", $"/api/projects/{project}/meetings/{one}/again"),
                _ => life.OwnerAsync("POST", $"/api/projects/{project}/meetings/{one}/cancel"),
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HeadAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is { } project)
            await life.OwnerAsync(
                "PUT",
                $"/api/projects/{project}/head",
                new { title = $"Wall {random.Next(99)}", source = random.Next(2) == 0 ? null : "a neighbour" }
            );
    }

    private static async Task BriefAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var parts = record.GetProperty("about").GetProperty("brief").GetProperty("parts").EnumerateArray().ToList();
        if (parts.Count == 0)
            return;
        var part = Operations.Pick(parts, random);
        if (random.Next(2) == 0)
            await life.OwnerAsync(
                "PUT",
                $"/api/projects/{project}/brief/{Uri.EscapeDataString(part.GetProperty("key").GetString()!)}",
                new
                {
                    text = part.GetProperty("private").GetBoolean() || part.GetProperty("use").GetString() == "Obstacle"
                        ? Life.Private
                        : $"A lantern {random.Next(99)}",
                    edition = part.GetProperty("edition").GetInt32(),
                }
            );
        else
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/brief/{(random.Next(4) == 0 ? "back" : "put")}",
                new { subject = "The brief", body = "Please read it over: [page link]" }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task AskFormAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/forms") is not { } forms
        )
            return;
        var (choices, open) = (
            forms.GetProperty("choices").EnumerateArray().ToList(),
            forms.GetProperty("open").EnumerateArray().ToList()
        );
        if (open.Count > 0 && random.Next(3) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/forms/{open[0].GetProperty("slug").GetString()}/back"
            );
        else if (choices.Count > 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/forms",
                new
                {
                    slug = Operations.Pick(choices, random).EnumerateObject().First().Value.GetString(),
                    subject = "A few questions",
                    body = "Here: [page link]",
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task DetailsAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var values = record
            .GetProperty("about")
            .GetProperty("details")
            .EnumerateArray()
            .Where(_ => random.Next(2) == 0)
            .ToDictionary(
                d => d.GetProperty("name").GetString()!,
                d => d.GetProperty("private").GetBoolean() ? Life.Private : $"{random.Next(1, 50)}"
            );
        await life.OwnerAsync("PUT", $"/api/projects/{project}/details", new { values });
        if (random.Next(3) == 0)
            await life.OwnerAsync(
                "POST",
                "/api/labels",
                new
                {
                    label = Life.Private,
                    project,
                    person = (long?)null,
                }
            );
    }

    private static async Task PageAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        if (random.Next(5) == 0)
            await life.OwnerAsync("POST", $"/api/projects/{project}/link", new { open = random.Next(2) == 0 });
        else
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/parts",
                new { part = Operations.Pick(["Whole", "Drafts", "Files", "Help"], random), open = random.Next(4) > 0 }
            );
    }

    private static async Task StudioAsync(Life life, Random random)
    {
        var studio = JsonNode.Parse((await life.LookAsync(life.Owner, "/api/studio"))!.Value.GetRawText())!;
        studio = studio["said"]!;
        studio["names"]!["address"] = $"{random.Next(99)} Quay Street";
        studio["money"]!["iban"] = Operations.Pick(["IE29AIBK93115212345678", "DE89370400440532013000"], random);
        studio["hours"]!["daysOff"] = new JsonArray(life.Today.PlusDays(random.Next(20)).ToString("uuuu-MM-dd", null));
        studio["habits"]!["signsAtOnce"] = random.Next(2) == 0;
        await life.OwnerAsync("PUT", "/api/studio", studio);
    }

    private static async Task PeopleAsync(Life life, Random random)
    {
        var people = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.People.Select(p => p.Id.Value).ToListAsync()
        );
        if (people.Count == 0)
            return;
        var (one, other) = (Operations.Pick(people, random), Operations.Pick(people, random));
        await (
            random.Next(4) switch
            {
                0 => life.OwnerAsync("POST", $"/api/people/{one}/same-as/{other}"),
                1 => life.OwnerAsync(
                    "POST",
                    $"/api/people/{one}/split",
                    new { projects = Array.Empty<long>(), name = "Somebody else" }
                ),
                2 => life.OwnerAsync("POST", $"/api/people/{one}/different-from/{other}"),
                _ => EditAsync(),
            }
        );

        async Task<(HttpStatusCode, string)> EditAsync()
        {
            if (await life.LookAsync(life.Owner, $"/api/people/{one}") is not { } page)
                return default;
            var details = JsonNode.Parse(page.GetProperty("details").GetRawText())!;
            details["mail"] = $"moved{random.Next(9)}@lanternhouse.example";
            return await life.OwnerAsync("PUT", $"/api/people/{one}", details);
        }
    }

    /// <summary>Somebody asks to be forgotten; often what is open of theirs is ended for it first.</summary>
    private static async Task EraseAsync(Life life, Random random)
    {
        var people = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.People.Where(p => p.RemovedAt == null && p.MergedInto == null).Select(p => p.Id.Value).ToListAsync()
        );
        if (people.Count == 0)
            return;
        var one = Operations.Pick(people, random);
        if (await life.LookAsync(life.Owner, $"/api/people/{one}/erasing") is not { } told)
            return;
        if (random.Next(2) == 0)
            foreach (var hinder in told.GetProperty("hinders").EnumerateArray())
                await life.OwnerAsync(
                    "POST",
                    $"/api/projects/{hinder.GetProperty("project").GetInt64()}/happened",
                    new { sort = random.Next(2) == 0 ? "GoneQuiet" : "Cancelled" }
                );
        var theirs = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p =>
                        p.ClientId == new Core.PersonId(one) || p.Client!.MergedInto == new Core.PersonId(one)
                    )
                    .Select(p => p.Id.Value)
                    .ToListAsync()
        );
        var (status, body) = await life.OwnerAsync("POST", $"/api/people/{one}/erase");
        if (status == HttpStatusCode.Conflict)
            return;
        if (status != HttpStatusCode.NoContent)
            throw new LifeException($"Erasing {one} answers {status}: {body}");
        life.Erased.UnionWith(theirs);
        // what was confirmed of them is gone, as it was asked
        life.Confirmed.Clear();
        foreach (
            var project in (await life.LookAsync(life.Owner, "/api/erased"))!.Value.GetProperty("kept").EnumerateArray()
        )
            if (project.GetProperty("over").GetBoolean())
                await life.OwnerAsync("POST", $"/api/erased/{project.GetProperty("project").GetInt64()}/papers");
    }

    private static async Task StepsAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        await life.OwnerAsync("POST", $"/api/projects/{project}/{Operations.Pick(["stop-pending", "go-on"], random)}");
        await life.Studio.TickAsync();
    }
}
