using System.Collections.Immutable;
using Gesamt.Core.Letters;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Routines;

/// <summary>What a routine can name, so that what is missing is said before it begins.</summary>
public interface IRoutineParts
{
    /// <summary>Why a letter cannot be sent by a step: it is not there, or a blank in it is misspelt; null when it can.</summary>
    string? MistakeInLetter(string key);
    bool HasForm(string slug);
    bool HasMeetingKind(string name);
    bool HasTaskList(string key);
    bool HasKind(string key);
    bool HasHook(string name);
}

/// <summary>A mistake in a routine: the step it is in (null for the routine itself), its field, and what is allowed.</summary>
public sealed record RoutineMistake(int? Step, string Field, string Words)
{
    /// <summary>“steps[2].letter”.</summary>
    public string Path => Step is { } at ? $"steps[{at}].{Field}" : Field;
}

/// <summary>Whether a routine can run. One with a mistake stays off and says why.</summary>
public static class RoutineRule
{
    public const int MostSteps = 60,
        MostCount = 9999,
        LongestName = 80;

    public static ImmutableArray<RoutineMistake> MistakesIn(Routine routine, IRoutineParts parts)
    {
        List<RoutineMistake> mistakes = [];
        if (routine.Name.Trim().Length is 0 or > LongestName)
            mistakes.Add(new(null, "name", $"A name of 1 to {LongestName} characters is needed."));
        if (routine.Begins is Cause.RunBegun or Cause.PreviousStep)
            mistakes.Add(new(null, "begins", "A routine begins with something that happens to a project."));
        if (routine.Steps.Length is 0 or > MostSteps)
            mistakes.Add(new(null, "steps", $"A routine has 1 to {MostSteps} steps."));
        mistakes.AddRange(Variants(routine));
        for (var i = 0; i < routine.Steps.Length; i++)
            mistakes.AddRange(InStep(routine, i, parts));
        return [.. mistakes];
    }

    private static IEnumerable<RoutineMistake> Variants(Routine routine)
    {
        var variants = routine.Variants;
        if (
            variants.Any(variant =>
                variant.Name.Trim().Length is 0 or > 40
                || variant.Name.Contains(',', StringComparison.Ordinal)
                || variant.MonthsAhead is < 0 or > 60
            )
        )
            yield return new(
                null,
                "variants",
                "A variant has a name of 1 to 40 characters without commas, and 0 to 60 months."
            );
        if (
            variants.DistinctBy(variant => variant.Name).Count() != variants.Length
            || variants.DistinctBy(variant => variant.MonthsAhead).Count() != variants.Length
        )
            yield return new(null, "variants", "Each variant has a name and a lead time of its own.");
    }

    private static IEnumerable<RoutineMistake> InStep(Routine routine, int i, IRoutineParts parts)
    {
        var step = routine.Steps[i];
        if (step.Key.Length is 0 or > 40)
            yield return new(i, "key", "A key of 1 to 40 characters is needed.");
        if (routine.Steps.Take(i).Any(other => other.Key == step.Key))
            yield return new(i, "key", "Two steps have the same key.");
        if (step.When.Cause == Cause.PreviousStep && i == 0)
            yield return new(i, "cause", "There is no step before the first.");
        if (step.When.Offset.Count is > MostCount or < -MostCount)
            yield return new(i, "count", $"From 0 to {MostCount}.");
        if (
            step.When.Offset.Count < 0
            && step.When.Cause is not (Cause.NamedDate or Cause.InvoiceDue or Cause.ProposalRunsOut)
        )
            yield return new(
                i,
                "count",
                "Only a date that is known beforehand has a before: a named date, the day an invoice is due, or the last day of a proposal."
            );
        if (step.In.Any(name => routine.Variants.All(variant => variant.Name != name)))
            yield return new(i, "in", "There is no such variant.");
        if (
            step.If.Any(condition =>
                condition switch
                {
                    Condition.SourceIs source => source.Is.IsEmpty,
                    Condition.AnswerIs answer => answer.Is.IsEmpty || answer.Detail.Length == 0,
                    _ => true,
                }
            )
        )
            yield return new(i, "if", "A condition names at least one answer.");
        if (step.Action.LetterKey is { } letter && parts.MistakeInLetter(letter) is { } wrong)
            yield return new(i, "letter", wrong);
        if (step is { Action.LetterKey: Blanks.ProgressLetter, Mode: StepMode.ByItself })
            yield return new(i, "mode", "A letter of progress says what only you have seen so far: it asks first.");
        if (Missing(step.Action, parts) is { } missing)
            yield return new(i, "action", missing);
    }

    private static string? Missing(StepAction action, IRoutineParts parts) =>
        action switch
        {
            StepAction.Form form when !parts.HasForm(form.Slug) => $"There is no form “{form.Slug}”.",
            StepAction.MeetingChoice choice when !parts.HasMeetingKind(choice.Kind) =>
                $"There is no kind of meeting “{choice.Kind}”.",
            StepAction.Tasks tasks when !parts.HasTaskList(tasks.Key) => $"There is no task list “{tasks.Key}”.",
            StepAction.FollowOn follow when !parts.HasKind(follow.Kind) => $"There is no kind of work “{follow.Kind}”.",
            StepAction.Hook hook when !parts.HasHook(hook.Name) => $"There is no web hook “{hook.Name}”.",
            StepAction.Label { Name.Length: 0 or > 40 } => "A label of 1 to 40 characters is needed.",
            StepAction.TellMe { Words.Length: 0 or > 200 } => "Say something of 1 to 200 characters.",
            _ => null,
        };
}
