using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>Steps that remind of something are true only while it is the client's turn for that very thing.</summary>
public static class Nudges
{
    /// <summary>Whether the client owes it, as things are.</summary>
    /// <param name="cause">What the step was begun by.</param>
    public static bool Holds(Case project, Owing owing, CauseAt cause) =>
        owing switch
        {
            Owing.Answer => OwesAnswer(project),
            Owing.Choice => ProposalState.Open(project.History) is not null,
            Owing.Signature => ContractState.Open(project.History) is not null,
            Owing.Payment => cause.Fact?.What is not Happening.InvoiceIssued issued
                || Owed.On(project.History, issued).Minor > 0
                    && !Unanswered.Objects(project, issued.Invoice)
                    && !Charging.IsTriedAgain(project.History, issued.Invoice),
            Owing.Form => FormsAsked.Open(project.History).Any(),
            Owing.Approval => project.History.Any<Happening.HandedOver>() && !project.History.Any<Happening.Approved>(),
            _ => true,
        };

    /// <summary>Whether the client says that it is done: that the invoice it reminds of is paid.</summary>
    public static bool SaidToBeDone(Case project, Owing owing, CauseAt cause) =>
        owing == Owing.Payment
        && cause.Fact?.What is Happening.InvoiceIssued issued
        && project.History.Any<Happening.SaidToBePaid>(said => said.Invoice == issued.Invoice);

    /// <summary>Until when what a step says is true: what comes before a date until that day is over, what asks for a choice while the proposal is valid. Null for ever.</summary>
    public static Instant? Until(Case project, Owing owing, Step step, CauseAt cause) =>
        step.When.Offset.Count < 0 ? project.Calendar.StartOf(project.Calendar.DateOf(cause.At).PlusDays(1))
        : owing == Owing.Choice && ProposalState.Open(project.History) is { } open
            ? ProposalState.RunsOutAt(project, open.What)
        : null;

    /// <summary>The owner's own word was the last, and nothing is the owner's to do: not while the inquiry is unanswered, after a talk, or once it was found a fit and the proposal is to be written.</summary>
    private static bool OwesAnswer(Case project)
    {
        var owes = false;
        var nudged = Reminders.Letters(project);
        foreach (var fact in project.History.Facts)
            owes = fact.What switch
            {
                Happening.LetterSent { ByItself: false } sent when !nudged.Contains(sent.Letter) => true,
                Happening.FormAsked or Happening.MeetingOffered or Happening.RateSheetSent => true,
                Happening.InquiryCame
                or Happening.LetterReceived { Automatic: false }
                or Happening.FormReturned
                or Happening.RateSheetTicked
                or Happening.CallHeld
                or Happening.NoAnswerNeeded
                or Happening.MarkedFit
                or Happening.MeetingBooked
                or Happening.MeetingHeld
                or Happening.MeetingCancelled
                or Happening.MeetingMissed
                or Happening.PriceAgreed
                or Happening.ProposalAccepted
                or Happening.BriefApproved
                or Happening.BriefRemarked => false,
                _ => owes,
            };
        return owes && project.History.FitAt is null;
    }
}
