using System.Globalization;
using System.IO.Compression;
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

namespace Gesamt.Web.Books;

/// <summary>A year as it can be handed over.</summary>
/// <param name="IsOver">It can be closed.</param>
/// <param name="Closed">The day it was closed; empty while it is open.</param>
/// <param name="Control">What its entries come to.</param>
/// <param name="Changed">What they came to when it was closed, where that is something else now; else empty.</param>
/// <param name="WithoutReceipt">Costs that have none.</param>
public sealed record BookYearDto(
    int Year,
    bool IsOver,
    string Closed,
    string Control,
    string Changed,
    int Entries,
    int WithoutReceipt
);

/// <summary>Whether the year is closed.</summary>
public sealed record ClosedDto(bool Closed);

/// <summary>A year for the accountant in one ZIP (APPNOTE 6.3): the journal, accounts and tax as tables, every invoice as PDF and as data, every receipt, and a control total that equals the change of all balances.</summary>
internal static class YearFolder
{
    /// <summary>What a currency's entries come to.</summary>
    private sealed record ControlOf(string Currency, long Minor);

    public static async Task<IReadOnlyList<BookYearDto>> YearsAsync(Desk desk)
    {
        var earliest = await Journal.EarliestAsync(desk);
        var closed = await desk.Db.ClosedYears.AsNoTracking().ToDictionaryAsync(y => y.Year);
        List<BookYearDto> years = [];
        for (var year = desk.Today.Year; year >= earliest.Year; year--)
        {
            var (first, last) = Days(year);
            var all = await Journal.OfAsync(desk, first, last, MoneyAs.Received);
            var control = Control(all);
            var row = closed.GetValueOrDefault(year);
            var was = row is null ? null : StoreJson.Read<List<ControlOf>>(row.Control);
            years.Add(
                new(
                    year,
                    year < desk.Today.Year,
                    row is null ? "" : desk.Short(desk.Calendar.DateOf(row.At)),
                    Words(desk, control),
                    was is not null && !was.SequenceEqual(control) ? Words(desk, was) : "",
                    all.Count,
                    await desk.Db.RealCosts.CountAsync(c => c.On >= first && c.On <= last && c.ReceiptHash == null)
                )
            );
        }
        return years;
    }

    /// <summary>Closes a year that is over, or opens it again.</summary>
    /// <exception cref="InvalidException">It is not over.</exception>
    public static Task CloseAsync(Desk desk, int year, bool closed) =>
        desk.ActAsync(async act =>
        {
            var row = await act.Db.ClosedYears.SingleOrDefaultAsync(y => y.Year == year);
            if (!closed)
            {
                if (row is not null)
                    act.Db.ClosedYears.Remove(row);
                return;
            }
            if (year >= act.Today.Year || year < 1990)
                throw new InvalidException(("year", "A year is closed once it is over."));
            if (row is not null)
                return;
            var (first, last) = Days(year);
            var all = await Journal.OfAsync(desk, first, last, MoneyAs.Received);
            act.Db.ClosedYears.Add(
                new()
                {
                    Year = year,
                    At = act.Now,
                    Control = StoreJson.Write(Control(all)),
                }
            );
        });

    public static Task<IResult> OfAsync(Desk desk, int year) =>
        PassingZip.OfAsync($"{year} for the accountant.zip", zip => WriteAsync(desk, year, zip));

    private static async Task WriteAsync(Desk desk, int year, ZipArchive zip)
    {
        var (first, last) = Days(year);
        var all = await Journal.OfAsync(desk, first, last, MoneyAs.Received);
        all.Reverse();
        var billed = await Journal.OfAsync(desk, first, last, MoneyAs.Billed);
        billed.Reverse();
        async Task PutAsync(string name, byte[] bytes)
        {
            await using var entry = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
            await entry.WriteAsync(bytes);
        }
        await PutAsync("journal.csv", await MoneyParts.CsvAsync(desk, all, MoneyAs.Received));
        await PutAsync("billed.csv", await MoneyParts.CsvAsync(desk, billed, MoneyAs.Billed));
        await PutAsync("tax.csv", await TaxSummary.CsvAsync(desk, first, last));
        var (table, control) = await AccountsAsync(desk, all, first, last);
        await PutAsync("accounts.csv", table);
        await PutAsync("control.csv", control);
        var ids = all.Select(one => one.Invoice)
            .Concat(billed.Select(one => one.Invoice))
            .OfType<InvoiceId>()
            .Distinct()
            .ToList();
        foreach (
            var invoice in await desk
                .Db.Invoices.AsNoTracking()
                .Where(i => ids.Contains(i.Id))
                .OrderBy(i => i.Number)
                .ToListAsync()
        )
        {
            var paper = await KeptPapers.OfAsync(desk, invoice);
            await PutAsync(InvoiceFile(invoice.Number), desk.Vault.Read(paper.Hash));
            if (paper.Data is { } data)
                await PutAsync(Path.ChangeExtension(InvoiceFile(invoice.Number), ".xml"), desk.Vault.Read(data));
        }
        foreach (
            var cost in await desk
                .Db.RealCosts.Where(c => c.On >= first && c.On <= last)
                .Where(c => c.ReceiptHash != null)
                .OrderBy(c => c.On)
                .ThenBy(c => c.Id)
                .ToListAsync()
        )
        {
            await using var entry = zip.CreateEntry(ReceiptFile(cost), CompressionLevel.Fastest).Open();
            await using var bytes = desk.Vault.Open(cost.ReceiptHash!);
            await bytes.CopyToAsync(entry);
        }
    }

