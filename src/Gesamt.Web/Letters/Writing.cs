using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Store.Json;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>A template filled from a record.</summary>
public sealed record FilledLetter(string Subject, string Body, IReadOnlyList<string> Gaps);

/// <summary>Fills letters from the record.</summary>
public static class Writing
{
    /// <exception cref="MissingException">There is no letter of that key.</exception>
    public static async Task<FilledLetter> FillAsync(Desk desk, ProjectFile file, string template, Happening.InvoiceIssued? about = null)
    {
        var row = await desk.Db.LetterTemplates.AsNoTracking().SingleOrDefaultAsync(t => t.Key == template) ?? throw new MissingException("letter");
        return Fill(row.Subject, row.Body, await WordsAsync(desk, file, about));
    }

    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static FilledLetter Fill(string subject, string body, RecordWords words)
    {
        var values = Blanks.Of(words);
        var (head, text) = (LetterText.Parse(subject).Fill(values), LetterText.Parse(body).Fill(values));
        return new(head.Text, text.Text, [.. head.Gaps.Concat(text.Gaps).Distinct()]);
    }

    /// <summary>What the record can tell a letter now.</summary>
    /// <param name="about">The invoice a reminder is about; the earliest open one otherwise.</param>
    public static async Task<RecordWords> WordsAsync(Desk desk, ProjectFile file, Happening.InvoiceIssued? about = null)
    {
        var history = file.History;
        var price = AgreedPrice.Of(history);
        var proposal = history.Last<Happening.ProposalSent>();
        var invoice = about ?? Owed.Open(history).Select(open => open.Invoice.What).FirstOrDefault();
        var number = invoice is null ? null : await desk.Db.Invoices.Where(i => i.Id == invoice.Invoice).Select(i => i.Number).SingleOrDefaultAsync();
        var client = file.Row.Client!;
        // the draft is what goes out next; what was sent before may be valid until another day
        var draft = await desk.Db.OfferDrafts.AsNoTracking().Where(d => d.ProjectId == file.Id).Select(d => d.Offer).SingleOrDefaultAsync();
        var validUntil = draft is null ? proposal?.What.ValidUntil : StoreJson.Read<Offer>(draft).ValidUntil;
        var asked = history.Last<Happening.InquiryCame>()?.Happened ?? desk.Now;
        return new(
            client.Greeted, client.Name, client.Organisation, file.Row.Title, file.Row.Kind!.Name, file.Case.MainDate?.Date,
            desk.Studio.Name, desk.Studio.Owner, price?.Agreed, price?.DueOnBooking, validUntil,
            InquiryEndpoints.ReplyBy(desk.Calendar, desk.Calendar.DateOf(asked), file.Case.Kind),
            InvoiceNumber: number, InvoiceDue: invoice?.Due, InvoiceOwed: invoice is null ? null : Owed.On(history, invoice),
            HasProposal: proposal is not null || draft is not null);
    }
}
