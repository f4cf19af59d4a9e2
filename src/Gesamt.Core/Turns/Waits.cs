using System.Globalization;
using Gesamt.Core.Briefs;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>What waits for the owner and what is with the client.</summary>
internal static class Waits
{
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

    /// <summary>The owner's tasks that are due or late, and the client's that nobody has shown to them.</summary>
    /// <param name="madeSince">Only those made since then: what was open at an end is not asked for any more.</param>
    public static IEnumerable<Wait> DueTasks(Case project, Instant now, Instant? madeSince = null) =>
        from task in project.OpenTasks
        where task.Due <= project.Calendar.DateOf(now) && !(task.IsClients && IsShown(project))
        where
            madeSince is not { } since
            || project.History.Of<Happening.TaskMade>().Any(made => made.What.Task == task.Id && made.Recorded >= since)
        select new Wait(
            WaitKind.TaskDue,
            project.Calendar.StartOf(task.Due!.Value),
            task.IsClients ? $"Show the client what is theirs: {task.Title}" : task.Title
        );

    private static IEnumerable<Wait> Papers(Case project, Instant now)
    {
        var history = project.History;
        if (ContractRule.CanSend(project) && AgreedPrice.Of(history) is { } agreed)
            yield return new(
                WaitKind.SendContract,
                Latest(
                    Latest(agreed.Fact.Happened, history.Last<Happening.ContractVoided>()?.Happened),
                    history.Last<Happening.ContractDeclined>()?.Happened
                ),
                agreed.Fact.What is Happening.ProposalAccepted
                    ? "Chosen, send the contract"
                    : "Agreed, send the contract"
            );
        if (ContractState.Countersign(history) is { } client)
            yield return new(WaitKind.Countersign, client.Happened, "Signed, add your signature");
        if (
            ProposalState.Open(history) is { } open
            && ProposalState.RunsOutAt(project, open.What) is var end
            && end <= now
        )
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
            Stage.Lead when history.FitAt is null => new(
                WaitKind.DecideFit,
                Latest(begun, Unanswered.LastExchange(project)),
                "Decide whether it is a fit"
            ),
            Stage.Lead => new(WaitKind.FillDetails, history.FitAt!.Value, "Fill in what is still unknown"),
            Stage.Proposal when ProposalState.Open(history) is null => new(
                WaitKind.WriteProposal,
                Latest(before ?? begun, Unanswered.LastExchange(project)),
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
        if (ProposalState.Open(history) is { } proposal && ProposalState.RunsOutAt(project, proposal.What) > now)
            yield return new(WaitKind.ChooseProposal, proposal.Happened, OpenedWords(history, proposal.What.Version));
        if (ContractState.Open(history) is { } contract)
            yield return new(WaitKind.SignContract, contract.Happened, UnsignedWords(history, contract.What));
        foreach (var (invoice, _) in Owed.Open(history))
            yield return new(WaitKind.PayInvoice, invoice.Happened, "Invoice not paid yet");
        if (ReviewRule.Open(history) is { } review)
            yield return new(WaitKind.Review, review.Opened, $"{Of(review)}: not answered yet");
        if (MeetingState.Offered(history) is { } offered)
            yield return new(WaitKind.ChooseTime, offered.Happened, "Time for the meeting not chosen yet");
        if (FormsAsked.Open(history).FirstOrDefault() is { Fact: not null } asked)
            yield return new(WaitKind.FillForm, asked.Happened, "Form not filled in yet");
        if (RateSheets.Open(history) is { } sheet)
            yield return new(WaitKind.TickRateSheet, sheet.Happened, "Rate sheet not ticked yet");
        if (BriefRule.Of(history) is { IsOpen: true, Put: { } put })
            yield return new(WaitKind.ApproveBrief, put, "Brief not approved yet");
        if (ClientsTask(project) is { } task)
            yield return task;
        if (history.Last<Happening.HandedOver>() is { } handed && !history.Any<Happening.Approved>())
            yield return new(WaitKind.Approve, handed.Happened, "Handed over, not approved yet");
    }

    /// <summary>The client's task that they could have begun with first: since it was made, or since its part of the page is open.</summary>
    private static Wait? ClientsTask(Case project)
    {
        if (Sight.OpenSince(project.History, PagePart.Tasks) is not { } shown)
            return null;
        return project
            .OpenTasks.Where(task => task.IsClients)
            .Select(task => new Wait(
                WaitKind.DoTask,
                Latest(shown, project.History.Last<Happening.TaskMade>(made => made.Task == task.Id)?.Happened),
                $"“{task.Title}” not done yet"
            ))
            .MinBy(wait => wait.Since);
    }

    private static bool IsShown(Case project) => Sight.IsOpen(project.History, PagePart.Tasks);

    /// <summary>“Sketch, round 2”.</summary>
    private static string Of(Review review) =>
        review.Phase is { Length: > 0 } phase
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{char.ToUpperInvariant(phase[0])}{phase[1..]}, round {review.Round}"
            )
            : string.Create(CultureInfo.InvariantCulture, $"Round {review.Round}");

    private static string UnsignedWords(History history, Happening.ContractSent contract) =>
        (contract.Amends is null ? "Contract" : "Amendment")
        + (
            history.Any<Happening.ContractSignedInPart>(signed => signed.Contract == contract.Contract)
                ? " not signed by all yet"
                : " not signed yet"
        );

    private static string OpenedWords(History history, VersionId version) =>
        history.Of<Happening.ProposalOpened>().Count(opened => opened.What.Version == version) switch
        {
            0 => "Not opened yet",
            1 => "Opened, not chosen",
            2 => "Opened twice, not chosen",
            var times => string.Create(CultureInfo.InvariantCulture, $"Opened {times} times, not chosen"),
        };

    private static Instant Latest(Instant at, Instant? other) => other > at ? other.Value : at;
}
