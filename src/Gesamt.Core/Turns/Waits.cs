using System.Globalization;
using Gesamt.Core.Briefs;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>What waits for the owner and what is with the client.</summary>
internal static class Waits
{
    /// <summary>What the client said or did that nobody has answered.</summary>
    public static IEnumerable<Wait> Unanswered(Case project)
    {
        var history = project.History;
        if (First<Happening.InquiryCame>(project) is { } inquiry)
            yield return new(WaitKind.AnswerInquiry, inquiry.Happened, "Answer the inquiry");
        if (First<Happening.LetterReceived>(project, letter => !letter.Automatic) is { } letter)
            yield return new(WaitKind.AnswerLetter, letter.Happened, "Answer their letter");
        if (First<Happening.ChangeAsked>(project) is { } change)
            yield return new(WaitKind.ChangeAsked, change.Happened, "They asked for a change");
        if (First<Happening.ProposalDeclined>(project) is { } declined && !history.Any<Happening.ProposalAccepted>())
            yield return new(WaitKind.Declined, declined.Happened, "They declined the proposal");
        if (First<Happening.MeetingCancelled>(project, cancelled => cancelled.ByClient) is { } cancelled)
            yield return new(WaitKind.MeetingCancelled, cancelled.Happened, "They cancelled the meeting");
        if (First<Happening.FormReturned>(project) is { } form)
            yield return new(WaitKind.ReadForm, form.Happened, "Read the answers to the form");
        if (First<Happening.BriefRemarked>(project) is { } brief)
            yield return new(WaitKind.BriefRemarked, brief.Happened, "They remarked on the brief");
        // the next round answers the changes asked for and the remarks with them
        if (ReviewRule.ToRework(history) is null && First<Happening.RemarkLeft>(project) is { } remark)
            yield return new(WaitKind.AnswerRemark, remark.Happened, "They left a remark");
    }

    /// <summary>What else waits for the owner: signatures, decisions, tasks that are due.</summary>
    public static IEnumerable<Wait> Yours(Case project, IReadOnlyList<GateReading> gates, Instant now)
    {
        var stage = GateRule.StageOf(gates);
        var today = project.Calendar.DateOf(now);
        foreach (var wait in Papers(project, now))
            yield return wait;
        foreach (var task in DueTasks(project, now))
            yield return task;
        if (Decision(project, gates, stage, today) is { } decision)
            yield return decision;
    }

    /// <summary>Tasks that are due or late.</summary>
    public static IEnumerable<Wait> DueTasks(Case project, Instant now) =>
        from task in project.OpenTasks
        where task.Due <= project.Calendar.DateOf(now)
        select new Wait(WaitKind.TaskDue, project.Calendar.StartOf(task.Due!.Value), task.Title);

    private static IEnumerable<Wait> Papers(Case project, Instant now)
    {
        var history = project.History;
        if (ContractRule.CanSend(project) && AgreedPrice.Of(history) is { } agreed)
            yield return new(
                WaitKind.SendContract,
                Latest(agreed.Fact.Happened, history.Last<Happening.ContractVoided>()?.Happened),
                agreed.Fact.What is Happening.ProposalAccepted
                    ? "Chosen, send the contract"
                    : "Agreed, send the contract"
            );
        if (ContractRule.Countersign(history) is { } client)
            yield return new(WaitKind.Countersign, client.Happened, "Signed, add your signature");
        if (ProposalState.Open(history) is { } open && RunsOutAt(project, open.What) is var end && end <= now)
            yield return new(WaitKind.RanOut, end, "The proposal has run out");
        if (MeetingState.Of(history).FirstOrDefault(meeting => meeting.IsStanding && meeting.End <= now) is { } over)
            yield return new(WaitKind.NoteMeeting, over.End, "Say how the meeting went");
        if (ReviewRule.ToRework(history) is { Answered: { } returned } back)
            yield return new(WaitKind.ReworkDraft, returned, $"{Of(back)}: they ask for changes");
    }

