using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests.Lives;

/// <summary>One thing somebody does: what, and which of the possible ways. The same numbers do the same in the same studio.</summary>
public readonly record struct Act(int What, int How)
{
    public override string ToString() => $"{Acts.NameOf(What)}/{How}";
}

/// <summary>What owner, clients, strangers, mail and clock can do.</summary>
public static class Acts
{
    private static readonly (string Name, int Weight, Func<Life, Random, Task> Do)[] Known =
    [
        ("form", 6, FormAsync),
        ("odd form", 3, OddFormAsync),
        ("typed in", 3, TypedInAsync),
        ("upload", 2, UploadAsync),
        ("stranger", 3, StrangerAsync),
        ("mail", 6, MailAsync),
        ("hostile mail", 2, HostileMailAsync),
        ("letter", 5, LetterAsync),
        ("held letters", 6, HeldAsync),
        ("asked", 4, AskedAsync),
        ("propose", 7, ProposeAsync),
        ("happened", 14, HappenedAsync),
        ("payment taken back", 3, VoidAsync),
        ("task", 5, TaskAsync),
        ("note", 4, NoteAsync),
        ("date", 4, DateAsync),
        ("file", 4, FileAsync),
        ("review", 4, ReviewAsync),
        ("handover", 3, HandoverAsync),
        ("away", 2, AwayAsync),
        ("meeting", 4, MeetingAsync),
        ("brief", 4, BriefAsync),
        ("ask form", 3, AskFormAsync),
        ("details", 3, DetailsAsync),
        ("page", 4, PageAsync),
        ("studio", 2, StudioAsync),
        ("people", 3, PeopleAsync),
        ("steps", 3, StepsAsync),
        ("client", 26, ClientAsync),
        ("wait", 16, WaitAsync),
        ("sensible", 10, SensibleAsync),
        ("odd", 10, OddAsync),
    ];

    private static readonly int[] Order = [.. Known.SelectMany((act, i) => Enumerable.Repeat(i, act.Weight))];

    public static int Count => Order.Length;

    public static string NameOf(int what) => Known[Order[what % Order.Length]].Name;

    public static Task DoAsync(Life life, Act act) =>
        Known[Order[act.What % Order.Length]].Do(life, new Random(act.How));

    // ---- strangers and clients-to-be

    private static async Task FormAsync(Life life, Random random)
    {
        var visitor = new Visitor(life.Studio);
        var slug = Operations.Pick(["mural", "lettering", "menu-boards", "workshop", "upkeep"], random);
        var (status, form) = await life.SendAsync(visitor, "GET", $"/forms/{slug}");
        if (status != HttpStatusCode.OK)
            return;
        var mail = $"client{random.Next(12)}@lanternhouse.example";
        var answers = new JsonObject();
        foreach (var field in JsonNode.Parse(form)!["fields"]!.AsArray())
            if (Sensible(field!.AsObject(), mail, random) is { } answer)
                answers[(string)field!["key"]!] = answer;
        await life.SendAsync(
            visitor,
            "POST",
            $"/forms/{slug}",
            new JsonObject { ["answers"] = answers, ["token"] = (string)JsonNode.Parse(form)!["token"]! }
        );
        await life.WaitAsync(Duration.Zero);
        await life.Studio.TickAsync();
    }

    private static string? Sensible(JsonObject field, string mail, Random random) =>
        (string)field["sort"]! switch
        {
            "Heading" or "File" => null,
            "Consent" => "yes",
            "OneOf" or "AnyOf" => (string)Operations.Pick(field["options"]!.AsArray().ToList(), random)!,
            "Number" => $"{random.Next(1, 60)}",
            "Amount" => $"{random.Next(1, 30)}00",
            "Date" => new LocalDate(2027, 3, 1).PlusDays(random.Next(300)).ToString("uuuu-MM-dd", null),
            "Mail" => mail,
            "Phone" => "00353 1 5550100",
            _ => field["fills"] is { } fills && (string?)fills == "name"
                ? $"Mona Delarue {random.Next(9)}"
                : "A lantern on the gable, three metres high.",
        };

