using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Invoicing;

/// <summary>What about money only the owner can do: a task for today says so.</summary>
internal static class Errands
{
    private const int LongestTitle = 200;

    public static async Task AddAsync(Act act, ProjectFile file, Actor by, string title)
    {
        var task = new TaskRow
        {
            ProjectId = file.Id,
            Title = ShortText.Of(title, LongestTitle),
            Due = act.Today,
        };
        act.Db.Tasks.Add(task);
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(file, by, new Happening.TaskMade(task.Id, task.Due));
    }
}
