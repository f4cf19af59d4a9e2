using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What the ticker does with a due step.</summary>
public enum DueAct
{
    Act,
    Hold,
    Skip,
}

/// <summary>A step whose time has come and what becomes of it.</summary>
public sealed record DueStep(PlannedStep Step, DueAct Act);

/// <summary>Decides what becomes of due steps, also after the house stood still for a while.</summary>
public static class DueSteps
{
    private static readonly Duration Patience = Duration.FromDays(1);

    /// <summary>Due steps in the order of their time. What is not true, or not any more, is skipped. Over a day late asks first what would leave the house; of several late letters of one run only the newest is held, the others skipped.</summary>
    public static ImmutableArray<DueStep> Of(Case project, Instant now)
    {
        var due = Plan.Of(project)
            .Where(step => step.State == StepState.Planned && step.Due <= now)
            .OrderBy(step => step.Due)
            .ToList();
        var newestLate = due.Where(step =>
                IsLate(step, now) && step.Step.Action is StepAction.Letter && IsTrue(step, now)
            )
            .GroupBy(step => step.Ref.Run)
            .Select(run => run.Last().Ref)
            .ToHashSet();
        return [.. due.Select(step => new DueStep(step, ActOf(step, now, newestLate.Contains(step.Ref))))];
    }

    /// <summary>What must be written down because of facts just recorded, or because its date has come: pending steps whose stop rule now holds.</summary>
    public static IEnumerable<PlannedStep> Stopped(Case project, Instant now) =>
        Plan.Of(project)
            .Select(step =>
                step is { State: StepState.Held, Until: { } until } && until <= now
                    ? step with
                    {
                        State = StepState.Stopped,
                        Since = null,
                        Why = StopRule.Past,
                    }
                    : step
            )
            .Where(step => step.State == StepState.Stopped && step.Since is null);

    /// <summary>Whether a letter of a step may still leave the house: its step is neither stopped nor skipped, and what it says is true.</summary>
    public static bool MayLeave(PlannedStep step, Instant now) =>
        step.State is StepState.Held || step.State == StepState.Planned && IsTrue(step, now);

    private static bool IsTrue(PlannedStep step, Instant now) =>
        step.IsTrue && (step.Until is not { } until || now < until);

    private static bool IsLate(PlannedStep step, Instant now) =>
        step.Step.Action.LeavesTheHouse && now - step.Due > Patience;

    private static DueAct ActOf(PlannedStep step, Instant now, bool newest) =>
        !IsTrue(step, now) ? DueAct.Skip
        // only letters take each other's place: a form, an invoice, a choice of times is asked about
        : IsLate(step, now)
            ? newest || step.Step.Action is not StepAction.Letter ? DueAct.Hold
                : DueAct.Skip
        : step.Step.Mode == StepMode.AsksFirst
        || step.Step.Action.AlwaysAsks
        || step.SaidToBeDone
        || step.Step.LateStart == LateStart.Ask && step.LateStart
            ? DueAct.Hold
        : DueAct.Act;
}
