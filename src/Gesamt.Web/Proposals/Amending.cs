using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Proposals;

/// <summary>Amendments: what was agreed is changed by a paper with a signature of its own. What is issued stays, the rest is split anew.</summary>
public static class Amending
{
    public const string Title = "Amendment";

    private const string Text = """
        This changes what was agreed on [agreed on] for “[project]”.

        ## What changes

        [changes]

        ## The price

        It was [price before], and becomes [price] with this amendment. [invoiced] of it is invoiced already and stays as it is.

        [if there is payments] What is left is paid so:
        [payments]

        [if there is credited] [credited] of what was invoiced is taken back by a credit note.

        ## What stays

        Everything else stays as it was agreed.
        """;

    /// <summary>Begins an amendment in the draft's place: everything that is agreed now, to be changed.</summary>
    /// <exception cref="RefusedException">No price is agreed, or a paper waits for the client's signature.</exception>
    public static async Task<OfferDraftRow> BeginAsync(Desk desk, ProjectFile file)
    {
        var agreed = await DemandAsync(desk, file);
        var draft = await Drafts.OfAsync(desk, file);
        var offer = agreed.Offer with
        {
            // how long it holds does not matter: it is signed, or voided
            ValidUntil = desk.Today.PlusYears(1),
            Lines = AsAgreed(agreed),
            Parts = [new OfferPart.Services()],
            Plan = PlanOfRest(file),
            File = null,
        };
        (draft.Offer, draft.Contract, draft.Signing, draft.Amends, draft.ChangedAt) = (
            StoreJson.Write(offer),
            Text,
            SignedLike(agreed),
            agreed.Proposal.Id,
            desk.Now
        );
        draft.Edition++;
        await desk.Db.SaveChangesAsync();
        return draft;
    }

    /// <summary>Whoever signed what it changes signs it, in the same way; null where that is whoever decides alone.</summary>
    private static string? SignedLike(Agreement agreed) =>
        agreed.Contract is { } contract
        && Versions.Read<ContractSnapshot>(contract).SignedBy with { File = null } is var terms
        && (terms.AsksCode || !terms.Signers.IsEmpty)
            ? StoreJson.Write(terms)
            : null;

    /// <summary>What was chosen is included from then on, in the quantity it was chosen in.</summary>
    private static ImmutableArray<OfferLine> AsAgreed(Agreement agreed) =>
        [
            .. agreed.Priced.Lines.Select(line =>
                line with
                {
                    Role = LineRole.Included,
                    Group = null,
                    Limits = null,
                    Suggested = false,
                }
            ),
        ];

    /// <summary>What is left as it was planned, in the same proportions; with the handover, or two weeks from the signature, where nothing was left.</summary>
    private static ImmutableArray<PlanPart> PlanOfRest(ProjectFile file)
    {
        var left = Billing.Planned(file.Case);
        if (left.IsEmpty)
            return
            [
                new(
                    Rate.Percent(100),
                    file.History.Any<Happening.HandedOver>() ? new DueRule.OnBooking(14) : new DueRule.OnHandover(14)
                ),
            ];
        var weights = new Money(1_000_000, Currency.Of("JPY")).Split([.. left.Select(part => part.Amount.Minor)]);
        return [.. left.Zip(weights, (part, share) => new PlanPart(new Rate((int)share.Minor), part.Rule))];
    }

    /// <summary>Whether a draft is an amendment that can go.</summary>
    public static bool IsAmendment(ProjectFile file, OfferDraftRow draft) =>
        draft.Amends is { } version && AgreedPrice.Of(file.History)?.Version == version;

