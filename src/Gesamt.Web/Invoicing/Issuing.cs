using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Issues invoices of agreed instalments, and credit notes: numbered without gaps, with their own copy of everything.</summary>
public static class Issuing
{
    private const string InvoiceLetter = "invoice";

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
                await LetterAsync(act, file, issued);
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
            await LetterAsync(act, file, await IssueAsync(act, file, agreed, next));
    }

    /// <summary>A credit note over what is still owed of an invoice, of work that is not carried out.</summary>
    public static async Task CreditAsync(Act act, ProjectFile file, Happening.InvoiceIssued issued)
    {
        var owed = Owed.On(file.History, issued);
        if (owed.Minor <= 0)
            return;
        var old = StoreJson.Read<InvoiceSnapshot>(
            await act.Db.Invoices.Where(i => i.Id == issued.Invoice).Select(i => i.Snapshot).SingleAsync()
        );
        // what was paid of it stays billed: only what is open is taken back, to the cent
        await CreditAsync(act, file, issued.Invoice, old.Totals.OfPart(owed), "not carried out", atEnd: true);
    }

    /// <summary>A credit note over a part of an invoice.</summary>
    /// <param name="why">Behind the project's name on its lines.</param>
    /// <param name="atEnd">Whether it is billed again should an ended project be taken up.</param>
    public static async Task CreditAsync(
        Act act,
        ProjectFile file,
        InvoiceId credited,
        Totals totals,
        string why,
        bool atEnd
    )
    {
        var invoice = await act.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == credited);
        var old = StoreJson.Read<InvoiceSnapshot>(invoice.Snapshot);
        var snapshot = old with
        {
            Share = $"Credit note for invoice {invoice.Number}",
            Totals = totals,
            Lines =
            [
                .. totals.Parts.Select(part =>
                    Line($"{old.Project}, {why}", $"takes back invoice {invoice.Number}", part.Net)
                ),
            ],
            Head = Print.Letterhead(act.Desk),
            Iban = act.Studio.Iban,
        };
        var row = await NewAsync(act.Desk, file, snapshot, InvoiceSort.CreditNote, act.Today);
        row.Credits = invoice.Id;
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(
            file,
            Actor.Owner,
            new Happening.InvoiceCredited(invoice.Id, row.Id, totals.Payable, atEnd)
        );
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
        var snapshot = new InvoiceSnapshot(
            Print.Addressee(file.Row.Client!),
            file.Row.Title,
            $"Instalment {planned.Index + 1}: {words}",
            [
                .. totals.Parts.Select(part =>
                    Line(
                        $"{file.Row.Title}, {words}",
                        $"as agreed {(agreed.Contract is null ? "on" : "in the contract of")} {since}",
                        part.Net
                    )
                ),
            ],
            totals,
            Print.Letterhead(act.Desk),
            act.Studio.Iban
        );
        var due = planned.DueIfIssued(act.Today);
        var row = await NewAsync(act.Desk, file, snapshot, InvoiceSort.Invoice, due);
        var before = await act.Db.Invoices.CountAsync(i =>
            i.ProposalId == agreed.Proposal.Id && i.Instalment == planned.Index
        );
        (row.ProposalId, row.Instalment, row.Again) = (agreed.Proposal.Id, planned.Index, before);
        await act.Db.SaveChangesAsync();
        var issued = new Happening.InvoiceIssued(row.Id, totals.Payable, due, planned.Index);
        await act.RecordAsync(file, Actor.Gesamt, issued);
        return issued;
    }

    /// <summary>What the next invoice will be called, if it is issued today.</summary>
    public static async Task<string> NextNumberAsync(Desk desk) =>
        await SequenceAsync(desk, InvoiceSort.Invoice, desk.Studio.InvoiceSeries, desk.Today.Year) is var sequence
            ? InvoiceNumber.Of(desk.Studio.InvoiceSeries, desk.Today.Year, sequence)
            : "";

    /// <summary>Read and written in one immediate transaction, no number is given twice or left out.</summary>
    private static async Task<int> SequenceAsync(Desk desk, InvoiceSort sort, string series, int year) =>
        InvoiceNumber.Next(
            await desk
                .Db.Invoices.Where(i => i.Sort == sort && i.Series == series && i.Year == year)
                .MaxAsync(i => (int?)i.Sequence),
            sort == InvoiceSort.Invoice && desk.Studio.InvoiceFirstYear == year ? desk.Studio.InvoiceFirst : 1
        );

    private static InvoiceLine Line(string title, string detail, Money net) =>
        new(title, detail, net, "1", MoneyText.Figures(net));

    private static async Task<InvoiceRow> NewAsync(
        Desk desk,
        ProjectFile file,
        InvoiceSnapshot snapshot,
        InvoiceSort sort,
        LocalDate due
    )
    {
        // a rehearsal's papers have a series of their own, so that real numbers have no gaps
        var year = file.Row.Rehearsal ? 0 : desk.Today.Year;
        var series = file.Row.Rehearsal ? "" : desk.Studio.InvoiceSeries;
        var sequence = await SequenceAsync(desk, sort, series, year);
        var row = new InvoiceRow
        {
            ProjectId = file.Id,
            PublicId = Codes.New(),
            Sort = sort,
            Number =
                file.Row.Rehearsal ? $"Rehearsal {sort} {sequence}"
                : sort == InvoiceSort.Invoice ? InvoiceNumber.Of(series, year, sequence)
                : InvoiceNumber.OfCredit(series, year, sequence),
            Series = series,
            Year = year,
            Sequence = sequence,
            IssuedOn = desk.Today,
            Due = due,
            TotalMinor = snapshot.Totals.Payable.Minor,
            Currency = snapshot.Totals.Payable.Currency.Code,
            Snapshot = StoreJson.Write(snapshot),
        };
        desk.Db.Invoices.Add(row);
        await desk.Db.SaveChangesAsync();
        return row;
    }

    /// <summary>The letter that carries an invoice; a client without a mail address gets it by hand, and the record says so.</summary>
    private static async Task LetterAsync(Act act, ProjectFile file, Happening.InvoiceIssued issued)
    {
        if (file.MailTo is null)
            return;
        var filled = await Writing.FillAsync(
            act.Desk,
            file,
            InvoiceLetter,
            await Writing.AboutInvoiceAsync(act.Desk, file, issued)
        );
        var letter = Sending.NewLetter(act.Desk, file, filled.Subject, filled.Body, byItself: true);
        letter.Gaps = string.Join(", ", filled.Gaps);
        // one with a gap waits for the owner instead of going out so
        letter.State = filled.Gaps.Count > 0 ? LetterState.Held : LetterState.Draft;
        act.Db.Letters.Add(letter);
        await act.Db.SaveChangesAsync();
        if (filled.Gaps.Count == 0)
            Sending.Claim(act, letter, $"invoice:{issued.Invoice.Value}", act.Now);
    }
}
