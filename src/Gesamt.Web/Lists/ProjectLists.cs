using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Lists;

/// <summary>Lists, mood boards and shared notes as such: begun, laid, named, shown to the client, taken out. Those without a project are kept to be laid.</summary>
public static class ProjectLists
{
    private const int MostOfAProject = 60,
        MostKept = 200;

    public static PagePart PartOf(ListSort sort) =>
        sort switch
        {
            ListSort.Rows => PagePart.Lists,
            ListSort.Board => PagePart.Boards,
            _ => PagePart.Notes,
        };

    /// <summary>What one is called within a sentence.</summary>
    public static string SortWords(ListSort sort) =>
        sort switch
        {
            ListSort.Rows => "list",
            ListSort.Board => "mood board",
            _ => "notes",
        };

    /// <exception cref="MissingException">There is none, or it was taken out.</exception>
    internal static async Task<ListRow> OneAsync(GesamtDb db, string id, bool removed = false) =>
        await db.Lists.SingleOrDefaultAsync(l => l.PublicId == id && (removed || !l.Removed))
        ?? throw new MissingException("list");

    internal static ImmutableArray<ListColumn> ColumnsOf(ListRow row) =>
        row.Sort == ListSort.Rows ? StoreJson.Read<ImmutableArray<ListColumn>>(row.Columns) : [ListRule.Words];

    /// <summary>The lists of a project, in the order in which they were begun; read only where one was.</summary>
    public static async Task<IReadOnlyList<ListLineDto>> LinesAsync(Desk desk, ProjectFile file)
    {
        if (!file.History.Any<Happening.ListBegun>())
            return [];
        return await LinesAsync(desk, desk.Db.Lists.Where(l => l.ProjectId == file.Id));
    }

    /// <summary>The lists that are kept to be laid.</summary>
    public static Task<IReadOnlyList<ListLineDto>> KeptAsync(Desk desk) =>
        LinesAsync(desk, desk.Db.Lists.Where(l => l.ProjectId == null));

    private static async Task<IReadOnlyList<ListLineDto>> LinesAsync(Desk desk, IQueryable<ListRow> which)
    {
        var lines = await which
            .AsNoTracking()
            .Where(l => !l.Removed)
            .OrderBy(l => l.Id)
            .Select(l => new
            {
                List = l,
                Entries = desk.Db.Entries.Count(e => e.ListId == l.Id && !e.Removed && !e.Struck),
                Struck = desk.Db.Entries.Count(e => e.ListId == l.Id && !e.Removed && e.Struck),
                Unseen = desk.Db.ListChanges.Count(c => c.ListId == l.Id && c.SeenAt == null && c.UndoneAt == null),
            })
            .ToListAsync();
        return
        [
            .. lines.Select(one => new ListLineDto(
                one.List.PublicId,
                one.List.Name,
                one.List.Sort,
                About(one.List, one.Entries, one.Struck),
                one.Unseen
            )),
        ];
    }

    private static string About(ListRow row, int entries, int struck)
    {
        string[] parts =
        [
            Count(row.Sort, entries),
            struck > 0 ? $"{struck} struck out" : "",
            row switch
            {
                { ProjectId: null } => "",
                { Final: true } => "put to the client",
                { Reader: ListReader.Shown } => "the client reads it",
                { Reader: ListReader.Edited } => "the client may change it",
                _ => "only for you",
            },
        ];
        return string.Join(", ", parts.Where(part => part.Length > 0));
    }

    /// <summary>“12 rows”, “1 picture”.</summary>
    internal static string Count(ListSort sort, int count)
    {
        var of =
            sort == ListSort.Rows ? "row"
            : sort == ListSort.Board ? "picture"
            : "paragraph";
        return $"{count} {of}{(count == 1 ? "" : "s")}";
    }

    /// <param name="project">Null for one that is kept to be laid.</param>
    public static Task<string> BeginAsync(Desk desk, ProjectId? project, BeginListDto begin) =>
        desk.ActAsync(async act =>
        {
            var row = Begin(NameOf(begin.Name), begin.Sort, project);
            if (begin.Sort == ListSort.Rows)
                row.Columns = StoreJson.Write<ImmutableArray<ListColumn>>([
                    new(Codes.New(), "Name", ColumnSort.Text, []),
                ]);
            await AddAsync(act, [row], project);
            return row.PublicId;
        });

    private static ListRow Begin(string name, ListSort sort, ProjectId? project) =>
        new()
        {
            ProjectId = project,
            PublicId = Codes.New() + Codes.New(),
            Name = name,
            Sort = sort,
            Edition = 1,
        };

