using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.People;

/// <summary>Something that carries a label.</summary>
public sealed record CarriesLabelDto(string Sort, long Id, string Title, string Under, long? Project);

/// <summary>Labels on projects, people and tasks; one gathers everything that carries it. They are the owner's alone.</summary>
public static class Labels
{
    public const int Longest = 40;

    /// <summary>Puts a label on something; twice is once.</summary>
    public static async Task PutAsync(Desk desk, LabelDto to)
    {
        var label = Plain(to.Label);
        var row = RowOf(label, to);
        if (await Same(desk, row).AnyAsync())
            return;
        desk.Db.Labels.Add(row);
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>Takes it off.</summary>
    public static Task TakeOffAsync(Desk desk, LabelDto to) =>
        Same(desk, RowOf(Plain(to.Label), to)).ExecuteDeleteAsync();

    /// <summary>All that carries a label.</summary>
    public static async Task<IReadOnlyList<CarriesLabelDto>> OfAsync(Desk desk, string label)
    {
        var projects = await desk
            .Db.Labels.Where(l => l.Label == label && l.ProjectId != null)
            .Join(
                desk.Db.Projects,
                l => l.ProjectId,
                p => p.Id,
                (l, p) => new CarriesLabelDto("project", p.Id.Value, p.Title, p.Client!.Name, p.Id.Value)
            )
            .ToListAsync();
        var people = await desk
            .Db.Labels.Where(l => l.Label == label && l.PersonId != null)
            .Join(
                desk.Db.People,
                l => l.PersonId,
                p => p.Id,
                (l, p) => new CarriesLabelDto("person", p.Id.Value, p.Name, p.Organisation ?? "", null)
            )
            .ToListAsync();
        var tasks = await desk
            .Db.Labels.Where(l => l.Label == label && l.TaskId != null)
            .Join(desk.Db.Tasks.Where(t => !t.Removed), l => l.TaskId, t => t.Id, (l, t) => t)
            .Join(
                desk.Db.Projects,
                t => t.ProjectId,
                p => p.Id,
                (t, p) => new CarriesLabelDto("task", t.Id.Value, t.Title, p.Title, p.Id.Value)
            )
            .ToListAsync();
        return [.. projects, .. people, .. tasks];
    }

    /// <exception cref="InvalidException">It says nothing, or too much.</exception>
    public static string Plain(string label) =>
        label.Trim().ToLowerInvariant() is { Length: > 0 and <= Longest } plain
            ? plain
            : throw new InvalidException(("label", $"A label has 1 to {Longest} characters."));

    private static LabelRow RowOf(string label, LabelDto to) =>
        new[] { to.Project, to.Person, to.Task }.Count(id => id is not null) == 1
            ? new()
            {
                Label = label,
                ProjectId = to.Project is { } p ? new(p) : null,
                PersonId = to.Person is { } q ? new(q) : null,
                TaskId = to.Task is { } t ? new(t) : null,
            }
            : throw new InvalidException(("label", "A label goes on one project, person or task."));

    private static IQueryable<LabelRow> Same(Desk desk, LabelRow row) =>
        desk.Db.Labels.Where(l =>
            l.Label == row.Label && l.ProjectId == row.ProjectId && l.PersonId == row.PersonId && l.TaskId == row.TaskId
        );
}
