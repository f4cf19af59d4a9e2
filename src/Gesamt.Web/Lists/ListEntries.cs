using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Lists;

/// <summary>Who changes an entry.</summary>
/// <param name="Name">The client's, to be marked with; null for the owner, whose changes are not.</param>
public sealed record ListWriter(string? Name)
{
    public static readonly ListWriter Owner = new((string?)null);

    public Actor Actor => Name is null ? Actor.Owner : Actor.Client;
}

/// <summary>The entries of a list: written, struck out, taken out, put in order. The owner and, where they may, the client write by the same acts.</summary>
public static class ListEntries
{
    private const int LongestParagraph = 2_000;

    /// <summary>Those that were not taken out, in their order.</summary>
    internal static Task<List<EntryRow>> StandingAsync(GesamtDb db, ListId list) =>
        db.Entries.Where(e => e.ListId == list && !e.Removed).OrderBy(e => e.Place).ThenBy(e => e.Id).ToListAsync();

    internal static EntryState StateOf(EntryRow row) =>
        new(StoreJson.Read<ImmutableDictionary<string, string>>(row.Cells), row.Struck, row.Removed);

    internal static EntryState With(EntryState state, string column, string kept) =>
        state with
        {
            Cells = kept.Length == 0 ? state.Cells.Remove(column) : state.Cells.SetItem(column, kept),
        };