    private static async Task AddAsync(Act act, IReadOnlyList<ListRow> rows, ProjectId? project)
    {
        // before a row is written that would need it
        var file = project is { } id ? await act.OpenAsync(id) : null;
        var most = project is null ? MostKept : MostOfAProject;
        if (await act.Db.Lists.CountAsync(l => l.ProjectId == project && !l.Removed) + rows.Count > most)
            throw new RefusedException($"At most {most} of them are kept. Take one out first.");
        act.Db.Lists.AddRange(rows);
        await act.Db.SaveChangesAsync();
        if (file is not null)
            await act.RecordAsync(
                file,
                Actor.Owner,
                [.. rows.Select(row => new Happening.ListBegun(row.Id, row.Sort, row.Name))]
            );
    }

    /// <summary>Lays kept lists on a project, several at once in the order given. What was laid is the project's own from then on.</summary>
    public static Task LayAsync(Desk desk, ProjectId project, LayKeptListsDto lay) =>
        desk.ActAsync(async act =>
        {
            if (lay.Lists.Length == 0)
                throw new InvalidException(("lists", "Choose at least one."));
            List<ListRow> from = [];
            foreach (var id in lay.Lists.Distinct())
            {
                var row = await OneAsync(act.Db, id);
                from.Add(row.ProjectId is null ? row : throw new MissingException("list"));
            }
            var laid = from.ConvertAll(row => Copy(row, row.Name, project));
            await AddAsync(act, laid, project);
            foreach (var (row, copy) in from.Zip(laid))
                await CopyEntriesAsync(act, row, copy);
        });

    /// <summary>Keeps a list under a name to be laid elsewhere: without its dates, and without what is struck out.</summary>
    public static Task<string> KeepAsync(Desk desk, string id, KeepListDto keep) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(act.Db, id);
            var copy = Copy(row, NameOf(keep.Name), null);
            await AddAsync(act, [copy], null);
            await CopyEntriesAsync(act, row, copy);
            return copy.PublicId;
        });

    private static ListRow Copy(ListRow from, string name, ProjectId? project)
    {
        var copy = Begin(name, from.Sort, project);
        copy.Columns = from.Columns;
        return copy;
    }

    private static async Task CopyEntriesAsync(Act act, ListRow from, ListRow to)
    {
        var dated = ColumnsOf(from).Where(column => column.Sort == ColumnSort.Date).Select(column => column.Key);
        var place = 0;
        foreach (var entry in await ListEntries.StandingAsync(act.Db, from.Id))
            if (ListEntries.StateOf(entry) is { Struck: false } state)
                act.Db.Entries.Add(
                    new()
                    {
                        ListId = to.Id,
                        Key = Codes.New(),
                        Place = place++,
                        Cells = StoreJson.Write(state.Cells.RemoveRange(dated)),
                        Edition = 1,
                        Hash = entry.Hash,
                        FileName = entry.FileName,
                        Type = entry.Type,
                        Size = entry.Size,
                        By = Actor.Owner,
                        At = act.Now,
                    }
                );
    }

    /// <summary>Keeps its name, its reader and its columns; cells are read anew where a column holds something else now.</summary>
    /// <exception cref="InvalidException">A field is wrong, or a cell does not read as what its column holds now.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static Task SaveAsync(Desk desk, string id, SaveListDto save) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(act.Db, id);
            if (row.Edition != save.Edition)
                throw new StaleException(
                    new SaveListDto(row.Edition, row.Name, row.Reader, [.. ListView.Columns(ColumnsOf(row))])
                );
            row.Name = NameOf(save.Name);
            if (row.ProjectId is null && save.Reader != ListReader.Owner)
                throw new InvalidException(("reader", "What is kept to be laid is shown to nobody."));
            row.Reader = save.Reader;
            if (row.Sort == ListSort.Rows)
            {
                var columns = ListColumns.Read(save.Columns);
                await ListColumns.ReadAgainAsync(act, row, columns);
                row.Columns = StoreJson.Write(columns);
            }
            row.Edition++;
            Touch(act, row);
        });

    /// <summary>Takes a list out, or puts it back.</summary>
    public static Task RemoveAsync(Desk desk, string id, bool removed) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(act.Db, id, removed: true);
            row.Removed = removed;
            Touch(act, row);
        });

    internal static void Touch(Act act, ListRow row)
    {
        if (row.ProjectId is { } project)
            act.Touch(project);
    }

    /// <summary>The currency of amounts that are written without one.</summary>
    internal static async Task<Currency> CurrencyAsync(Desk desk, ListRow row) =>
        row.ProjectId is { } project
        && await desk.Db.Projects.Where(p => p.Id == project).Select(p => p.Standing.Currency).SingleAsync() is { } code
            ? Currency.Of(code)
            : desk.Currency;

    private static string NameOf(string name) =>
        Typed.OneLine(TypedText.Of("name", name, 1, ListRule.LongestName, "A name"));
}
