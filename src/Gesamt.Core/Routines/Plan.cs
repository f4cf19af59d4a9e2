using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>How a step stands. Parked: its date or cause is unknown. Held: it waits for the owner's OK.</summary>
public enum StepState { Planned, Parked, Held, Done, Skipped, Stopped }

/// <summary>One step of a run with its state and time.</summary>
/// <param name="Due">When it acts, in sending hours; null while parked.</param>
/// <param name="Since">When it came into its state, for all but planned and parked.</param>
/// <param name="Why">Why it was stopped.</param>
/// <param name="LateStart">Its time had passed before it could have acted.</param>
/// <param name="WaitsFor">What a favour waits for before it can be asked.</param>
public sealed record PlannedStep(StepRef Ref, Step Step, StepState State, Instant? Due, Instant? Since = null, StopRule? Why = null, LetterId? Letter = null, bool LateStart = false, bool FixedByHand = false, string? WaitsFor = null)
{
    public bool IsPending => State is StepState.Planned or StepState.Held or StepState.Parked;
}

/// <summary>What every run of a project has done and will do: a pure function of runs, facts and settings.</summary>
public static class Plan
{
    public static ImmutableArray<PlannedStep> Of(Case project) => [.. project.Runs.SelectMany(run => OfRun(project, run))];

    public static ImmutableArray<PlannedStep> OfRun(Case project, Run run)
    {
        if (project.History.Last<Happening.RunBegan>(began => began.Run == run.Id) is not { } began) return [];
        var (marks, fixedAt) = (Marks(project.History, run.Id), FixedAt(project.History, run.Id));
        var steps = ImmutableArray.CreateBuilder<PlannedStep>();
        PlannedStep? previous = null;
        foreach (var step in run.Routine.Steps)
        {
            // what has acted stays told, whatever the answers say now
            if (!Conditions.Hold(step, project.Traits) && marks.Keys.All(mark => mark.Step != step.Key)) continue;
            var causes = CausesOf(project, step, began, previous);
            // what was taken back leaves what hung on it behind: told as it was, and held no longer
            foreach (var (reference, mark) in marks.Where(pair => pair.Key.Step == step.Key && pair.Key.Occurrence > Math.Max(0, causes.Count - 1)).OrderBy(pair => pair.Key.Occurrence))
                steps.Add(Orphaned(reference, step, mark));
            if (causes.Count == 0)
            {
                var parked = new StepRef(run.Id, step.Key, 0);
                steps.Add(marks.TryGetValue(parked, out var mark) ? Orphaned(parked, step, mark)
                    : step.When.Cause == Cause.PreviousStep && previous is { State: StepState.Stopped } before ? new(parked, step, StepState.Stopped, null, null, before.Why)
                    : project.End is not null ? new(parked, step, StepState.Stopped, null, project.End.Value.Recorded, StopRule.Ended)
                    : new(parked, step, StepState.Parked, null));
            }
            for (var k = 0; k < causes.Count; k++)
            {
                var reference = new StepRef(run.Id, step.Key, k);
                var byHand = fixedAt.TryGetValue(reference, out var at);
                var due = byHand ? project.Calendar.At(at) : DueAt(project, step, causes[k]);
                steps.Add(StateOf(project, step, reference, causes[k], due, marks.GetValueOrDefault(reference), began.Recorded) with { FixedByHand = byHand });
            }
            previous = steps[^1];
        }
        return steps.ToImmutable();
    }

    private static IReadOnlyList<CauseAt> CausesOf(Case project, Step step, Seen<Happening.RunBegan> began, PlannedStep? previous) => step.When.Cause switch
    {
        Cause.RunBegun => [new(began.Recorded, began.Recorded, began.Recorded, began.Fact)],
        // a skipped step counts as done when skipped; a held one makes those that hang on it wait
        Cause.PreviousStep => previous is { State: StepState.Done or StepState.Skipped, Since: { } since } ? [new(since, began.Recorded, since, began.Fact)] : [],
        var cause => Causes.Of(project, cause, step.When.DateName),
    };