    /// <summary>Writes an entry; a key that nothing is known by yet makes a new one.</summary>
    /// <exception cref="InvalidException">A cell does not read as what its column holds; it is named.</exception>
    /// <exception cref="StaleException">It was changed meanwhile.</exception>
    public static Task SaveAsync(Desk desk, string list, string key, SaveEntryDto save, ListWriter by) =>
        desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            var entry = await act.Db.Entries.SingleOrDefaultAsync(e => e.ListId == row.Id && e.Key == key);
            if (entry is { Removed: true })
                throw new MissingException("entry");
            if (entry is null && row.Sort == ListSort.Board)
                throw new RefusedException("A picture comes first; its words belong to it.");
            var state = entry is null ? EntryState.Fresh : StateOf(entry);
            if ((entry?.Edition ?? 0) != save.Edition)
                throw new StaleException(new SaveEntryDto(entry?.Edition ?? 0, new(state.Cells)));
            var written = await WrittenAsync(act.Desk, row, state, save.Cells);
            if (entry is null)
                entry = await AddAsync(act, row, KeyOf(key), by);
            await PutAsync(act, row, entry, written, by, isNew: save.Edition == 0);
        });

    private static async Task<EntryState> WrittenAsync(
        Desk desk,
        ListRow list,
        EntryState state,
        IReadOnlyDictionary<string, string> cells
    )
    {
        var columns = ProjectLists.ColumnsOf(list).ToDictionary(column => column.Key);
        var currency = await ProjectLists.CurrencyAsync(desk, list);
        List<(string, string)> errors = [];
        foreach (var (key, typed) in cells)
            if (!columns.TryGetValue(key, out var column))
                errors.Add(($"cells.{key}", "The list has no such column any more. Load the page again."));
            else
            {
                var (kept, mistake) =
                    list.Sort == ListSort.Rows
                        ? ListRule.Read(column, typed, desk.Today, desk.Calendar, currency)
                        : Paragraph(typed);
                if (kept is null)
                    errors.Add(($"cells.{key}", $"{column.Name}: {mistake}"));
                else
                    state = With(state, key, kept);
            }
        if (list.Sort != ListSort.Board && state.Cells.IsEmpty)
            errors.Add(("cells", list.Sort == ListSort.Notes ? "Write something." : "Fill in at least one column."));
        return errors.Count == 0 ? state : throw new InvalidException([.. errors]);
    }

    private static (string?, string?) Paragraph(string typed)
    {
        var text = Typed.Lines(typed);
        return text.Length <= LongestParagraph
            ? (text, null)
            : (null, $"At most {LongestParagraph} characters, these are {text.Length}.");
    }

    internal static bool IsKey(string key) =>
        key.Length is > 0 and <= 40 && key.All(c => char.IsAsciiLetterOrDigit(c) || c == '-');

    private static string KeyOf(string key) =>
        IsKey(key) ? key : throw new InvalidException(("key", "A key has 1 to 40 letters and digits."));

    /// <summary>Adds an entry behind the others. It holds nothing yet.</summary>
    internal static async Task<EntryRow> AddAsync(Act act, ListRow list, string key, ListWriter by, int more = 1)
    {
        var known = await act.Db.Entries.Where(e => e.ListId == list.Id).Select(e => e.Place).ToListAsync();
        // what was taken out counts too: nobody fills a list without end by taking out
        if (known.Count + more > ListRule.MostEntries)
            throw new RefusedException($"At most {ListRule.MostEntries} entries fit in here.");
        var entry = new EntryRow
        {
            ListId = list.Id,
            Key = key,
            Place = known.Count == 0 ? 0 : known.Max() + 1,
            By = by.Actor,
            At = act.Now,
        };
        act.Db.Entries.Add(entry);
        return entry;
    }

    /// <summary>Strikes an entry out, or puts it back.</summary>
    public static Task StrikeAsync(Desk desk, string list, string key, bool struck, ListWriter by) =>
        desk.ActAsync(async act =>
        {
            var (row, entry) = await OneAsync(act, list, key);
            if (entry.Removed)
                throw new MissingException("entry");
            await PutAsync(act, row, entry, StateOf(entry) with { Struck = struck }, by);
        });

    /// <summary>Says that a step of a plan is done, or that it is not.</summary>
    public static Task StepDoneAsync(Desk desk, string list, string key, string column, bool done) =>
        desk.ActAsync(async act =>
        {
            var (row, entry) = await OneAsync(act, list, key);
            var of = ProjectLists.ColumnsOf(row).FirstOrDefault(c => c.Key == column && c.Step);
            var state = StateOf(entry);
            if (entry.Removed || of is null || ListRule.DateIn(state[of]) is not { } step)
                throw new MissingException("step");
            await PutAsync(act, row, entry, With(state, column, ListRule.StepText(step.Date, done)), ListWriter.Owner);
        });

    /// <summary>Takes an entry out, or puts it back; the owner alone.</summary>
    public static Task RemoveAsync(Desk desk, string list, string key, bool removed) =>
        desk.ActAsync(async act =>
        {
            var (row, entry) = await OneAsync(act, list, key);
            await PutAsync(act, row, entry, StateOf(entry) with { Removed = removed }, ListWriter.Owner);
            if (removed)
                await ListChanges.SeeAsync(act, entry);
        });

    /// <summary>Puts the entries in an order; those that are not named stand behind.</summary>
    public static Task OrderAsync(Desk desk, string list, EntryOrderDto order) =>
        desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            var entries = await StandingAsync(act.Db, row.Id);
            var places = order
                .Keys.Distinct()
                .Select((key, at) => (key, at))
                .ToDictionary(one => one.key, one => one.at);
            if (places.Keys.Except(entries.Select(e => e.Key)).Any())
                throw new RefusedException("The entries changed meanwhile. Look at them and order them once more.");
            var at = 0;
            foreach (var entry in entries.OrderBy(e => places.GetValueOrDefault(e.Key, int.MaxValue)))
                entry.Place = at++;
            ProjectLists.Touch(act, row);
        });

    private static async Task<(ListRow, EntryRow)> OneAsync(Act act, string list, string key)
    {
        var row = await ProjectLists.OneAsync(act.Db, list);
        return (
            row,
            await act.Db.Entries.SingleOrDefaultAsync(e => e.ListId == row.Id && e.Key == key)
                ?? throw new MissingException("entry")
        );
    }

    /// <summary>Keeps what an entry holds now; what a client did is marked.</summary>
    internal static async Task PutAsync(
        Act act,
        ListRow list,
        EntryRow entry,
        EntryState now,
        ListWriter by,
        bool isNew = false
    )
    {
        var before = StateOf(entry);
        if (before == now && !isNew)
            return;
        Write(ProjectLists.ColumnsOf(list), entry, now);
        if (by.Name is { } who)
            await ListChanges.MarkAsync(act, list, entry, who, isNew ? null : before, now);
        ProjectLists.Touch(act, list);
    }

    internal static void Write(IReadOnlyList<ListColumn> columns, EntryRow entry, EntryState state)
    {
        (entry.Cells, entry.Struck, entry.Removed) = (StoreJson.Write(state.Cells), state.Struck, state.Removed);
        entry.NextStep = ListRule
            .Steps(columns, [(entry.Key, state)])
            .Where(step => !step.Done)
            .Select(step => (LocalDate?)step.On)
            .Min();
        entry.Edition++;
    }
}
