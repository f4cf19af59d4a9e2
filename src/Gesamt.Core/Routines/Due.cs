using System.Collections.Immutable;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What the ticker does with a due step.</summary>
public enum DueAct { Act, Hold, Skip }

/// <summary>A step whose time has come and what becomes of it.</summary>
public sealed record DueStep(PlannedStep Step, DueAct Act);

/// <summary>Decides what becomes of due steps, also after the house stood still for a while.</summary>
public static class DueRule
{
    private static readonly Duration Patience = Duration.FromDays(1);

    /// <summary>Due steps in the order of their time. Over a day late asks first what would leave the house; of several late letters of one run only the newest is held, the others skipped.</summary>
    public static ImmutableArray<DueStep> Of(Case project, Instant now)
    {
        var due = Plan.Of(project).Where(step => step.State == StepState.Planned && step.Due <= now).OrderBy(step => step.Due).ToList();
        bool IsLate(PlannedStep step) => step.Step.Action.LeavesTheHouse && now - step.Due > Patience;
        var newestLate = due.Where(IsLate).GroupBy(step => step.Ref.Run).Select(run => run.Last().Ref).ToHashSet();
        return [.. due.Select(step => new DueStep(step, ActOf(step, IsLate(step), newestLate.Contains(step.Ref))))];
    }

    /// <summary>What must be written down because of facts just recorded: pending steps whose stop rule now holds.</summary>
    public static IEnumerable<PlannedStep> Stopped(Case project) =>
        Plan.Of(project).Where(step => step.State == StepState.Stopped && step.Since is null);

    private static DueAct ActOf(PlannedStep step, bool late, bool newest) =>
        late ? newest ? DueAct.Hold : DueAct.Skip
        : step.Step.Mode == StepMode.AsksFirst || step.Step.Action.AlwaysAsks || step.Step.LateStart == LateStart.Ask && step.LateStart ? DueAct.Hold
        : DueAct.Act;
}