    private static Instant DueAt(Case project, Step step, CauseAt cause)
    {
        var (calendar, when) = (project.Calendar, step.When);
        var due = calendar.Add(cause.At, when.Offset, when.At);
        return step.Action.LeavesTheHouse && !when.AnyHour ? calendar.WithinSendingHours(due, earlier: when.Offset.Count < 0) : due;
    }

    private static PlannedStep StateOf(Case project, Step step, StepRef reference, CauseAt cause, Instant due, Fact? mark, Instant began)
    {
        // what was stopped for want of its cause is free again when the cause is there again
        if (mark?.What is Happening.StepStopped { Why: StopRule.CauseGone }) mark = null;
        if (mark is not null && mark.What is not Happening.StepHeld) return Marked(reference, step, mark, due);
        if (StopRules.Holds(project, step, cause) is { } why)
            return new(reference, step, StepState.Stopped, due, null, why, (mark?.What as Happening.StepHeld)?.Letter);
        if (mark is not null) return Marked(reference, step, mark, due);
        if (step.Favour && Favours.WaitFor(project) is { } waits) return new(reference, step, StepState.Parked, null, WaitsFor: waits);
        var settled = step.Favour ? Favours.SettledAt(project) : Instant.MinValue;
        if (settled > due) due = project.Calendar.WithinSendingHours(settled, earlier: false);
        var possible = began > cause.Known ? began : cause.Known;
        if (due >= possible) return new(reference, step, StepState.Planned, due);
        return step.LateStart == LateStart.Skip
            ? new(reference, step, StepState.Skipped, due, possible)
            : new(reference, step, StepState.Planned, possible, LateStart: true);
    }

    /// <summary>A step whose cause is gone: what waited for an OK is stopped with that reason, what was done stays done.</summary>
    private static PlannedStep Orphaned(StepRef reference, Step step, Fact mark) =>
        mark.What is Happening.StepHeld held ? new(reference, step, StepState.Stopped, null, null, StopRule.CauseGone, held.Letter) : Marked(reference, step, mark, null);

    private static PlannedStep Marked(StepRef reference, Step step, Fact mark, Instant? due) => mark.What switch
    {
        Happening.StepDone done => new(reference, step, StepState.Done, due, mark.Recorded, null, done.Letter),
        Happening.StepHeld held => new(reference, step, StepState.Held, due, mark.Recorded, null, held.Letter),
        Happening.StepSkipped => new(reference, step, StepState.Skipped, due, mark.Recorded),
        Happening.StepStopped stopped => new(reference, step, StepState.Stopped, due, mark.Recorded, stopped.Why),
        _ => throw new ArgumentOutOfRangeException(nameof(mark), mark.What, "No mark of a step."),
    };

    private static Dictionary<StepRef, Fact> Marks(History history, RunId run)
    {
        var marks = new Dictionary<StepRef, Fact>();
        foreach (var fact in history.Facts)
            if (fact.What is Happening.StepReplanned replanned) marks.Remove(replanned.Step);
            else if (RefOf(fact.What) is { } reference && reference.Run == run) marks[reference] = fact;
        return marks;
    }

    private static Dictionary<StepRef, LocalDateTime> FixedAt(History history, RunId run)
    {
        var dates = new Dictionary<StepRef, LocalDateTime>();
        foreach (var fact in history.Facts)
            if (fact.What is Happening.StepFixed set && set.Step.Run == run) dates[set.Step] = set.At;
            else if (fact.What is Happening.StepReplanned replanned) dates.Remove(replanned.Step);
        return dates;
    }

    private static StepRef? RefOf(Happening what) => what switch
    {
        Happening.StepHeld held => held.Step,
        Happening.StepDone done => done.Step,
        Happening.StepSkipped skipped => skipped.Step,
        Happening.StepStopped stopped => stopped.Step,
        _ => null,
    };
}
