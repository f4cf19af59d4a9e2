using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
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
        var offer = new Offer(
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
            Offer = StoreJson.Write(offer),
            Contract = contract?.Body ?? "",
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
        int edition
    )
    {
        var draft = await OfAsync(desk, file);
        if (draft.Edition != edition)
            throw new StaleException(DraftDto.Of(desk, file, draft));
        LetterText.Parse(contract);
        (draft.Offer, draft.Contract, draft.ChangedAt) = (StoreJson.Write(offer), contract, desk.Now);
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
            if (Agreed(desk, file) is { } agreed)
                throw new RefusedException(agreed);
            var draft = await OfAsync(desk, file);
            var offer = StoreJson.Read<Offer>(draft.Offer);
            Pricing.Check(offer, desk.Today);
            Pricing.Of(offer, Pricing.Suggested(offer), file.Case.MainDate?.Date, desk.Today, desk.Calendar);
            var kindsContract = await desk
                .Db.ContractTemplates.AsNoTracking()
                .FirstOrDefaultAsync(c => c.KindId == file.Row.KindId);
            if (ProposalState.Open(file.History)?.What.Version is { } open)
                await act.RecordAsync(file, Actor.Owner, new Happening.ProposalWithdrawn(open));
            var version = await Versions.AddAsync(
                desk,
                project,
                PaperSort.Proposal,
                new ProposalSnapshot(offer, kindsContract?.Title ?? "Contract", draft.Contract, file.Row.Client!.Name)
            );
            var letter = await LettersOut.ClaimAsync(act, file, subject, body, version.Id);
            return letter;
        });
    }

    /// <summary>Why no further proposal can go out: what is agreed, and may be signed, invoiced and paid, is not agreed a second time.</summary>
    public static string? Agreed(Desk desk, ProjectFile file) =>
        AgreedPrice.Of(file.History) is { } price
            ? $"A price is agreed already, {MoneyText.Of(price.Agreed)} since {DateWords.Long(desk.Calendar.DateOf(price.Fact.Happened))}, and stays in force. What comes on top can be a project of its own."
            : null;
}
