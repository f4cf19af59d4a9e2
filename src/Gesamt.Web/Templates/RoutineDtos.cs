using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using NodaTime;

namespace Gesamt.Web.Templates;

/// <summary>What a step does, as it is chosen.</summary>
public enum StepDoes
{
    Letter,
    Form,
    Times,
    Invoice,
    Tasks,
    OpenPart,
    LabelOn,
    LabelOff,
    FollowOn,
    EndAsQuiet,
    Hook,
    TellMe,
}

/// <param name="WithLetter">It sends a letter of the owner's making.</param>
/// <param name="AlwaysAsks">It waits for the owner, whatever its mode says.</param>
/// <param name="Leaves">It leaves the house, in the hours for that.</param>
public sealed record StepActDto(StepDoes Does, bool WithLetter, bool AlwaysAsks, bool Leaves);

/// <summary>An answer a step asks for.</summary>
public sealed record ConditionDto(string Detail, string[] Is);

/// <summary>A variant for projects so many months ahead.</summary>
public sealed record VariantDto(string Name, int MonthsAhead);

/// <param name="Count">How long before (negative) or after its cause.</param>
/// <param name="What">Which form, meeting, task list, part, label, kind or web hook; or the words it tells.</param>
/// <param name="Letter">The letter it sends, by its key.</param>
/// <param name="Sources">Only for projects that came from one of these; none is all.</param>
public sealed record StepDto(
    string Key,
    Cause Cause,
    int Count,
    SpanUnit Unit,
    LocalTime? At,
    string? DateName,
    bool AnyHour,
    StepDoes Does,
    string? What,
    string? Letter,
    StepMode Mode,
    StopRule[] Stops,
    LateStart LateStart,
    string[] Sources,
    ConditionDto[] Answers,
    string[] In,
    bool Favour
);

/// <summary>A routine as it is edited.</summary>
public sealed record RoutineDraftDto(string Name, Cause Begins, VariantDto[] Variants, StepDto[] Steps);

/// <summary>Between the editor's shape of a routine and Core's.</summary>
public static class RoutineShapes
{
    /// <summary>A routine as its page edits it.</summary>
    public static RoutineDraftDto Of(Routine routine) =>
        new(
            routine.Name,
            routine.Begins,
            [.. routine.Variants.Select(v => new VariantDto(v.Name, v.MonthsAhead))],
            [.. routine.Steps.Select(Of)]
        );

    /// <summary>The same back again.</summary>
    public static Routine ToCore(string key, RoutineDraftDto draft) =>
        new(
            key,
            draft.Name.Trim(),
            draft.Begins,
            [.. Keyed(draft.Steps).Select(ToCore)],
            [.. draft.Variants.Select(v => new Variant(v.Name.Trim(), v.MonthsAhead))]
        );

    /// <summary>A new step gets a key of its own; it stays when the step changes, since runs are known by it.</summary>
    private static IEnumerable<StepDto> Keyed(StepDto[] steps)
    {
        var taken = steps.Select(step => step.Key).ToHashSet();
        foreach (var step in steps)
        {
            if (step.Key.Trim().Length > 0)
            {
                yield return step;
                continue;
            }
            var stem = RoutineText.KeyOf(step.Letter ?? step.What ?? step.Does.ToString());
            stem = stem[..Math.Min(stem.Length, 34)];
            var key = Enumerable.Range(1, steps.Length + 1).Select(n => n == 1 ? stem : $"{stem}-{n}").First(taken.Add);
            yield return step with
            {
                Key = key,
            };
        }
    }

