using System.Text;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests.Lives;

/// <summary>One thing somebody does: what, and which of the possible ways. The same numbers do the same in the same studio.</summary>
public readonly record struct Act(int What, int How)
{
    public override string ToString() => $"{Acts.NameOf(What)}/{How}";
}

/// <summary>What owner, clients, strangers, mail and clock can do.</summary>
public static partial class Acts
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
        ("contract", 5, ContractAsync),
        ("amend", 4, AmendAsync),
        ("rates", 3, RatesAsync),
        ("happened", 14, HappenedAsync),
        ("payment taken back", 3, VoidAsync),
        ("bill", 4, BillAsync),
        ("spent", 4, SpentAsync),
        ("recurring", 4, RecurringAsync),
        ("credit", 2, CreditAsync),
        ("gives back", 3, RefundAsync),
        ("charged back", 2, ChargedBackAsync),
        ("bank", 5, BankAsync),
        ("task", 5, TaskAsync),
        ("planned task", 4, PlannedTaskAsync),
        ("week", 5, WeekAsync),
        ("books", 5, BooksAsync),
        ("lists", 2, ListsAsync),
        ("clock", 4, ClockAsync),
        ("checklist", 4, ChecklistAsync),
        ("phases", 2, PhasesAsync),
        ("quote", 3, QuoteAsync),
        ("praise", 3, PraiseAsync),
        ("run sheet", 3, RunSheetAsync),
        ("entries", 5, EntriesAsync),
        ("note", 4, NoteAsync),
        ("date", 4, DateAsync),
        ("file", 4, FileAsync),
        ("review", 4, ReviewAsync),
        ("handover", 3, HandoverAsync),
        ("away", 2, AwayAsync),
        ("meeting", 4, MeetingAsync),
        ("head", 2, HeadAsync),
        ("brief", 4, BriefAsync),
        ("ask form", 3, AskFormAsync),
        ("details", 3, DetailsAsync),
        ("page", 4, PageAsync),
        ("studio", 2, StudioAsync),
        ("people", 3, PeopleAsync),
        ("erase", 3, EraseAsync),
        ("comes with a table", 3, ComeAsync),
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
                    ["invoices"] = await db.Invoices.Select(p => p.Id.Value).ToListAsync(),
                    ["hours"] = await db.Hours.Select(p => p.Id.Value).ToListAsync(),
                    ["cost"] = await db.Costs.Select(p => p.Id.Value).ToListAsync(),
                    ["lines"] = await db.BankLines.Select(p => p.Id.Value).ToListAsync(),
                    ["recurring"] = await db.Recurring.Select(p => p.Id.Value).ToListAsync(),
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