    /// <summary>Puts an amendment to the client, with the letter that carries it.</summary>
    /// <exception cref="RefusedException">It changes nothing, or a paper waits for the client's signature.</exception>
    /// <inheritdoc cref="Amendment.Of" path="/exception"/>
    public static async Task<LetterRow> SendAsync(
        Act act,
        ProjectFile file,
        OfferDraftRow draft,
        string subject,
        string body
    )
    {
        var desk = act.Desk;
        var agreed = await DemandAsync(desk, file);
        var offer = StoreJson.Read<Offer>(draft.Offer);
        var dates = PlanDates.Of(file.Case, desk.Today);
        var billed = await Amendments.BilledAsync(desk, file);
        if (OfferCheck.Faults(offer, billed, dates).FirstOrDefault() is { } fault)
            throw new OfferException(fault.Field, fault.Words);
        var changes = Changes(agreed, offer);
        if (changes.Count == 0)
            throw new RefusedException("Nothing is different from what is agreed.");
        var signing = SigningReading.Stored(draft.Signing);
        await SigningReading.DemandAsync(desk, file, signing);
        var amendment = Amendment.Of(offer, billed, dates);
        var filled = await FillAsync(desk, file, draft.Contract, agreed, offer, amendment);
        if (filled.HasGaps)
            throw new OfferException("contract", $"The amendment still lacks: {string.Join(", ", filled.Gaps)}.");
        var proposal = await Versions.AddAsync(
            desk,
            file.Id,
            PaperSort.Proposal,
            new ProposalSnapshot(offer, Title, draft.Contract, file.Row.Client!.Name, signing)
        );
        var (_, places) = amendment.Parts(AgreedPrice.Of(file.History)!.Parts, Amendments.Invoiced(file));
        var contract = await Versions.AddAsync(
            desk,
            file.Id,
            PaperSort.Contract,
            new ContractSnapshot(
                Title,
                filled.Text,
                Contracting.Parties(desk, file),
                file.Row.Title,
                [],
                proposal.Hash,
                Terms(desk, offer, amendment),
                Markdown: true,
                Signing: signing,
                Amends: new(agreed.Proposal.Id, places, billed)
            ),
            proposal.Id
        );
        return await Signers.ClaimAsync(act, file, signing, new(subject, body, contract.Id));
    }

    /// <summary>What is different from what is agreed, as the paper and the page say it.</summary>
    public static IReadOnlyList<DifferenceDto> Changes(Agreement agreed, Offer offer) =>
        SentProposals.Differences(
            agreed.Offer with
            {
                Lines = AsAgreed(agreed),
                Parts = offer.Parts,
                ValidUntil = offer.ValidUntil,
                Plan = offer.Plan,
                File = offer.File,
                Title = offer.Title,
            },
            offer
        );

    /// <summary>Its text with its blanks filled.</summary>
    public static async Task<FilledText> FillAsync(
        Desk desk,
        ProjectFile file,
        string text,
        Agreement agreed,
        Offer offer,
        Amendment amendment
    ) =>
        await ContractText.FillAsync(
            desk,
            file,
            text,
            offer,
            amendment.Priced with
            {
                Totals = amendment.Agreed,
            },
            new AmendmentWords(
                desk.Calendar.DateOf(AgreedPrice.Of(file.History)!.Fact.Happened),
                string.Join('\n', Changes(agreed, offer).Select(Words)),
                AgreedPrice.Of(file.History)!.Agreed,
                amendment.Billed.Payable,
                amendment.Credited.Payable is { Minor: > 0 } credited ? credited : null
            )
        );

    /// <summary>“Lettering on the gable: 450.00 before, now 520.00”.</summary>
    private static string Words(DifferenceDto one) =>
        (one.Before, one.After) switch
        {
            (null, { } now) => $"{one.What}: new, {now}",
            ({ } before, null) => $"{one.What}: taken out, {before}",
            ({ } before, { } now) => $"{one.What}: {before} before, now {now}",
            _ => one.What,
        };

    /// <summary>What is printed: all that is agreed from then on, what was invoiced, and how the rest is paid.</summary>
    public static PrintedTerms Terms(Desk desk, Offer offer, Amendment amendment)
    {
        var terms = Print.Terms(desk, offer, amendment.Priced);
        return terms with
        {
            Sums = Print.Sums(amendment.Agreed) with { Gross = offer.Gross, Less = terms.Sums!.Less },
            Payments =
            [
                .. amendment.Billed.Payable.Minor > 0
                    ? [new("invoiced already", amendment.Billed.Payable)]
                    : Array.Empty<Formats.Pdf.PaperPayment>(),
                .. amendment.Credited.Payable.Minor > 0
                    ? [new("taken back by a credit note", -amendment.Credited.Payable)]
                    : Array.Empty<Formats.Pdf.PaperPayment>(),
                .. terms.Payments,
            ],
            OnBooking = Money.Zero(offer.Currency),
        };
    }

    /// <summary>Why an amendment cannot go now; null when it can.</summary>
    public static string? WhyNot(ProjectFile file) =>
        ContractRule.CanAmend(file.Case)
            ? null
            : $"A contract or an amendment waits for {file.Row.Client!.Name}’s signature. Void it first, or wait for them.";

    private static async Task<Agreement> DemandAsync(Desk desk, ProjectFile file)
    {
        if (file.Case.End is not null)
            throw new RefusedException("The project has ended. Take it up again first.");
        var agreed =
            await Agreements.OfAsync(desk, file)
            ?? throw new RefusedException("No price is agreed yet: write a proposal.");
        return WhyNot(file) is { } why ? throw new RefusedException(why) : agreed;
    }
}
