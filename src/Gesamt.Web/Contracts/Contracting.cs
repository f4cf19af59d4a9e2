using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>From a choice to a contract signed by both.</summary>
public static class Contracting
{
    /// <summary>Accepts an open proposal with a choice and fills the contract with exactly that choice.</summary>
    /// <exception cref="OfferException">The choice does not hold together.</exception>
    /// <exception cref="RefusedException">The proposal is not open any more.</exception>
    public static async Task AcceptAsync(Desk desk, ProjectId project, Choice choice)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var again = await ChoosableAsync(desk, file);
            var row = again ?? await OpenVersionAsync(desk, file);
            // pressed twice, or in two windows: the choice stands already
            if (
                again is not null
                && await LatestAsync(desk, file) is { } standing
                && choice.Equals(Versions.Read<ContractSnapshot>(standing).Choice)
            )
                return;
            var snapshot = Versions.Read<ProposalSnapshot>(row);
            if (!snapshot.Offer.IsValidOn(desk.Today))
                throw new RefusedException(
                    $"The proposal was valid until {DateWords.Long(snapshot.Offer.ValidUntil)}. Ask for a new one below."
                );
            var priced = Pricing.Of(snapshot.Offer, choice, PlanDates.Of(file.Case, desk.Today));
            var contract = await Versions.AddAsync(
                desk,
                project,
                PaperSort.Contract,
                await FillAsync(desk, file, row, snapshot, priced, choice),
                row.Id
            );
            // whoever goes back and chooses otherwise signs the contract of that choice, and no other
            Happening[] instead = ContractRule.Open(file.History) is { } unsigned
                ? [new Happening.ContractVoided(unsigned.What.Contract)]
                : [];
            await act.RecordAsync(
                file,
                Actor.Client,
                [
                    .. instead,
                    new Happening.ProposalAccepted(
                        row.Id,
                        priced.Totals.Payable,
                        priced.DueOnBooking(snapshot.Offer),
                        priced.Totals.Net,
                        priced.Parts(snapshot.Offer)
                    ),
                    new Happening.ContractSent(contract.Id),
                ]
            );
            await Signing.GiveBeforehandAsync(act, file, contract);
        });
    }

    /// <summary>The proposal whose choice can still be changed: chosen by the client, and its contract neither signed by them nor overtaken by an invoice.</summary>
    public static async Task<VersionRow?> ChoosableAsync(Desk desk, ProjectFile file)
    {
        if (
            file.Case.End is not null
            || file.History.Last<Happening.ProposalAccepted>() is not { What.Version: var version }
            || AgreedPrice.Of(file.History)?.Version != version
            || ContractRule.Open(file.History) is null
            || file.History.Any<Happening.InvoiceIssued>()
        )
            return null;
        var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);
        return Versions.OfferOf(row).IsValidOn(desk.Today) ? row : null;
    }

    /// <summary>The client's signature; the invoice of the booking payment is issued with it.</summary>
    /// <exception cref="InvalidException">No name, or the page showed another version than the one to sign.</exception>
    public static async Task SignAsync(Desk desk, ProjectId project, SignatureInput input)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var contract =
                await StandingAsync(desk, file)
                ?? throw new RefusedException(
                    "There is no contract to sign at the moment. Load the page again to see what is."
                );
            await Signing.AddAsync(act, file, contract, Signer.Client, input);
            await Signing.GiveBeforehandAsync(act, file, contract);
            await Issuing.IssueBookingAsync(act, file);
        });
    }

    /// <summary>The owner's own signature.</summary>
    /// <exception cref="RefusedException">The client has not signed yet.</exception>
    public static async Task CountersignAsync(Desk desk, ProjectId project, string name, string address, string agent)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var contract = await StandingAsync(desk, file);
            if (
                contract is null
                || !file.History.Any<Happening.ContractSigned>(s =>
                    s.Contract == contract.Id && s.Signer == Signer.Client
                )
            )
                throw new RefusedException("The client has not signed yet; your signature comes after theirs.");
            await Signing.AddAsync(act, file, contract, Signer.Owner, new(name, contract.Hash, address, agent));
        });
    }

    /// <summary>The contract that can be signed: the latest, unless it was voided or the project has ended.</summary>
    public static async Task<VersionRow?> StandingAsync(Desk desk, ProjectFile file) =>
        file.Case.End is null && await LatestAsync(desk, file) is { } latest && !IsVoided(file, latest) ? latest : null;

    public static bool IsVoided(ProjectFile file, VersionRow contract) =>
        file.History.Any<Happening.ContractVoided>(voided => voided.Contract == contract.Id);

    /// <summary>The contract that was put to the client last, or signed on paper.</summary>
    public static async Task<VersionRow?> LatestAsync(Desk desk, ProjectFile file)
    {
        var put = file
            .History.Facts.Select(fact =>
                fact.What switch
                {
                    Happening.ContractSent sent => sent.Contract,
                    Happening.ContractSigned signed => signed.Contract,
                    _ => (VersionId?)null,
                }
            )
            .LastOrDefault(version => version is not null);
        return put is { } latest ? await desk.Db.Versions.SingleOrDefaultAsync(v => v.Id == latest) : null;
    }

    /// <summary>Puts a contract to the client for a price that was agreed outside, with the letter that carries it: sent when the letter is handed over.</summary>
    /// <exception cref="RefusedException">No price is agreed, a contract is out or signed already, or its text is not written yet.</exception>
    public static async Task<LetterRow> SendAsync(Desk desk, ProjectId project, string subject, string body)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (!ContractRule.CanSend(file.Case))
                throw new RefusedException(
                    "A contract is sent for an agreed price, once, before anybody has signed. Load the page again to see what is."
                );
            var agreed = await Agreements.OfAsync(desk, file) ?? throw new RefusedException("No price is agreed yet.");
            var proposal = Versions.Read<ProposalSnapshot>(agreed.Proposal);
            var template = await desk
                .Db.ContractTemplates.AsNoTracking()
                .FirstOrDefaultAsync(c => c.KindId == file.Row.KindId);
            var text =
                proposal.ContractText.Length > 0
                    ? proposal
                    : proposal with
                    {
                        ContractTitle = template?.Title ?? proposal.ContractTitle,
                        ContractText = template?.Body ?? "",
                    };
            if (text.ContractText.Length == 0)
                throw new RefusedException(
                    $"There is no text for it yet: write the contract of “{file.Row.Kind!.Name}” under Templates first."
                );
            var snapshot = await FillAsync(
                desk,
                file,
                agreed.Proposal,
                text,
                agreed.Priced,
                Choice.Of(agreed.Priced.Lines.Where(line => line.Role != LineRole.Included).Select(line => line.Key))
            );
            var contract = await Versions.AddAsync(desk, project, PaperSort.Contract, snapshot, agreed.Proposal.Id);
            var letter = await LettersOut.ClaimAsync(act, file, subject, body, contract.Id);
            return letter;
        });
    }

    private static async Task<ContractSnapshot> FillAsync(
        Desk desk,
        ProjectFile file,
        VersionRow proposal,
        ProposalSnapshot snapshot,
        PricedChoice priced,
        Choice choice
    )
    {
        var filled = await ContractText.FillAsync(desk, file, snapshot.ContractText, snapshot.Offer, priced);
        if (filled.HasGaps)
            throw new RefusedException(
                $"The contract still lacks: {string.Join(", ", filled.Gaps)}. {desk.Studio.Owner} has to fill it in first."
            );
        return new(
            snapshot.ContractTitle,
            filled.Text,
            [
                string.Join(
                    ", ",
                    new[] { desk.Studio.Name, Typed.OneLine(desk.Studio.Address) }.Where(part => part.Length > 0)
                ),
                string.Join(", ", Print.Addressee(file.Row.Client!)),
            ],
            file.Row.Title,
            [.. choice.Keys.Order(StringComparer.Ordinal)],
            proposal.Hash,
            Print.Terms(desk, snapshot.Offer, priced),
            choice.Quantities,
            Markdown: true
        );
    }

    /// <exception cref="RefusedException">No proposal is out.</exception>
    public static async Task<VersionRow> OpenVersionAsync(Desk desk, ProjectFile file) =>
        ProposalState.Open(file.History)?.What.Version is { } version
            ? await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version)
            : throw new RefusedException(
                AgreedPrice.Of(file.History) is { } price
                    ? $"The price is agreed already, {MoneyText.Of(price.Agreed)}, and stays in force. Write to {desk.Studio.Mail} about a change."
                    : "No proposal is open at the moment. Load the page again to see what is."
            );
}
