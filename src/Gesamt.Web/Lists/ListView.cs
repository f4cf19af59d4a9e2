using Gesamt.Core.Amounts;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Lists;

/// <summary>Lists as they are read: by their owner with what clients changed, by clients without.</summary>
public static class ListView
{
    private const int MostChanges = 200;

    public static async Task<OwnListDto> OwnAsync(Desk desk, string id)
    {
        var row = await ProjectLists.OneAsync(desk.Db, id);
        var file = row.ProjectId is { } project ? await desk.OpenAsync(project) : null;
        var entries = await EntriesAsync(desk, row);
        var changes = await ListChanges
            .Unseen(desk, row.Id)
            .AsNoTracking()
            .OrderByDescending(c => c.Id)
            .Take(MostChanges)
            .ToListAsync();
        var known = entries.ToDictionary(entry => entry.Id);
        var marks = changes.GroupBy(c => c.EntryId).ToDictionary(same => same.Key, same => same.First());
        return new(
            await OfAsync(
                desk,
                file,
                row,
                entries,
                edits: true,
                entry =>
                    marks.TryGetValue(entry.Id, out var change)
                        ? desk.Tell(() => ListChanges.Mark(desk, change), () => change.Who)
                        : null
            ),
            file?.Id.Value,
            file?.Row.Title,
            row.Reader,
            row.Final,
            row.Edition,
            file is not null && Sight.IsOpen(file.History, ProjectLists.PartOf(row.Sort)),
            [
                .. changes.Select(change => new ListChangeDto(
                    change.Id.Value,
                    desk.Tell(
                        () => ListChanges.Words(desk, row, known[change.EntryId], change),
                        () => $"{change.Who} changed something"
                    )
                )),
            ],
            file is null ? [] : await NamesAsync(desk, file)
        );
    }

    /// <summary>What a client reads of the lists of a part; those that are the owner's alone are not among them.</summary>
    public static async Task<IReadOnlyList<ListDto>> ShownAsync(Desk desk, ProjectFile file, ListSort sort)
    {
        if (!file.History.Any<Happening.ListBegun>(begun => begun.Sort == sort))
            return [];
        var rows = await desk
            .Db.Lists.AsNoTracking()
            .Where(l => l.ProjectId == file.Id && l.Sort == sort && !l.Removed && l.Reader != ListReader.Owner)
            .OrderBy(l => l.Id)
            .ToListAsync();
        List<ListDto> shown = [];
        foreach (var row in rows)
            shown.Add(
                await OfAsync(
                    desk,
                    file,
                    row,
                    await EntriesAsync(desk, row),
                    row is { Reader: ListReader.Edited, Final: false },
                    _ => null
                )
            );
        return shown;
    }

    private static Task<List<EntryRow>> EntriesAsync(Desk desk, ListRow row) =>
        ListEntries.StandingAsync(desk.Db, row.Id);

    private static async Task<ListDto> OfAsync(
        Desk desk,
        ProjectFile? file,
        ListRow row,
        List<EntryRow> entries,
        bool edits,
        Func<EntryRow, string?> mark
    )
    {
        var columns = desk.Tell(() => ProjectLists.ColumnsOf(row), () => []);
        var currency = file?.Row.Standing.Currency is { } code ? Currency.Of(code) : desk.Currency;
        var told = entries.ConvertAll(entry =>
            (Entry: entry, State: desk.Tell(() => ListEntries.StateOf(entry), () => EntryState.Fresh))
        );
        var board =
            row is { Sort: ListSort.Board, Final: true } && file is not null
                ? await Boards.StandAsync(desk, file, row, told)
                : new("", null);
        return new(
            row.PublicId,
            row.Name,
            row.Sort,
            edits,
            Columns(columns),
            [
                .. told.Select(one => new ListEntryDto(
                    one.Entry.Key,
                    one.Entry.Edition,
                    [
                        .. columns.Select(column => new ListCellDto(
                            ListRule.Written(column, one.State[column], currency),
                            ListRule.Told(column, one.State[column], desk.Today)
                        )),
                    ],
                    one.State.Struck,
                    one.Entry.FileName,
                    mark(one.Entry)
                )),
            ],
            [
                .. ListRule
                    .Sums(columns, told.Select(one => one.State))
                    .Select(sum => new ListSumDto(sum.Column.Key, SumWords(sum))),
            ],
            board.Words,
            board.Hash
        );
    }

    internal static IReadOnlyList<ListColumnDto> Columns(IEnumerable<ListColumn> columns) =>
        [
            .. columns.Select(column => new ListColumnDto(
                column.Key,
                column.Name,
                column.Sort,
                column.Choices,
                column.Sum,
                column.Step
            )),
        ];

    /// <summary>“€ 1,240.00 and GBP 20.00”; nothing for no amounts.</summary>
    internal static string SumWords(ColumnSum sum) =>
        sum.Number is { } number ? NumberText.Number(number) : string.Join(" and ", sum.Amounts.Select(MoneyText.Of));

    private static async Task<IReadOnlyList<string>> NamesAsync(Desk desk, ProjectFile file) =>
        [
            file.Row.Client!.Name,
            .. await desk
                .Db.ProjectPeople.AsNoTracking()
                .Where(p => p.ProjectId == file.Id)
                .Join(desk.Db.People, part => part.PersonId, person => person.Id, (_, person) => person.Name)
                .Where(name => name != file.Row.Client.Name)
                .Distinct()
                .OrderBy(name => name)
                .ToListAsync(),
        ];
}
