using System.Collections.Immutable;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Lists;

/// <summary>Columns of lists as they are written.</summary>
internal static class ListColumns
{
    /// <exception cref="InvalidException">A field is wrong; it is named by its place.</exception>
    public static ImmutableArray<ListColumn> Read(IReadOnlyList<ListColumnDto> columns)
    {
        List<(string, string)> errors = [];
        if (columns.Count is 0 or > ListRule.MostColumns)
            errors.Add(("columns", $"A list has 1 to {ListRule.MostColumns} columns."));
        var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var keys = new HashSet<string>(StringComparer.Ordinal);
        var read = columns
            .Select(
                (column, i) =>
                {
                    var name = Typed.OneLine(column.Name);
                    if (name.Length is 0 or > ListRule.LongestName)
                        errors.Add(($"columns[{i}].name", $"A name of 1 to {ListRule.LongestName} characters."));
                    else if (!names.Add(name))
                        errors.Add(($"columns[{i}].name", "Two columns have the same name."));
                    return new ListColumn(
                        ListEntries.IsKey(column.Key) && keys.Add(column.Key) ? column.Key : Codes.New(),
                        name,
                        column.Sort,
                        Choices(column, $"columns[{i}].choices", errors),
                        column.Sum && column.Sort is ColumnSort.Number or ColumnSort.Amount,
                        column.Step && column.Sort is ColumnSort.Date
                    );
                }
            )
            .ToImmutableArray();
        return errors.Count == 0 ? read : throw new InvalidException([.. errors]);
    }

    private static ImmutableArray<string> Choices(ListColumnDto column, string field, List<(string, string)> errors)
    {
        if (column.Sort != ColumnSort.OneOf)
            return [];
        var choices = column.Choices.Select(Typed.OneLine).Where(choice => choice.Length > 0).ToImmutableArray();
        if (choices.Length is < 2 or > ListRule.MostChoices)
            errors.Add((field, $"Give 2 to {ListRule.MostChoices} choices, one on each line."));
        if (choices.Distinct(StringComparer.OrdinalIgnoreCase).Count() != choices.Length)
            errors.Add((field, "Each choice stands once."));
        if (choices.Any(choice => choice.Length > ListRule.LongestName))
            errors.Add((field, $"A choice has at most {ListRule.LongestName} characters."));
        return choices;
    }

    /// <summary>Reads the cells anew where a column holds something else than before; a column that was taken out keeps its cells, should it be put back.</summary>
    /// <exception cref="InvalidException">Some do not read; the column is named, with the first of them.</exception>
    public static async Task ReadAgainAsync(Act act, ListRow list, ImmutableArray<ListColumn> columns)
    {
        var before = ProjectLists.ColumnsOf(list).ToDictionary(column => column.Key);
        var changed = columns
            .Select((column, at) => (Column: column, At: at))
            .Where(one => before.TryGetValue(one.Column.Key, out var was) && !HoldsTheSame(was, one.Column))
            .ToList();
        if (changed.Count == 0)
            return;
        var states = new Dictionary<EntryRow, EntryState>();
        var currency = await ProjectLists.CurrencyAsync(act.Desk, list);
        var entries = await ListEntries.StandingAsync(act.Db, list.Id);
        List<(string, string)> errors = [];
        foreach (var (column, at) in changed)
        {
            var was = before[column.Key];
            foreach (var entry in entries)
            {
                var state = states.GetValueOrDefault(entry) ?? ListEntries.StateOf(entry);
                var (kept, mistake) = ListRule.Read(
                    column,
                    // a date that was a step is a date still, done or not
                    ListRule.Written(was.Sort == column.Sort ? column : was, state[was], currency),
                    act.Today,
                    act.Calendar,
                    currency
                );
                if (kept is null)
                {
                    errors.Add(
                        (
                            $"columns[{at}].sort",
                            $"“{ListRule.Told(was, state[was], act.Today)}” stands in it. {mistake}"
                        )
                    );
                    break;
                }
                states[entry] = ListEntries.With(state, column.Key, kept);
            }
        }
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        foreach (var (entry, state) in states)
            ListEntries.Write(columns, entry, state);
    }

    private static bool HoldsTheSame(ListColumn was, ListColumn now) =>
        (was.Sort, was.Step) == (now.Sort, now.Step) && was.Choices.SequenceEqual(now.Choices);
}
