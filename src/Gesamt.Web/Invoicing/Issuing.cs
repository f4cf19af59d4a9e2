using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Formats.Invoices;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Gives invoices and credit notes their numbers, without gaps, and their letters.</summary>
public static class Issuing
{
    /// <summary>The key of the letter that carries an invoice.</summary>
    internal const string InvoiceLetter = "invoice";

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

    /// <summary>The paper with its number: whatever is said of it later is said by another paper.</summary>
    internal static async Task<InvoiceRow> NewAsync(
        Act act,
        ProjectFile file,
        InvoiceSnapshot snapshot,
        InvoiceSort sort,
        LocalDate due
    )
    {
        // a rehearsal's papers have a series of their own, so that real numbers have no gaps
        var (studio, today) = (act.Studio, act.Today);
        var year = file.Row.Rehearsal ? 0 : today.Year;
        var series = file.Row.Rehearsal ? "" : studio.InvoiceSeries;
        var sequence = await SequenceAsync(act.Desk, sort, series, year);
        var number =
            file.Row.Rehearsal ? $"Rehearsal {sort} {sequence}"
            : sort == InvoiceSort.Invoice ? InvoiceNumber.Of(series, year, sequence)
            : InvoiceNumber.OfCredit(series, year, sequence);
        if (snapshot.More is { } more && sort == InvoiceSort.Invoice)
            snapshot = snapshot with { More = more with { Reference = Core.Amounts.CreditorReference.Of(number) } };
        var row = new InvoiceRow
        {
            ProjectId = file.Id,
            PublicId = Codes.New(),
            Sort = sort,
            Number = number,
            Series = series,
            Year = year,
            Sequence = sequence,
            IssuedOn = today,
            Due = due,
            TotalMinor = snapshot.Totals.Payable.Minor,
            Currency = snapshot.Totals.Payable.Currency.Code,
            Snapshot = StoreJson.Write(snapshot),
        };
        act.Db.Invoices.Add(row);
        await act.Db.SaveChangesAsync();
        return row;
    }

    /// <summary>What every invoice of the studio says besides its lines.</summary>
    /// <param name="note">Of this invoice alone; empty for none.</param>
    internal static InvoiceMore MoreOf(Desk desk, ProjectFile file, string note = "")
    {
        var client = file.Row.Client!;
        return new(Print.Seller(desk), Print.Buyer(desk, client), "")
        {
            Notes = [.. new[] { note, desk.Studio.InvoiceNote }.Where(words => words.Length > 0)],
            ExemptReason = desk.Studio.ExemptReason,
            Late = LateTermsOf(desk).Words(client.Buyer, desk.CurrencyOf(file)),
            PayAt = desk.Studio.PayAt,
            ByCard = desk.PaysOnPage && file.MailTo is not null,
        };
    }

    /// <summary>What the studio asks for late payment.</summary>
    internal static LateTerms LateTermsOf(Desk desk) =>
        desk.Studio.LateTerms is { } terms ? StoreJson.Read<LateTerms>(terms) : new LateTerms.Nothing();

    /// <summary>An invoice as a credit note names it.</summary>
    internal static EPreceding Preceding(InvoiceRow invoice) => new(invoice.Number, invoice.IssuedOn);

    /// <summary>The letter that carries an invoice; a client without a mail address gets it by hand, and the record says so.</summary>
    /// <param name="notBefore">When it may leave; at once when left out.</param>
    /// <param name="asks">Whether it waits for the owner, because it is late.</param>
    internal static async Task LetterAsync(
        Act act,
        ProjectFile file,
        Happening.InvoiceIssued issued,
        Instant? notBefore = null,
        bool asks = false
    )
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
        letter.CarriesInvoice = issued.Invoice;
        // one with a gap waits for the owner instead of going out so
        letter.State = filled.Gaps.Count > 0 || asks ? LetterState.Held : LetterState.Draft;
        act.Db.Letters.Add(letter);
        await act.Db.SaveChangesAsync();
        if (letter.State == LetterState.Draft)
            Sending.Claim(act, letter, $"invoice:{issued.Invoice.Value}", notBefore ?? act.Now);
    }
}
