using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>Proposals being written, and their sending.</summary>
public static class Drafts
{
    /// <summary>The draft of a project; a new one holds what its kind usually agrees on.</summary>
    public static async Task<OfferDraftRow> OfAsync(Desk desk, ProjectFile file)
    {
        var draft = await desk.Db.OfferDrafts.SingleOrDefaultAsync(d => d.ProjectId == file.Id);
        if (draft is not null)
            return draft;
        var contract = await desk
            .Db.ContractTemplates.AsNoTracking()
            .FirstOrDefaultAsync(c => c.KindId == file.Row.KindId);
        var offer =
            await Beginnings.FirstOfKindAsync(desk, file)
            ?? new Offer(
                file.Row.Title,
                "",
                "",
                desk.Currency,
                UsualOffer.ValidUntil(desk.Today, desk.Studio.Habits()),
                [],
                UsualOffer.Plan(desk.Studio.Habits(), file.Case.Kind, hasDate: file.Case.Kind.MainDate.Length > 0)
            );
        draft = new()
        {
            ProjectId = file.Id,
            Offer = StoreJson.Write(await Beginnings.WithTickedAsync(desk, file, offer)),
            Contract = contract?.Body ?? "",
            Signing = StoreJson.Write(ContractWriting.UsualSigning(contract)),
            ChangedAt = desk.Now,
        };
        desk.Db.OfferDrafts.Add(draft);
        await desk.Db.SaveChangesAsync();
        return draft;
    }

    /// <summary>Keeps a draft as it is, also while it is not yet complete.</summary>
    /// <exception cref="StaleException">It was saved in another window since <paramref name="edition"/>.</exception>
    public static async Task<OfferDraftRow> SaveAsync(
        Desk desk,
        ProjectFile file,
        Offer offer,
        string contract,
        SigningTerms? signing,
        int edition
    )
    {
        var draft = await OfAsync(desk, file);
        if (draft.Edition != edition)
            throw new StaleException(await DraftDto.OfAsync(desk, file, draft));
        ContractText.Check(contract);
        (draft.Offer, draft.Contract, draft.ChangedAt) = (StoreJson.Write(offer), contract, desk.Now);
        if (signing is not null)
            draft.Signing = StoreJson.Write(signing);
        draft.Edition++;
        await desk.Db.SaveChangesAsync();
        return draft;
    }

    /// <summary>Freezes the draft as the next version and claims the letter that carries it. What was out before is withdrawn.</summary>
    /// <exception cref="OfferException">The draft cannot be chosen from yet.</exception>
    /// <exception cref="InvalidException">The letter has a gap, or says nothing.</exception>
    public static async Task<LetterRow> SendAsync(Desk desk, ProjectId project, string subject, string body)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            var draft = await OfAsync(desk, file);
            if (Amending.IsAmendment(file, draft))
                return await Amending.SendAsync(act, file, draft, subject, body);
            if (Agreed(desk, file) is { } agreed)
                throw new RefusedException(agreed);
            var offer = StoreJson.Read<Offer>(draft.Offer);
            var signing = SigningReading.Stored(draft.Signing);
            var dates = PlanDates.Of(file.Case, desk.Today);
            Demand(file, offer, dates);
            await SigningReading.DemandAsync(desk, file, signing);
            if (signing.File is null)
                await DemandContractAsync(desk, file, offer, draft.Contract, dates);
            var kindsContract = await desk
                .Db.ContractTemplates.AsNoTracking()
                .FirstOrDefaultAsync(c => c.KindId == file.Row.KindId);
            return await PutAsync(
                act,
                file,
                new(offer, kindsContract?.Title ?? "Contract", draft.Contract, file.Row.Client!.Name, signing),
                subject,
                body
            );
        });
    }

    /// <summary>Puts the proposal that was sent last to the client once more, as it was, valid for as long as the studio's proposals usually are.</summary>
    /// <exception cref="RefusedException">None was sent, a price is agreed, or the project has ended.</exception>
    public static async Task<LetterRow> RenewAsync(Desk desk, ProjectId project)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            if (Agreed(desk, file) is { } agreed)
                throw new RefusedException(agreed);
            var last =
                await SentProposals.LastAsync(desk, file)
                ?? throw new RefusedException("No proposal was sent yet that could be renewed.");
            var snapshot = Versions.Read<ProposalSnapshot>(last);
            var until = UsualOffer.ValidUntil(desk.Today, desk.Studio.Habits());
            var renewed = snapshot with { Offer = snapshot.Offer with { ValidUntil = until } };
            Demand(file, renewed.Offer, PlanDates.Of(file.Case, desk.Today));
            var draft = await OfAsync(desk, file);
            var written = StoreJson.Read<Offer>(draft.Offer);
            if (!written.IsValidOn(desk.Today))
                draft.Offer = StoreJson.Write(written with { ValidUntil = until });
            draft.Edition++;
            var words = await Writing.WordsAsync(desk, file) with { HasProposal = true, ValidUntil = until };
            var letter = Writing.Fill(RenewedSubject, RenewedBody, words);
            return await PutAsync(act, file, renewed, letter.Subject, letter.Body);
        });
    }

    private const string RenewedSubject = "Your proposal holds again",
        RenewedBody =
            """
                Hello [first name, or: there],

                the proposal for “[project]” holds again, until [valid until]. It is where it was:
                [proposal link]

                [owner]
                """;

    /// <summary>The next version; what was out before is withdrawn as its letter leaves the house.</summary>
    private static async Task<LetterRow> PutAsync(
        Act act,
        ProjectFile file,
        ProposalSnapshot snapshot,
        string subject,
        string body
    )
    {
        var version = await Versions.AddAsync(act.Desk, file.Id, PaperSort.Proposal, snapshot);
        return await LettersOut.ClaimAsync(act, file, subject, body, version.Id);
    }

    /// <summary>What keeps an offer from being put to the client of a project.</summary>
    internal static IReadOnlyList<OfferFault> Faults(ProjectFile file, Offer offer, PlanDates dates) =>
        [
            .. OfferCheck.Faults(offer, dates),
            .. PerCurrency.BilledIn(file) is { } billed && billed != offer.Currency
                ? new[] { new OfferFault("currency", PerCurrency.OneAlone(billed)) }
                : [],
        ];

    private static void Demand(ProjectFile file, Offer offer, PlanDates dates)
    {
        if (Faults(file, offer, dates) is [var fault, ..])
            throw new OfferException(fault.Field, fault.Words);
    }

    /// <summary>A contract that cannot be filled would stop its reader at the signature.</summary>
    private static async Task DemandContractAsync(
        Desk desk,
        ProjectFile file,
        Offer offer,
        string contract,
        PlanDates dates
    )
    {
        if (contract.Trim().Length == 0)
        {
            if (file.Case.Kind.Gates.Contains(Gate.Contract))
                throw new OfferException("contract", "Write the contract that goes with it first: its text is empty.");
            return;
        }
        var gaps = await ContractText.GapsAsync(desk, file, contract, offer, dates);
        if (gaps.Count > 0)
            throw new OfferException("contract", $"The contract still lacks: {string.Join(", ", gaps)}.");
    }

    /// <summary>Why no further proposal can go out: what is agreed, and may be signed, invoiced and paid, is not agreed a second time.</summary>
    public static string? Agreed(Desk desk, ProjectFile file) =>
        AgreedPrice.Of(file.History) is { } price
            ? $"A price is agreed already, {MoneyText.Of(price.Agreed)} since {DateWords.Long(desk.Calendar.DateOf(price.Fact.Happened))}, and stays in force. Write an amendment to change it."
            : null;
}
