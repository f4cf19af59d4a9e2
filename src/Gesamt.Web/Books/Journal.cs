using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>An entry of the books with what it comes from.</summary>
/// <param name="Number">Of the payment, refund, income or cost; as billed, of the invoice.</param>
internal sealed record Movement(Entry Entry, long Number, ProjectId? Project, InvoiceId? Invoice);

/// <summary>All money that moved, the last first: what every figure of the books is summed from.</summary>
internal static class Journal
{
    /// <summary>The entries of some days; as billed, invoices and credit notes stand where payments and refunds would.</summary>
    /// <param name="last">Included.</param>
    public static async Task<List<Movement>> OfAsync(Desk desk, LocalDate first, LocalDate last, MoneyAs how)
    {
        List<Movement> all =
        [
            .. how == MoneyAs.Billed ? await BilledAsync(desk, first, last) : await PaidAsync(desk, first, last),
            .. await IncomesAsync(desk, first, last),
            .. await CostsAsync(desk, first, last),
        ];
        return
        [
            .. all.OrderByDescending(one => one.Entry.On)
                .ThenBy(one => one.Entry.Sort)
                .ThenByDescending(one => one.Number),
        ];
    }

    /// <summary>The first day on which anything moved; today where nothing has.</summary>
    public static async Task<LocalDate> EarliestAsync(Desk desk)
    {
        LocalDate?[] days =
        [
            await FirstIssued(desk.Db),
            await FirstPaid(desk.Db) is { } at ? desk.Calendar.DateOf(at) : null,
            await FirstCost(desk.Db),
            await FirstIncome(desk.Db),
        ];
        return days.Min() ?? desk.Today;
    }

