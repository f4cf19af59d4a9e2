using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Late interest of an invoice, as the studio's terms say: proposed with its working, and asked for only by an invoice that the owner issues.</summary>
public static class Lateness
{
    /// <summary>What can be asked by today, or by the day it was paid; null for nothing.</summary>
    public static async Task<LateCharge?> OfAsync(Desk desk, InvoiceRow invoice)
    {
        if (invoice.Sort != InvoiceSort.Invoice || invoice.Due >= desk.Today || desk.Studio.LateTerms is null)
            return null;
        return Of(desk, await desk.OpenAsync(invoice.ProjectId), invoice);
    }

    private static LateCharge? Of(Desk desk, ProjectFile file, InvoiceRow invoice)
    {
        var currency = Currency.Of(invoice.Currency);
        LocalDate Day(Instant at) => desk.Calendar.DateOf(at);
        var flows = Payments
            .InForce(file.History)
            .Where(paid => paid.What.Invoice == invoice.Id)
            .Select(paid => (On: Day(paid.Happened), paid.What.Amount))
            .Concat(
                file.History.Of<Happening.InvoiceCredited>()
                    .Where(credit => credit.What.Invoice == invoice.Id)
                    .Select(credit => (On: Day(credit.Happened), credit.What.Amount))
            )
            .ToList();
        var total = new Money(invoice.TotalMinor, currency);
        // what money paid ahead covers of it was never late
        var unpaid = total - flows.Select(flow => flow.Amount).Sum(currency);
        var ahead = new Money(Math.Max(0, unpaid.Minor - Math.Max(0, invoice.OwedMinor)), currency);
        var open =
            total - ahead - flows.Where(flow => flow.On <= invoice.Due).Select(flow => flow.Amount).Sum(currency);
        var later = flows.Where(flow => flow.On > invoice.Due).ToList();
        var until =
            invoice.OwedMinor > 0 ? desk.Today : later.Select(flow => flow.On).DefaultIfEmpty(invoice.Due).Max();
        return LateInterest.Of(
            Issuing.LateTermsOf(desk),
            file.Row.Client!.Buyer,
            open,
            invoice.Due,
            later,
            until,
            StoreJson.Read<List<ReferenceRate>>(desk.Studio.ReferenceRates)
        );
    }

    /// <summary>Begins an invoice for it, for the owner to look at and issue.</summary>
    /// <exception cref="RefusedException">Nothing can be asked, or it was asked already.</exception>
    public static Task BeginAsync(Desk desk, InvoiceId id) =>
        desk.ActAsync(async act =>
        {
            var invoice =
                await act.Db.Invoices.AsNoTracking().SingleOrDefaultAsync(i => i.Id == id)
                ?? throw new MissingException("invoice");
            var charge =
                await OfAsync(desk, invoice)
                ?? throw new RefusedException("Nothing can be asked for late payment of this invoice.");
            if (await act.Db.Invoices.AnyAsync(i => i.InterestOf == id))
                throw new RefusedException("The interest of this invoice was asked for already.");
            var file = await act.OpenAsync(invoice.ProjectId);
            // what is asked for a late payment is damages and no price, so no tax is on it (CJEU 222/81, BAZ Bausystem)
            var tax = new Tax(default, TaxCategory.Exempt);
            BillLine Line(string key, string title, string detail, Money amount) =>
                new(key, title, detail, 1, "", amount.Major, tax);
            await Bills.BeginAsync(
                desk,
                file,
                new Bill(
                    charge.Total.Currency,
                    [
                        .. charge.Interest.Minor > 0
                            ? new[]
                            {
                                Line(
                                    "interest",
                                    $"Late interest on invoice {invoice.Number}",
                                    string.Join('\n', charge.Working(day => DateWords.Short(day, desk.Today))),
                                    charge.Interest
                                ),
                            }
                            : [],
                        .. charge.Sum.Minor > 0
                            ? new[] { Line("sum", $"For the late payment of invoice {invoice.Number}", "", charge.Sum) }
                            : [],
                    ]
                )
                {
                    DueDays = desk.Studio.DueDays,
                    ExemptReason = "Compensation for late payment, which carries no VAT.",
                },
                id
            );
        });
}
