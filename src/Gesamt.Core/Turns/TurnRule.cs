using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>Whose turn it is, since when and for what. The first rule that matches decides.</summary>
public static class TurnRule
{
    /// <summary>A rest without a date asks again after this many days.</summary>
    private const int RestAsksAfter = 14;

    public static Standing Of(Case project, Instant now)
    {
        var gates = GateRule.Read(project);
        var plan = Plan.Of(project);
        var held = plan.Where(step => step.State == StepState.Held).ToList();
        var late = Owed.Open(project.History)
            .Where(open => project.Calendar.DateOf(now) > open.Invoice.What.Due)
            .Select(open => (LocalDate?)open.Invoice.What.Due)
            .FirstOrDefault();
        var (side, wait, until) = Turn(project, gates, plan, held, now);
        return new(
            GateRule.StageOf(gates),
            side,
            wait.Kind,
            wait.Words,
            side == Side.Nobodys ? null : wait.Since,
            side == Side.Clients ? Reminders.Sent(project).Count(at => at >= wait.Since) : 0,
            until,
            Booking.WonAt(project),
            project.End?.What.Reason,
            late,
            held.Count,
            held.Min(step => step.Since),
            NextChange(project, plan, now)
        );
    }

    /// <summary>Resting: a rest began and was not ended, by hand or by its date; without a date it asks again after 14 days.</summary>
    public static Instant? RestUntil(Case project) =>
        project.History.Last<Happening.RestBegan>() is { } rest
        && !project.History.Facts.Any(fact =>
            History.IsAfter(fact, rest.Fact) && fact.What is Happening.RestEnded or Happening.TakenUp
        )
            ? rest.What.Until is { } until
                ? project.Calendar.StartOf(until)
                : project.Calendar.Add(rest.Happened, Span.Days(RestAsksAfter))
            : null;

    /// <summary>Whether a rest was begun and not ended by hand; its date alone ends no stop rule.</summary>
    public static bool IsResting(Case project) => RestUntil(project) is not null;

    private static (Side, Wait, Instant? Until) Turn(
        Case project,
        ImmutableArray<GateReading> gates,
        ImmutableArray<PlannedStep> plan,
        List<PlannedStep> held,
        Instant now
    )
    {
        var unanswered = Unanswered.Of(project).ToList();
        var stage = GateRule.StageOf(gates);
        if (project.End is { } end)
            return Since(unanswered, end.Recorded)
                ?? (
                    Waits.DueTasks(project, now, madeSince: end.Recorded).ToList() is { Count: > 0 } toClose
                        ? (Side.Yours, Oldest(toClose), null)
                        : (Side.Nobodys, new(WaitKind.Ended, end.Happened, "Ended"), null)
                );
        if (RestUntil(project) is { } until && project.History.Last<Happening.RestBegan>() is { } rest)
        {
            if (now < until)
                return Since(unanswered, rest.Recorded)
                    ?? (Side.Nobodys, new(WaitKind.Resting, until, "Resting"), until);
            // everything that waits keeps its own age through a rest
            if (rest.What.Until is null)
                return (
                    Side.Yours,
                    new(
                        WaitKind.AskAgain,
                        Oldest([
                            new(WaitKind.AskAgain, until, ""),
                            .. unanswered,
                            .. Waits.Yours(project, gates, now),
                        ]).Since,
                        "Rested for a while: say what is next"
                    ),
                    null
                );
        }
        if (stage == Stage.Finished)
        {
            var finished = gates.Max(gate => gate.ClosedAt) ?? now;
            if (Since(unanswered, finished) is { } asked)
                return asked;
            if (Waits.DueTasks(project, now).ToList() is { Count: > 0 } due)
                return (Side.Yours, Oldest(due), null);
            return (Side.Nobodys, new(WaitKind.Finished, finished, "Finished"), null);
        }

        List<Wait> yours = [.. unanswered, .. Waits.Yours(project, gates, now)];
        if (yours.Count > 0)
        {
            // what the client said is named first; the age is that of the oldest thing that waits
            var first = unanswered.Count > 0 ? Oldest(unanswered) : Oldest(yours);
            return (Side.Yours, first with { Since = Oldest(yours).Since }, null);
        }
        var clients = Waits.Clients(project, now).ToList();
        if (clients.Count > 0)
            return (Side.Clients, Oldest(clients), null);
        if (held.Count > 0)
            return (
                Side.Yours,
                new(
                    WaitKind.LetterHeld,
                    held.Min(step => step.Since) ?? now,
                    held.Any(step => step.Letter is not null) ? "A letter waits for your OK" : "Its routine asks you"
                ),
                null
            );
        if (NextPlanned(project, plan, now) is { } next)
            return (Side.Nobodys, new(WaitKind.Planned, next, "Nothing to do before its next date"), next);
        // what was approved and is not paid was never invoiced, else it would be with the client
        var words = project.History.Any<Happening.Approved>() ? "Ask for the rest of the price" : "Say what is next";
        return (
            Side.Yours,
            new(WaitKind.SayWhatIsNext, project.History.Facts.LastOrDefault()?.Happened ?? now, words),
            null
        );
    }

    /// <summary>What the client did since an end, a rest or the finish is the owner's at once; what came before was settled by it.</summary>
    private static (Side, Wait, Instant?)? Since(List<Wait> unanswered, Instant quiet) =>
        unanswered.Where(wait => wait.Since >= quiet).ToList() is { Count: > 0 } since
            ? (Side.Yours, Oldest(since), null)
            : null;

    private static Wait Oldest(List<Wait> waits) => waits.MinBy(wait => wait.Since)!;

    private static Instant? NextPlanned(Case project, ImmutableArray<PlannedStep> plan, Instant now) =>
        plan.Where(step => step.State == StepState.Planned)
            .Select(step => step.Due)
            .Concat(
                project
                    .OpenTasks.Where(task => task.Due is not null)
                    .Select(task => (Instant?)project.Calendar.StartOf(task.Due!.Value))
            )
            .Append(project.MainDate is { } date ? project.Calendar.StartOf(date.Date) : null)
            .Append(Billing.NextAt(project))
            .Concat(
                MeetingState
                    .Of(project.History)
                    .Where(meeting => meeting.IsStanding)
                    .Select(meeting => (Instant?)meeting.Start)
            )
            .Where(at => at > now)
            .Min();

    /// <summary>The next instant at which the standing changes with nothing happening: a date comes, a rest ends, a proposal runs out, an invoice is late.</summary>
    private static Instant? NextChange(Case project, ImmutableArray<PlannedStep> plan, Instant now)
    {
        var history = project.History;
        List<Instant?> changes =
        [
            NextPlanned(project, plan, now),
            RestUntil(project),
            .. MeetingState.Of(history).Where(meeting => meeting.IsStanding).Select(meeting => (Instant?)meeting.End),
            .. plan.Where(step => step.State == StepState.Held).Select(step => step.Until),
            ProposalState.Open(history) is { } open ? ProposalState.RunsOutAt(project, open.What) : null,
            .. Owed.Open(history)
                .Select(invoice => (Instant?)project.Calendar.StartOf(invoice.Invoice.What.Due.PlusDays(1))),
        ];
        return changes.Where(at => at > now).Min();
    }
}
