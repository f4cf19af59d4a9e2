using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Model;
using Gesamt.Web.Banking;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Recurring;
using Gesamt.Web.Spent;
using Gesamt.Web.StandIns;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>Money of the demo that comes by other ways than the client page.</summary>
internal static class DemoMoney
{
    /// <summary>“camt02; Heron library by reference; Weir House by half”: a statement of the bank, in which these are paid, is taken in.</summary>
    public static async Task StatementAsync(Desk desk, string words)
    {
        // what the one before it left over was dealt with
        foreach (
            var id in await desk
                .Db.BankLines.Where(l => l.State == BankLineState.Open && l.AmountMinor > 0)
                .Select(l => l.Id)
                .ToListAsync()
        )
            await BankBooking.SetAsideAsync(desk, id);
        var parts = words.Split("; ");
        List<BankLine> lines = [];
        foreach (var part in parts.Skip(1))
        {
            var (title, way) = (
                part[..part.LastIndexOf(" by ", StringComparison.Ordinal)],
                part[(part.LastIndexOf(' ') + 1)..]
            );
            lines.Add(
                StandInBank.Paid(desk, await OldestAsync(desk, title), Enum.Parse<PaidBy>(way, ignoreCase: true))
            );
        }
        var (file, name) = StandInBank.Write(desk, Enum.Parse<StatementForm>(parts[0], ignoreCase: true), lines);
        using var content = new MemoryStream(file);
        var taken = await Statements.TakeAsync(desk, name, content, CancellationToken.None);
        if (taken.Columns is { } columns)
            await Statements.MatchAsync(desk, columns.Hash, new(name, desk.Studio.Iban, [.. columns.Columns]));
    }

    /// <summary>“Month; 14; Five boards lettered anew; 5 × 38”: an invoice that comes again from today, due after so many days.</summary>
    public static async Task RecursAsync(Desk desk, ProjectId id, string words)
    {
        var parts = words.Split("; ");
        var price = parts[3].Split(" × ");
        var file = await desk.OpenAsync(id);
        var bill = new Bill(
            desk.Currency,
            [
                new(
                    "boards",
                    parts[2],
                    "",
                    decimal.Parse(price[0], CultureInfo.InvariantCulture),
                    "",
                    decimal.Parse(price[1], CultureInfo.InvariantCulture),
                    Tax.At(Rate.Percent(23))
                ),
            ]
        )
        {
            DueDays = int.Parse(parts[1], CultureInfo.InvariantCulture),
        };
        var draft = await Bills.SaveAsync(desk, file, bill, 0);
        await Recurrences.BeginAsync(desk, id, new(draft.Edition, Enum.Parse<Every>(parts[0]), desk.Today, null, null));
    }

    /// <summary>The client pays what is open by this card, and agrees that it is kept and charged.</summary>
    public static async Task AgreesAsync(Desk desk, PaymentHouse house, ProjectId id, string card)
    {
        var file = await desk.OpenAsync(id);
        var page = await Checkout.BeginAsync(desk, house, id, PaymentMeans.Card, null, "/", keeps: file.Row.ClientId);
        var session = page[(page.LastIndexOf('/') + 1)..];
        house.Pay(session, card);
        await Checkout.SettleAsync(desk, house, session);
    }

    /// <summary>“2.5; Gulls, first sketch”: hours of that day.</summary>
    public static Task WorkedAsync(Desk desk, ProjectId id, string words)
    {
        var parts = words.Split("; ");
        return Keeping.AddAsync(desk, id, new KeepHoursDto(null, parts[0], parts[1]));
    }

    /// <summary>“184.50; Scaffold, two days; Northgate Hire; hire; charge on”: a cost of that day with 23 % of tax in it.</summary>
    public static Task CostAsync(Desk desk, ProjectId id, string words)
    {
        var parts = words.Split("; ");
        return Keeping.AddAsync(
            desk,
            id,
            new KeepCostDto(null, parts[2], parts[1], parts[3], parts[0], "23", parts.Length > 4)
        );
    }

    /// <summary>A part of what is open longest comes by transfer.</summary>
    public static async Task PaysPartAsync(Desk desk, ProjectId id, string amount) =>
        await desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(id);
            var (invoice, _) = Owed.Open(file.History).First();
            await Checkout.BookAsync(
                act,
                file,
                invoice.What.Invoice,
                TypedMoney.Of(desk.Currency, amount, "amount"),
                PaymentMeans.Transfer,
                null,
                Actor.Client,
                act.Now
            );
        });

    /// <summary>The invoice of a project that is open longest.</summary>
    private static async Task<OpenInvoice> OldestAsync(Desk desk, string title)
    {
        var invoice = await desk
            .Db.Invoices.Where(i => i.OwedMinor > 0)
            .Join(desk.Db.Projects.Where(p => p.Title == title), i => i.ProjectId, p => p.Id, (i, _) => i.Id)
            .OrderBy(i => i)
            .FirstAsync();
        return (await BankBooking.OpenAsync(desk)).Single(one => one.Invoice == invoice);
    }
}
