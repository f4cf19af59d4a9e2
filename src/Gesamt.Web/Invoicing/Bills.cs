using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>Invoices that are written by hand: what is asked for besides the agreed price, or without one.</summary>
public static class Bills
{
    /// <summary>The invoice being written for a project; null while there is none.</summary>
    public static Task<BillDraftRow?> DraftAsync(Desk desk, ProjectId project) =>
        desk.Db.BillDrafts.SingleOrDefaultAsync(d => d.ProjectId == project);

    /// <summary>The same; a new one has no line yet.</summary>
    /// <exception cref="MissingException">There is no such project.</exception>
    public static async Task<BillDraftRow> OfAsync(Desk desk, ProjectFile file) =>
        await DraftAsync(desk, file.Id)
        ?? new()
        {
            ProjectId = file.Id,
            Bill = StoreJson.Write(
                new Bill(desk.CurrencyOf(file), [])
                {
                    DueDays = desk.Studio.DueDays,
                    ExemptReason = desk.Studio.ExemptReason,
                    PurchaseReference = await LastReferenceAsync(desk, file.Id),
                }
            ),
            ChangedAt = desk.Now,
        };

    /// <summary>Keeps it as it is, also while it is not yet complete.</summary>
    /// <exception cref="StaleException">It was saved in another window since.</exception>
    /// <param name="of">What it is for, should it be begun by this.</param>
    public static async Task<BillDraftRow> SaveAsync(
        Desk desk,
        ProjectFile file,
        Bill bill,
        int edition,
        BillPurposeDto? of = null
    )
    {
        var draft = await OfAsync(desk, file);
        if (draft.Edition != edition)
            throw new StaleException(await DtoAsync(desk, file, draft));
        if (draft.Id == 0)
        {
            desk.Db.BillDrafts.Add(draft);
            (draft.Changes, draft.InterestOf) = PurposeOf(file, of);
        }
        (draft.Bill, draft.ChangedAt) = (StoreJson.Write(bill), desk.Now);
        draft.Edition++;
        await desk.Db.SaveChangesAsync();
        return draft;
    }

    /// <exception cref="RefusedException">What it was for is over.</exception>
    private static (RecurringId? Changes, InvoiceId? InterestOf) PurposeOf(ProjectFile file, BillPurposeDto? of)
    {
        RecurringId? changes = of?.Changes is { } id ? new(id) : null;
        InvoiceId? interest = of?.InterestOf is { } late ? new(late) : null;
        if (changes is { } recurring && !RecurringInvoices.Running(file.History).Contains(recurring))
            throw new RefusedException("The recurring invoice that this changed was stopped since.");
        if (interest is { } invoice && !file.History.Any<Happening.InvoiceIssued>(issued => issued.Invoice == invoice))
            throw new MissingException("invoice");
        return (changes, interest);
    }

