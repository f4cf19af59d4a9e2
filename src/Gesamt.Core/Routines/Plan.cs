using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>How a step stands. Parked: its date or cause is unknown. Held: it waits for the owner's OK.</summary>
public enum StepState
{
    Planned,
    Parked,
    Held,
    Done,
    Skipped,
    Stopped,
}

/// <summary>How a run stands: in it while something is still to come, taken out when the rest was stopped.</summary>
public enum RunState
{
    InIt,
    TakenOut,
    Finished,
}

/// <summary>One step of a run with its state and time.</summary>
/// <param name="Due">When it acts, in sending hours; null while parked.</param>
/// <param name="Since">When it came into its state, for all but planned and parked.</param>
/// <param name="Why">Why it was stopped.</param>
/// <param name="LateStart">Its time had passed before it could have acted.</param>
/// <param name="WaitsFor">What a favour waits for before it can be asked.</param>
public sealed record PlannedStep(
    StepRef Ref,
    Step Step,
    StepState State,
    Instant? Due,
    Instant? Since = null,
    StopRule? Why = null,
    LetterId? Letter = null,
    bool LateStart = false,
    bool FixedByHand = false,
    string? WaitsFor = null
)
{
    public bool IsPending => State is StepState.Planned or StepState.Held or StepState.Parked;

    /// <summary>What it takes for granted that the client owes, and whether they do.</summary>
    public Owing About { get; init; }
    public bool IsTrue { get; init; } = true;

    /// <summary>The client says that what it reminds of is done, and it has not been seen yet: it asks first.</summary>
    public bool SaidToBeDone { get; init; }

    /// <summary>Until when what it says is true; null for ever.</summary>
    public Instant? Until { get; init; }

    /// <summary>What it was begun by, where that is known.</summary>
    public CauseAt? Cause { get; init; }

    /// <summary>Both remind the client of the same thing, so that the later one takes the earlier one's place. A word to the owner takes nobody's.</summary>
    public bool SameThing(PlannedStep other) =>
        Step.Action is not StepAction.TellMe
        && other.Step.Action is not StepAction.TellMe
        && About != Owing.Nothing
        && About == other.About
        && Ref.Run == other.Ref.Run
        && Cause?.Fact is { } fact
        && fact == other.Cause?.Fact;
}

/// <summary>What every run of a project has done and will do: a pure function of runs, facts and settings.</summary>
public static class Plan
{
    private static readonly Once<ImmutableArray<PlannedStep>> Known = new(project =>
        [.. project.Runs.SelectMany(run => OfRun(project, run))]
    );

    public static ImmutableArray<PlannedStep> Of(Case project) => Known.Of(project);

    /// <summary>How a run stands by the steps of a project's plan; null while it has not begun.</summary>
    public static RunState? StateOf(Case project, RunId run, IEnumerable<PlannedStep> plan)
    {
        if (!project.History.Any<Happening.RunBegan>(began => began.Run == run))
            return null;
        var steps = plan.Where(step => step.Ref.Run == run).ToList();
        return steps.Any(step => step.IsPending) ? RunState.InIt
            : steps.Any(step => step.State == StepState.Stopped) ? RunState.TakenOut
            : RunState.Finished;
    }

    /// <summary>When a run began, and when its last step acted or was stopped; no second while something is still to come. Null while it has not begun.</summary>
    public static (Instant Began, Instant? Over)? SpanOf(Case project, RunId run, IEnumerable<PlannedStep> plan)
    {
        if (project.History.Last<Happening.RunBegan>(began => began.Run == run)?.Happened is not { } began)
            return null;
        var steps = plan.Where(step => step.Ref.Run == run).ToList();
        if (steps.Any(step => step.IsPending))
            return (began, null);
        // one that never had a time of its own was stopped by what stops them all
        var all = steps.Any(step => step.State == StepState.Stopped && step.Since is null)
            ? project.End?.Recorded ?? project.History.Last<Happening.PutAway>()?.Recorded
            : null;
        return (began, steps.Select(step => step.Since).Append(all).Append(began).Max());
    }

    /// <summary>Since when what a step is about has waited: since its cause, and for one that ends what went quiet, since the last letter. Null while neither is known.</summary>
    public static Instant? WaitsSince(Case project, PlannedStep step) =>
        step.Step.Action is StepAction.EndAsQuiet
            ? project.History.Last<Happening.LetterSent>()?.Happened
                ?? project.History.Last<Happening.InquiryCame>()?.Happened
            : Causes
                .Of(project, step.Step.When.Cause, step.Step.When.DateName)
                .ElementAtOrDefault(step.Ref.Occurrence)
                ?.At;

