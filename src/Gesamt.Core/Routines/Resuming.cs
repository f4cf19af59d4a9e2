using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What becomes of stopped steps when the cause of their stopping is undone, such as a payment recorded by mistake, or a day that was put off: those still ahead go on, those missed meanwhile are named and stay stopped.</summary>
/// <param name="Ahead">They are planned again, and nothing stops them in the same moment.</param>
/// <param name="Missed">Their time has passed, and what they say is still true; nothing lets them out at once.</param>
/// <param name="Skipped">Their time has passed, whether what they say is still true or not; skipped, so that what hangs on them has a time again. None where nobody asked for them to go on.</param>
public sealed record Resuming(
    ImmutableArray<PlannedStep> Ahead,
    ImmutableArray<PlannedStep> Missed,
    ImmutableArray<PlannedStep> Skipped
)
{
    /// <summary>What a payment, an end, the finish or a date that has passed had stopped; what the owner stopped by hand is not resumed by anything that happens.</summary>
    public static Resuming Of(Case project, Instant now) =>
        Of(
            project,
            now,
            step =>
                step.Why is StopRule.Paid or StopRule.Ended or StopRule.PutAway or StopRule.Past or StopRule.Finished,
            passedIsSkipped: false
        );

    /// <summary>What was stopped by hand and goes on because the owner says so.</summary>
    public static Resuming OfStoppedByHand(Case project, Instant now) =>
        Of(project, now, step => step.Why == StopRule.ByHand, passedIsSkipped: true);

    private static Resuming Of(Case project, Instant now, Func<PlannedStep, bool> which, bool passedIsSkipped)
    {
        var undone = Plan.Of(project)
            .Where(step =>
                step is { State: StepState.Stopped, Since: not null } && which(step) && !StillStopped(project, step)
            )
            .ToList();
        ImmutableArray<PlannedStep> passed = [.. undone.Where(step => step.Due <= now)],
            skipped = passedIsSkipped ? passed : [];
        return new(
            GoingOn(
                project,
                now,
                [.. undone.Where(step => !(step.Due <= now))],
                [.. skipped.Select(step => new Happening.StepSkipped(step.Ref))]
            ),
            [.. passed.Where(step => step.IsTrue && !(step.Until <= now))],
            skipped
        );
    }

    /// <summary>What would be stopped again at once does not go on, such as a step that hangs on one that stays stopped.</summary>
    private static ImmutableArray<PlannedStep> GoingOn(
        Case project,
        Instant now,
        ImmutableArray<PlannedStep> ahead,
        ImmutableArray<Happening> first
    )
    {
        while (!ahead.IsEmpty)
        {
            var facts = first
                .Concat(ahead.Select(step => new Happening.StepReplanned(step.Ref)))
                .Select(
                    (what, at) =>
                        new Fact(new(project.History.LastFact.Value + 1 + at), project.Id, now, now, Actor.Gesamt, what)
                );
            var after = project with { History = new([.. project.History.Facts, .. facts]) };
            var again = DueSteps.Stopped(after, now).Select(step => step.Ref).ToHashSet();
            if (ahead.RemoveAll(step => again.Contains(step.Ref)) is var goOn && goOn.Length == ahead.Length)
                break;
            ahead = goOn;
        }
        return ahead;
    }

    private static bool StillStopped(Case project, PlannedStep step)
    {
        var causes = Causes.Of(project, step.Step.When.Cause, step.Step.When.DateName);
        return project.End is not null && !StopRules.FollowsEnd(project, step.Ref.Run)
            || step.Ref.Occurrence < causes.Count
                && StopRules.Holds(project, step.Step, causes[step.Ref.Occurrence]) is not null;
    }
}
