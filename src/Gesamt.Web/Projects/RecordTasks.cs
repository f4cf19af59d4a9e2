using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>The tasks of a project, as its record shows them.</summary>
internal static class RecordTasks
{
    public static TasksDto Of(Desk desk, ProjectFile file, IReadOnlyDictionary<TaskId, TaskRow> rows)
    {
        var offered = TaskOrder.Offered(file.Case.OpenTasks, desk.Today, desk.Calendar);
        var standing = rows.Values.Where(row => !row.Removed).OrderBy(row => row.Id.Value).ToList();
        var progress = new TaskProgress(standing.Count(row => row.DoneAt is not null), standing.Count);
        return new(
            [
                .. file
                    .Case.OpenTasks.OrderBy(task => task.Due ?? LocalDate.MaxIsoValue)
                    .ThenBy(task => task.Id.Value)
                    .Select(task => Task(desk, task, rows[task.Id], offered)),
            ],
            [
                .. from row in standing
                where row.DoneAt is not null
                orderby row.DoneAt descending, row.Id.Value descending
                select new DoneTaskDto(
                    row.Id.Value,
                    row.Title,
                    desk.Short(desk.Calendar.DateOf(row.DoneAt!.Value)),
                    row.PublicId is not null
                ),
            ],
            progress.Percent is { } percent ? $"{progress.Done} of {progress.All} done, {percent} %" : null,
            [.. standing.Select(row => row.List).OfType<string>().Distinct()]
        );
    }

    private static SheetTaskDto Task(Desk desk, OpenTask task, TaskRow row, ImmutableArray<OpenTask> offered) =>
        new(
            task.Id.Value,
            task.Due is { } due ? DueWords(due, desk.Today) : "",
            task.Due < desk.Today,
            row.Counted,
            About(desk, row),
            offered.IndexOf(task),
            TaskFields.Of(row)
        );

    private static string About(Desk desk, TaskRow row)
    {
        var steps = TaskFields.Steps(row);
        string?[] parts =
        [
            steps.Count > 0 ? $"{steps.Count(step => step.Done)} of {steps.Count} parts" : null,
            row.EstimateMinutes is { } minutes ? WorkTime.Words(minutes) : null,
            row.Importance == TaskWeight.Most ? "important" : null,
            row.WorkOn is { } day ? $"worked on {desk.Short(day)}" : null,
        ];
        return string.Join(", ", parts.OfType<string>());
    }

    private static string DueWords(LocalDate due, LocalDate today) =>
        DateWords.Due(due, today, false) is var words && words.StartsWith("due ", StringComparison.Ordinal)
            ? words[4..]
            : words;
}
