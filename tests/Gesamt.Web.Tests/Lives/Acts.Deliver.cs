using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with the work in hand: tasks in full, the clock, checklists, phases, quotes.</summary>
public static partial class Acts
{
    /// <summary>A task with everything said of it, the owner’s or the client’s; only what is the client’s has public words.</summary>
    private static async Task PlannedTaskAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var clients = random.Next(3) == 0;
        string Words(string text) => clients ? text : $"{text} {Life.Private}";
        var body = new
        {
            title = Words($"Scale the drawing {random.Next(1_000)}"),
            due = Day(),
            phase = (string?)null,
            doneBy = (string?)null,
            plan = new
            {
                workOn = Day(),
                estimate = Operations.Pick(["", "3 h", "45 min", "1:30", "soon"], random),
                importance = Operations.Pick<int?>([null, 1, 3, 4], random),
                effort = Operations.Pick<int?>([null, 1, 2, 3], random),
                list = Words("Scaffold"),
            },
            words = new
            {
                description = Words("as they said on the phone"),
                finished = Words("it hangs"),
                steps = Enumerable
                    .Range(0, random.Next(3))
                    .Select(i => new { title = Words($"part {i}"), done = random.Next(2) == 0 }),
            },
            isClients = clients,
        };
        var (status, made) = await life.OwnerAsync("POST", $"/api/projects/{project}/tasks", body);
        if (status != HttpStatusCode.OK)
            return;
        var id = JsonNode.Parse(made)!["id"]!.GetValue<long>();
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/tasks/{id}/step",
            new { step = random.Next(3), done = true }
        );
        if (random.Next(3) == 0)
            await life.OwnerAsync("PUT", $"/api/projects/{project}/tasks/{id}", body);

        string? Day() =>
            random.Next(3) == 0 ? null : life.Today.PlusDays(random.Next(-5, 40)).ToString("uuuu-MM-dd", null);
    }

    private static async Task ListsAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/task-lists") is not { } lists
        )
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/task-lists",
            new
            {
                lists = lists
                    .EnumerateArray()
                    .Where(_ => random.Next(3) == 0)
                    .Select(list => new
                    {
                        list = list.GetProperty("key").GetString(),
                        leave = new[] { random.Next(4), random.Next(4) },
                    }),
            }
        );
    }

    private static async Task ClockAsync(Life life, Random random)
    {
        if (await life.LookAsync(life.Owner, "/api/work-clock") is not { } clock)
            return;
        if (clock.GetProperty("asked").EnumerateArray().ToList() is [var asked, ..])
            await life.OwnerAsync(
                "POST",
                $"/api/work-clock/{asked.GetProperty("id").GetInt32()}/answer",
                new { time = Operations.Pick(["", "7:30", "long"], random), drop = random.Next(4) == 0 }
            );
        else if (random.Next(3) == 0)
            await life.OwnerAsync("POST", "/api/work-clock/stop");
        else if (await OneAsync(life, random) is { } project)
            await life.OwnerAsync(
                "POST",
                "/api/work-clock",
                new
                {
                    project,
                    task = (long?)null,
                    words = Life.Private,
                }
            );
    }

    private static async Task ChecklistAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/checklists") is not { } lists
            || lists.EnumerateArray().ToList() is not [_, ..] all
        )
            return;
        var list = Operations.Pick(all, random);
        var answers = list.GetProperty("fields")
            .EnumerateArray()
            .Where(field => field.GetProperty("options").ValueKind == JsonValueKind.Array && random.Next(5) > 0)
            .ToDictionary(
                field => field.GetProperty("key").GetString()!,
                field => Operations.Pick(field.GetProperty("options").EnumerateArray().ToList(), random).GetString()!
            );
        await life.OwnerAsync(
            "PUT",
            $"/api/projects/{project}/checklists/{list.GetProperty("id").GetInt32()}",
            new { answers, edition = list.GetProperty("edition").GetInt32() }
        );
    }

    private static async Task PhasesAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var phases = record
            .GetProperty("sheet")
            .GetProperty("work")
            .GetProperty("phases")
            .EnumerateArray()
            .Select(phase => phase.GetProperty("name").GetString()!)
            .ToList();
        var kept = phases.Where(_ => random.Next(5) > 0).OrderBy(_ => random.Next()).ToList();
        await life.OwnerAsync(
            "PUT",
            $"/api/projects/{project}/phases",
            new
            {
                phases = kept.Select(name => new
                    {
                        name = random.Next(4) == 0 ? $"{name} {random.Next(100)}" : name,
                        was = (string?)name,
                        days = (int?)null,
                    })
                    .Concat(
                        random.Next(2) == 0
                            ? []
                            :
                            [
                                new
                                {
                                    name = $"phase {random.Next(50)}",
                                    was = (string?)null,
                                    days = (int?)random.Next(1, 20),
                                },
                            ]
                    ),
            }
        );
    }

    private static async Task QuoteAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/spent") is not { } spent
        )
            return;
        var quotes = spent
            .GetProperty("quotes")
            .EnumerateArray()
            .Select(one => one.GetProperty("id").GetInt64())
            .ToList();
        if (quotes.Count > 0 && random.Next(2) == 0)
            await (
                random.Next(3) == 0
                    ? life.OwnerAsync(
                        "POST",
                        $"/api/projects/{project}/quotes/{Operations.Pick(quotes, random)}/removed",
                        new { removed = random.Next(2) == 0 }
                    )
                    : life.OwnerAsync("POST", $"/api/projects/{project}/quotes/{Operations.Pick(quotes, random)}/take")
            );
        else
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/quotes",
                new
                {
                    supplier = $"Northgate Hire {Life.Private}",
                    // once it is a cost that is charged on, the invoice says what it was for
                    what = "Lift",
                    amount = $"{random.Next(1, 900)}",
                    tax = "23",
                    validUntil = life.Today.PlusDays(random.Next(-3, 30)).ToString("uuuu-MM-dd", null),
                }
            );
    }

    /// <summary>Ticks a task of theirs, or a part of one.</summary>
    private static async Task TickAsync(Life life, Random random, Visitor client, string api, JsonElement seen)
    {
        if (
            seen.GetProperty("parts").GetProperty("tasks") is not { ValueKind: JsonValueKind.Array } tasks
            || tasks.EnumerateArray().ToList() is not [_, ..] all
        )
            return;
        var task = Operations.Pick(all, random).GetProperty("id").GetString();
        await (
            random.Next(3) == 0
                ? life.SendAsync(
                    client,
                    "POST",
                    $"{api}/tasks/{task}/step",
                    new { step = 0, done = random.Next(2) == 0 }
                )
                : life.SendAsync(client, "POST", $"{api}/tasks/{task}/done", new { done = random.Next(4) > 0 })
        );
    }

    /// <summary>Praise kept, asked about, noted from elsewhere: what was said privately is the owner’s alone, only the words put to the client are theirs to read.</summary>
    private static async Task PraiseAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var at = $"/api/projects/{project}";
        switch (random.Next(4))
        {
            case 0:
                await life.OwnerAsync("POST", $"{at}/praise", new { words = $"It glows. {Life.Private}" });
                break;
            case 1:
                await life.OwnerAsync(
                    "POST",
                    $"{at}/testimonial/put",
                    new
                    {
                        words = Operations.Pick(["", "It glows."], random),
                        name = "Mona",
                        subject = "May I quote you?",
                        body = "Please look: [page link]",
                    }
                );
                break;
            case 2:
                await life.OwnerAsync("POST", $"{at}/testimonial/back");
                break;
            default:
                await life.OwnerAsync(
                    "POST",
                    $"{at}/leave",
                    new
                    {
                        to = Operations.Pick(["Quote", "Show"], random),
                        state = Operations.Pick(["Given", "Refused", "Revoked", "Asked"], random),
                    }
                );
                break;
        }
    }

    /// <summary>A client approves words, as they are or changed, or would rather not; gives, refuses and takes back leave.</summary>
    private static async Task LeaveAsync(Random random, JsonElement shown, Func<string, object?, Task> say)
    {
        if (shown.GetProperty("open").GetBoolean())
            await (
                random.Next(4) == 0
                    ? say("testimonial/decline", null)
                    : say(
                        "testimonial/approve",
                        new
                        {
                            words = Operations.Pick(["It glows.", "It glows at night.", ""], random),
                            name = "Mona",
                            hash = shown.GetProperty("hash").GetString(),
                        }
                    )
            );
        foreach (var leave in shown.GetProperty("leaves").EnumerateArray())
            if (random.Next(4) == 0)
                await say("leave/revoke", new { to = leave.GetProperty("to").GetString() });
            else if (random.Next(2) == 0)
                await say(
                    "leave",
                    new
                    {
                        to = leave.GetProperty("to").GetString(),
                        given = random.Next(3) > 0,
                        wording = leave.GetProperty("wording").GetString(),
                    }
                );
    }

    /// <summary>A run sheet written, laid or said to be agreed; what is the owner's alone has private words.</summary>
    private static async Task RunSheetAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/run-sheet") is not { } sheet
        )
            return;
        var at = $"/api/projects/{project}/run-sheet";
        var edition = sheet.GetProperty("edition").GetInt32();
        if (random.Next(4) == 0)
            await life.OwnerAsync("POST", $"{at}/agreed");
        else if (random.Next(4) == 0)
            await life.OwnerAsync("POST", $"{at}/lay", new { key = "workshop", edition });
        else
            await life.OwnerAsync(
                "PUT",
                at,
                new
                {
                    edition = random.Next(6) == 0 ? edition - 1 : edition,
                    dateName = sheet.GetProperty("dateName").GetString(),
                    earlier = random.Next(60),
                    items = Enumerable
                        .Range(0, random.Next(5))
                        .Select(i =>
                        {
                            var whom = Operations.Pick(["Everybody", "Suppliers", "Guests", "Me"], random);
                            return new
                            {
                                key = $"{i}",
                                day = random.Next(-2, 3),
                                start = $"{random.Next(24):00}:{random.Next(60):00}:00",
                                length = Operations.Pick(["", "2 h", "45 min", "long"], random),
                                what = whom == "Me" ? Life.Private : $"Thing {random.Next(3)}",
                                where = "",
                                who = "",
                                @for = whom,
                            };
                        }),
                }
            );
        if (random.Next(3) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/parts",
                new { part = "RunSheet", open = random.Next(4) > 0 }
            );
    }
}
