using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Formats.Tables;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Totals = Gesamt.Core.Amounts.Totals;

namespace Gesamt.Web.Books;

/// <summary>The tax of some days: what was charged, less what was paid with costs.</summary>
/// <param name="As">When the studio owes its tax.</param>
/// <param name="Until">Included.</param>
/// <param name="LastFrom">The quarter before these days.</param>
public sealed record TaxSummaryDto(
    MoneyAs As,
    LocalDate From,
    LocalDate Until,
    LocalDate LastFrom,
    LocalDate LastUntil,
    IReadOnlyList<TaxOfCurrencyDto> Currencies
);

/// <param name="Output">Tax charged to clients and others, by rate.</param>
/// <param name="Input">Tax paid with costs, by rate.</param>
/// <param name="ToPay">Output less input; below nothing it is to come back.</param>
/// <param name="Rounding">What rounded amounts left over, without tax; empty for nothing.</param>
/// <param name="Ahead">Money that no invoice asked for yet, and has no tax yet; empty for nothing.</param>
public sealed record TaxOfCurrencyDto(
    string Currency,
    IReadOnlyList<TaxRowDto> Output,
    string OutputTax,
    IReadOnlyList<TaxRowDto> Input,
    string InputTax,
    string ToPay,
    string Rounding,
    string Ahead
);

/// <param name="Rate">“23 %”, or why there is none.</param>
public sealed record TaxRowDto(string Rate, string Net, string Tax);

/// <summary>When the studio owes its tax.</summary>
public sealed record TaxAsDto(MoneyAs As);

/// <summary>Tax by rate over some days: from invoices less credit notes as billed, from payments in proportion as received; and from costs.</summary>
internal static class TaxSummary
{
    /// <summary>The sums of one currency.</summary>
    private sealed record Of(Totals Output, Totals Input, Money Ahead);

    public static async Task<TaxSummaryDto> OfAsync(Desk desk, LocalDate first, LocalDate last)
    {
        if (last < first || last > first.PlusYears(10))
            throw new InvalidException(("until", "The last day is not before the first, and within ten years of it."));
        var how = desk.Studio.TaxAsReceived ? MoneyAs.Received : MoneyAs.Billed;
        var (lastFrom, lastUntil) = MoneyRange.Quarter(MoneyRange.Quarter(first).First.PlusDays(-1));
        return new(
            how,
            first,
            last,
            lastFrom,
            lastUntil,
            [.. (await ByCurrencyAsync(desk, how, first, last)).Select(one => Dto(one.Key, one.Value))]
        );
    }

    /// <summary>The same as a table (RFC 4180).</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, LocalDate first, LocalDate last)
    {
        var how = desk.Studio.TaxAsReceived ? MoneyAs.Received : MoneyAs.Billed;
        return Csv.Write(
            ["Currency", "Sort", "Rate", "Net", "Tax"],
            (await ByCurrencyAsync(desk, how, first, last)).SelectMany(one =>
                one.Value.Output.Parts.Select(part => ("output", part))
                    .Concat(one.Value.Input.Parts.Select(part => ("input", part)))
                    .Select(row =>
                        (IReadOnlyList<string>)
                            [
                                one.Key.Code,
                                row.Item1,
                                row.part.Category.Words(row.part.Rate),
                                MoneyText.Exact(row.part.Net),
                                MoneyText.Exact(row.part.Tax),
                            ]
                    )
            )
        );
    }

    private static async Task<IReadOnlyList<KeyValuePair<Currency, Of>>> ByCurrencyAsync(
        Desk desk,
        MoneyAs how,
        LocalDate first,
        LocalDate last
    )
    {
        var all = new SortedDictionary<string, Of>(StringComparer.Ordinal);
        void Put(Currency currency, Func<Of, Of> change) =>
            all[currency.Code] = change(
                all.GetValueOrDefault(currency.Code)
                    ?? new(Totals.Zero(currency), Totals.Zero(currency), Money.Zero(currency))
            );
        foreach (var output in how == MoneyAs.Billed ? await BilledAsync(desk, first, last) : [])
            Put(output.RoundingAmount.Currency, of => of with { Output = of.Output.Plus(output) });
        if (how == MoneyAs.Received)
            foreach (var (output, ahead) in await ReceivedAsync(desk, first, last))
                Put(ahead.Currency, of => of with { Output = of.Output.Plus(output), Ahead = of.Ahead + ahead });
        foreach (
            var row in await desk
                .Db.Incomes.AsNoTracking()
                .Where(i => !i.Removed && i.On >= first && i.On <= last)
                .Select(i => new
                {
                    i.GrossMinor,
                    i.Currency,
                    i.TaxPartsPerMillion,
                })
                .ToListAsync()
        )
            Put(
                Currency.Of(row.Currency),
                of => of with { Output = of.Output.Plus(Gross(row.GrossMinor, row.Currency, row.TaxPartsPerMillion)) }
            );
        foreach (
            var row in await desk
                .Db.RealCosts.Where(c => c.On >= first && c.On <= last)
                .Select(c => new
                {
                    c.GrossMinor,
                    c.Currency,
                    c.TaxPartsPerMillion,
                })
                .ToListAsync()
        )
            Put(
                Currency.Of(row.Currency),
                of => of with { Input = of.Input.Plus(Gross(row.GrossMinor, row.Currency, row.TaxPartsPerMillion)) }
            );
        return [.. all.Select(one => KeyValuePair.Create(Currency.Of(one.Key), one.Value))];
    }

