using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What a step takes for granted that the client still owes.</summary>
public enum Owing
{
    Nothing,
    Answer,
    Choice,
    Signature,
    Payment,
    Form,
    Approval,
}

/// <summary>Steps that remind of something are true only while it is the client's turn for that very thing.</summary>
public static class Nudges
{
    /// <summary>What a step reminds of: one that something the client does would end, begun by what was put to them.</summary>
    public static Owing About(Routine routine, Step step)
    {
        if (
            step.Action is not (StepAction.Letter or StepAction.EndAsQuiet or StepAction.TellMe)
            || !step.Stops.Any(Reminds)
        )
            return Owing.Nothing;
        return (step.When.Cause is Cause.RunBegun or Cause.PreviousStep ? routine.Begins : step.When.Cause) switch
        {
            Cause.InquiryCame => Owing.Answer,
            Cause.ProposalSent or Cause.ProposalOpened => Owing.Choice,
            Cause.ContractSent => Owing.Signature,
            Cause.InvoiceDue => Owing.Payment,
            Cause.HandedOver => Owing.Approval,
            _ => step.Stops.Contains(StopRule.FormReturned) ? Owing.Form : Owing.Nothing,
        };
    }

    private static bool Reminds(StopRule rule) =>
        rule
            is StopRule.Answered
                or StopRule.Opened
                or StopRule.Chosen
                or StopRule.Signed
                or StopRule.Paid
                or StopRule.FormReturned;

    /// <summary>Whether the client owes it, as things are.</summary>
    /// <param name="cause">What the step was begun by.</param>
    public static bool Holds(Case project, Owing owing, CauseAt cause) =>
        owing switch
        {
            Owing.Answer => OwesAnswer(project),
            Owing.Choice => ProposalState.Open(project.History) is not null,
            Owing.Signature => ContractRule.Open(project.History) is not null,
            Owing.Payment => cause.Fact?.What is not Happening.InvoiceIssued issued
                || Owed.On(project.History, issued).Minor > 0,
            Owing.Form => FormsAsked.Open(project.History).Any(),
            Owing.Approval => project.History.Any<Happening.HandedOver>() && !project.History.Any<Happening.Approved>(),
            _ => true,
        };

    /// <summary>Until when what a step says is true: what comes before a date until that day is over, what asks for a choice while the proposal is valid. Null for ever.</summary>
    public static Instant? Until(Case project, Owing owing, Step step, CauseAt cause) =>
        step.When.Offset.Count < 0 ? project.Calendar.StartOf(project.Calendar.DateOf(cause.At).PlusDays(1))
        : owing == Owing.Choice && ProposalState.Open(project.History) is { } open ? Waits.RunsOutAt(project, open.What)
        : null;

    /// <summary>The owner's own word was the last, and nothing is the owner's to do: not while the inquiry is unanswered, after a talk, or once it was found a fit and the proposal is to be written.</summary>
    private static bool OwesAnswer(Case project)
    {
        var owes = false;
        var nudged = Letters(project);
        foreach (var fact in project.History.Facts)
            owes = fact.What switch
            {
                Happening.LetterSent { ByItself: false } sent when !nudged.Contains(sent.Letter) => true,
                Happening.FormAsked or Happening.MeetingOffered => true,
                Happening.InquiryCame
                or Happening.LetterReceived { Automatic: false }
                or Happening.FormReturned
                or Happening.CallHeld
                or Happening.NoAnswerNeeded
                or Happening.MarkedFit
                or Happening.MeetingBooked
                or Happening.MeetingHeld
                or Happening.MeetingCancelled
                or Happening.PriceAgreed
                or Happening.ProposalAccepted
                or Happening.BriefApproved
                or Happening.BriefRemarked => false,
                _ => owes,
            };
        return owes && !project.History.Any<Happening.MarkedFit>();
    }

    /// <summary>Letters that were sent to remind: they answer nothing and make nothing younger.</summary>
    public static IReadOnlySet<LetterId> Letters(Case project)
    {
        HashSet<LetterId> letters = [];
        foreach (var fact in project.History.Facts)
            if (
                fact.What is Happening.StepDone { Letter: { } letter } done
                && project.Runs.FirstOrDefault(run => run.Id == done.Step.Run) is { } run
                && run.Routine.Steps.FirstOrDefault(step => step.Key == done.Step.Step) is { } step
                && About(run.Routine, step) != Owing.Nothing
            )
                letters.Add(letter);
        return letters;
    }
}
