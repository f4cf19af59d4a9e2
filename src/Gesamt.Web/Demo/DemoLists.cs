using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Lists;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>Lists, mood boards and shared notes of the demo: what the owner begins and what clients change.</summary>
public static class DemoLists
{
    private static readonly string[] Acts =
    [
        "list",
        "board",
        "notes",
        "adds picture",
        "strikes",
        "changes",
        "keeps list",
    ];

    public static bool Knows(string act) => Acts.Contains(act);

    public static Task PlayAsync(Desk desk, ProjectId id, DemoProject project, DemoEvent e)
    {
        var parts = e.Rest.Split('|', StringSplitOptions.TrimEntries);
        var client = new ListWriter(project.Person);
        return e.Act switch
        {
            "list" => ListAsync(desk, id, parts),
            "board" => BoardAsync(desk, id, parts),
            "notes" => NotesAsync(desk, id, parts),
            "adds picture" => OnAsync(desk, id, parts[0], list => PictureAsync(desk, list, parts[1], client)),
            "strikes" => OnAsync(desk, id, parts[0], list => StrikeAsync(desk, list, parts[1], client)),
            "changes" => OnAsync(desk, id, parts[0], list => ChangeAsync(desk, list, parts, client)),
            _ => OnAsync(desk, id, parts[0], list => ProjectLists.KeepAsync(desk, list, new(parts[1]))),
        };
    }

    private static async Task OnAsync(Desk desk, ProjectId id, string name, Func<string, Task> what)
    {
        var list = await desk
            .Db.Lists.AsNoTracking()
            .Where(l => l.ProjectId == id && l.Name == name && !l.Removed)
            .Select(l => l.PublicId)
            .SingleAsync();
        desk.Db.ChangeTracker.Clear();
        await what(list);
    }

    /// <summary>“Budget | Shown | What Text, Costs Amount sum, On Date step | Paint, 320, in 3 / …”</summary>
    private static async Task ListAsync(Desk desk, ProjectId id, string[] parts)
    {
        var list = await ProjectLists.BeginAsync(desk, id, new(parts[0], ListSort.Rows));
        var columns = parts[2].Split(',', StringSplitOptions.TrimEntries).Select(Column).ToArray();
        await SaveAsync(desk, list, parts, columns);
        foreach (var row in parts[3].Split('/', StringSplitOptions.TrimEntries))
        {
            var cells = row.Split(',', StringSplitOptions.TrimEntries);
            await WriteAsync(
                desk,
                list,
                0,
                Codes.New(),
                columns.Zip(cells).ToDictionary(one => one.First.Key, one => Cell(desk, one.Second)),
                ListWriter.Owner
            );
        }
    }

    /// <summary>“Paid YesNo”, “Costs Amount sum”, “State OneOf idea;drawn;posted”.</summary>
    private static ListColumnDto Column(string text)
    {
        var words = text.Split(' ');
        return new(
            Codes.New(),
            words[0].Replace('_', ' '),
            Enum.Parse<ColumnSort>(words[1]),
            words[1] == "OneOf" ? words[2].Replace('_', ' ').Split(';') : [],
            words.Contains("sum"),
            words.Contains("step")
        );
    }

    /// <summary>“in 3” and “ago 3 done” are days from the day the demo is laid.</summary>
    private static string Cell(Desk desk, string text) =>
        text.Split(' ') switch
        {
            ["in", var days, ..] => $"{Day(desk, Number(days))}",
            ["ago", var days, ..] => $"{Day(desk, -Number(days))} done",
            _ => text.Replace('_', ' '),
        };

    private static string Day(Desk desk, int days) =>
        NodaTime.Text.LocalDatePattern.Iso.Format(desk.Today.PlusDays(days));

    private static int Number(string text) => int.Parse(text, CultureInfo.InvariantCulture);

    /// <summary>“Gulls, loud or still | Edited | gulls-1.png Loud / …”</summary>
    private static async Task BoardAsync(Desk desk, ProjectId id, string[] parts)
    {
        var list = await ProjectLists.BeginAsync(desk, id, new(parts[0], ListSort.Board));
        await SaveAsync(desk, list, parts, []);
        foreach (var picture in parts[2].Split('/', StringSplitOptions.TrimEntries))
            await PictureAsync(desk, list, picture, ListWriter.Owner);
    }

    private static async Task NotesAsync(Desk desk, ProjectId id, string[] parts)
    {
        var list = await ProjectLists.BeginAsync(desk, id, new(parts[0], ListSort.Notes));
        await SaveAsync(desk, list, parts, []);
        foreach (var words in parts[2].Split('/', StringSplitOptions.TrimEntries))
            await WriteAsync(desk, list, 0, Codes.New(), new() { ["words"] = words }, ListWriter.Owner);
    }

    private static async Task SaveAsync(Desk desk, string list, string[] parts, ListColumnDto[] columns)
    {
        desk.Db.ChangeTracker.Clear();
        await ProjectLists.SaveAsync(desk, list, new(1, parts[0], Enum.Parse<ListReader>(parts[1]), columns));
        desk.Db.ChangeTracker.Clear();
    }

    /// <summary>“gulls-1.png Loud, over the door”.</summary>
    private static async Task PictureAsync(Desk desk, string list, string text, ListWriter by)
    {
        var parts = text.Split(' ', 2);
        using var picture = new MemoryStream(DemoPictures.Draw(parts[0]));
        var key = await Boards.AddPictureAsync(desk, list, parts[0], picture, by, CancellationToken.None);
        desk.Db.ChangeTracker.Clear();
        if (parts.Length > 1)
            await WriteAsync(desk, list, 1, key, new() { ["words"] = parts[1] }, by);
    }

    private static Task WriteAsync(
        Desk desk,
        string list,
        int edition,
        string key,
        Dictionary<string, string> cells,
        ListWriter by
    )
    {
        desk.Db.ChangeTracker.Clear();
        return ListEntries.SaveAsync(desk, list, key, new(edition, cells), by);
    }

    private static async Task StrikeAsync(Desk desk, string list, string place, ListWriter by)
    {
        var entry = await EntryAsync(desk, list, place);
        desk.Db.ChangeTracker.Clear();
        await ListEntries.StrikeAsync(desk, list, entry.Key, true, by);
    }

    /// <summary>“Budget | 2 | Paid = yes”.</summary>
    private static async Task ChangeAsync(Desk desk, string list, string[] parts, ListWriter by)
    {
        var entry = await EntryAsync(desk, list, parts[1]);
        var said = parts[2].Split('=', 2, StringSplitOptions.TrimEntries);
        var column = (await ListView.OwnAsync(desk, list)).List.Columns.Single(one => one.Name == said[0]);
        await WriteAsync(desk, list, entry.Edition, entry.Key, new() { [column.Key] = said[1] }, by);
    }

    /// <summary>The entry at a place, from 1.</summary>
    private static async Task<EntryRow> EntryAsync(Desk desk, string list, string place)
    {
        var of = await desk.Db.Lists.AsNoTracking().SingleAsync(l => l.PublicId == list);
        return (await ListEntries.StandingAsync(desk.Db, of.Id))[Number(place) - 1];
    }
}
