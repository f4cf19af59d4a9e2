using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Work;

/// <summary>Tasks of a project: made, moved, done, removed.</summary>
public static class Tasks
{
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<TaskId> AddAsync(Desk desk, ProjectId project, TaskDto task) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = new TaskRow
            {
                ProjectId = project,
                Title = "",
                Due = task.Due,
            };
            TaskFields.Write(row, file, task);
            act.Db.Tasks.Add(row);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.TaskMade(row.Id, row.Due));
            return row.Id;
        });

    /// <summary>Changes what is said of a task. A day set by hand no longer follows the date that matters unasked.</summary>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="StaleException">Somebody changed it meanwhile.</exception>
    public static Task ChangeAsync(Desk desk, ProjectId project, TaskId id, TaskDto task) =>
        desk.ActAsync(async act =>
        {
            var (row, file) = (await OneAsync(desk, project, id), await act.OpenAsync(project));
            if (task.Edition is { } edition && edition != row.Edition)
                throw new StaleException(TaskFields.Of(row));
            var clients = row.PublicId is not null;
            TaskFields.Write(row, file, task);
            var moved = row.Due != task.Due;
            row.Due = task.Due;
            if (moved && row.OffsetCount is not null)
                row.Fixed = true;
            row.Edition++;
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(
                file,
                Actor.Owner,
                // whose it is decides whose turn it is
                moved || clients != row.PublicId is not null
                    ? [new Happening.TaskMoved(id, row.Due)]
                    : []
            );
        });

    /// <summary>Says on which day a task is worked on; its due day stays.</summary>
    /// <param name="day">Null for none.</param>
    public static Task WorkOnAsync(Desk desk, ProjectId project, TaskId id, LocalDate? day) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            if (row.WorkOn == day)
                return;
            row.WorkOn = day;
            row.Edition++;
            act.Touch(project);
        });

    /// <summary>Says how long a task will take.</summary>
    /// <param name="estimate">As people write it; empty for none.</param>
    /// <exception cref="InvalidException">It does not read.</exception>
    public static Task EstimateAsync(Desk desk, ProjectId project, TaskId id, string estimate) =>
        desk.ActAsync(async act =>
        {
            List<(string, string)> wrong = [];
            var minutes = TaskFields.Minutes(estimate, "estimate", wrong);
            if (wrong.Count > 0)
                throw new InvalidException([.. wrong]);
            var row = await OneAsync(desk, project, id);
            if (row.EstimateMinutes == minutes)
                return;
            row.EstimateMinutes = minutes;
            row.Edition++;
            act.Touch(project);
        });

    /// <summary>Ticks a part of a task off, or opens it again.</summary>
    /// <exception cref="InvalidException">It has no such part.</exception>
    public static Task StepDoneAsync(Desk desk, ProjectId project, TaskId id, TaskStepDoneDto to) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            var steps = TaskFields.Steps(row).ToList();
            if (to.Step < 0 || to.Step >= steps.Count)
                throw new InvalidException(("step", $"This task has {steps.Count} parts. Load the page again."));
            steps[to.Step] = steps[to.Step] with { Done = to.Done };
            row.Steps = StoreJson.Write(steps);
            row.Edition++;
            act.Touch(project);
        });

    /// <summary>Ticks a task off, or opens it again.</summary>
    public static async Task DoneAsync(Desk desk, ProjectId project, TaskId id, bool done, Actor by = Actor.Owner)
    {
        await desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            if (row.DoneAt is not null == done)
                return;
            row.DoneAt = done ? desk.Now : null;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(project),
                by,
                done ? new Happening.TaskDone(id) : new Happening.TaskReopened(id)
            );
        });
    }

    /// <summary>Takes a task out, or puts it back.</summary>
    public static async Task RemoveAsync(Desk desk, ProjectId project, TaskId id, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            if (row.Removed == removed)
                return;
            row.Removed = removed;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(project),
                Actor.Owner,
                removed ? new Happening.TaskRemoved(id) : new Happening.TaskMade(id, row.Due, row.Closing)
            );
        });
    }

    /// <summary>Tasks that something else fulfils, such as the handover of what they were for.</summary>
    /// <exception cref="MissingException">One is no task of the project.</exception>
    public static async Task<IReadOnlyList<Happening>> FulfilledAsync(
        Desk desk,
        ProjectId project,
        IEnumerable<long> tasks
    )
    {
        List<Happening> facts = [];
        foreach (var task in tasks.Distinct())
        {
            var row = await OneAsync(desk, project, new(task));
            if (row.DoneAt is not null || row.Removed)
                continue;
            row.DoneAt = desk.Now;
            facts.Add(new Happening.TaskDone(row.Id));
        }
        await desk.Db.SaveChangesAsync();
        return facts;
    }

    /// <summary>What the kind asks for after the handover, as tasks due that day.</summary>
    public static async Task<IReadOnlyList<Happening>> CloseUpAsync(Desk desk, ProjectFile file)
    {
        List<Happening> made = [];
        foreach (var title in file.Case.Kind.ClosingSteps)
        {
            var row = new TaskRow
            {
                ProjectId = file.Id,
                Title = title,
                Due = desk.Today,
                Closing = true,
            };
            desk.Db.Tasks.Add(row);
            await desk.Db.SaveChangesAsync();
            made.Add(new Happening.TaskMade(row.Id, row.Due, Closing: true));
        }
        return made;
    }

    private static async Task<TaskRow> OneAsync(Desk desk, ProjectId project, TaskId id) =>
        await desk.Db.Tasks.SingleOrDefaultAsync(t => t.Id == id && t.ProjectId == project)
        ?? throw new MissingException("task");
}
