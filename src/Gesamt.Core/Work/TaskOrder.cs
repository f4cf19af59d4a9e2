using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>In which order open tasks are offered: what is urgent and important, what is important, what is urgent, the rest; in each, what brings much for little first.</summary>
public static class TaskOrder
{
    /// <summary>Urgent is what is late or due within so many business days.</summary>
    private const int UrgentDays = 2;

    /// <summary>Important is this alone, of 1 to 3.</summary>
    private const int High = 3;

    // what nobody weighed lies in the middle
    private const int Middle = 2;

    /// <summary>The tasks as they are offered: by quadrant, then effort less importance, importance, due day, and as they were made.</summary>
    public static ImmutableArray<OpenTask> Offered(
        IEnumerable<OpenTask> tasks,
        LocalDate today,
        StudioCalendar calendar
    )
    {
        var soon = calendar.Add(today, new Span(UrgentDays, SpanUnit.BusinessDays));
        return
        [
            .. tasks
                .OrderBy(task => Quadrant(IsUrgent(task, soon), IsImportant(task)))
                .ThenBy(task => EffortOf(task.Weight) - ImportanceOf(task.Weight))
                .ThenByDescending(task => ImportanceOf(task.Weight))
                .ThenBy(task => task.Due ?? LocalDate.MaxIsoValue)
                .ThenBy(task => task.Id.Value),
        ];
    }

    /// <summary>1 to 3 as it was typed, else by the estimate: an hour at most, four hours at most, more. Null where neither says anything.</summary>
    public static int? Effort(TaskWeight weight) =>
        weight.Effort
        ?? weight.Minutes switch
        {
            null => null,
            <= 60 => 1,
            <= 240 => 2,
            _ => 3,
        };

    private static int EffortOf(TaskWeight weight) => Effort(weight) ?? Middle;

    private static int ImportanceOf(TaskWeight weight) => weight.Importance ?? Middle;

    private static bool IsImportant(OpenTask task) => ImportanceOf(task.Weight) == High;

    private static bool IsUrgent(OpenTask task, LocalDate soon) => task.Due <= soon;

    private static int Quadrant(bool urgent, bool important) =>
        (urgent, important) switch
        {
            (true, true) => 0,
            (false, true) => 1,
            (true, false) => 2,
            _ => 3,
        };
}

/// <summary>How much of a project's tasks is done.</summary>
public readonly record struct TaskProgress(int Done, int All)
{
    /// <summary>Per cent, half away from zero; null where there are no tasks, which is no figure and not zero.</summary>
    public int? Percent => All == 0 ? null : (200 * Done + All) / (2 * All);
}

/// <summary>A part of a task.</summary>
public sealed record TaskStep(string Title, bool Done = false);
