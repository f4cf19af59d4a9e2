using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>Entries in words: read for those that are shown, and for no others.</summary>
internal sealed class Told
{
    private readonly Dictionary<(EntrySort, long), Words> words = [];

    /// <param name="Title">What the entry is of.</param>
    /// <param name="Who">Client, payee or payer.</param>
    /// <param name="Tax">The rate in per cent; empty where an invoice says it.</param>
    /// <param name="File">The name a receipt or invoice has in the year's folder; empty without one.</param>
    internal sealed record Words(
        string Title,
        string Who,
        string What,
        string Category = "",
        string Tax = "",
        string File = "",
        bool Receipt = false
    );

    public Words Of(Movement one) =>
        words.GetValueOrDefault((one.Entry.Sort, one.Number)) ?? new("An entry that cannot be told", "", "");

    public static async Task<Told> OfAsync(Desk desk, List<Movement> shown, MoneyAs how)
    {
        var told = new Told();
        await told.ClientsAsync(desk, shown, how);
        await told.CostsAsync(desk, shown);
        await told.IncomesAsync(desk, shown);
        return told;
    }

    private async Task ClientsAsync(Desk desk, List<Movement> shown, MoneyAs how)
    {
        var of = shown.Where(one => one.Entry.Sort is EntrySort.Payment or EntrySort.Refund or EntrySort.Chargeback);
        var ids = of.Select(one => one.Project!.Value).Distinct().ToList();
        var invoices = of.Select(one => one.Invoice).OfType<InvoiceId>().Distinct().ToList();
        var projects = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                p.Title,
                Client = p.Client!.Organisation ?? p.Client.Name,
            })
            .ToDictionaryAsync(p => p.Id);
        var numbers = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => invoices.Contains(i.Id))
            .Select(i => new { i.Id, i.Number })
            .ToDictionaryAsync(i => i.Id, i => i.Number);
        var payments = of.Where(one => one.Entry.Sort != EntrySort.Refund)
            .Select(one => new PaymentId(one.Number))
            .ToList();
        var means =
            how == MoneyAs.Billed
                ? []
                : await desk
                    .Db.Payments.AsNoTracking()
                    .Where(p => payments.Contains(p.Id))
                    .Select(p => new { p.Id, p.Means })
                    .ToDictionaryAsync(p => p.Id.Value, p => p.Means);
        foreach (var one in of)
        {
            if (!projects.TryGetValue(one.Project!.Value, out var project))
                continue;
            var number = one.Invoice is { } invoice ? numbers.GetValueOrDefault(invoice, "") : "";
            words[(one.Entry.Sort, one.Number)] = new(
                project.Title,
                project.Client,
                What(one.Entry.Sort, how, number, means.TryGetValue(one.Number, out var by) ? MeansWords(by) : ""),
                File: number.Length > 0 ? YearFolder.InvoiceFile(number) : ""
            );
        }
    }

    private static string What(EntrySort sort, MoneyAs how, string number, string means) =>
        (sort, how) switch
        {
            (EntrySort.Payment, MoneyAs.Billed) => $"invoice {number}",
            (EntrySort.Refund, MoneyAs.Billed) => $"credit note {number}",
            (EntrySort.Refund, _) => number.Length > 0 ? $"given back of {number}" : "given back",
            (EntrySort.Chargeback, _) => $"{number}, taken back by the bank".TrimStart(',', ' '),
            _ => string.Join(
                ", ",
                new[] { number.Length > 0 ? $"paid {number}" : "paid", means }.Where(part => part.Length > 0)
            ),
        };

    private static string MeansWords(PaymentMeans means) =>
        means switch
        {
            PaymentMeans.Card => "by card",
            PaymentMeans.Transfer => "by transfer",
            PaymentMeans.Cash => "in cash",
            PaymentMeans.Cheque => "by cheque",
            _ => "from their account",
        };

    private async Task CostsAsync(Desk desk, List<Movement> shown)
    {
        var ids = shown.Where(one => one.Entry.Sort == EntrySort.Cost).Select(one => new CostId(one.Number)).ToList();
        foreach (
            var one in await desk
                .Db.Costs.AsNoTracking()
                .Where(c => ids.Contains(c.Id))
                .Select(c => new
                {
                    Row = c,
                    Project = desk.Db.Projects.Where(p => p.Id == c.ProjectId).Select(p => p.Title).FirstOrDefault(),
                })
                .ToListAsync()
        )
        {
            var said = new[]
            {
                one.Row.Category,
                one.Row.Payee,
                one.Project ?? "",
                one.Row.Recurring is null ? "" : "by itself",
            };
            words[(EntrySort.Cost, one.Row.Id.Value)] = new(
                one.Row.What,
                one.Row.Payee,
                string.Join(", ", said.Where(part => part.Length > 0)),
                one.Row.Category,
                Percent(one.Row.TaxPartsPerMillion),
                one.Row.ReceiptHash is null ? "" : YearFolder.ReceiptFile(one.Row),
                one.Row.ReceiptHash is not null
            );
        }
    }

    private async Task IncomesAsync(Desk desk, List<Movement> shown)
    {
        var ids = shown
            .Where(one => one.Entry.Sort == EntrySort.OtherIncome)
            .Select(one => new IncomeId(one.Number))
            .ToList();
        foreach (var row in await desk.Db.Incomes.AsNoTracking().Where(i => ids.Contains(i.Id)).ToListAsync())
            words[(EntrySort.OtherIncome, row.Id.Value)] = new(
                row.What,
                row.Payer,
                string.Join(", ", new[] { "other income", row.Category, row.Payer }.Where(part => part.Length > 0)),
                row.Category,
                Percent(row.TaxPartsPerMillion)
            );
    }

    private static string Percent(int parts) =>
        new Rate(parts).InPercent.ToString("0.####", System.Globalization.CultureInfo.InvariantCulture);
}
