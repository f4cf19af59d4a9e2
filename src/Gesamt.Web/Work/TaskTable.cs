using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Work;

/// <summary>The tasks of a project as a table, open ones and done ones, by when they are due.</summary>
internal static class TaskTable
{
    public static async Task<FileContentHttpResult> OfAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Tasks.AsNoTracking()
            .Where(t => t.ProjectId == file.Id && !t.Removed)
            .OrderBy(t => t.Due == null)
            .ThenBy(t => t.Due)
            .ThenBy(t => t.Id)
            .ToListAsync();
        return TableFile.Of(
            "tasks",
            [
                "Task",
                "Due",
                "Worked on",
                "Minutes",
                "Importance",
                "Effort",
                "List",
                "Phase",
                "Whose",
                "Done",
                "Description",
            ],
            rows.Select(row =>
                (IReadOnlyList<string>)
                    [
                        row.Title,
                        TableFile.Day(row.Due),
                        TableFile.Day(row.WorkOn),
                        $"{row.EstimateMinutes}",
                        $"{row.Importance}",
                        $"{row.Effort}",
                        row.List ?? "",
                        row.Phase ?? "",
                        row.PublicId is null ? "studio" : "client",
                        row.DoneAt is { } done ? TableFile.Day(desk.Calendar.DateOf(done)) : "",
                        row.Description,
                    ]
            )
        );
    }
}
