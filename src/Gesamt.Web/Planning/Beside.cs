using Gesamt.Core.Calendar;
using Gesamt.Store;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>What stands beside the days of a week: every open task that has no day, and the tray.</summary>
public static class Beside
{
    private const int MostTasks = 200,
        MostSlips = 5;

    public static async Task<BesideDto> OfAsync(Desk desk, HeldDays held, BesideShow show)
    {
        var groups =
            show == BesideShow.Done ? await DoneAsync(desk, held)
            : show == BesideShow.Project ? ByProject(desk, await Open(desk.Db))
            : ByDue(desk, held, await Open(desk.Db));
        var slips = desk.Db.Slips.AsNoTracking().Where(s => s.GoneAt == null && s.ProjectId == null);
        var tray = await slips
            .OrderByDescending(s => s.Id)
            .Take(MostSlips)
            .Select(s => new TrayLineDto(s.Id, s.Text))
            .ToListAsync();
        var count = groups.Sum(group => group.Count);
        var shown = CutShort(groups);
        return new(
            show,
            count,
            shown,
            count - shown.Sum(group => group.Tasks.Count),
            tray,
            tray.Count < MostSlips ? tray.Count : await slips.CountAsync()
        );
    }

    private static readonly Func<GesamtDb, Task<List<HeldTask>>> Open = Prepared.Rows(
        (GesamtDb db) => HeldTask.Of(db).Where(task => task.DoneAt == null)
    );

    private static readonly Func<GesamtDb, Instant, Instant, Task<List<HeldTask>>> Done = Prepared.Rows(
        (GesamtDb db, Instant start, Instant until) =>
            HeldTask.Of(db).Where(task => task.DoneAt >= start && task.DoneAt < until)
    );

    private static IReadOnlyList<TaskGroupDto> ByDue(Desk desk, HeldDays held, List<HeldTask> open)
    {
        // what an earlier week was to do stands without a day again
        var thisWeek = Week.MondayOf(desk.Today);
        var left = open.Where(task => task.WorkOn < thisWeek && !held.Holds(task.WorkOn)).ToList();
        var free = open.Where(task => task.WorkOn is null)
            .OrderBy(task => task.Due ?? LocalDate.MaxIsoValue)
            .ThenBy(task => task.Id.Value)
            .ToList();
        return
        [
            .. new[]
            {
                Group(desk, "Left from an earlier week", left.OrderBy(task => task.WorkOn)),
                Group(desk, "Due in this week", free.Where(task => task.Due < held.End)),
                Group(desk, "Later", free.Where(task => task.Due >= held.End)),
                Group(desk, "No date", free.Where(task => task.Due is null)),
            }.Where(group => group.Count > 0),
        ];
    }

    private static IReadOnlyList<TaskGroupDto> ByProject(Desk desk, List<HeldTask> open) =>
        [
            .. open.GroupBy(task => task.Project)
                .OrderBy(same => same.First().ProjectTitle, StringComparer.Ordinal)
                .ThenBy(same => same.Key.Value)
                .Select(same =>
                    Group(
                        desk,
                        same.First().ProjectTitle,
                        same.OrderBy(task => task.Due ?? LocalDate.MaxIsoValue).ThenBy(task => task.Id.Value),
                        task => task.WorkOn is { } day ? $"on {desk.Short(day)}" : "on no day"
                    )
                ),
        ];

    private static async Task<IReadOnlyList<TaskGroupDto>> DoneAsync(Desk desk, HeldDays held)
    {
        var done = await Done(desk.Db, desk.Calendar.StartOf(held.First), desk.Calendar.StartOf(held.End));
        return
        [
            .. done.GroupBy(task => desk.Calendar.DateOf(task.DoneAt!.Value))
                .OrderBy(same => same.Key)
                .Select(same => Group(desk, DateWords.OfToday(same.Key), same.OrderBy(task => task.DoneAt))),
        ];
    }

    private static TaskGroupDto Group(
        Desk desk,
        string name,
        IEnumerable<HeldTask> tasks,
        Func<HeldTask, string>? where = null
    )
    {
        PlannedTaskDto[] all =
        [
            .. tasks.Select(task => DayViews.Task(desk, task, null, where?.Invoke(task) ?? task.ProjectTitle)),
        ];
        return new(name, all.Length, all);
    }

    /// <summary>The first so many; each group still says how many it has.</summary>
    private static IReadOnlyList<TaskGroupDto> CutShort(IReadOnlyList<TaskGroupDto> groups)
    {
        var left = MostTasks;
        List<TaskGroupDto> shown = [];
        foreach (var group in groups.TakeWhile(_ => left > 0))
        {
            shown.Add(group with { Tasks = [.. group.Tasks.Take(left)] });
            left -= group.Tasks.Count;
        }
        return shown;
    }
}
