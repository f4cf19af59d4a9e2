using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>What the owner can say happened.</summary>
public enum HappenedSort
{
    Fit,
    Countersign,
    Call,
    NoAnswerNeeded,
    PriceAgreed,
    SignedOnPaper,
    Paid,
    HandedOver,
    Approved,
    Milestone,
    Waived,
    Rest,
    GoOn,
    NotAFit,
    Referred,
    Lost,
    GoneQuiet,
    Cancelled,
    NotAnInquiry,
    TakenUp,
    Read,
    BookedStraightAway,
    NotWonAfterAll,
    FitTakenBack,
}

/// <summary>What the owner can say happened outside Gesamt, as things stand.</summary>
public static class PossibleNow
{
    /// <summary>Whether the project is over once it is said.</summary>
    public static bool Ends(HappenedSort sort) =>
        sort
            is HappenedSort.NotAFit
                or HappenedSort.Referred
                or HappenedSort.Lost
                or HappenedSort.GoneQuiet
                or HappenedSort.Cancelled
                or HappenedSort.NotAnInquiry;

    /// <summary>In the order in which it is offered: the likeliest first.</summary>
    public static ImmutableArray<HappenedSort> Of(Case project, Standing standing, Instant now)
    {
        if (project.End is not null)
            return [.. OfEnded(project)];
        ImmutableArray<HappenedSort> all = [.. OfRunning(project, standing, now)];
        return Likeliest(standing.Waits) is { } first && all.Contains(first) ? [first, .. all.Remove(first)] : all;
    }

    /// <summary>What is most often said while a project waits for this: what it waits for came about outside, or they rang instead of writing. Common practice.</summary>
    private static HappenedSort? Likeliest(WaitKind waits) =>
        waits switch
        {
            WaitKind.AnswerLetter
            or WaitKind.ChangeAsked
            or WaitKind.AnswerRemark
            or WaitKind.ContractAsked
            or WaitKind.ContractDeclined => HappenedSort.Call,
            WaitKind.Declined => HappenedSort.Lost,
            WaitKind.ChooseProposal => HappenedSort.PriceAgreed,
            WaitKind.SignContract => HappenedSort.SignedOnPaper,
            WaitKind.PayInvoice => HappenedSort.Paid,
            WaitKind.HandOver => HappenedSort.HandedOver,
            WaitKind.Approve => HappenedSort.Approved,
            WaitKind.Resting => HappenedSort.GoOn,
            _ => null,
        };

    /// <summary>What ended can be taken up, spoken about, and still be paid.</summary>
    private static IEnumerable<HappenedSort> OfEnded(Case project)
    {
        yield return HappenedSort.TakenUp;
        yield return HappenedSort.Call;
        if (AgreedPrice.Of(project.History) is not null && Owed.Open(project.History).Any())
            yield return HappenedSort.Paid;
    }

    private static IEnumerable<HappenedSort> OfRunning(Case project, Standing standing, Instant now)
    {
        var (history, price) = (project.History, AgreedPrice.Of(project.History));
        var isOpen = standing.Stage == Stage.Lead && history.FitAt is null;
        if (isOpen)
            yield return HappenedSort.Fit;
        if (isOpen && standing.BookedAt is null)
            yield return HappenedSort.NotAFit;
        if (standing.Waits == WaitKind.Countersign)
            yield return HappenedSort.Countersign;
        if (
            standing.Waits
            is WaitKind.AnswerInquiry
                or WaitKind.AnswerLetter
                or WaitKind.ChangeAsked
                or WaitKind.Declined
                or WaitKind.AnswerRemark
                or WaitKind.ContractAsked
                or WaitKind.InvoiceAsked
                or WaitKind.RefundRefused
                or WaitKind.ChargeRefused
                or WaitKind.ContractDeclined
                or WaitKind.ReadRateSheet
        )
            yield return HappenedSort.NoAnswerNeeded;
        if (MayBeRead(project))
            yield return HappenedSort.Read;
        yield return HappenedSort.Call;
        if (price is null && standing.Stage is Stage.Lead or Stage.Proposal)
            yield return HappenedSort.BookedStraightAway;
        if (price is null)
            yield return HappenedSort.PriceAgreed;
        if (GateRule.Read(project).Any(gate => gate is { Gate: Gate.Contract, IsClosed: false }))
            yield return HappenedSort.SignedOnPaper;
        if (price is not null && IsOwed(history, price))
            yield return HappenedSort.Paid;
        if (standing.Stage == Stage.Delivery && !history.Any<Happening.HandedOver>())
            yield return HappenedSort.HandedOver;
        if (history.Any<Happening.HandedOver>() && !history.Any<Happening.Approved>())
            yield return HappenedSort.Approved;
        if (history.FitAt is not null && price is null && !history.Any<Happening.ProposalSent>())
            yield return HappenedSort.FitTakenBack;
        if (MilestonesToSay(project).Any())
            yield return HappenedSort.Milestone;
        if (standing.Stage != Stage.Finished)
            yield return HappenedSort.Waived;
        yield return TurnRule.RestUntil(project) > now ? HappenedSort.GoOn : HappenedSort.Rest;
        foreach (var end in EndsOf(standing).Where(end => !isOpen || end != HappenedSort.NotAFit))
            yield return end;
    }

    /// <summary>Steps of the kind that are reached when the owner says so, and are not yet.</summary>
    public static IEnumerable<string> MilestonesToSay(Case project) =>
        MilestoneRule
            .Of(project)
            .Where(one => one is { Milestone.By: MilestoneSign.Said, ReachedAt: null })
            .Select(one => one.Milestone.Name);

    /// <summary>Before the win it can be declined, passed on or lost; after it, cancelled.</summary>
    private static IEnumerable<HappenedSort> EndsOf(Standing standing)
    {
        if (standing.BookedAt is null)
        {
            yield return HappenedSort.NotAFit;
            yield return HappenedSort.Referred;
            yield return HappenedSort.Lost;
        }
        else
            yield return HappenedSort.Cancelled;
        yield return HappenedSort.GoneQuiet;
        if (standing.BookedAt is not null)
            yield return HappenedSort.NotWonAfterAll;
        if (standing.Stage == Stage.Lead)
            yield return HappenedSort.NotAnInquiry;
    }

    /// <summary>Of the price, or of an invoice.</summary>
    private static bool IsOwed(History history, AgreedPrice price) =>
        price.Agreed > Payments.TotalOfPrice(history, price.Agreed.Currency) || Owed.Open(history).Any();

    /// <summary>An inquiry whose follow-ups wait for the owner to read the answers.</summary>
    public static bool MayBeRead(Case project) =>
        project.End is null
        && project.History.Any<Happening.InquiryCame>()
        && !project.History.Any<Happening.InquiryRead>()
        && !project.Runs.Any(run => run.Routine.Begins == Cause.InquiryCame);
}
