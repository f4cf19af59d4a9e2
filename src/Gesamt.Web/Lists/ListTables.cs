using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Formats.Tables;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Lists;

/// <summary>Lists as tables (CSV, RFC 4180): written as they are read again, and taken over in their order once every cell is understood.</summary>
public static class ListTables
{
    private const int MostTold = 12,
        MostMistakes = 50;

    public static async Task<(string Name, byte[] Bytes)> WriteAsync(Desk desk, string list)
    {
        var row = await ProjectLists.OneAsync(desk.Db, list);
        var columns = ProjectLists.ColumnsOf(row);
        var currency = await ProjectLists.CurrencyAsync(desk, row);
        var entries = (await ListEntries.StandingAsync(desk.Db, row.Id)).Where(entry => !entry.Struck);
        return (
            row.Name,
            Csv.Write(
                [.. columns.Select(column => column.Name)],
                entries
                    .Select(ListEntries.StateOf)
                    .Select(state =>
                        (IReadOnlyList<string>)
                            [.. columns.Select(column => ListRule.Written(column, state[column], currency))]
                    )
            )
        );
    }

    /// <summary>What a table would fill: columns by their names, others as new ones of what their cells hold.</summary>
    /// <exception cref="InvalidException">It is no table, or has too much of it.</exception>
    public static async Task<ListTableDto> ReadAsync(Desk desk, string list, byte[] bytes)
    {
        var row = await RowsAsync(desk, list);
        var table = Table(bytes);
        var columns = ProjectLists.ColumnsOf(row);
        var currency = await ProjectLists.CurrencyAsync(desk, row);
        List<TakenColumnDto> taken = [];
        for (var at = 0; at < table.Headings.Count; at++)
        {
            var heading = table.Headings[at];
            var known = columns.FirstOrDefault(column =>
                column.Name.Equals(Typed.OneLine(heading), StringComparison.OrdinalIgnoreCase)
                && taken.TrueForAll(one => one.Key != column.Key)
            );
            taken.Add(
                new(
                    heading,
                    known?.Key,
                    known?.Sort ?? ListRule.SortOf(table.Rows.Select(cells => cells[at]), desk.Today, desk.Calendar)
                )
            );
        }
        var filled = Filled(columns, taken);
        List<TableMistakeDto> mistakes = [];
        List<IReadOnlyList<string>> told = [];
        for (var r = 0; r < table.Rows.Count; r++)
        {
            var read = filled
                .Select((column, c) => ListRule.Read(column, table.Rows[r][c], desk.Today, desk.Calendar, currency))
                .ToList();
            if (r < MostTold)
                told.Add([.. read.Select((cell, c) => ListRule.Told(filled[c], cell.Kept ?? "", desk.Today))]);
            for (var c = 0; c < read.Count && mistakes.Count < MostMistakes; c++)
                if (read[c].Mistake is { } words)
                    mistakes.Add(new(r, c, table.Rows[r][c], words));
        }
        return new(taken, table.Rows, told, mistakes);
    }

    /// <summary>Takes rows over, behind those that stand.</summary>
    /// <exception cref="InvalidException">A cell does not read; the first ones are named by row and column.</exception>
    public static Task TakeAsync(Desk desk, string list, TakeRowsDto take) =>
        desk.ActAsync(async act =>
        {
            var row = await RowsAsync(act.Desk, list);
            if (take.Columns.Length == 0 || take.Rows.Length == 0)
                throw new InvalidException(("rows", "There is nothing to take over."));
            var columns = ProjectLists.ColumnsOf(row);
            if (take.Columns.FirstOrDefault(one => one.Key is { } key && columns.All(c => c.Key != key)) is { } gone)
                throw new InvalidException(("columns", $"The list has no column for “{gone.Heading}” any more."));
            var filled = Filled(columns, take.Columns);
            var currency = await ProjectLists.CurrencyAsync(act.Desk, row);
            var states = Read(act, filled, take.Rows, currency);
            if (states.Count == 0)
                throw new InvalidException(("rows", "There is nothing to take over: every cell is empty."));
            columns = ListColumns.Read(
                ListView.Columns([.. StandingOf(act, row, columns, filled), .. filled.Where(c => !columns.Contains(c))])
            );
            row.Columns = StoreJson.Write(columns);
            row.Edition++;
            var first = await ListEntries.AddAsync(act, row, Codes.New(), ListWriter.Owner, states.Count);
            for (var i = 0; i < states.Count; i++)
            {
                var entry =
                    i == 0
                        ? first
                        : new EntryRow
                        {
                            ListId = row.Id,
                            Key = Codes.New(),
                            Place = first.Place + i,
                            By = Actor.Owner,
                            At = act.Now,
                        };
                if (i > 0)
                    act.Db.Entries.Add(entry);
                ListEntries.Write(columns, entry, states[i]);
            }
            ProjectLists.Touch(act, row);
        });