    private static readonly Func<GesamtDb, Task<LocalDate?>> FirstIssued = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Invoices.Where(i => i.Year > 0).Min(i => (LocalDate?)i.IssuedOn)
    );

    private static readonly Func<GesamtDb, Task<Instant?>> FirstPaid = EF.CompileAsyncQuery(
        (GesamtDb db) => db.RealPayments.Min(p => (Instant?)p.At)
    );

    private static readonly Func<GesamtDb, Task<LocalDate?>> FirstCost = EF.CompileAsyncQuery(
        (GesamtDb db) => db.RealCosts.Min(c => (LocalDate?)c.On)
    );

    private static readonly Func<GesamtDb, Task<LocalDate?>> FirstIncome = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Incomes.Where(i => !i.Removed).Min(i => (LocalDate?)i.On)
    );

    /// <summary>What clients paid, less what was given or taken back.</summary>
    public static async Task<IEnumerable<Movement>> PaidAsync(Desk desk, LocalDate first, LocalDate last)
    {
        var (from, until) = (desk.Calendar.StartOf(first), desk.Calendar.StartOf(last.PlusDays(1)));
        var came = await Came(desk.Db, from, until);
        var went = await Went(desk.Db, from, until);
        var given = await Given(desk.Db, from, until);
        return came.Select(p => Of(desk, p, EntrySort.Payment, p.Minor))
            .Concat(went.Where(p => p.Minor > 0).Select(p => Of(desk, p, EntrySort.Chargeback, -p.Minor)))
            .Concat(given.Select(r => Of(desk, r, EntrySort.Refund, -r.Minor)));
    }

    private static Movement Of(Desk desk, Moved moved, EntrySort sort, long minor) =>
        new(
            new(desk.Calendar.DateOf(moved.At), sort, desk.Amount(minor, moved.Currency), moved.Account),
            moved.Number,
            moved.Project,
            moved.Invoice
        );

    private sealed record Moved(
        long Number,
        ProjectId Project,
        InvoiceId? Invoice,
        Instant At,
        long Minor,
        string Currency,
        AccountId? Account
    );

    private static readonly Func<GesamtDb, Instant, Instant, Task<List<Moved>>> Came = Prepared.Rows(
        (GesamtDb db, Instant from, Instant until) =>
            db
                .RealPayments.Where(p => p.At >= from && p.At < until)
                .Select(p => new Moved(
                    p.Id.Value,
                    p.ProjectId,
                    p.InvoiceId,
                    p.At,
                    p.AmountMinor,
                    p.Currency,
                    p.AccountId
                ))
    );

    /// <summary>What a bank took back, as far as it had not been given back before.</summary>
    private static readonly Func<GesamtDb, Instant, Instant, Task<List<Moved>>> Went = Prepared.Rows(
        (GesamtDb db, Instant from, Instant until) =>
            db
                .RealPayments.Where(p => p.ChargedBack && p.GoneAt >= from && p.GoneAt < until)
                .Select(p => new Moved(
                    p.Id.Value,
                    p.ProjectId,
                    p.InvoiceId,
                    p.GoneAt!.Value,
                    p.AmountMinor
                        - db.Refunds.Where(r => r.PaymentId == p.Id && r.State == RefundState.Done)
                            .Sum(r => r.AmountMinor),
                    p.Currency,
                    p.AccountId
                ))
    );

    private static readonly Func<GesamtDb, Instant, Instant, Task<List<Moved>>> Given = Prepared.Rows(
        (GesamtDb db, Instant from, Instant until) =>
            db
                .Refunds.AsNoTracking()
                .Where(r => r.State == RefundState.Done && r.At >= from && r.At < until)
                .Join(
                    db.RealPayments,
                    r => r.PaymentId,
                    p => p.Id,
                    (r, p) =>
                        new Moved(r.Id.Value, r.ProjectId, p.InvoiceId, r.At, r.AmountMinor, r.Currency, p.AccountId)
                )
    );

    /// <summary>What had been paid of invoices before a day, in minor units.</summary>
    public static async Task<IReadOnlyDictionary<InvoiceId, long>> PaidBeforeAsync(
        Desk desk,
        List<InvoiceId> invoices,
        LocalDate day
    )
    {
        var until = desk.Calendar.StartOf(day);
        var ids = invoices.Select(id => (InvoiceId?)id).ToList();
        var payments = await desk
            .Db.Payments.AsNoTracking()
            .Where(p => p.InvoiceId != null && ids.Contains(p.InvoiceId) && p.At < until)
            .Where(p => p.GoneAt == null || p.ChargedBack)
            .Select(p => new
            {
                p.InvoiceId,
                p.AmountMinor,
                IsBack = p.ChargedBack && p.GoneAt < until,
                Refunded = desk
                    .Db.Refunds.Where(r => r.PaymentId == p.Id && r.State == RefundState.Done && r.At < until)
                    .Sum(r => r.AmountMinor),
            })
            .ToListAsync();
        return payments
            .GroupBy(p => p.InvoiceId!.Value)
            .ToDictionary(same => same.Key, same => same.Sum(p => p.IsBack ? 0 : p.AmountMinor - p.Refunded));
    }

    private static async Task<IEnumerable<Movement>> BilledAsync(Desk desk, LocalDate first, LocalDate last) =>
        (
            await desk
                .Db.Invoices.AsNoTracking()
                .Where(i => i.Year > 0 && i.IssuedOn >= first && i.IssuedOn <= last)
                .Select(i => new
                {
                    i.Id,
                    i.ProjectId,
                    i.IssuedOn,
                    i.Sort,
                    i.TotalMinor,
                    i.Currency,
                })
                .ToListAsync()
        ).Select(i => new Movement(
            i.Sort == InvoiceSort.CreditNote
                ? new(i.IssuedOn, EntrySort.Refund, desk.Amount(-i.TotalMinor, i.Currency), null)
                : new(i.IssuedOn, EntrySort.Payment, desk.Amount(i.TotalMinor, i.Currency), null),
            i.Id.Value,
            i.ProjectId,
            i.Id
        ));

    private static async Task<IEnumerable<Movement>> IncomesAsync(Desk desk, LocalDate first, LocalDate last) =>
        (await Incomes(desk.Db, first, last)).Select(i => new Movement(
            new(i.On, EntrySort.OtherIncome, desk.Amount(i.GrossMinor, i.Currency), i.AccountId),
            i.Id.Value,
            null,
            null
        ));

    private static async Task<IEnumerable<Movement>> CostsAsync(Desk desk, LocalDate first, LocalDate last) =>
        (await Costs(desk.Db, first, last)).Select(c => new Movement(
            new(c.On, EntrySort.Cost, desk.Amount(-c.GrossMinor, c.Currency), c.AccountId),
            c.Id.Value,
            c.ProjectId,
            null
        ));

    private static readonly Func<GesamtDb, LocalDate, LocalDate, Task<List<IncomeRow>>> Incomes = Prepared.Rows(
        (GesamtDb db, LocalDate first, LocalDate last) =>
            db.Incomes.AsNoTracking().Where(i => !i.Removed && i.On >= first && i.On <= last)
    );

    private static readonly Func<GesamtDb, LocalDate, LocalDate, Task<List<CostRow>>> Costs = Prepared.Rows(
        (GesamtDb db, LocalDate first, LocalDate last) => db.RealCosts.Where(c => c.On >= first && c.On <= last)
    );
}