    /// <summary>The gate that needs only the owner, and since when: when its last other condition came true.</summary>
    private static Wait? Decision(Case project, IReadOnlyList<GateReading> gates, Stage stage, LocalDate today)
    {
        var history = project.History;
        var before = gates.TakeWhile(gate => (Stage)gate.Gate != stage).LastOrDefault()?.ClosedAt;
        var begun = history.Began ?? Instant.MinValue;
        // while a talk is still to come, fit and price do not hang on the owner alone
        if (
            stage is Stage.Lead or Stage.Proposal
            && (
                MeetingState.Offered(history) is not null || MeetingState.Of(history).Any(meeting => meeting.IsStanding)
            )
        )
            return null;
        return stage switch
        {
            Stage.Lead when !history.Any<Happening.MarkedFit>() => new(
                WaitKind.DecideFit,
                Latest(begun, LastExchange(project)),
                "Decide whether it is a fit"
            ),
            Stage.Lead => new(
                WaitKind.FillDetails,
                history.Last<Happening.MarkedFit>()!.Value.Happened,
                "Fill in what is still unknown"
            ),
            Stage.Proposal when ProposalState.Open(history) is null => new(
                WaitKind.WriteProposal,
                Latest(before ?? begun, LastExchange(project)),
                "Write the proposal"
            ),
            Stage.Delivery when history.Any<Happening.HandedOver>() => CloseUp(project),
            Stage.Delivery
                when project.OpenTasks.Length == 0
                    && ReviewRule.Open(history) is null
                    && ReviewRule.ToRework(history) is null
                    || project.MainDate is { } date && date.Date <= today => new(
                WaitKind.HandOver,
                HandOverSince(project, before ?? begun, today),
                "Hand over the work"
            ),
            _ => null,
        };
    }

    /// <summary>All that is left are closing steps of the owner.</summary>
    private static Wait? CloseUp(Case project) =>
        GateRule.Read(project).FirstOrDefault(gate => gate.Gate == Gate.Delivery) is { Lacks: [Lack.ClosingSteps] }
            ? new(
                WaitKind.CloseUp,
                Latest(
                    project.History.Last<Happening.Approved>()!.Value.Happened,
                    project.History.Last<Happening.PaymentReceived>()?.Happened
                ),
                "Do the closing steps"
            )
            : null;

    private static Instant HandOverSince(Case project, Instant before, LocalDate today)
    {
        var lastDone = project.History.Last<Happening.TaskDone>()?.Happened;
        var dateCame =
            project.MainDate is { } date && date.Date <= today ? project.Calendar.StartOf(date.Date) : (Instant?)null;
        var ready = project.OpenTasks.Length == 0 ? lastDone ?? before : dateCame ?? before;
        return Latest(before, ready);
    }

    /// <summary>What is with the client: a proposal, a contract, an invoice, a handover to approve.</summary>
    public static IEnumerable<Wait> Clients(Case project, Instant now)
    {
        var history = project.History;
        if (ProposalState.Open(history) is { } proposal && RunsOutAt(project, proposal.What) > now)
            yield return new(WaitKind.ChooseProposal, proposal.Happened, OpenedWords(history, proposal.What.Version));
        if (ContractRule.Open(history) is { } contract)
            yield return new(WaitKind.SignContract, contract.Happened, "Contract not signed yet");
        foreach (var (invoice, _) in Owed.Open(history))
            yield return new(WaitKind.PayInvoice, invoice.Happened, "Invoice not paid yet");
        if (ReviewRule.Open(history) is { } review)
            yield return new(WaitKind.Review, review.Opened, $"{Of(review)}: not answered yet");
        if (MeetingState.Offered(history) is { } offered)
            yield return new(WaitKind.ChooseTime, offered.Happened, "Time for the meeting not chosen yet");
        if (FormsAsked.Open(history).FirstOrDefault() is { Fact: not null } asked)
            yield return new(WaitKind.FillForm, asked.Happened, "Form not filled in yet");
        if (BriefRule.Of(history) is { IsOpen: true, Put: { } put })
            yield return new(WaitKind.ApproveBrief, put, "Brief not approved yet");
        if (history.Last<Happening.HandedOver>() is { } handed && !history.Any<Happening.Approved>())
            yield return new(WaitKind.Approve, handed.Happened, "Handed over, not approved yet");
    }

