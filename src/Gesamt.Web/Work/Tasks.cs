using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Work;

/// <summary>A task of a list, with its distance to the date that matters.</summary>
/// <param name="DoneBy">What fulfils it when it happens.</param>
public sealed record ListedTask(string Title, Span Offset, string? Phase = null, Fulfilment? DoneBy = null);

/// <summary>Tasks of a project: made, moved, done, removed.</summary>
public static class Tasks
{
    private const int LongestTitle = 200;

    /// <exception cref="InvalidException">It has no title, or a phase the kind does not have.</exception>
    public static async Task<TaskId> AddAsync(Desk desk, ProjectId project, string title, LocalDate? due, string? phase)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            Check(file, title, phase);
            var row = new TaskRow
            {
                ProjectId = project,
                Title = title.Trim(),
                Due = due,
                Phase = phase,
            };
            desk.Db.Tasks.Add(row);
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.TaskMade(row.Id, due));
            return row.Id;
        });
    }

    /// <summary>Changes title, day, phase or what fulfils it. A day set by hand no longer follows the date that matters unasked.</summary>
    public static async Task ChangeAsync(
        Desk desk,
        ProjectId project,
        TaskId id,
        string title,
        LocalDate? due,
        string? phase,
        Fulfilment? doneBy
    )
    {
        await desk.ActAsync(async act =>
        {
            var (row, file) = (await OneAsync(desk, project, id), await desk.OpenAsync(project));
            Check(file, title, phase);
            var moved = row.Due != due;
            (row.Title, row.Due, row.Phase, row.DoneBy) = (title.Trim(), due, phase, doneBy);
            if (moved && row.OffsetCount is not null)
                row.Fixed = true;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(project),
                Actor.Owner,
                moved ? [new Happening.TaskMoved(id, due)] : []
            );
        });
    }

    /// <summary>Ticks a task off, or opens it again.</summary>
    public static async Task DoneAsync(Desk desk, ProjectId project, TaskId id, bool done)
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
                Actor.Owner,
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

    private static void Check(ProjectFile file, string title, string? phase)
    {
        if (title.Trim().Length is 0 or > LongestTitle)
            throw new InvalidException(("title", $"A task of 1 to {LongestTitle} characters is needed."));
        if (phase is not null && !file.Case.Kind.HasPhase(phase))
            throw new InvalidException(("phase", $"This project has no phase “{phase}”."));
    }
}