    public static ImmutableArray<PlannedStep> OfRun(Case project, Run run)
    {
        if (project.History.Last<Happening.RunBegan>(began => began.Run == run.Id) is not { } began)
            return [];
        var (marks, fixedAt) = (Marks(project.History, run.Id), FixedAt(project.History, run.Id));
        var steps = ImmutableArray.CreateBuilder<PlannedStep>();
        IReadOnlyList<PlannedStep> previous = [];
        foreach (var step in run.Routine.Steps)
        {
            // what has acted stays told, whatever the answers say now
            if (!Conditions.Hold(step, project.Traits) && marks.Keys.All(mark => mark.Step != step.Key))
                continue;
            var causes = CausesOf(project, step, began, previous);
            // what was taken back leaves what hung on it behind: told as it was, and held no longer
            foreach (
                var (reference, mark) in marks
                    .Where(pair => pair.Key.Step == step.Key && pair.Key.Occurrence > Math.Max(0, causes.Count - 1))
                    .OrderBy(pair => pair.Key.Occurrence)
            )
                steps.Add(Orphaned(reference, step, mark));
            List<PlannedStep> here = [];
            for (var k = 0; k < Math.Max(1, causes.Count); k++)
            {
                var reference = new StepRef(run.Id, step.Key, k);
                var byHand = fixedAt.TryGetValue(reference, out var at) ? at : (LocalDateTime?)null;
                here.Add(
                    causes.ElementAtOrDefault(k) is { } cause
                        ? Caused(
                            project,
                            run.Routine,
                            step,
                            reference,
                            cause,
                            byHand,
                            marks.GetValueOrDefault(reference),
                            began.Recorded
                        )
                        : Uncaused(
                            project,
                            step,
                            reference,
                            marks.GetValueOrDefault(reference),
                            previous.ElementAtOrDefault(k)
                        )
                );
            }
            steps.AddRange(here);
            previous = here;
        }
        return OneADay.Of(project, Successors(steps.ToImmutable()));
    }

    /// <summary>When the causes of a step came true, each at its own place; null where one is still to come.</summary>
    private static IReadOnlyList<CauseAt?> CausesOf(
        Case project,
        Step step,
        Seen<Happening.RunBegan> began,
        IReadOnlyList<PlannedStep> previous
    )
    {
        var begun = new CauseAt(began.Recorded, began.Recorded, began.Recorded, began.Fact);
        return step.When.Cause switch
        {
            Cause.RunBegun => [begun],
            Cause.PreviousStep => [.. previous.Select(before => After(before, begun))],
            _ => (IReadOnlyList<CauseAt?>)Causes.Of(project, step.When.Cause, step.When.DateName),
        };
    }

    /// <summary>Every time of the step before has its own: a skipped one counts as done when skipped, a held one makes those that hang on it wait. What the first hung on still decides what stops them.</summary>
    private static CauseAt? After(PlannedStep before, CauseAt begun) =>
        before is { State: StepState.Done or StepState.Skipped, Since: { } since }
            ? (before.Cause ?? begun) with
            {
                At = since,
                Known = since,
            }
            : null;

    private static PlannedStep Caused(
        Case project,
        Routine routine,
        Step step,
        StepRef reference,
        CauseAt cause,
        LocalDateTime? byHand,
        Fact? mark,
        Instant began
    )
    {
        var about = Reminders.About(routine, step);
        var due = byHand is { } at ? project.Calendar.At(at) : DueAt(project, step, cause, began);
        var planned = StateOf(project, step, reference, cause, due, mark, began) with
        {
            FixedByHand = byHand is not null,
            Cause = cause,
            About = about,
            IsTrue = Nudges.Holds(project, about, cause),
            SaidToBeDone = Nudges.SaidToBeDone(project, about, cause),
            Until = Nudges.Until(project, about, step, cause),
        };
        // what waits for an OK and is not true any more waits no longer
        return planned is { State: StepState.Held, IsTrue: false }
            ? planned with
            {
                State = StepState.Stopped,
                Since = null,
                Why = StopRule.NotTheirs,
            }
            : planned;
    }