    /// <summary>A proposal valid until a date runs out when that day is over.</summary>
    public static Instant RunsOutAt(Case project, Happening.ProposalSent sent) =>
        project.Calendar.StartOf(sent.ValidUntil.PlusDays(1));

    /// <summary>“Sketch, round 2”.</summary>
    private static string Of(Review review) =>
        review.Phase is { Length: > 0 } phase
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{char.ToUpperInvariant(phase[0])}{phase[1..]}, round {review.Round}"
            )
            : string.Create(CultureInfo.InvariantCulture, $"Round {review.Round}");

    private static string OpenedWords(History history, VersionId version) =>
        history.Of<Happening.ProposalOpened>().Count(opened => opened.What.Version == version) switch
        {
            0 => "Not opened yet",
            1 => "Opened, not chosen",
            2 => "Opened twice, not chosen",
            var times => string.Create(CultureInfo.InvariantCulture, $"Opened {times} times, not chosen"),
        };

    /// <summary>The oldest of a kind of fact since the owner last answered.</summary>
    private static Seen<T>? First<T>(Case project, Func<T, bool>? where = null)
        where T : Happening
    {
        var answered = Answers(project).LastOrDefault();
        foreach (var seen in project.History.Of<T>())
            if ((where is null || where(seen.What)) && (answered is null || History.IsAfter(seen.Fact, answered)))
                return seen;
        return null;
    }

    /// <summary>What answered the client. A letter that only reminded answers nothing, whoever gave it their OK.</summary>
    private static IEnumerable<Fact> Answers(Case project)
    {
        var nudges = Nudges.Letters(project);
        return project.History.Facts.Where(fact =>
            IsAnswer(fact.What) && !(fact.What is Happening.LetterSent sent && nudges.Contains(sent.Letter))
        );
    }

    /// <summary>A letter the owner wrote or gave an OK, a recorded call, a price agreed by word, “no answer needed”, a proposal sent; letters sent by themselves answer nothing.</summary>
    private static bool IsAnswer(Happening what) =>
        what
            is Happening.LetterSent { ByItself: false }
                or Happening.CallHeld
                or Happening.PriceAgreed
                or Happening.NoAnswerNeeded
                or Happening.ProposalSent
                or Happening.ReviewOpened
                or Happening.TakenUp
                or Happening.MeetingHeld
                or Happening.BriefPut;

    /// <summary>When a letter or a call last went one way or the other: what a decision waited for.</summary>
    private static Instant? LastExchange(Case project) =>
        Answers(project)
            .Concat(
                project
                    .History.Of<Happening.LetterReceived>()
                    .Where(letter => !letter.What.Automatic)
                    .Select(letter => letter.Fact)
            )
            .Select(fact => (Instant?)fact.Happened)
            .Max();

    private static Instant Latest(Instant at, Instant? other) => other > at ? other.Value : at;
}

/// <summary>Where the proposal stands that was sent last.</summary>
public static class ProposalState
{
    /// <summary>The proposal that is out: sent last, not withdrawn, not answered by yes or no. Once a price is agreed none is.</summary>
    public static Seen<Happening.ProposalSent>? Open(History history) =>
        history.Last<Happening.ProposalSent>() is { } sent
        && AgreedPrice.Of(history) is null
        && !history.Facts.Any(fact =>
            History.IsAfter(fact, sent.Fact)
            && fact.What switch
            {
                Happening.ProposalWithdrawn withdrawn => withdrawn.Version == sent.What.Version,
                Happening.ProposalAccepted or Happening.ProposalDeclined or Happening.PriceAgreed => true,
                _ => false,
            }
        )
            ? sent
            : null;
}
