using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;

namespace Gesamt.Core.Routines;

/// <summary>Whether something that happened since ends a step before it acts.</summary>
public static class StopRules
{
    /// <summary>What ends a step where its owner says so; all else ends every step.</summary>
    public static readonly ImmutableArray<StopRule> ToChoose =
    [
        StopRule.Answered,
        StopRule.Opened,
        StopRule.Chosen,
        StopRule.Signed,
        StopRule.Paid,
        StopRule.FormReturned,
        StopRule.HandedOver,
        StopRule.Resting,
    ];

    /// <summary>The first of the step's rules that holds; null while none does. Follows what was recorded, not what is said to have happened earlier.</summary>
    public static StopRule? Holds(Case project, Step step, CauseAt cause)
    {
        if (EndStops(project, cause.Fact))
            return StopRule.Ended;
        if (IsEndGone(project, cause.Fact))
            return StopRule.CauseGone;
        if (project.IsPutAway)
            return StopRule.PutAway;
        if (Replaced(project, step, cause) || step.Action is StepAction.EndAsQuiet && Since(project, cause, IsTalk))
            return StopRule.Replaced;
        if (IsOver(project, step, cause))
            return StopRule.Finished;
        return step.Stops.Where(rule => Holds(project, rule, cause)).Select(rule => (StopRule?)rule).FirstOrDefault();
    }

    /// <summary>An end stops everything but what follows from it.</summary>
    /// <param name="cause">What a step hangs on.</param>
    public static bool EndStops(Case project, Fact? cause) =>
        project.End is { } end
        && cause?.What switch
        {
            Happening.Ended => cause.Id != end.Fact.Id,
            Happening.RunBegan began => cause.Recorded < end.Recorded || !FollowsEnd(project, began.Run),
            _ => true,
        };

    /// <summary>A run that an end began has lost its cause once the project is taken up again.</summary>
    private static bool IsEndGone(Case project, Fact? cause) =>
        cause?.What is Happening.RunBegan began
        && FollowsEnd(project, began.Run)
        && !(project.End?.Recorded <= cause.Recorded);

    /// <summary>Whether a run is of a routine that an ending begins.</summary>
    public static bool FollowsEnd(Case project, RunId run) =>
        project.Runs.FirstOrDefault(one => one.Id == run)?.Routine.Begins == Cause.Ended;

    /// <summary>Once a project is finished nothing asks any more that was begun before the handover: no welcome, no question before the start. What follows from the handover, a date, money or an approval goes on.</summary>
    private static bool IsOver(Case project, Step step, CauseAt cause)
    {
        if (step.Favour || step.When.Cause is Cause.NamedDate or Cause.InvoiceDue or Cause.HandedOver or Cause.Approved)
            return false;
        var handedOver = project.History.Last<Happening.HandedOver>()?.Recorded;
        // most projects are told by this alone
        if (
            handedOver <= cause.Known
            || handedOver is null
                && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Delivery)
                && project.Kind.Gates.Contains(Gate.Delivery)
        )
            return false;
        return GateRule.FinishedAt(project) is { } finished && cause.Known < (handedOver ?? finished);
    }

    private static bool Holds(Case project, StopRule rule, CauseAt cause) =>
        rule switch
        {
            StopRule.Answered => Since(
                project,
                cause,
                what =>
                    what
                        is Happening.LetterReceived { Automatic: false }
                            or Happening.ChangeAsked
                            or Happening.ProposalAccepted
                            or Happening.ProposalDeclined
                            or Happening.PriceAgreed
                            or Happening.FormReturned
                            or Happening.CallHeld
                            or Happening.MeetingBooked
                            or Happening.MeetingHeld
                            or Happening.ContractSigned { Signer: Signer.Client }
                            or Happening.ContractAsked
                            or Happening.InvoiceAsked
                            or Happening.ContractDeclined
                            or Happening.RateSheetTicked
                            or Happening.PaymentReceived
                            or Happening.RemarkLeft
                            or Happening.ChangesAsked
                            or Happening.ReviewApproved
                            or Happening.Approved
                            or Happening.BriefApproved
                            or Happening.BriefRemarked
                            or Happening.PartAsked
                            or Happening.TestimonialApproved
                            or Happening.TestimonialDeclined
            ),
            StopRule.Opened => Since(
                project,
                cause,
                what => what is Happening.ProposalOpened opened && IsOf(cause, opened.Version)
            ),
            StopRule.Chosen => Since(
                project,
                cause,
                what => what is Happening.ProposalAccepted or Happening.ProposalDeclined or Happening.PriceAgreed
            ),
            StopRule.Signed => Since(
                project,
                cause,
                what => what is Happening.ContractSigned { Signer: Signer.Client }
            ),
            StopRule.Paid => cause.Fact?.What is Happening.InvoiceIssued issued
                ? Owed.On(project.History, issued).Minor <= 0
                : Since(project, cause, what => what is Happening.PaymentReceived),
            // a rest begun later than its cause; one that was over before stops nothing new
            StopRule.Resting => Since(project, cause, what => what is Happening.RestBegan),
            StopRule.FormReturned => Since(project, cause, what => what is Happening.FormReturned),
            StopRule.HandedOver => Since(project, cause, what => what is Happening.HandedOver),
            StopRule.Ended => EndStops(project, cause.Fact),
            StopRule.Replaced
            or StopRule.ByHand
            or StopRule.CauseGone
            or StopRule.PutAway
            or StopRule.Past
            or StopRule.NotTheirs
            or StopRule.Finished => false, // never asked for: they hold for every step
            _ => false,
        };

    /// <summary>A step about a proposal ends when another took its place or it was withdrawn; a follow-up of an inquiry when a proposal was sent.</summary>
    private static bool Replaced(Case project, Step step, CauseAt cause) =>
        cause.Fact?.What switch
        {
            Happening.ProposalSent or Happening.ProposalOpened => Since(
                project,
                cause,
                what => what is Happening.ProposalSent or Happening.ProposalWithdrawn
            ),
            Happening.InquiryCame => step.Stops.Length > 0
                && Since(project, cause, what => what is Happening.ProposalSent),
            _ => false,
        };

    /// <summary>Whoever speaks with the owner has not gone quiet.</summary>
    private static bool IsTalk(Happening what) =>
        what
            is Happening.ProposalSent
                or Happening.PriceAgreed
                or Happening.CallHeld
                or Happening.MeetingBooked
                or Happening.MeetingHeld;

    private static bool IsOf(CauseAt cause, VersionId version) =>
        cause.Fact?.What is not Happening.ProposalSent sent || sent.Version == version;

    private static bool Since(Case project, CauseAt cause, Func<Happening, bool> what) =>
        project.History.Facts.Any(fact =>
            what(fact.What) && (cause.Fact is { } anchor ? History.IsAfter(fact, anchor) : fact.Recorded >= cause.After)
        );
}
