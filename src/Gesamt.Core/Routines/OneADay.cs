using System.Collections.Immutable;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>One routine sends one person at most one letter a day, however a weekend pushes them together. What confirms an act of the client's goes at once all the same.</summary>
/// <remarks>Of two reminders of one thing the later takes the earlier one's place; of two letters that say different things the later goes on the next day.</remarks>
internal static class OneADay
{
    public static ImmutableArray<PlannedStep> Of(Case project, ImmutableArray<PlannedStep> steps)
    {
        if (steps.Count(IsLetter) < 2)
            return steps;
        // what is still planned acts later than what was done, so a day on which one was done is over for the others
        var used = steps
            .Where(step => step is { State: StepState.Done or StepState.Held, Since: not null } && IsLetter(step))
            .Select(step => project.Calendar.DateOf(step.Since!.Value))
            .DefaultIfEmpty(LocalDate.MinIsoValue)
            .Max();
        HashSet<LocalDate> days = [];
        var result = steps.ToBuilder();
        foreach (
            var at in Enumerable
                .Range(0, steps.Length)
                .Where(i => steps[i].State == StepState.Planned && IsLetter(steps[i]))
                .OrderBy(i => steps[i].Due)
                .ThenBy(i => i)
        )
        {
            var step = steps[at];
            var day = project.Calendar.DateOf(step.Due!.Value);
            if (
                !step.FixedByHand
                && steps
                    .Where(
                        (other, i) =>
                            IsLetter(other)
                            && other.SameThing(step)
                            && (other.Due > step.Due || other.Due == step.Due && i > at)
                    )
                    .Any(newer => Silences(newer, step, day))
            )
                result[at] = step with { State = StepState.Skipped, Since = step.Due };
            else if (step.FixedByHand)
                days.Add(day);
            else
            {
                var due = step.Due.Value;
                for (
                    var free = day > used ? day : used.PlusDays(1);
                    day < free || !days.Add(day);
                    day = project.Calendar.DateOf(due)
                )
                {
                    due = project.Calendar.WithinSendingHours(
                        project.Calendar.At(
                            (day < free ? free : day.PlusDays(1)) + project.Calendar.LocalOf(step.Due.Value).TimeOfDay
                        ),
                        earlier: false
                    );
                }
                result[at] = step with { Due = due };
            }
        }
        return result.ToImmutable();

        // what it would have said is said by the newer one on that day, or the newer one's turn came when its own had come already
        bool Silences(PlannedStep newer, PlannedStep older, LocalDate day) =>
            newer.State switch
            {
                StepState.Planned => newer.IsTrue && project.Calendar.DateOf(newer.Due!.Value) == day,
                StepState.Done or StepState.Held or StepState.Skipped => newer.Since >= older.Due,
                _ => false,
            };
    }

    private static bool IsLetter(PlannedStep step) =>
        step.Step.Action.LetterKey is not null && !step.Step.Confirms && !step.Step.When.AnyHour;
}
