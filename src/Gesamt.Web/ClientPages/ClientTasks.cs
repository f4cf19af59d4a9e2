using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.ClientPages;

/// <summary>A task of the client's.</summary>
/// <param name="Due">“due Thursday”; empty for one without a day.</param>
/// <param name="Done">When it was done; null while it is open.</param>
public sealed record ClientTaskDto(
    string Id,
    string Title,
    string Due,
    bool Late,
    string? Done,
    string Description,
    string Finished,
    IReadOnlyList<TaskStep> Steps
);

/// <summary>What the client is to do, the earliest due first, then what is done. The owner's own tasks are never among them.</summary>
public static class ClientTasks
{
    public static RouteGroupBuilder MapClientTasks(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/tasks/{task}/done",
            async (string task, TaskDoneDto to, HttpContext http, Desk desk) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                await Tasks.DoneAsync(desk, project, await OneAsync(desk, project, task), to.Done, Actor.Client);
                return TypedResults.NoContent();
            }
        );
        page.MapPost(
            "/tasks/{task}/step",
            async (string task, TaskStepDoneDto to, HttpContext http, Desk desk) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                await Tasks.StepDoneAsync(desk, project, await OneAsync(desk, project, task), to);
                return TypedResults.NoContent();
            }
        );
        return page;
    }

    public static async Task<IReadOnlyList<ClientTaskDto>> OfAsync(Desk desk, ProjectFile file) =>
        [
            .. (
                await desk
                    .Db.Tasks.AsNoTracking()
                    .Where(t => t.ProjectId == file.Id && t.PublicId != null && !t.Removed)
                    .ToListAsync()
            )
                .OrderBy(row => row.DoneAt is not null)
                .ThenBy(row => row.Due ?? LocalDate.MaxIsoValue)
                .ThenBy(row => row.Id.Value)
                .Select(row => Of(desk, row)),
        ];

    private static ClientTaskDto Of(Desk desk, TaskRow row) =>
        new(
            row.PublicId!,
            row.Title,
            row is { Due: { } due, DoneAt: null } ? DateWords.Due(due, desk.Today, false) : "",
            row.DoneAt is null && row.Due < desk.Today,
            row.DoneAt is { } done ? desk.Short(desk.Calendar.DateOf(done)) : null,
            row.Description,
            row.Finished,
            TaskFields.Steps(row)
        );

    private static async Task<TaskId> OneAsync(Desk desk, ProjectId project, string task)
    {
        if (!Sight.IsOpen((await desk.OpenAsync(project)).History, PagePart.Tasks))
            throw new MissingException("part");
        var id = await desk
            .Db.Tasks.Where(t => t.ProjectId == project && t.PublicId == task && !t.Removed)
            .Select(t => (TaskId?)t.Id)
            .SingleOrDefaultAsync();
        desk.Db.ChangeTracker.Clear();
        return id ?? throw new MissingException("task");
    }
}
