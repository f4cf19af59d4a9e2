using System.Text.Json;
using Gesamt.Web.Demo;

namespace Gesamt.Web.Tests.Lives;

/// <summary>Lists, mood boards and shared notes: what the owner writes in them, and what clients change.</summary>
public static partial class Acts
{
    private static readonly string[] Words =
    [
        "Paint",
        "1.500",
        "20 GBP",
        "12 mar",
        "yes",
        "",
        "Gulls\n\nand bread",
        "=1+1",
    ];

    private static async Task EntriesAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var lists = record.GetProperty("sheet").GetProperty("lists").EnumerateArray().ToList();
        if (lists.Count == 0 || random.Next(5) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/lists",
                new { name = $"List {random.Next(3)}", sort = Operations.Pick(["Rows", "Board", "Notes"], random) }
            );
        else if (
            Operations.Pick(lists, random).GetProperty("id").GetString() is { } id
            && await life.LookAsync(life.Owner, $"/api/lists/{id}") is { } own
        )
            await OwnAsync(life, random, id, own);
        if (random.Next(3) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/parts",
                new { part = Operations.Pick(["Lists", "Boards", "Notes"], random), open = random.Next(4) > 0 }
            );
        await life.Studio.TickAsync();
    }

    private static async Task OwnAsync(Life life, Random random, string id, JsonElement own)
    {
        var list = own.GetProperty("list");
        var changes = own.GetProperty("changes").EnumerateArray().ToList();
        switch (random.Next(9))
        {
            case 0:
                await life.OwnerAsync(
                    "PUT",
                    $"/api/lists/{id}",
                    new
                    {
                        edition = own.GetProperty("edition").GetInt32() - random.Next(6) / 5,
                        name = list.GetProperty("name").GetString(),
                        reader = Operations.Pick(["Owner", "Shown", "Edited", "Edited"], random),
                        columns = new[]
                        {
                            Column("a", Operations.Pick(["Text", "Amount", "Number"], random)),
                            Column("b", Operations.Pick(["Date", "YesNo", "Text"], random)),
                        },
                    }
                );
                break;
            case 1 when changes.Count > 0:
                await life.OwnerAsync(
                    "POST",
                    $"/api/lists/{id}/changes/{Operations.Pick(changes, random).GetProperty("id").GetInt64()}/undone",
                    new { undone = random.Next(5) > 0 }
                );
                break;
            case 1:
                await life.OwnerAsync("POST", $"/api/lists/{id}/seen", new { seen = random.Next(3) > 0 });
                break;
            case 2:
                await life.OwnerAsync("POST", $"/api/lists/{id}/final", new { final = random.Next(3) > 0 });
                break;
            case 3:
                await life.OwnerAsync("POST", $"/api/lists/{id}/kept", new { name = "Kept" });
                break;
            case 4:
                await life.OwnerAsync(
                    "POST",
                    $"/api/lists/{id}/table",
                    Bytes("What;Costs\nPaint;12,50\nSize;1.500\n"u8.ToArray())
                );
                break;
            default:
                await EntryAsync(
                    random,
                    list,
                    own: true,
                    (method, at, body) => life.OwnerAsync(method, $"/api/lists/{id}/{at}", body)
                );
                break;
        }
    }

    private static object Column(string key, string sort) =>
        new
        {
            key,
            name = key,
            sort,
            choices = Array.Empty<string>(),
            sum = true,
            step = true,
        };

    /// <summary>A client writes in what is shown to them, whether they may or not.</summary>
    private static async Task TheirListAsync(Life life, Random random, Visitor client, string api, JsonElement parts)
    {
        var shown = new[] { "lists", "boards", "notes" }
            .Select(part => parts.GetProperty(part))
            .Where(part => part.ValueKind == JsonValueKind.Array)
            .SelectMany(part => part.EnumerateArray())
            .ToList();
        if (shown.Count == 0)
            return;
        var list = Operations.Pick(shown, random);
        var at = $"{api}/lists/{list.GetProperty("id").GetString()}";
        if (list.GetProperty("hash").GetString() is { } hash && random.Next(2) == 0)
            await life.SendAsync(client, "POST", $"{at}/approve", new { hash });
        else
            await EntryAsync(
                random,
                list,
                own: false,
                (method, what, body) => life.SendAsync(client, method, $"{at}/{what}", body)
            );
    }

    private static async Task EntryAsync(
        Random random,
        JsonElement list,
        bool own,
        Func<string, string, object, Task> send
    )
    {
        var entries = list.GetProperty("entries").EnumerateArray().ToList();
        var entry = entries.Count > 0 && random.Next(3) > 0 ? Operations.Pick(entries, random) : (JsonElement?)null;
        var key = entry?.GetProperty("key").GetString() ?? $"k{random.Next(1_000)}";
        var what = random.Next(own ? 5 : 3);
        if (what == 0 && list.GetProperty("sort").GetString() == "Board")
            await send("POST", $"pictures?name={random.Next(9)}.png", Bytes(DemoPictures.Draw($"{random.Next(4)}")));
        else if (what == 1 && entry is not null)
            await send("POST", $"entries/{key}/struck", new { struck = random.Next(2) == 0 });
        else if (what == 3 && entry is not null)
            await send("POST", $"entries/{key}/removed", new { removed = random.Next(3) > 0 });
        else if (what == 4)
            await send(
                "PUT",
                "order",
                new { keys = entries.Select(one => one.GetProperty("key").GetString()).Reverse().ToArray() }
            );
        else
            await send(
                "PUT",
                $"entries/{key}",
                new
                {
                    edition = (entry?.GetProperty("edition").GetInt32() ?? 0) - random.Next(8) / 7,
                    cells = list.GetProperty("columns")
                        .EnumerateArray()
                        .ToDictionary(
                            column => column.GetProperty("key").GetString()!,
                            _ => Operations.Pick(Words, random)
                        ),
                }
            );
    }
}
