using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>Invoices of agreed instalments, by themselves on their day or before it.</summary>
public static class InstalmentInvoices
{
    /// <summary>The invoices of what is due on booking.</summary>
    public static async Task IssueBookingAsync(Act act, ProjectFile file)
    {
        if (await Agreements.OfAsync(act.Desk, file) is not { } agreed)
            return;
        foreach (var planned in Billing.Planned(file.Case).Where(planned => planned.Rule is DueRule.OnBooking))
            await IssueAsync(act, file, agreed, planned);
    }

    /// <summary>Invoices whose day has come go out by themselves, each with its letter.</summary>
    public static async Task<bool> IssueDueAsync(Desk desk, ProjectId project)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (await Agreements.OfAsync(desk, file) is not { } agreed)
                return false;
            foreach (var planned in Billing.DueNow(file.Case, desk.Now))
            {
                var issued = await IssueAsync(act, file, agreed, planned);
                await Issuing.LetterAsync(act, file, issued);
            }
            return true;
        });
    }

    /// <summary>The next agreed instalment goes out now, before its day.</summary>
    /// <remarks>Where no price is agreed, or nothing of it is left, there is nothing to send.</remarks>
    public static async Task IssueNextAsync(Act act, ProjectFile file)
    {
        if (Billing.Waits(file.Case))
            throw new RefusedException(
                "An amendment waits for the client’s signature, and says what is left to pay. Void it first, or wait for them."
            );
        if (await Agreements.OfAsync(act.Desk, file) is { } agreed && Billing.Planned(file.Case) is [var next, ..])
            await Issuing.LetterAsync(act, file, await IssueAsync(act, file, agreed, next));
    }

    private static async Task<Happening.InvoiceIssued> IssueAsync(
        Act act,
        ProjectFile file,
        Agreement agreed,
        PlannedInvoice planned
    )
    {
        // what was credited at an end and is owed again is billed as it was credited
        var again = planned.Again is { } note
            ? StoreJson.Read<InvoiceSnapshot>(
                await act.Db.Invoices.Where(i => i.Id == note).Select(i => i.Snapshot).SingleAsync()
            )
            : null;
        var instalment = agreed.InstalmentAt(planned.Index);
        var totals = again?.Totals ?? instalment!.Part.Totals;
        var words = instalment?.Words ?? "billed again";
        var since = DateWords.Long(act.Calendar.DateOf(agreed.Contract?.At ?? agreed.Proposal.At));
        var more = Issuing.MoreOf(act.Desk, file);
        var snapshot = new InvoiceSnapshot(
            Print.Addressee(file.Row.Client!),
            file.Row.Title,
            planned.Of == 1 ? "" : PartWords(planned),
            [
                .. totals.Parts.Select(part =>
                    OfPart(
                        $"{file.Row.Title}, {words}",
                        $"as agreed {(agreed.Contract is null ? "on" : "in the contract of")} {since}",
                        part
                    )
                ),
            ],
            totals,
            Print.Letterhead(act.Desk),
            act.Studio.Iban
        )
        {
            More = more with
            {
                Contract = agreed.Contract is null ? "" : $"of {since}",
                Gross = false,
                Whole = again is null ? await WholeAsync(act.Desk, file, agreed, totals) : null,
            },
        };
        var due = planned.DueIfIssued(act.Today);
        var row = await Issuing.NewAsync(act, file, snapshot, InvoiceSort.Invoice, due);
        var before = await act.Db.Invoices.CountAsync(i =>
            i.ProposalId == agreed.Proposal.Id && i.Instalment == planned.Index
        );
        (row.ProposalId, row.Instalment, row.Again) = (agreed.Proposal.Id, planned.Index, before);
        await act.Db.SaveChangesAsync();
        var issued = new Happening.InvoiceIssued(row.Id, totals.Payable, due, planned.Index);
        await act.RecordAsync(file, Actor.Gesamt, issued);
        return issued;
    }

    private static readonly string[] Ordinals =
        ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"],
        Numbers = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

    /// <summary>“second of two payments”.</summary>
    private static string PartWords(PlannedInvoice planned) =>
        planned.Of <= Ordinals.Length && planned.Index < planned.Of
            ? $"{Ordinals[planned.Index]} of {Numbers[planned.Of]} payments"
            : $"payment {planned.Index + 1}";

    /// <summary>A line that stands for a part of a price, all of one tax.</summary>
    internal static InvoiceLine OfPart(string title, string detail, TaxPart part) =>
        new(title, detail, part.Net, "1", MoneyText.Figures(part.Net))
        {
            Counted = new("part", title, detail, 1, "", part.Net.Major, part.Kind),
        };

    /// <summary>The services that were agreed, and what other invoices ask of their price: before and after this one.</summary>
    /// <returns>Null where this invoice asks for all of it.</returns>
    private static async Task<InvoiceWhole?> WholeAsync(Desk desk, ProjectFile file, Agreement agreed, Totals part)
    {
        var (offer, priced) = (agreed.Offer, agreed.Priced);
        var whole = priced.Totals;
        if (whole.Net == part.Net)
            return null;
        var before = await BilledAsync(desk, file);
        var later = whole.Net - part.Net - before.Select(one => one.Amount).Sum(whole.Net.Currency);
        return new(
            [.. priced.Lines.Select(line => Print.Line(line, offer.Currency))],
            new(
                "Agreed, net",
                whole.Net,
                [
                    .. before.Select(one => new PaperLess($"of it billed before, {one.Number}", one.Amount)),
                    .. later.Minor == 0 ? [] : new[] { new PaperLess("of it billed later", later) },
                ],
                "This part, net"
            )
        );
    }

    /// <summary>What was billed of the agreed price so far, without what was taken back, net.</summary>
    private static async Task<ImmutableArray<(string Number, Money Amount)>> BilledAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == file.Id)
            .OrderBy(i => i.Id)
            .ToListAsync();
        Money Net(InvoiceRow row) => StoreJson.Read<InvoiceSnapshot>(row.Snapshot).Totals.Net;
        return
        [
            .. from row in rows
            where row.Sort == InvoiceSort.Invoice && row.ProposalId is not null
            let net = Net(row)
                - rows.Where(credit => credit.Credits == row.Id).Select(Net).Sum(Currency.Of(row.Currency))
            where net.Minor > 0
            select (row.Number, net),
        ];
    }
}