    private static async Task OddFormAsync(Life life, Random random)
    {
        var visitor = new Visitor(life.Studio);
        var (_, form) = await life.SendAsync(visitor, "GET", "/forms/mural");
        var token = (string)JsonNode.Parse(form)!["token"]!;
        var answers = new Dictionary<string, string?>(
            Web.Tests.Studio.Answers.Select(pair => KeyValuePair.Create(pair.Key, (string?)pair.Value))
        );
        for (var i = random.Next(1, 4); i > 0; i--)
            answers[Operations.Pick(["name", "mail", "wish", "size", "date", "consent", "phone", "nothing"], random)] =
                random.Next(8) == 0 ? null : Operations.Pick(Operations.OddWords, random);
        if (random.Next(3) > 0)
            await life.SendAsync(visitor, "POST", "/forms/mural", new { answers, token });
        else
        {
            using var plain = new MultipartFormDataContent
            {
                { new StringContent(token), "token" },
                { new StringContent(""), "website" },
            };
            foreach (var (key, value) in answers)
                plain.Add(new StringContent(value ?? ""), $"f-{key}");
            if (random.Next(3) == 0)
                plain.Add(
                    new ByteArrayContent(Encoding.UTF8.GetBytes("a note")),
                    "f-photos",
                    random.Next(2) == 0 ? "note.txt" : "a." + new string('b', 300)
                );
            await life.SendAsync(visitor, "POST", "/forms/mural/plain", plain);
        }
        await life.Studio.TickAsync();
    }

    private static async Task TypedInAsync(Life life, Random random)
    {
        var kinds = (await life.LookAsync(life.Owner, "/api/kinds"))!.Value;
        var kind = kinds[random.Next(kinds.GetArrayLength())].GetProperty("id").GetInt64();
        await life.OwnerAsync(
            "POST",
            "/api/inquiries",
            new
            {
                kind,
                name = $"Ada Quill {random.Next(9)}",
                mail = random.Next(4) == 0 ? null : $"ada{random.Next(9)}@quill.example",
                phone = "00353 1 5550100",
                title = random.Next(2) == 0 ? null : "A wall",
                source = "phone",
                words = $"Rang about a wall. {Life.Private}",
                date = random.Next(2) == 0 ? "2027-06-18" : null,
                followUp = random.Next(2) == 0,
            }
        );
        await life.Studio.TickAsync();
    }

    private static async Task UploadAsync(Life life, Random random)
    {
        var visitor = new Visitor(life.Studio);
        var (_, form) = await life.SendAsync(visitor, "GET", "/forms/mural");
        var token = Uri.EscapeDataString((string)JsonNode.Parse(form)!["token"]!);
        var bytes = random.Next(4) switch
        {
            0 => [0x4d, 0x5a, 0, 0],
            1 => new byte[300_000],
            _ => Encoding.UTF8.GetBytes($"A photograph in words {random.Next(50)}"),
        };
        await life.SendAsync(
            visitor,
            "POST",
            $"/forms/mural/files?name={Uri.EscapeDataString(Operations.Pick(["note.txt", "a.html", "x.php", "a." + new string('b', 300), "..", "墙.txt"], random))}&token={token}",
            Bytes(bytes)
        );
    }

    private static async Task StrangerAsync(Life life, Random random)
    {
        var stranger = life.Stranger;
        switch (random.Next(6))
        {
            case 0:
                await life.SendAsync(
                    stranger,
                    "GET",
                    Operations.Pick(
                        [
                            "/",
                            "/p/none",
                            "/p/none/enter/none",
                            "/i/none",
                            "/forms/none",
                            "/embed/none.js",
                            "/logo",
                            "/feed/none.ics",
                            "/open/v1/projects",
                            "/nothing/at/all",
                            "/rooms/none",
                            "/cards/none",
                            "/openapi/v1.json",
                        ],
                        random
                    )
                );
                break;
            case 1:
                await life.SendAsync(stranger, "POST", "/api/session", new { password = "guess" });
                break;
            case 2:
                await life.SendAsync(
                    stranger,
                    "POST",
                    "/open/v1/inquiries",
                    new
                    {
                        kind = "mural",
                        name = "X",
                        mail = "x@y.example",
                    }
                );
                break;
            case 3:
                await life.SendAsync(stranger, "POST", "/nothing", new { });
                break;
            default:
                var operation = Operations.Pick(Operations.All, random);
                var (status, _) = await life.SendAsync(
                    stranger,
                    operation.Method,
                    Filled(life, operation, random, await NumbersAsync(life)),
                    operation.Body is { } body && operation.Method != "GET"
                        ? Operations.Odd(body, random, _ => 1) ?? new JsonObject()
                        : null
                );
                if (
                    status == HttpStatusCode.OK
                    && operation.Path.StartsWith("/api/", StringComparison.Ordinal)
                    && operation.Path != "/api/session"
                )
                    throw new LifeException($"A stranger may {operation.Method} {operation.Path}");
                break;
        }
    }