    /// <summary>A step whose cause is not known, or not there any more.</summary>
    private static PlannedStep Uncaused(Case project, Step step, StepRef reference, Fact? mark, PlannedStep? before) =>
        mark is not null ? Orphaned(reference, step, mark)
        : step.When.Cause == Cause.PreviousStep && before is { State: StepState.Stopped }
            ? new(reference, step, StepState.Stopped, null, null, before.Why)
        : project.End is not null && !StopRules.FollowsEnd(project, reference.Run)
            ? new(reference, step, StepState.Stopped, null, project.End.Value.Recorded, StopRule.Ended)
        : project.IsPutAway ? new(reference, step, StepState.Stopped, null, null, StopRule.PutAway)
        : new(reference, step, StepState.Parked, null);

    /// <summary>A reminder that waits for an OK gives way to its successor that waits or went out.</summary>
    private static ImmutableArray<PlannedStep> Successors(ImmutableArray<PlannedStep> steps) =>
        [
            .. steps.Select(
                (step, at) =>
                    step is { State: StepState.Held, Letter: not null }
                    && steps[(at + 1)..]
                        .Any(later => later.State is StepState.Held or StepState.Done && step.SameThing(later))
                        ? step with
                        {
                            State = StepState.Stopped,
                            Since = null,
                            Why = StopRule.Replaced,
                        }
                        : step
            ),
        ];

    private static Instant DueAt(Case project, Step step, CauseAt cause, Instant began)
    {
        var (calendar, when) = (project.Calendar, step.When);
        var due = calendar.Add(cause.At, when.Offset, when.At);
        // what is to follow at once follows when it became known, also where it had happened earlier
        if (
            when is { Offset.Count: 0, At: null }
            && Causes.IsFact(when.Cause)
            && began <= cause.Known
            && due < cause.Known
        )
            due = cause.Known;
        return step.Action.LeavesTheHouse && !when.AnyHour && !step.Confirms
            ? calendar.WithinSendingHours(due, earlier: when.Offset.Count < 0)
            : due;
    }

    private static PlannedStep StateOf(
        Case project,
        Step step,
        StepRef reference,
        CauseAt cause,
        Instant due,
        Fact? mark,
        Instant began
    )
    {
        // what was stopped for want of its cause is free again when the cause is there again
        if (mark?.What is Happening.StepStopped { Why: StopRule.CauseGone })
            mark = null;
        if (mark is not null && mark.What is not Happening.StepHeld)
            return Marked(reference, step, mark, due);
        if (StopRules.Holds(project, step, cause) is { } why)
            return new(reference, step, StepState.Stopped, due, null, why, (mark?.What as Happening.StepHeld)?.Letter);
        if (mark is not null)
            return Marked(reference, step, mark, due);
        if (step.Favour && Favours.WaitFor(project) is { } waits)
            return new(reference, step, StepState.Parked, null, WaitsFor: waits);
        var settled = step.Favour ? Favours.SettledAt(project) : Instant.MinValue;
        if (settled > due)
            due = project.Calendar.WithinSendingHours(settled, earlier: false);
        var possible = began > cause.Known ? began : cause.Known;
        if (due >= possible)
            return new(reference, step, StepState.Planned, due);
        return step.LateStart == LateStart.Skip
            ? new(reference, step, StepState.Skipped, due, possible)
            : new(reference, step, StepState.Planned, possible, LateStart: true);
    }

    /// <summary>A step whose cause is gone: what waited for an OK is stopped with that reason, what was done stays done.</summary>
    private static PlannedStep Orphaned(StepRef reference, Step step, Fact mark) =>
        mark.What is Happening.StepHeld held
            ? new(reference, step, StepState.Stopped, null, null, StopRule.CauseGone, held.Letter)
            : Marked(reference, step, mark, null);

    private static PlannedStep Marked(StepRef reference, Step step, Fact mark, Instant? due) =>
        mark.What switch
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
            if (fact.What is Happening.StepReplanned replanned)
                marks.Remove(replanned.Step);
            else if (RefOf(fact.What) is { } reference && reference.Run == run)
                marks[reference] = fact;
        return marks;
    }

    private static Dictionary<StepRef, LocalDateTime> FixedAt(History history, RunId run)
    {
        var dates = new Dictionary<StepRef, LocalDateTime>();
        foreach (var fact in history.Facts)
            if (fact.What is Happening.StepFixed set && set.Step.Run == run)
                dates[set.Step] = set.At;
            else if (fact.What is Happening.StepReplanned replanned)
                dates.Remove(replanned.Step);
        return dates;
    }

    private static StepRef? RefOf(Happening what) =>
        what switch
        {
            Happening.StepHeld held => held.Step,
            Happening.StepDone done => done.Step,
            Happening.StepSkipped skipped => skipped.Step,
            Happening.StepStopped stopped => stopped.Step,
            _ => null,
        };
}