    /// <summary>A list nothing was written to yet has but the column it began with: the table's own take its place.</summary>
    private static IEnumerable<ListColumn> StandingOf(
        Act act,
        ListRow row,
        ImmutableArray<ListColumn> columns,
        IReadOnlyList<ListColumn> filled
    ) => columns is [var only] && !filled.Contains(only) && !act.Db.Entries.Any(e => e.ListId == row.Id) ? [] : columns;

    private static List<EntryState> Read(Act act, IReadOnlyList<ListColumn> columns, string[][] rows, Currency currency)
    {
        List<(string, string)> errors = [];
        var states = new List<EntryState>();
        for (var r = 0; r < rows.Length; r++)
        {
            if (rows[r].Length != columns.Count)
                throw new InvalidException(("rows", $"Row {r + 1} has {rows[r].Length} cells, not {columns.Count}."));
            var state = EntryState.Fresh;
            for (var c = 0; c < columns.Count && errors.Count < MostMistakes; c++)
            {
                var (kept, mistake) = ListRule.Read(columns[c], rows[r][c], act.Today, act.Calendar, currency);
                if (kept is null)
                    errors.Add(($"rows[{r}][{c}]", $"Row {r + 1}, {columns[c].Name}, “{rows[r][c]}”: {mistake}"));
                else
                    state = ListEntries.With(state, columns[c].Key, kept);
            }
            if (!state.Cells.IsEmpty)
                states.Add(state);
        }
        return errors.Count == 0 ? states : throw new InvalidException([.. errors]);
    }

    /// <summary>The columns that are filled, new ones under fresh keys.</summary>
    private static List<ListColumn> Filled(ImmutableArray<ListColumn> columns, IReadOnlyList<TakenColumnDto> taken)
    {
        var names = columns.Select(column => column.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        return
        [
            .. taken.Select(one =>
                columns.FirstOrDefault(column => column.Key == one.Key)
                ?? new ListColumn(Codes.New(), Free(names, one.Heading), one.Sort, [], one.Sort == ColumnSort.Amount)
            ),
        ];
    }

    /// <summary>A name that no other column has: “Column”, “Price 2”.</summary>
    private static string Free(HashSet<string> names, string heading)
    {
        var plain = ShortText.Of(heading, ListRule.LongestName - 4) is { Length: > 0 } said ? said : "Column";
        var name = plain;
        for (var number = 2; !names.Add(name); number++)
            name = $"{plain} {number}";
        return name;
    }

    private static TableText Table(byte[] bytes)
    {
        try
        {
            var table = TableText.Read(bytes);
            return table.Rows.Count <= ListRule.MostEntries && table.Headings.Count <= ListRule.MostColumns
                ? table
                : throw new FormatException(
                    $"A list takes at most {ListRule.MostEntries} rows of {ListRule.MostColumns} columns."
                );
        }
        catch (FormatException e)
        {
            throw new InvalidException(("table", e.Message));
        }
    }

    private static async Task<ListRow> RowsAsync(Desk desk, string list)
    {
        var row = await ProjectLists.OneAsync(desk.Db, list);
        return row.Sort == ListSort.Rows ? row : throw new RefusedException("Only a list with columns takes a table.");
    }
}
