using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>An invoice's own copy of what it says; it never changes.</summary>
public sealed record InvoiceSnapshot(ImmutableArray<string> Addressee, string Project, string Share, ImmutableArray<InvoiceLine> Lines, Totals Totals);

public sealed record InvoiceLine(string Title, string Detail, Money Net);

/// <summary>Issues invoices of agreed instalments: numbered without gaps, with their own copy of everything.</summary>
public static class Issuing
{
    /// <summary>The invoice of what is due on booking, issued with the client's signature. Inside the caller's transaction.</summary>
    public static async Task IssueBookingAsync(Desk desk, ProjectFile file, VersionRow contract)
    {
        var (offer, priced) = await Contracting.ChoiceAsync(desk, contract);
        for (var i = 0; i < offer.Plan.Length; i++)
            if (offer.Plan[i].Due is DueRule.OnBooking booking)
                await IssueAsync(desk, file, contract, i, priced.Instalments[i], desk.Today.PlusDays(booking.Days));
    }

    public static byte[] Pdf(Desk desk, InvoiceRow row)
    {
        var snapshot = StoreJson.Read<InvoiceSnapshot>(row.Snapshot);
        return Papers.Draw(new InvoicePaper(Letterhead(desk), row.Number, row.IssuedOn, row.Due, snapshot.Addressee, snapshot.Project, snapshot.Share,
            [.. snapshot.Lines.Select(line => new PaperLine(line.Title, line.Detail, line.Net))], Sums(snapshot.Totals), desk.Studio.Iban), desk.Calendar.StartOf(row.IssuedOn));
    }

    public static Letterhead Letterhead(Desk desk) =>
        new(desk.Studio.Name, desk.Studio.Address, desk.Studio.Mail, desk.Studio.TaxNumber, desk.Studio.Brand);

    public static ImmutableArray<PaperLine> Lines(Offer offer, ImmutableArray<OfferLine> lines) =>
        [.. lines.Select(line => new PaperLine(Wire.Words(line), line.Detail, line.Priced(offer.Currency).Net))];

    public static PaperSums Sums(Totals totals) =>
        new(totals.Net, [.. totals.Parts.Select(part => (part.Rate.ToString(), part.Tax))], totals.RoundingAmount, totals.Payable);

    private static async Task IssueAsync(Desk desk, ProjectFile file, VersionRow contract, int index, PlannedInstalment planned, NodaTime.LocalDate due)
    {
        var (year, client) = (desk.Today.Year, file.Row.Client!);
        // read and written in one immediate transaction, so no number is given twice or left out
        var sequence = (await desk.Db.Invoices.Where(i => i.Year == year).MaxAsync(i => (int?)i.Sequence) ?? 0) + 1;
        var totals = planned.Part.Totals;
        var snapshot = new InvoiceSnapshot(
            [.. new[] { client.Name, client.Organisation, client.Mail }.OfType<string>()], file.Row.Title, $"Instalment {index + 1}: {planned.Words}",
            [.. totals.Parts.Select(part => new InvoiceLine($"{file.Row.Title}, {planned.Words}", $"as agreed in the contract of {Core.Calendar.DateWords.Long(desk.Calendar.DateOf(contract.At))}", part.Net))], totals);
        var row = new InvoiceRow
        {
            ProjectId = file.Id,
            PublicId = Inquiry.NewCode(),
            Number = InvoiceNumber.Of(year, sequence),
            Year = year,
            Sequence = sequence,
            IssuedOn = desk.Today,
            Due = due,
            TotalMinor = totals.Payable.Minor,
            Currency = totals.Payable.Currency.Code,
            Snapshot = StoreJson.Write(snapshot),
            ProposalId = contract.FromProposal,
            Instalment = index,
        };
        desk.Db.Invoices.Add(row);
        await desk.Db.SaveChangesAsync();
        await desk.RecordAsync(file, Actor.Gesamt, new Happening.InvoiceIssued(row.Id, totals.Payable, due));
    }
}