    /// <summary>Every account over the year, and the control: what the entries come to beside what the balances changed by.</summary>
    private static async Task<(byte[] Table, byte[] Control)> AccountsAsync(
        Desk desk,
        List<Movement> year,
        LocalDate first,
        LocalDate last
    )
    {
        var names = await AccountNames.OfAsync(desk);
        var earliest = await Journal.EarliestAsync(desk);
        var entries = (await Journal.OfAsync(desk, LocalDate.Min(earliest, first), last, MoneyAs.Received))
            .Select(one => one.Entry)
            .ToList();
        var transfers = (await AccountNames.TransfersAsync(desk, last)).Select(one => one.Transfer).ToList();
        var days = names
            .All.Select(one => (one.Row.Name, Days: Balances.Of(one.Account, entries, transfers, first, last)))
            .ToList();
        var loose = year.Select(one => one.Entry)
            .Where(entry => names.Of(entry).Length == 0)
            .ToLookup(entry => entry.Amount.Currency);
        var table = Csv.Write(
            ["Account", "Currency", "Before", "Opened with", "In", "Out", "Transfers", "After"],
            days.Select(one =>
                (IReadOnlyList<string>)
                    [
                        one.Name,
                        one.Days.Before.Currency.Code,
                        MoneyText.Exact(one.Days.Before),
                        MoneyText.Exact(one.Days.Opened),
                        MoneyText.Exact(one.Days.In),
                        MoneyText.Exact(one.Days.Out),
                        MoneyText.Exact(one.Days.Moved),
                        MoneyText.Exact(one.Days.After),
                    ]
            )
        );
        var currencies = year.Select(one => one.Entry.Amount.Currency)
            .Concat(days.Select(one => one.Days.Before.Currency))
            .Distinct()
            .OrderBy(currency => currency.Code, StringComparer.Ordinal);
        var control = Csv.Write(
            [
                "Currency",
                "Entries",
                "Change of all balances",
                "Changed between currencies",
                "On no account",
                "Difference",
            ],
            currencies.Select(currency =>
            {
                var of = days.Where(one => one.Days.Before.Currency == currency).Select(one => one.Days).ToList();
                var sum = year.Select(one => one.Entry.Amount)
                    .Where(amount => amount.Currency == currency)
                    .Sum(currency);
                var change = of.Select(one => one.After - one.Before - one.Opened).Sum(currency);
                var moved = of.Select(one => one.Moved).Sum(currency);
                var on = loose[currency].Select(entry => entry.Amount).Sum(currency);
                return (IReadOnlyList<string>)
                    [
                        currency.Code,
                        MoneyText.Exact(sum),
                        MoneyText.Exact(change),
                        MoneyText.Exact(moved),
                        MoneyText.Exact(on),
                        MoneyText.Exact(sum - (change - moved) - on),
                    ];
            })
        );
        return (table, control);
    }

    /// <summary>Where an invoice or credit note lies in the folder.</summary>
    public static string InvoiceFile(string number) =>
        $"invoices/{new string([.. number.Select(c => char.IsLetterOrDigit(c) || c is '-' or '_' or '.' ? c : '-')])}.pdf";

    /// <summary>Where a receipt lies in the folder.</summary>
    public static string ReceiptFile(CostRow cost) =>
        $"receipts/{cost.On.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture)} {cost.Id.Value} {cost.ReceiptName}";

    private static (LocalDate First, LocalDate Last) Days(int year) => (new(year, 1, 1), new(year, 12, 31));

    private static List<ControlOf> Control(List<Movement> all) =>
        [
            .. all.GroupBy(one => one.Entry.Amount.Currency.Code)
                .OrderBy(same => same.Key, StringComparer.Ordinal)
                .Select(same => new ControlOf(same.Key, same.Sum(one => one.Entry.Amount.Minor))),
        ];

    private static string Words(Desk desk, List<ControlOf> control) =>
        desk.Sum(control.Select(one => (one.Minor, (string?)one.Currency)));
}
