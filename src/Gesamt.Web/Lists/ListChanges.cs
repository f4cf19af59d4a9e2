using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Lists;

/// <summary>What clients change in a list: marked with who and when until the owner has seen it, and undone while it stands so. It changes no turn.</summary>
public static class ListChanges
{
    private const int MostOfTheirWords = 60;

    internal static async Task MarkAsync(
        Act act,
        ListRow list,
        EntryRow entry,
        string who,
        EntryState? before,
        EntryState after
    )
    {
        await act.Db.SaveChangesAsync();
        var last = await Unseen(act.Desk, list.Id).OrderByDescending(c => c.Id).FirstOrDefaultAsync();
        if (last is not null && last.EntryId == entry.Id && last.Who == who && GoesOn(last, before, after))
        {
            (last.At, last.After) = (act.Now, StoreJson.Write(after));
            return;
        }
        act.Db.ListChanges.Add(
            new()
            {
                ListId = list.Id,
                EntryId = entry.Id,
                Who = who,
                At = act.Now,
                Before = before is null ? null : StoreJson.Write(before),
                After = StoreJson.Write(after),
            }
        );
        if (last is null && list.ProjectId is { } project)
            await act.RecordAsync(
                await act.OpenAsync(project),
                Actor.Client,
                new Happening.ListChanged(list.Id, list.Sort, list.Name)
            );
    }

    /// <summary>Whether a change carries on the last one, as words on the picture that was just added: it is undone with it.</summary>
    private static bool GoesOn(ListChangeRow last, EntryState? before, EntryState after) =>
        before is not null
        && before.Struck == after.Struck
        && StoreJson.Read<EntryState>(last.After) == before
        && (last.Before is null || StoreJson.Read<EntryState>(last.Before).Struck == before.Struck);

    internal static IQueryable<ListChangeRow> Unseen(Desk desk, ListId list) =>
        desk.Db.ListChanges.Where(c => c.ListId == list && c.SeenAt == null && c.UndoneAt == null);

    /// <summary>The owner has seen all of it.</summary>
    /// <param name="seen">False takes it back, for all that was seen last.</param>
    public static Task SeeAsync(Desk desk, string list, bool seen) =>
        desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            if (seen)
                foreach (var change in await Unseen(act.Desk, row.Id).ToListAsync())
                    change.SeenAt = act.Now;
            else
            {
                var all = act.Db.ListChanges.Where(c => c.ListId == row.Id && c.UndoneAt == null && c.SeenAt != null);
                var last = await all.MaxAsync(c => c.SeenAt);
                foreach (var change in await all.Where(c => c.SeenAt == last).ToListAsync())
                    change.SeenAt = null;
            }
            ProjectLists.Touch(act, row);
        });

    /// <summary>Puts an entry back to how it stood before a client's change, or to how they left it.</summary>
    /// <exception cref="RefusedException">It was changed again since.</exception>
    public static Task UndoAsync(Desk desk, string list, long id, bool undone) =>
        desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            var number = new ListChangeId(id);
            var change =
                await act.Db.ListChanges.SingleOrDefaultAsync(c =>
                    c.Id == number && c.ListId == row.Id && (c.UndoneAt == null) == undone
                ) ?? throw new MissingException("change");
            var entry = await act.Db.Entries.SingleAsync(e => e.Id == change.EntryId);
            var after = StoreJson.Read<EntryState>(change.After);
            var before = change.Before is { } kept ? StoreJson.Read<EntryState>(kept) : after with { Removed = true };
            var (from, to) = undone ? (after, before) : (before, after);
            if (ListEntries.StateOf(entry) != from)
                throw new RefusedException("It was changed again since: undo that first, or change it by hand.");
            ListEntries.Write(ProjectLists.ColumnsOf(row), entry, to);
            change.UndoneAt = undone ? act.Now : null;
            ProjectLists.Touch(act, row);
        });

    /// <summary>What was done to an entry that the owner takes out is seen with it.</summary>
    internal static async Task SeeAsync(Act act, EntryRow entry)
    {
        var unseen = act.Db.ListChanges.Where(c => c.EntryId == entry.Id && c.SeenAt == null && c.UndoneAt == null);
        foreach (var change in await unseen.ToListAsync())
            change.SeenAt = act.Now;
    }

    /// <summary>“Nora Byrne struck out “Green wall”, today 10:30”.</summary>
    internal static string Words(Desk desk, ListRow list, EntryRow entry, ListChangeRow change)
    {
        var after = StoreJson.Read<EntryState>(change.After);
        return $"{change.Who} {Verb(change, after)} {NameOf(list, entry, after)}, {When(desk, change)}";
    }

    /// <summary>“struck out by Nora Byrne, today 10:30”.</summary>
    internal static string Mark(Desk desk, ListChangeRow change) =>
        $"{Verb(change, StoreJson.Read<EntryState>(change.After))} by {change.Who}, {When(desk, change)}";

    private static string Verb(ListChangeRow change, EntryState after)
    {
        if (change.Before is null)
            return "added";
        var before = StoreJson.Read<EntryState>(change.Before);
        return before.Struck == after.Struck ? "changed"
            : after.Struck ? "struck out"
            : "put back";
    }

    private static string NameOf(ListRow list, EntryRow entry, EntryState state)
    {
        var text = ProjectLists.ColumnsOf(list).Select(column => state[column]).FirstOrDefault(cell => cell.Length > 0);
        return text is not null ? $"“{ShortText.Of(text, MostOfTheirWords)}”" : entry.FileName ?? "an entry";
    }

    private static string When(Desk desk, ListChangeRow change)
    {
        var at = desk.Calendar.LocalOf(change.At);
        var day = at.Date == desk.Today ? "today" : DateWords.Short(at.Date, desk.Today);
        return $"{day} {DateWords.Time(at.TimeOfDay)}";
    }
}
