using System.Collections.Immutable;

namespace Gesamt.Core.Forms;

/// <summary>What the answers of a checklist do to its tasks.</summary>
/// <param name="Made">Questions whose answer now asks for their task, and did not before.</param>
/// <param name="Withdrawn">Keys of questions whose answer asked for a task, and does not any more.</param>
public sealed record ChecklistChange(ImmutableArray<FormField> Made, ImmutableArray<string> Withdrawn);

/// <summary>A checklist is a form that the owner answers: a chosen answer makes the task it names.</summary>
public static class ChecklistRule
{
    /// <summary>What has to be answered with these answers so far.</summary>
    public static ImmutableArray<FormField> Questions(
        IReadOnlyList<FormField> fields,
        IReadOnlyDictionary<string, string> given
    ) => [.. FormRule.Shown(fields, given).Where(field => field.Sort != FieldSort.Heading)];

    /// <summary>How many of its questions are answered.</summary>
    public static int Answered(IReadOnlyList<FormField> fields, IReadOnlyDictionary<string, string> given) =>
        Questions(fields, given).Count(field => !string.IsNullOrWhiteSpace(given.GetValueOrDefault(field.Key)));

    /// <summary>What new answers do beside those before. An answer that stays makes nothing again, so that a task which the owner took out stays out.</summary>
    public static ChecklistChange Change(
        IReadOnlyList<FormField> fields,
        IReadOnlyDictionary<string, string> before,
        IReadOnlyDictionary<string, string> after
    )
    {
        var (asked, asks) = (Asking(fields, before), Asking(fields, after));
        return new(
            [.. asks.Where(field => asked.All(other => other.Key != field.Key))],
            [.. asked.Where(field => asks.All(other => other.Key != field.Key)).Select(field => field.Key)]
        );
    }

    /// <summary>The questions whose answer asks for their task.</summary>
    private static ImmutableArray<FormField> Asking(
        IReadOnlyList<FormField> fields,
        IReadOnlyDictionary<string, string> given
    ) =>
        [
            .. Questions(fields, given)
                .Where(field => field.Makes is { } makes && given.GetValueOrDefault(field.Key) == makes.Answer),
        ];
}