    private static async Task MailAsync(Life life, Random random)
    {
        var projects = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Projects.Select(p => new { p.Code, p.Client!.Mail }).ToListAsync()
        );
        var one = projects.Count == 0 ? null : Operations.Pick(projects, random);
        var from = random.Next(5) == 0 || one?.Mail is null ? $"stranger{random.Next(5)}@nowhere.example" : one.Mail;
        var to =
            random.Next(3) == 0 || one is null ? "isolde@marrin-murals.example" : $"{one.Code}@marrin-murals.example";
        var head = random.Next(6) == 0 ? "Auto-Submitted: auto-replied\r\n" : "";
        var (type, text) =
            random.Next(4) == 0
                ? ("text/html; charset=utf-8", "<p>Yes, gladly.</p><p>On Monday?</p>")
                : (
                    "text/plain; charset=utf-8",
                    $"Yes, gladly. {random.Next(1_000)}\r\n\r\nOn Monday you wrote:\r\n> Hello there\r\n"
                );
        life.Studio.Mail(
            $"From: <{from}>\r\nTo: <{to}>\r\nSubject: About it\r\nMessage-ID: <{Guid.NewGuid():n}@wire.example>\r\nDate: Mon, 25 Jan 2027 10:00:00 +0000\r\n{head}MIME-Version: 1.0\r\nContent-Type: {type}\r\n\r\n{text}"
        );
        await life.Studio.TickAsync();
    }

    private static async Task HostileMailAsync(Life life, Random random)
    {
        var messages = HostileMailTests.Messages.Select(row => row.Data.Item2).ToList();
        life.Studio.Mail(Operations.Pick(messages, random));
        await life.Studio.TickAsync();
    }

    // ---- the owner

    private static async Task LetterAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var (body, files) = (
            Operations.Pick(
                [
                    "Hello [first name, or: there], how are you?",
                    "Here is your page: [page link]",
                    "I will ring on Monday.",
                    "[unknown blank]",
                ],
                random
            ),
            Array.Empty<object>()
        );
        var (status, answer) = await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/letter",
            new
            {
                subject = $"About it {random.Next(1_000)}",
                body,
                files,
            }
        );
        if (status == HttpStatusCode.OK && random.Next(5) == 0 && JsonNode.Parse(answer)?["letter"] is { } letter)
            await life.OwnerAsync("POST", $"/api/letters/{letter}/take-back");
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HeldAsync(Life life, Random random)
    {
        foreach (
            var letter in await life.Studio.LookAsync(
                (Gesamt.Store.GesamtDb db) =>
                    db
                        .Letters.Where(l => l.State == LetterState.Held)
                        .OrderBy(l => l.Id)
                        .Select(l => l.Id.Value)
                        .Take(4)
                        .ToListAsync()
            )
        )
            await (
                random.Next(6) switch
                {
                    0 => life.OwnerAsync("POST", $"/api/letters/{letter}/skip"),
                    1 => life.OwnerAsync(
                        "POST",
                        $"/api/letters/{letter}/later",
                        new
                        {
                            until = $"{life.Today.PlusDays(random.Next(-1, 9)):uuuu-MM-dd}T10:00:00",
                            subject = (string?)null,
                            body = (string?)null,
                        }
                    ),
                    _ => life.OwnerAsync(
                        "POST",
                        $"/api/letters/{letter}/release",
                        new { subject = (string?)null, body = (string?)null }
                    ),
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task AskedAsync(Life life, Random random)
    {
        foreach (
            var asked in (await life.LookAsync(life.Owner, "/api/today"))!
                .Value.GetProperty("ready")
                .GetProperty("asked")
                .EnumerateArray()
                .Take(3)
        )
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{asked.GetProperty("project").GetInt64()}/asked",
                new
                {
                    run = asked.GetProperty("run").GetInt64(),
                    step = asked.GetProperty("step").GetString(),
                    occurrence = asked.GetProperty("occurrence").GetInt32(),
                    yes = random.Next(3) > 0,
                }
            );
        await life.Studio.TickAsync();
    }

    private static async Task ProposeAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/proposal") is not { } draft
        )
            return;
        var offer = JsonNode.Parse(draft.GetProperty("offer").GetRawText())!;
        JsonObject Line(string key, string role, string? group, string price) =>
            new()
            {
                ["key"] = key,
                ["role"] = role,
                ["group"] = group,
                ["title"] = $"Part {key}",
                ["detail"] = "",
                ["quantity"] = $"{random.Next(1, 40)}",
                ["unit"] = "m²",
                ["unitPrice"] = price,
                ["tax"] = random.Next(4) == 0 ? "13.5" : "23",
                ["suggested"] = false,
            };
        offer["lines"] = new JsonArray(
            Line("g", "Included", null, "140"),
            Line("s", "OneOf", "access", "130.33"),
            Line("l", "OneOf", "access", "99.99"),
            Line("n", "Extra", null, "20")
        );
        await life.OwnerAsync(
            "PUT",
            $"/api/projects/{project}/proposal",
            new JsonObject
            {
                ["edition"] = draft.GetProperty("edition").GetInt32(),
                ["offer"] = offer,
                ["contract"] = draft.GetProperty("contract").GetString(),
            }
        );
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/proposal/send",
            new { subject = "Your proposal", body = "Here it is: [proposal link]" }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HappenedAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var can = record
            .GetProperty("path")
            .GetProperty("happen")
            .GetProperty("can")
            .EnumerateArray()
            .Select(one => one.GetProperty("sort").GetString()!)
            .ToList();
        // ends come seldom, else no life gets far
        var sort = can.Where(one =>
                random.Next(5) == 0
                || one
                    is not (
                        "NotAFit"
                        or "Referred"
                        or "Lost"
                        or "GoneQuiet"
                        or "Cancelled"
                        or "NotAnInquiry"
                        or "Waived"
                        or "Rest"
                    )
            )
            .ToList()
            is { Count: > 0 } some
            ? Operations.Pick(some, random)
            : "Call";
        var pay = record.GetProperty("sheet").GetProperty("toPay");
        var open = pay.GetProperty("invoices").EnumerateArray().ToList();
        var owed = open.Count > 0 ? Operations.Pick(open, random) : (JsonElement?)null;
        var amount = sort switch
        {
            "Paid" when owed is { } invoice => random.Next(3) == 0
                ? "10"
                : invoice
                    .EnumerateObject()
                    .Where(p => p.Value.ValueKind == JsonValueKind.String)
                    .Select(p => p.Value.GetString()!)
                    .Last(),
            "Paid" => pay.EnumerateObject()
                .Where(p => p.Value.ValueKind == JsonValueKind.String)
                .Select(p => p.Value.GetString())
                .FirstOrDefault()
                ?? "5",
            _ => $"{random.Next(1, 3000)}",
        };
        var file = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Files.Where(f => f.ProjectId == new ProjectId(project))
                    .Select(f => (long?)f.Id.Value)
                    .FirstOrDefaultAsync()
        );
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/happened",
            new
            {
                sort,
                words = sort == "Countersign" ? "Isolde Marrin" : $"Said so. {Life.Private}",
                on = random.Next(4) == 0 ? life.Today.PlusDays(-random.Next(4)).ToString("uuuu-MM-dd", null) : null,
                until = random.Next(2) == 0
                    ? life.Today.PlusDays(random.Next(1, 30)).ToString("uuuu-MM-dd", null)
                    : null,
                amount,
                tax = "23",
                onBooking = Operations.Pick(["40", "0", "100"], random),
                means = "Transfer",
                invoice = sort == "Paid" ? owed?.GetProperty("id").GetInt64() : null,
                file,
                credit = random.Next(2) == 0,
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task VoidAsync(Life life, Random random)
    {
        var payments = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Payments.Where(p => p.GoneAt == null)
                    .Select(p => new { Project = p.ProjectId.Value, Id = p.Id.Value })
                    .ToListAsync()
        );
        if (payments.Count == 0)
            return;
        var one = Operations.Pick(payments, random);
        await life.OwnerAsync("POST", $"/api/projects/{one.Project}/payments/{one.Id}/void");
        await life.Studio.TickAsync();
    }

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
    }

    private static async Task NoteAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var text = $"Note {random.Next(1_000_000)} {Life.Private}";
        var (status, _) = await life.OwnerAsync("POST", $"/api/projects/{project}/notes", new { text });
        if (status is HttpStatusCode.OK or HttpStatusCode.NoContent)
            life.Confirmed.Add(
                (
                    $"note {text}",
                    () => life.Studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Notes.AnyAsync(n => n.Text == text))
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
            random.Next(6) switch
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
                _ => life.OwnerAsync("POST", $"/api/projects/{project}/meetings/{one}/cancel"),
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
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
        studio["address"] = $"{random.Next(99)} Quay Street";
        studio["iban"] = Operations.Pick(["IE29AIBK93115212345678", "DE89370400440532013000"], random);
        studio["daysOff"] = new JsonArray(life.Today.PlusDays(random.Next(20)).ToString("uuuu-MM-dd", null));
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

    private static async Task StepsAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        await life.OwnerAsync("POST", $"/api/projects/{project}/{Operations.Pick(["stop-pending", "go-on"], random)}");
        await life.Studio.TickAsync();
    }

    // ---- clients on their pages

    private static async Task ClientAsync(Life life, Random random)
    {
        if (life.Clients.Count == 0)
            return;
        var (page, client) = Operations.Pick(
            life.Clients.OrderBy(pair => pair.Key, StringComparer.Ordinal).ToList(),
            random
        );
        if (await life.LookAsync(client, $"{page}/api") is not { } seen)
            return;
        var api = $"{page}/api";
        switch (seen.GetProperty("booking").GetProperty("step").GetString())
        {
            case "Choose" when random.Next(2) == 0:
                await life.SendAsync(client, "POST", $"{api}/opened");
                await life.SendAsync(client, "GET", $"{api}/price?choose=s&choose=n");
                await (
                    random.Next(8) switch
                    {
                        0 => life.SendAsync(client, "POST", $"{api}/change", new { words = "A little less, please." }),
                        1 => life.SendAsync(client, "POST", $"{api}/decline", new { words = "Not this year." }),
                        _ => life.SendAsync(
                            client,
                            "POST",
                            $"{api}/accept",
                            new { chosen = random.Next(5) == 0 ? ["l"] : new[] { "s", "n" } }
                        ),
                    }
                );
                break;
            case "Sign" when random.Next(4) > 0:
                await life.SendAsync(
                    client,
                    "POST",
                    $"{api}/sign",
                    new
                    {
                        name = Operations.Pick(["Mona Delarue", "Μόνα", "Мона", "墙"], random),
                        agreed = true,
                        hash = seen.GetProperty("booking").GetProperty("contract").GetProperty("hash").GetString(),
                    }
                );
                break;
            case "Book" when random.Next(3) > 0:
                var (status, address) = await life.SendAsync(client, "POST", $"{api}/pay");
                if (status == HttpStatusCode.OK)
                {
                    var session = (string)JsonNode.Parse(address)!["address"]!;
                    var card = $"/card-house/{session[(session.LastIndexOf('/') + 1)..].Split('?')[0]}";
                    var payer = new Visitor(life.Studio);
                    var (found, door) = await life.SendAsync(payer, "GET", card);
                    if (found == HttpStatusCode.OK && JsonNode.Parse(door)?["token"] is { } token)
                        payer.Token = (string)token!;
                    await life.SendAsync(
                        payer,
                        "POST",
                        card,
                        new { number = Operations.Pick(["4242 4242 4242 4242", "4000 0000 0000 0002"], random) }
                    );
                    await life.SendAsync(client, "POST", $"{api}/settle");
                }
                break;
            default:
                await PartsAsync(life, random, client, api, seen);
                break;
        }
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task PartsAsync(Life life, Random random, Visitor client, string api, JsonElement seen)
    {
        if (
            seen.GetProperty("parts").GetProperty("drafts") is { ValueKind: JsonValueKind.Object } drafts
            && drafts.GetProperty("rounds").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } round
            && random.Next(2) == 0
        )
            await life.SendAsync(
                client,
                "POST",
                $"{api}/rounds/{round.GetProperty("id").GetString()}/{Operations.Pick(["remark", "changes", "approve"], random)}",
                new { words = "A little bluer." }
            );
        else if (
            seen.GetProperty("parts").GetProperty("forms").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } form
            && random.Next(2) == 0
        )
        {
            var answers = new JsonObject();
            foreach (var field in form.GetProperty("fields").EnumerateArray())
                if (
                    Sensible(JsonNode.Parse(field.GetRawText())!.AsObject(), "mona@lanternhouse.example", random) is
                    { } answer
                )
                    answers[field.GetProperty("key").GetString()!] = answer;
            await life.SendAsync(
                client,
                "POST",
                $"{api}/forms/{form.GetProperty("slug").GetString()}{(random.Next(3) == 0 ? "/draft" : "")}",
                new JsonObject { ["answers"] = answers }
            );
        }
        else if (
            seen.GetProperty("meetings").GetProperty("chooseTime").ValueKind == JsonValueKind.String
            && await life.LookAsync(client, $"{api}/times") is { } times
            && times.GetProperty("days").GetArrayLength() > 0
        )
        {
            var days = times.GetProperty("days");
            var open = days[random.Next(days.GetArrayLength())].GetProperty("times");
            await life.SendAsync(
                client,
                "POST",
                $"{api}/times",
                new
                {
                    start = open[random.Next(open.GetArrayLength())].GetProperty("start").GetString(),
                    zone = "America/New_York",
                    answers = Array.Empty<string>(),
                }
            );
        }
        else if (
            seen.GetProperty("parts").GetProperty("brief") is { ValueKind: JsonValueKind.Object } brief
            && brief.GetProperty("open").GetBoolean()
        )
            await (
                random.Next(2) == 0
                    ? life.SendAsync(
                        client,
                        "POST",
                        $"{api}/brief/approve",
                        new { hash = brief.GetProperty("hash").GetString() }
                    )
                    : life.SendAsync(client, "POST", $"{api}/brief/remark", new { words = "Bluer." })
            );
        else if (
            seen.GetProperty("meetings").GetProperty("all").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } meeting
            && random.Next(2) == 0
        )
            await life.SendAsync(client, "POST", $"{api}/meetings/{meeting.GetProperty("id").GetString()}/cancel");
        else if (
            seen.GetProperty("parts").GetProperty("files") is { ValueKind: JsonValueKind.Object }
            && random.Next(2) == 0
        )
            await (
                random.Next(2) == 0
                    ? life.SendAsync(client, "POST", $"{api}/approve")
                    : life.SendAsync(
                        client,
                        "POST",
                        $"{api}/files?name=photo.txt",
                        Bytes(Encoding.UTF8.GetBytes($"photo {random.Next(99)}"))
                    )
            );
        else
            await life.SendAsync(
                client,
                "GET",
                $"{api}{Operations.Pick(["/contract.pdf", "/price", "/times?zone=Nowhere", "/files/none", "/invoices/none.pdf"], random)}"
            );
    }

    // ---- the clock, and anything at all

    private static Task WaitAsync(Life life, Random random) =>
        life.WaitAsync(
            random.Next(7) switch
            {
                0 => Duration.FromMinutes(random.Next(1, 120)),
                1 or 2 => Duration.FromHours(random.Next(1, 30)),
                3 or 4 => Duration.FromDays(random.Next(1, 5)),
                5 => Duration.FromDays(random.Next(5, 16)),
                _ => Duration.FromDays(random.Next(16, 35)),
            }
        );

    private static async Task SensibleAsync(Life life, Random random)
    {
        var numbers = await NumbersAsync(life);
        var operation = Operations.Pick(Mine, random);
        await life.OwnerAsync(
            operation.Method,
            Filled(life, operation, random, numbers),
            operation.TakesBytes ? Bytes(Encoding.UTF8.GetBytes("Name;Mail\nAda;ada@quill.example\n"))
                : operation.Body is { } body
                    ? Operations.Sensible(body, random, name => numbers(name, random)) ?? new JsonObject()
                : null
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task OddAsync(Life life, Random random)
    {
        var numbers = await NumbersAsync(life);
        var operation = Operations.Pick(Mine, random);
        await life.OwnerAsync(
            operation.Method,
            Filled(life, operation, random, numbers, odd: true),
            operation.TakesBytes ? Bytes(Encoding.UTF8.GetBytes(Operations.Pick(Operations.OddWords, random)))
                : operation.Body is { } body
                    ? Operations.Odd(body, random, name => numbers(name, random)) ?? new JsonObject()
                : null
        );
        await life.Studio.TickAsync();
    }

    // not those that end the life itself: the clock and the session are acts of their own
    private static readonly IReadOnlyList<Operation> Mine =
    [
        .. Operations.All.Where(o =>
            o.Path.StartsWith("/api/", StringComparison.Ordinal)
            && o.Path
                is not ("/api/clock" or "/api/session" or "/api/session/end-all" or "/api/codes/on" or "/api/codes/off")
            && !o.Path.StartsWith("/api/sessions", StringComparison.Ordinal)
        ),
    ];

    private static string Filled(
        Life life,
        Operation operation,
        Random random,
        Func<string, Random, long> numbers,
        bool odd = false
    )
    {
        _ = life;
        var path = System.Text.RegularExpressions.Regex.Replace(
            operation.Path,
            @"\{([a-z]+)\}",
            place =>
                Uri.EscapeDataString(
                    odd && random.Next(5) == 0
                        ? Operations.Pick(["0", "-1", "9223372036854775807", "x", "%00", "Letter"], random)
                        : place.Groups[1].Value switch
                        {
                            "what" => Operations.Pick(
                                [
                                    "Letter",
                                    "Note",
                                    "Answers",
                                    "Proposal",
                                    "Contract",
                                    "Invoice",
                                    "Payment",
                                    "Review",
                                    "Meeting",
                                ],
                                random
                            ),
                            "key" => Operations.Pick(["welcome", "thank-you", "mural", "none"], random),
                            "slug" => "mural",
                            "part" => "goal",
                            "label" => "sign",
                            "id" => $"{numbers(operation.Path.Split('/')[2], random)}",
                            var name => $"{numbers(name, random)}",
                        }
                )
        );
        var query = operation
            .Query.Where(_ =>
                random.Next(2) == 0 || path.Contains("/files", StringComparison.Ordinal) || operation.TakesBytes
            )
            .Select(p =>
                $"{p["name"]}={Uri.EscapeDataString((string)p["name"]! switch { "name" => "table.csv", "group" => "Supplied", "words" => "lantern", "text" => "call Ada on friday at 10", _ => odd ? Operations.Pick(Operations.OddWords.Where(word => word.Length < 40 && !word.Any(char.IsSurrogate)).ToList(), random) : "1" })}"
            )
            .ToList();
        return query.Count == 0 ? path : $"{path}?{string.Join('&', query)}";
    }

    /// <summary>A number of something that is there, by the name of its place.</summary>
    private static async Task<Func<string, Random, long>> NumbersAsync(Life life)
    {
        var known = await life.Studio.LookAsync(
            async (Gesamt.Store.GesamtDb db) =>
                new Dictionary<string, List<long>>
                {
                    ["projects"] = await db.Projects.Select(p => p.Id.Value).ToListAsync(),
                    ["letters"] = await db.Letters.Select(p => p.Id.Value).ToListAsync(),
                    ["people"] = await db.People.Select(p => p.Id.Value).ToListAsync(),
                    ["kinds"] = await db.Kinds.Select(p => p.Id.Value).ToListAsync(),
                    ["routines"] = await db.Routines.Select(p => (long)p.Id).ToListAsync(),
                    ["task"] = await db.Tasks.Select(p => p.Id.Value).ToListAsync(),
                    ["file"] = await db.Files.Select(p => p.Id.Value).ToListAsync(),
                    ["meeting"] = await db.Meetings.Select(p => p.Id.Value).ToListAsync(),
                    ["payment"] = await db.Payments.Select(p => p.Id.Value).ToListAsync(),
                    ["reviews"] = await db.Reviews.Select(p => p.Id.Value).ToListAsync(),
                    ["slips"] = await db.Slips.Select(p => (long)p.Id).ToListAsync(),
                }
        );
        return (name, random) =>
            known.GetValueOrDefault(
                name switch
                {
                    "project" => "projects",
                    "person" or "other" or "client" or "colleague" => "people",
                    "letter" or "answers" => "letters",
                    "kind" => "kinds",
                    "edition" => "none",
                    _ => name,
                }
            )
                is { Count: > 0 } some
                ? Operations.Pick(some, random)
            : name == "edition" ? random.Next(3)
            : random.Next(1, 4);
    }

    private static async Task<long?> OneAsync(Life life, Random random) =>
        await life.ProjectsAsync() is { Count: > 0 } some ? Operations.Pick(some, random) : null;

    private static ByteArrayContent Bytes(byte[] bytes)
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        return content;
    }
}