    private static Totals Gross(long minor, string code, int rate)
    {
        var currency = Currency.Of(code);
        return new([Taxes.OfGross(new(minor, currency), new(rate))], Money.Zero(currency));
    }

    private static async Task<IReadOnlyList<Totals>> BilledAsync(Desk desk, LocalDate first, LocalDate last) =>
        [
            .. (
                await desk
                    .Db.Invoices.AsNoTracking()
                    .Where(i => i.Year > 0 && i.IssuedOn >= first && i.IssuedOn <= last)
                    .Select(i => new { i.Sort, i.Snapshot })
                    .ToListAsync()
            ).Select(i =>
            {
                var totals = StoreJson.Read<InvoiceSnapshot>(i.Snapshot).Totals;
                return i.Sort == InvoiceSort.CreditNote
                    ? Totals.Zero(totals.RoundingAmount.Currency).Minus(totals)
                    : totals;
            }),
        ];

    /// <summary>Of each invoice that money moved for: what was paid of it by the last day, less what had been before the first.</summary>
    private static async Task<IReadOnlyList<(Totals Output, Money Ahead)>> ReceivedAsync(
        Desk desk,
        LocalDate first,
        LocalDate last
    )
    {
        var moved = (await Journal.OfAsync(desk, first, last, MoneyAs.Received)).Where(one =>
            one.Entry.Sort is EntrySort.Payment or EntrySort.Refund or EntrySort.Chargeback
        );
        var ids = moved.Select(one => one.Invoice).OfType<InvoiceId>().Distinct().ToList();
        var before = await Journal.PaidBeforeAsync(desk, ids, first);
        var totals = (
            await desk
                .Db.Invoices.AsNoTracking()
                .Where(i => ids.Contains(i.Id))
                .Select(i => new { i.Id, i.Snapshot })
                .ToListAsync()
        ).ToDictionary(i => i.Id, i => StoreJson.Read<InvoiceSnapshot>(i.Snapshot).Totals);
        return
        [
            .. moved
                .GroupBy(one => (one.Invoice, one.Entry.Amount.Currency))
                .Select(same =>
                {
                    var currency = same.Key.Currency;
                    var amount = same.Select(one => one.Entry.Amount).Sum(currency);
                    if (same.Key.Invoice is not { } invoice || totals[invoice].Payable.Currency != currency)
                        return (Totals.Zero(currency), amount);
                    var was = new Money(before.GetValueOrDefault(invoice), currency);
                    var output = Taxes.OfPayment(totals[invoice], was, amount);
                    return (output, amount - output.Payable);
                }),
        ];
    }

    /// <summary>When the studio owes its tax.</summary>
    public static Task SetAsync(Desk desk, MoneyAs how) =>
        desk.ActAsync(async act => (await act.Db.Studio.SingleAsync()).TaxAsReceived = how == MoneyAs.Received);

    private static TaxOfCurrencyDto Dto(Currency currency, Of of)
    {
        static IReadOnlyList<TaxRowDto> Rows(Totals totals) =>
            [
                .. totals
                    .Parts.Where(part => part.Net.Minor != 0 || part.Tax.Minor != 0)
                    .Select(part => new TaxRowDto(
                        part.Category.Words(part.Rate),
                        MoneyText.Figures(part.Net),
                        MoneyText.Figures(part.Tax)
                    )),
            ];
        string Unless(Money amount) => amount.Minor == 0 ? "" : MoneyText.Of(amount);
        return new(
            currency.Code,
            Rows(of.Output),
            MoneyText.Of(of.Output.Tax),
            Rows(of.Input),
            MoneyText.Of(of.Input.Tax),
            MoneyText.Of(of.Output.Tax - of.Input.Tax),
            Unless(of.Output.RoundingAmount),
            Unless(of.Ahead)
        );
    }
}
