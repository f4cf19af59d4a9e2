using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>The one thing a client has to do now.</summary>
public enum ClientStep { Nothing, Choose, Sign, Book, Done }

public sealed record ChoiceLineDto(string Key, LineRole Role, string? Group, string Words, string Detail, string Price);

public sealed record ProposalPageDto(string Intro, string Terms, string ValidUntil, bool RanOut, IReadOnlyList<ChoiceLineDto> Lines, PricedDto Priced);

public sealed record SignedDto(string Name, string Side, string At);

public sealed record ContractPageDto(string Title, string Text, IReadOnlyList<string> Parties, string Hash, string Consent, PricedDto Priced, IReadOnlyList<SignedDto> Signatures);

public sealed record InvoicePageDto(string PublicId, string Number, string Total, string Owed, string Due, bool Paid);

/// <param name="Token">Goes back with every write of this page.</param>
/// <param name="AskedForChange">What was asked for and waits for an answer.</param>
public sealed record ClientPageDto(
    string Studio, string Owner, string Brand, string Mail, string Project, string Person, string Token, ClientStep Step,
    ProposalPageDto? Proposal, ContractPageDto? Contract, IReadOnlyList<InvoicePageDto> Invoices, bool AskedForChange, bool PaysByCard);

/// <summary>Puts together what a client may see: only what was sent to them.</summary>
public static class ClientPage
{
    public static async Task<ClientPageDto> OfAsync(Desk desk, ICardPayments cards, LinkRow link, string token)
    {
        var file = await desk.OpenAsync(link.ProjectId);
        var (history, studio) = (file.History, desk.Studio);
        var contract = await Contracting.LatestAsync(desk, file.Id);
        var waiting = Drafts.Waiting(file);
        var signed = contract is not null && history.Any<Happening.ContractSigned>(s => s.Contract == contract.Id && s.Signer == Signer.Client);
        var invoices = await InvoicesAsync(desk, file.History, link);
        var step = waiting is not null ? ClientStep.Choose
            : contract is null ? ClientStep.Nothing
            : !signed ? ClientStep.Sign
            : invoices.Any(invoice => !invoice.Paid) ? ClientStep.Book : ClientStep.Done;
        return new(studio.Name, studio.Owner, studio.Brand, studio.Mail, file.Row.Title, file.Row.Client!.Name, token, step,
            waiting is null ? null : await ProposalAsync(desk, file),
            contract is null || step == ClientStep.Choose ? null : await ContractAsync(desk, contract), invoices,
            history.Last<Happening.ChangeAsked>() is { } asked && asked.What.Version == waiting, cards.Available);
    }

    private static async Task<ProposalPageDto> ProposalAsync(Desk desk, Store.Projects.ProjectFile file)
    {
        var offer = Versions.OfferOf(await Contracting.OpenVersionAsync(desk, file));
        var priced = Pricing.Of(offer, Pricing.Suggested(offer), file.Case.MainDate?.Date, desk.Today, desk.Calendar);
        return new(offer.Intro, offer.Terms, DateWords.Long(offer.ValidUntil), offer.ValidUntil < desk.Today,
            [.. offer.Lines.Select(line => new ChoiceLineDto(line.Key, line.Role, line.Group, Wire.Words(line), line.Detail, MoneyText.Of(line.Priced(offer.Currency).Net)))],
            PricedDto.Of(offer, priced));
    }

    private static async Task<ContractPageDto> ContractAsync(Desk desk, VersionRow contract)
    {
        var snapshot = Versions.Read<ContractSnapshot>(contract);
        var (offer, priced) = await Contracting.ChoiceAsync(desk, contract);
        var signatures = await desk.Db.Signatures.AsNoTracking().Where(s => s.VersionId == contract.Id).OrderBy(s => s.Id).ToListAsync();
        return new(snapshot.Title, snapshot.Text, snapshot.Parties, contract.Hash, Contracting.Consent, PricedDto.Of(offer, priced),
            [.. signatures.Select(s => new SignedDto(s.Name, s.Signer == Signer.Client ? "client" : "studio", Contracting.At(desk, s.At)))]);
    }

    private static async Task<IReadOnlyList<InvoicePageDto>> InvoicesAsync(Desk desk, History history, LinkRow link)
    {
        var rows = await desk.Db.Invoices.AsNoTracking().Where(i => i.ProjectId == link.ProjectId).OrderBy(i => i.Id).ToListAsync();
        var facts = history.Of<Happening.InvoiceIssued>().ToDictionary(issued => issued.What.Invoice, issued => issued.What);
        return [.. rows.Select(row =>
        {
            var owed = Owed.On(history, facts[row.Id]);
            return new InvoicePageDto(row.PublicId, row.Number, MoneyText.Of(new(row.TotalMinor, Currency.Of(row.Currency))), MoneyText.Of(owed), DateWords.Long(row.Due), owed.Minor <= 0);
        })];
    }
}
