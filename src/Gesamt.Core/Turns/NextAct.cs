using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>What the owner can do next, in one press or with one page.</summary>
public enum NextAct
{
    AnswerInquiry,
    AnswerLetter,
    NoAnswerNeeded,
    SayFit,
    WriteProposal,
    SendContract,
    AddSignature,
    RecordPayment,
    NoteMeeting,
    ReadForm,
    PutUpDraft,
    HandOver,
    FinishTask,
    SayWhatHappened,
    PutAway,
}

/// <summary>The acts that the present gate carries as buttons: the one it waits for first, then what else would move it.</summary>
public static class NextActs
{
    public static ImmutableArray<NextAct> Of(Case project, Standing standing, Instant now)
    {
        if (project.End is not null)
            return OfOver(project, standing);
        if (standing.Stage == Stage.Finished && standing.Turn != Side.Yours)
            return OfOver(project, standing);
        var possible = PossibleNow.Of(project, standing, now);
        List<NextAct> acts = [];
        if (standing.Turn == Side.Yours && For(standing.Waits) is { } waited)
            acts.Add(waited);
        if (possible.Contains(HappenedSort.NoAnswerNeeded) && standing.Waits != WaitKind.AnswerInquiry)
            acts.Add(NextAct.NoAnswerNeeded);
        if (possible.Contains(HappenedSort.Fit))
            acts.Add(NextAct.SayFit);
        if (
            standing is { Stage: Stage.Proposal, Waits: not WaitKind.ChooseProposal }
            && AgreedPrice.Of(project.History) is null
        )
            acts.Add(NextAct.WriteProposal);
        if (standing.Stage is Stage.Contract or Stage.Payment or Stage.Delivery && Owed.Open(project.History).Any())
            acts.Add(NextAct.RecordPayment);
        if (standing.Stage == Stage.Delivery && ReviewRule.Open(project.History) is null)
            acts.AddRange(OfFiles(project.History));
        return [.. acts.Distinct()];
    }

    /// <summary>A draft that nobody was shown yet is put up; final files that lie ready are handed over.</summary>
    private static IEnumerable<NextAct> OfFiles(History history)
    {
        Instant? Kept(FileGroup group) => history.Last<Happening.FileKept>(kept => kept.Group == group)?.Recorded;
        if (Kept(FileGroup.Drafts) is { } draft && !(history.Last<Happening.ReviewOpened>()?.Recorded >= draft))
            yield return NextAct.PutUpDraft;
        if (Kept(FileGroup.Final) is not null && !history.Any<Happening.HandedOver>())
            yield return NextAct.HandOver;
    }

    private static ImmutableArray<NextAct> OfOver(Case project, Standing standing) =>
        [
            .. standing.Turn == Side.Yours && For(standing.Waits) is { } waited ? new[] { waited } : [],
            .. project.IsPutAway ? [] : new[] { NextAct.PutAway },
        ];

    /// <summary>What answers a thing that waits for the owner; null where it is done on the sheet itself.</summary>
    private static NextAct? For(WaitKind waits) =>
        waits switch
        {
            WaitKind.AnswerInquiry => NextAct.AnswerInquiry,
            WaitKind.AnswerLetter
            or WaitKind.AnswerRemark
            or WaitKind.BriefRemarked
            or WaitKind.MeetingCancelled
            or WaitKind.ContractAsked
            or WaitKind.InvoiceAsked
            or WaitKind.RefundRefused
            or WaitKind.ChargeRefused
            or WaitKind.ContractDeclined => NextAct.AnswerLetter,
            WaitKind.ChangeAsked
            or WaitKind.Declined
            or WaitKind.RanOut
            or WaitKind.ReadRateSheet
            or WaitKind.WriteProposal => NextAct.WriteProposal,
            WaitKind.DecideFit => NextAct.SayFit,
            WaitKind.SendContract => NextAct.SendContract,
            WaitKind.Countersign => NextAct.AddSignature,
            WaitKind.NoteMeeting => NextAct.NoteMeeting,
            WaitKind.ReadForm => NextAct.ReadForm,
            WaitKind.ReworkDraft => NextAct.PutUpDraft,
            WaitKind.HandOver => NextAct.HandOver,
            WaitKind.TaskDue or WaitKind.CloseUp => NextAct.FinishTask,
            WaitKind.SayWhatIsNext or WaitKind.AskAgain => NextAct.SayWhatHappened,
            _ => null,
        };
}
