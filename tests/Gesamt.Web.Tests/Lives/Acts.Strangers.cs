using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What strangers and clients-to-be do.</summary>
public static partial class Acts
{
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
}