    /// <summary>Begins one, in the place of what was being written.</summary>
    /// <exception cref="RefusedException">Another is being written.</exception>
    internal static async Task BeginAsync(
        Desk desk,
        ProjectFile file,
        Bill bill,
        InvoiceId? interestOf = null,
        RecurringId? changes = null
    )
    {
        if (await DraftAsync(desk, file.Id) is { } other && !StoreJson.Read<Bill>(other.Bill).Lines.IsEmpty)
            throw new RefusedException(
                "Another invoice is being written for this project. Issue it, or throw it away, first."
            );
        var draft = await OfAsync(desk, file);
        if (draft.Id == 0)
            desk.Db.BillDrafts.Add(draft);
        (draft.Bill, draft.InterestOf, draft.Changes, draft.ChangedAt) = (
            StoreJson.Write(bill),
            interestOf,
            changes,
            desk.Now
        );
        draft.Edition++;
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>Throws it away.</summary>
    public static async Task DiscardAsync(Desk desk, ProjectId project)
    {
        await desk.OpenAsync(project);
        await desk.Db.BillDrafts.Where(d => d.ProjectId == project).ExecuteDeleteAsync();
    }

    /// <summary>Gives it its number and claims the letter that carries it.</summary>
    /// <exception cref="InvalidException">Something is missing or wrong; the field is named.</exception>
    /// <exception cref="StaleException">It was changed in another window since.</exception>
    /// <exception cref="RefusedException">It was issued already.</exception>
    public static Task<IssuedDto> IssueAsync(Desk desk, ProjectId project, IssueBillDto issue) =>
        desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var draft =
                await DraftAsync(desk, project)
                ?? throw new RefusedException("It was issued already, or thrown away. Load the page again.");
            if (draft.Edition != issue.Edition)
                throw new StaleException(await DtoAsync(desk, file, draft));
            if (draft.Changes is not null)
                throw new RefusedException("This changes a recurring invoice. Keep it, or throw it away.");
            var bill = StoreJson.Read<Bill>(draft.Bill);
            await CheckAsync(desk, file, bill);
            var due = desk.Today.PlusDays(bill.DueDays);
            var snapshot = Snapshot(desk, file, bill);
            var row = await Issuing.NewAsync(act, file, snapshot, InvoiceSort.Invoice, due);
            row.InterestOf = draft.InterestOf;
            await Taken.TakeAsync(act, file, bill, row.Id);
            desk.Db.BillDrafts.Remove(draft);
            await desk.Db.SaveChangesAsync();
            var issued = new Happening.InvoiceIssued(row.Id, snapshot.Totals.Payable, due, Extra: true);
            await act.RecordAsync(file, Actor.Owner, issued);
            if (issue.Body is null)
                return new IssuedDto(row.Id.Value, row.Number, null);
            var letter = await LettersOut.ClaimAsync(
                act,
                file,
                new Written(issue.Subject ?? "", issue.Body, Files: await FilesAsync(desk, file, bill)),
                with: await Writing.AboutInvoiceAsync(desk, file, issued)
            );
            letter.CarriesInvoice = row.Id;
            await desk.Db.SaveChangesAsync();
            return new IssuedDto(row.Id.Value, row.Number, letter.Id.Value, letter.Subject);
        });

    /// <exception cref="InvalidException">Something is missing or wrong; the field is named.</exception>
    internal static async Task CheckAsync(Desk desk, ProjectFile file, Bill bill)
    {
        if (await FaultsAsync(desk, file, bill) is [_, ..] faults)
            throw new InvalidException([.. faults.Select(fault => (fault.Field, fault.Words))]);
    }

    /// <summary>How it will look.</summary>
    /// <exception cref="InvalidException">Something is missing or wrong, so that it has no sums yet.</exception>
    public static async Task<byte[]> PreviewAsync(Desk desk, ProjectId project)
    {
        var file = await desk.OpenAsync(project);
        var bill = StoreJson.Read<Bill>((await OfAsync(desk, file)).Bill);
        await CheckAsync(desk, file, bill);
        return InvoicePapers.Preview(desk, Snapshot(desk, file, bill), desk.Today.PlusDays(bill.DueDays));
    }

    /// <summary>The invoice as the page shows it.</summary>
    public static async Task<BillDraftDto> DtoAsync(Desk desk, ProjectFile file, BillDraftRow draft)
    {
        var bill = StoreJson.Read<Bill>(draft.Bill);
        var client = file.Row.Client!;
        var faults = await FaultsAsync(desk, file, bill);
        var due = desk.Today.PlusDays(bill.DueDays);
        var letter = await desk
            .Db.LetterTemplates.AsNoTracking()
            .For(file.Row.KindId, Issuing.InvoiceLetter)
            .Select(t => new { t.Subject, t.Body })
            .FirstOrDefaultAsync();
        var interest = draft.InterestOf is { } late
            ? await desk.Db.Invoices.Where(i => i.Id == late).Select(i => i.Number).SingleAsync()
            : null;
        return new(
            draft.Edition,
            BillWire.Of(bill),
            new(
                file.Row.Title,
                client.Name,
                client.Id.Value,
                await Issuing.NextNumberAsync(desk),
                DateWords.Long(due),
                interest,
                new(draft.Changes?.Value, draft.InterestOf?.Value),
                [.. Print.Addressee(client)]
            ),
            faults.Count == 0 ? Billed(bill) : null,
            [
                .. faults.Select(fault => new BillPointDto(fault.Field, fault.Words, true)),
                .. Points(bill, client).Select(words => new BillPointDto("", words, false)),
            ],
            new(letter?.Subject ?? "", letter?.Body ?? "", file.MailTo),
            faults.Count == 0 ? InvoicePapers.WhyNoData("0", desk.Today, due, Snapshot(desk, file, bill)) : null
        );
    }

    /// <summary>What keeps it from being issued; nothing when it can be.</summary>
    internal static async Task<IReadOnlyList<BillFault>> FaultsAsync(Desk desk, ProjectFile file, Bill bill)
    {
        var faults = BillCheck.Faults(bill, desk.Studio.TaxNumber, file.Row.Client!.TaxNumber ?? "");
        return await SettledAsync(desk, file) is { } settled && settled != bill.Currency
            ? [.. faults, new("currency", PerCurrency.OneAlone(settled))]
            : faults;
    }

    /// <summary>The currency of the price, of what was billed, or of what is put to the client; null while there is neither.</summary>
    private static async Task<Currency?> SettledAsync(Desk desk, ProjectFile file) =>
        AgreedPrice.Of(file.History)?.Agreed.Currency
        ?? PerCurrency.BilledIn(file)
        ?? (
            ProposalState.Open(file.History) is { What.Version: var open }
                ? Versions.OfferOf(await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == open)).Currency
                : null
        );

    /// <summary>What the law of many countries asks to stand on an invoice, and does not. Common practice; Directive 2006/112/EC, article 226.</summary>
    private static IEnumerable<string> Points(Bill bill, PersonRow client)
    {
        if (string.IsNullOrWhiteSpace(client.Address))
            yield return "The client’s postal address is not known.";
        if (client.Buyer != BuyerSort.Private && string.IsNullOrWhiteSpace(client.TaxNumber))
            yield return "The client’s tax number is not known.";
        if (bill.Performed is null)
            yield return "No day or period of performance is said.";
    }

    private static BilledDto Billed(Bill bill)
    {
        var sums = bill.Sums();
        List<BilledSumDto> rows = [];
        if (bill.Less is { } less)
            rows.Add(new(Print.LessWords(less, bill.Currency), MoneyText.Figures(-sums.Less)));
        rows.Add(new("Net", MoneyText.Figures(sums.Totals.Net)));
        rows.AddRange(
            sums.Totals.Parts.Select(part => new BilledSumDto(
                $"VAT {part.Category.Words(part.Rate)} of {MoneyText.Figures(part.Net)}",
                MoneyText.Figures(part.Tax)
            ))
        );
        if (sums.Totals.RoundingAmount.Minor != 0)
            rows.Add(new("Rounding", MoneyText.Figures(sums.Totals.RoundingAmount)));
        return new(
            [.. bill.Lines.Select(line => MoneyText.Figures(line.Priced(bill.Currency).Net))],
            [.. rows],
            MoneyText.Of(sums.Totals.Payable)
        );
    }

    internal static InvoiceSnapshot Snapshot(Desk desk, ProjectFile file, Bill bill)
    {
        var sums = bill.Sums();
        var more = Issuing.MoreOf(desk, file, bill.Note);
        return new(
            Print.Addressee(file.Row.Client!),
            file.Row.Title,
            bill.About,
            [
                .. bill.Lines.Select(line => new InvoiceLine(
                    line.Title,
                    Print.Detail(line.Detail, line.Less, bill.Currency),
                    line.Priced(bill.Currency).Net,
                    NumberText.Number(line.Quantity),
                    Print.UnitPrice(line.UnitPrice, bill.Currency)
                )
                {
                    Counted = line,
                }),
            ],
            sums.Totals,
            Print.Letterhead(desk),
            desk.Studio.Iban
        )
        {
            More = more with
            {
                PurchaseReference = bill.PurchaseReference,
                Performed = bill.Performed,
                Gross = bill.Gross,
                Less = bill.Less is { } less ? new PaperLess(Print.LessWords(less, bill.Currency), sums.Less) : null,
                ExemptReason = bill.ExemptReason,
            },
        };
    }

    private static async Task<IReadOnlyList<LetterFileRow>> FilesAsync(Desk desk, ProjectFile file, Bill bill)
    {
        List<LetterFileRow> files = [];
        foreach (var (wanted, i) in bill.Files.Select((wanted, i) => (wanted, i)))
        {
            var row =
                await desk
                    .Db.Files.AsNoTracking()
                    .FirstOrDefaultAsync(f => f.ProjectId == file.Id && f.Hash == wanted.Hash && !f.Removed)
                ?? throw new InvalidException(
                    ($"files[{i}]", $"“{wanted.Name}” is no file of this project any more. Take it out.")
                );
            files.Add(
                new()
                {
                    Name = row.Name,
                    Hash = row.Hash,
                    Size = row.Size,
                    Type = row.Type,
                }
            );
        }
        return files;
    }

    /// <summary>A client's order number mostly holds for all of a project.</summary>
    private static async Task<string> LastReferenceAsync(Desk desk, ProjectId project)
    {
        var last = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == project && i.Sort == InvoiceSort.Invoice)
            .OrderByDescending(i => i.Id)
            .Select(i => i.Snapshot)
            .FirstOrDefaultAsync();
        return last is null ? "" : StoreJson.Read<InvoiceSnapshot>(last).More?.PurchaseReference ?? "";
    }
}