    private static StepDto Of(Step step)
    {
        var (does, what) = step.Action switch
        {
            StepAction.Letter => (StepDoes.Letter, (string?)null),
            StepAction.Form form => (StepDoes.Form, form.Slug),
            StepAction.MeetingChoice choice => (StepDoes.Times, choice.Kind),
            StepAction.Invoice => (StepDoes.Invoice, null),
            StepAction.Tasks tasks => (StepDoes.Tasks, tasks.Key),
            StepAction.OpenPart open => (StepDoes.OpenPart, open.Part.ToString()),
            StepAction.Label label => (label.On ? StepDoes.LabelOn : StepDoes.LabelOff, label.Name),
            StepAction.FollowOn follow => (StepDoes.FollowOn, follow.Kind),
            StepAction.EndAsQuiet => (StepDoes.EndAsQuiet, null),
            StepAction.Hook hook => (StepDoes.Hook, hook.Name),
            StepAction.TellMe tell => (StepDoes.TellMe, tell.Words),
            _ => throw new ArgumentOutOfRangeException(nameof(step), step.Action, "No such action."),
        };
        return new(
            step.Key,
            step.When.Cause,
            step.When.Offset.Count,
            step.When.Offset.Unit,
            step.When.At,
            step.When.DateName,
            step.When.AnyHour,
            does,
            what,
            step.Action.LetterKey,
            step.Mode,
            [.. step.Stops],
            step.LateStart,
            [.. step.If.OfType<Condition.SourceIs>().SelectMany(c => c.Is)],
            [.. step.If.OfType<Condition.AnswerIs>().Select(c => new ConditionDto(c.Detail, [.. c.Is]))],
            [.. step.In],
            step.Favour
        );
    }

    /// <summary>What goes with each thing that a step can do.</summary>
    public static IReadOnlyList<StepActDto> Acts { get; } =
    [
        .. Enum.GetValues<StepDoes>()
            .Select(does => (does, Action(does, "", "")))
            .Select(one => new StepActDto(
                one.does,
                one.Item2.LetterKey is not null,
                one.Item2.AlwaysAsks,
                one.Item2.LeavesTheHouse
            )),
    ];

    private static StepAction Action(StepDoes does, string what, string letter) =>
        does switch
        {
            StepDoes.Letter => new StepAction.Letter(letter),
            StepDoes.Form => new StepAction.Form(what, letter),
            StepDoes.Times => new StepAction.MeetingChoice(what, letter),
            StepDoes.Invoice => new StepAction.Invoice(),
            StepDoes.Tasks => new StepAction.Tasks(what),
            StepDoes.OpenPart => new StepAction.OpenPart(
                Enum.TryParse<PagePart>(what, out var part) ? part : PagePart.Whole
            ),
            StepDoes.LabelOn => new StepAction.Label(what, true),
            StepDoes.LabelOff => new StepAction.Label(what, false),
            StepDoes.FollowOn => new StepAction.FollowOn(what),
            StepDoes.EndAsQuiet => new StepAction.EndAsQuiet(),
            StepDoes.Hook => new StepAction.Hook(what),
            _ => new StepAction.TellMe(what),
        };

    private static Step ToCore(StepDto step)
    {
        var action = Action(step.Does, step.What?.Trim() ?? "", step.Letter ?? "");
        ImmutableArray<Condition> conditions =
        [
            .. step.Sources.Length > 0
                ? new Condition[]
                {
                    new Condition.SourceIs([.. step.Sources.Select(s => s.Trim()).Where(s => s.Length > 0)]),
                }
                : [],
            .. step.Answers.Select(a => new Condition.AnswerIs(
                a.Detail.Trim(),
                [.. a.Is.Select(i => i.Trim()).Where(i => i.Length > 0)]
            )),
        ];
        return new(
            step.Key.Trim(),
            new Timing(
                step.Cause,
                new Span(step.Count, step.Unit),
                step.At,
                step.Cause == Cause.NamedDate && step.DateName is { Length: > 0 } name ? name.Trim() : null,
                step.AnyHour
            ),
            action,
            action.AlwaysAsks ? StepMode.AsksFirst : step.Mode,
            [.. step.Stops.Where(StopRules.ToChoose.Contains)],
            step.LateStart,
            conditions,
            [.. step.In],
            step.Favour
        );
    }
}
