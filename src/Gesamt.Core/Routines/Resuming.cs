using System.Collections.Immutable;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What becomes of stopped steps when the cause of their stopping is undone, such as a payment recorded by mistake: those still ahead go on, those missed meanwhile are named and stay stopped.</summary>
/// <param name="Ahead">They are planned again.</param>
/// <param name="Missed">Their time has passed; nothing lets them out at once.</param>
public sealed record Resuming(ImmutableArray<PlannedStep> Ahead, ImmutableArray<PlannedStep> Missed)
{
    public static Resuming Of(Case project, Instant now)
    {
        var undone = Plan.Of(project).Where(step => step is { State: StepState.Stopped, Since: not null } && StillStopped(project, step) is false).ToList();
        return new([.. undone.Where(step => step.Due is null || step.Due > now)], [.. undone.Where(step => step.Due <= now)]);
    }

    private static bool StillStopped(Case project, PlannedStep step)
    {
        var causes = Causes.Of(project, step.Step.When.Cause, step.Step.When.DateName);
        return project.End is not null
            || step.Ref.Occurrence < causes.Count && StopRules.Holds(project, step.Step, causes[step.Ref.Occurrence]) is not null;
    }
}
