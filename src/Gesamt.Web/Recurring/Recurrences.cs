using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Recurring;

/// <summary>Invoices that come again: begun from one that was written, changed for what lies ahead, stopped, issued on their days.</summary>
public static class Recurrences
{
    private const int MostCount = 1_000;
    private static readonly Period Furthest = Period.FromYears(20);

    /// <summary>The invoice being written becomes one that comes again; it is written anew each time, with its own number and period.</summary>
    /// <exception cref="InvalidException">Something is missing or wrong; the field is named.</exception>
    /// <exception cref="StaleException">It was changed in another window since.</exception>
    public static Task BeginAsync(Desk desk, ProjectId project, BeginRecurringDto begin) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var draft = await DraftAsync(desk, file, begin.Edition);
            var bill = StoreJson.Read<Bill>(draft.Bill);
            Check(desk, begin);
            var recurrence = new Recurrence(begin.Every, begin.First, begin.Until, begin.Count);
            await Bills.CheckAsync(desk, file, bill);
            Taken.DemandNone(bill);
            var row = new RecurringRow
            {
                ProjectId = project,
                Bill = draft.Bill,
                Every = begin.Every,
                First = begin.First,
                Until = begin.Until,
                Count = begin.Count,
                Next = recurrence.DayOf(0),
            };
            act.Db.Recurring.Add(row);
            act.Db.BillDrafts.Remove(draft);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(
                file,
                Actor.Owner,
                new Happening.RecurringBegun(row.Id, bill.Sums().Totals.Payable, row.Every)
            );
            await IssueDueAsync(act, file, row);
        });

    private static void Check(Desk desk, BeginRecurringDto begin)
    {
        if (begin.First < desk.Today || begin.First > desk.Today + Furthest)
            throw new InvalidException(("first", "The first is today or later, within twenty years."));
        if (begin.Until < begin.First || begin.Until > begin.First + Furthest)
            throw new InvalidException(
                ("until", "The last day is not before the first, and within twenty years of it.")
            );
        if (begin.Count is < 1 or > MostCount)
            throw new InvalidException(("count", $"From 1 to {NumberText.Number(MostCount)} invoices."));
    }

    /// <summary>Opens it to be changed; what was issued stays as it is.</summary>
    /// <exception cref="RefusedException">Another invoice is being written, or it comes no more.</exception>
    public static async Task OpenAsync(Desk desk, ProjectId project, RecurringId id)
    {
        var file = await desk.OpenAsync(project);
        var row = await OneAsync(desk, project, id);
        await Bills.BeginAsync(desk, file, StoreJson.Read<Bill>(row.Bill), changes: id);
    }

    /// <summary>What was written is kept for all that lie ahead.</summary>
    /// <exception cref="InvalidException">Something is missing or wrong; the field is named.</exception>
    /// <exception cref="StaleException">It was changed in another window since.</exception>
    public static Task ChangeAsync(Desk desk, ProjectId project, RecurringId id, ChangeRecurringDto change) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var draft = await DraftAsync(desk, file, change.Edition);
            if (draft.Changes != id)
                throw new RefusedException("What is being written is another invoice.");
            var bill = StoreJson.Read<Bill>(draft.Bill);
            await Bills.CheckAsync(desk, file, bill);
            Taken.DemandNone(bill);
            var row = await OneAsync(desk, project, id);
            row.Bill = draft.Bill;
            act.Db.BillDrafts.Remove(draft);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.RecurringChanged(id, bill.Sums().Totals.Payable));
        });

    /// <summary>It comes no more; what was issued stays.</summary>
    /// <exception cref="RefusedException">It does so already.</exception>
    public static Task StopAsync(Desk desk, ProjectId project, RecurringId id) =>
        desk.ActAsync(async act =>
            await StopAsync(act, await act.OpenAsync(project), await OneAsync(desk, project, id), Actor.Owner)
        );

    /// <summary>None of a project comes any more.</summary>
    public static async Task StopAllAsync(Act act, ProjectFile file)
    {
        foreach (var id in RecurringInvoices.Running(file.History).ToList())
            await StopAsync(act, file, await OneAsync(act.Desk, file.Id, id), Actor.Owner);
    }

    private static async Task StopAsync(Act act, ProjectFile file, RecurringRow row, Actor by)
    {
        row.Next = null;
        await act.Db.BillDrafts.Where(d => d.Changes == row.Id).ExecuteDeleteAsync();
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(file, by, new Happening.RecurringStopped(row.Id));
    }

    /// <summary>Those of a project that go on, as the record says them.</summary>
    public static async Task<IReadOnlyList<RecurringDto>> OfAsync(Desk desk, ProjectFile file)
    {
        if (!RecurringInvoices.Running(file.History).Any())
            return [];
        return
        [
            .. (
                await desk
                    .Db.Recurring.AsNoTracking()
                    .Where(r => r.ProjectId == file.Id && r.Next != null)
                    .OrderBy(r => r.Id)
                    .ToListAsync()
            ).Select(row => new RecurringDto(
                row.Id.Value,
                Words(desk, row),
                DateWords.Short(row.Next!.Value, desk.Today)
            )),
        ];
    }

    /// <summary>What a client keeps to be charged for a project; null for nothing.</summary>
    public static async Task<ChargedMeansDto?> KeptAsync(Desk desk, ProjectFile file) =>
        await KeptMeans.OfAsync(desk, file) is { } kept
            ? new(kept.Words, kept.Consent, DateWords.Long(desk.Calendar.DateOf(kept.At)))
            : null;

    private static string Words(Desk desk, RecurringRow row)
    {
        var end =
            row.Count is { } count ? $", {row.Issued} of {count} issued"
            : row.Until is { } until ? $", until {DateWords.Short(until, desk.Today)}"
            : "";
        return $"{MoneyText.Of(StoreJson.Read<Bill>(row.Bill).Sums().Totals.Payable)} {EveryWords.Of(row.Every)}{end}";
    }

    /// <summary>Projects with an occurrence whose day has come.</summary>
    public static Task<List<ProjectId>> DueAsync(Desk desk) => Due(desk.Db, desk.Today);

    private static readonly Func<GesamtDb, LocalDate, Task<List<ProjectId>>> Due = Prepared.Rows(
        (GesamtDb db, LocalDate today) => db.Recurring.Where(r => r.Next <= today).Select(r => r.ProjectId).Distinct()
    );

    /// <summary>Issues every occurrence whose day has come, each with its letter.</summary>
    public static Task IssueDueAsync(Desk desk, ProjectId project) =>
        desk.ActAsync(async act =>
        {
            var today = act.Today;
            foreach (
                var row in await act
                    .Db.Recurring.Where(r => r.ProjectId == project && r.Next <= today)
                    .OrderBy(r => r.Id)
                    .ToListAsync()
            )
                await IssueDueAsync(act, await act.OpenAsync(project), row);
        });

    private static async Task IssueDueAsync(Act act, ProjectFile file, RecurringRow row)
    {
        while (row.Next is { } day && day <= act.Today)
        {
            var (from, until) = row.Recurrence.PeriodOf(row.Issued);
            var bill = StoreJson.Read<Bill>(row.Bill) with { Performed = new(from, until) };
            if (await Bills.FaultsAsync(act.Desk, file, bill) is [var fault, ..])
            {
                // nobody is there to be told
                await Errands.AddAsync(
                    act,
                    file,
                    Actor.Gesamt,
                    $"Write the recurring invoice of {DateWords.Short(day, act.Today)}, which stopped: {fault.Words}"
                );
                await StopAsync(act, file, row, Actor.Gesamt);
                return;
            }
            var due = act.Today.PlusDays(bill.DueDays);
            var snapshot = Bills.Snapshot(act.Desk, file, bill);
            var invoice = await Issuing.NewAsync(act, file, snapshot, InvoiceSort.Invoice, due);
            (invoice.Recurring, invoice.Occurrence) = (row.Id, row.Issued);
            row.Issued++;
            row.Next = row.Recurrence.DayOf(row.Issued);
            await act.Db.SaveChangesAsync();
            var issued = new Happening.InvoiceIssued(invoice.Id, snapshot.Totals.Payable, due, Extra: true);
            await act.RecordAsync(file, Actor.Gesamt, issued);
            // what should have gone out over a day ago asks first
            await Issuing.LetterAsync(
                act,
                file,
                issued,
                act.Calendar.WithinSendingHours(act.Now, earlier: false),
                asks: day < act.Today.PlusDays(-1)
            );
            if (row.Next is null)
                await act.RecordAsync(file, Actor.Gesamt, new Happening.RecurringStopped(row.Id));
            file = await act.OpenAsync(file.Id);
        }
    }

    private static async Task<BillDraftRow> DraftAsync(Desk desk, ProjectFile file, int edition)
    {
        var draft =
            await Bills.DraftAsync(desk, file.Id)
            ?? throw new RefusedException("It was issued already, or thrown away. Load the page again.");
        return draft.Edition == edition ? draft : throw new StaleException(await Bills.DtoAsync(desk, file, draft));
    }

    private static async Task<RecurringRow> OneAsync(Desk desk, ProjectId project, RecurringId id)
    {
        var row =
            await desk.Db.Recurring.SingleOrDefaultAsync(r => r.Id == id && r.ProjectId == project)
            ?? throw new MissingException("recurring invoice");
        return row.Next is null ? throw new RefusedException("This recurring invoice comes no more.") : row;
    }
}
