using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
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
            await desk.Db.Invoices.Where(i => i.Year > 0).MinAsync(i => (LocalDate?)i.IssuedOn),
            await Real(desk).MinAsync(p => (Instant?)p.At) is { } at ? desk.Calendar.DateOf(at) : null,
            await desk
                .Db.Costs.Where(c => !c.Removed && !desk.Db.Rehearsals.Any(r => r.Id == c.ProjectId))
                .MinAsync(c => (LocalDate?)c.On),
            await desk.Db.Incomes.Where(i => !i.Removed).MinAsync(i => (LocalDate?)i.On),
        ];
        return days.Min() ?? desk.Today;
    }

    /// <summary>What was written down by mistake never came, and what a rehearsal got neither.</summary>
    private static IQueryable<PaymentRow> Real(Desk desk) =>
        desk
            .Db.Payments.AsNoTracking()
            .Where(p => (p.GoneAt == null || p.ChargedBack) && !desk.Db.Rehearsals.Any(r => r.Id == p.ProjectId));

    /// <summary>What clients paid, less what was given or taken back.</summary>
    public static async Task<IEnumerable<Movement>> PaidAsync(Desk desk, LocalDate first, LocalDate last)
    {
        var (from, until) = (desk.Calendar.StartOf(first), desk.Calendar.StartOf(last.PlusDays(1)));
        var real = Real(desk);
        var came = await real.Where(p => p.At >= from && p.At < until)
            .Select(p => new
            {
                p.Id,
                p.ProjectId,
                p.InvoiceId,
                p.At,
                p.AmountMinor,
                p.Currency,
                p.AccountId,
            })
            .ToListAsync();
        var went = await real.Where(p => p.ChargedBack && p.GoneAt >= from && p.GoneAt < until)
            .Select(p => new
            {
                p.Id,
                p.ProjectId,
                p.InvoiceId,
                p.GoneAt,
                p.AmountMinor,
                p.Currency,
                p.AccountId,
                Refunded = desk
                    .Db.Refunds.Where(r => r.PaymentId == p.Id && r.State == RefundState.Done)
                    .Sum(r => r.AmountMinor),
            })
            .ToListAsync();
        var given = await desk
            .Db.Refunds.AsNoTracking()
            .Where(r => r.State == RefundState.Done && r.At >= from && r.At < until)
            .Join(
                real,
                r => r.PaymentId,
                p => p.Id,
                (r, p) =>
                    new
                    {
                        r.Id,
                        r.ProjectId,
                        p.InvoiceId,
                        r.At,
                        r.AmountMinor,
                        r.Currency,
                        p.AccountId,
                    }
            )
            .ToListAsync();
        return came.Select(p => new Movement(
                new(desk.Calendar.DateOf(p.At), EntrySort.Payment, desk.Amount(p.AmountMinor, p.Currency), p.AccountId),
                p.Id.Value,
                p.ProjectId,
                p.InvoiceId
            ))
            .Concat(
                went.Where(p => p.AmountMinor > p.Refunded)
                    .Select(p => new Movement(
                        new(
                            desk.Calendar.DateOf(p.GoneAt!.Value),
                            EntrySort.Chargeback,
                            desk.Amount(p.Refunded - p.AmountMinor, p.Currency),
                            p.AccountId
                        ),
                        p.Id.Value,
                        p.ProjectId,
                        p.InvoiceId
                    ))
            )
            .Concat(
                given.Select(r => new Movement(
                    new(
                        desk.Calendar.DateOf(r.At),
                        EntrySort.Refund,
                        desk.Amount(-r.AmountMinor, r.Currency),
                        r.AccountId
                    ),
                    r.Id.Value,
                    r.ProjectId,
                    r.InvoiceId
                ))
            );
    }

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
        (
            await desk
                .Db.Incomes.AsNoTracking()
                .Where(i => !i.Removed && i.On >= first && i.On <= last)
                .Select(i => new
                {
                    i.Id,
                    i.On,
                    i.GrossMinor,
                    i.Currency,
                    i.AccountId,
                })
                .ToListAsync()
        ).Select(i => new Movement(
            new(i.On, EntrySort.OtherIncome, desk.Amount(i.GrossMinor, i.Currency), i.AccountId),
            i.Id.Value,
            null,
            null
        ));

    private static async Task<IEnumerable<Movement>> CostsAsync(Desk desk, LocalDate first, LocalDate last) =>
        (
            await CostsOf(desk, first, last)
                .Select(c => new
                {
                    c.Id,
                    c.ProjectId,
                    c.On,
                    c.GrossMinor,
                    c.Currency,
                    c.AccountId,
                })
                .ToListAsync()
        ).Select(c => new Movement(
            new(c.On, EntrySort.Cost, desk.Amount(-c.GrossMinor, c.Currency), c.AccountId),
            c.Id.Value,
            c.ProjectId,
            null
        ));

    /// <summary>The costs that count: a rehearsal's do not.</summary>
    public static IQueryable<CostRow> CostsOf(Desk desk, LocalDate first, LocalDate last) =>
        desk
            .Db.Costs.AsNoTracking()
            .Where(c =>
                !c.Removed && c.On >= first && c.On <= last && !desk.Db.Rehearsals.Any(r => r.Id == c.ProjectId)
            );
}
