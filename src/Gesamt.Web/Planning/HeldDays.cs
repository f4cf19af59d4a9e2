using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Meetings;
using Gesamt.Core.Planning;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>A meeting in the days that are looked at.</summary>
public sealed record HeldMeeting(
    MeetingId Id,
    ProjectId Project,
    string Name,
    string Client,
    string Title,
    Instant Start,
    Instant End
);

/// <summary>A task of the owner's as a day holds it.</summary>
public sealed record HeldTask
{
    public required TaskId Id { get; init; }
    public required ProjectId Project { get; init; }
    public required string Title { get; init; }
    public required string ProjectTitle { get; init; }
    public LocalDate? WorkOn { get; init; }
    public LocalDate? Due { get; init; }
    public int? Minutes { get; init; }
    public Instant? DoneAt { get; init; }

    /// <summary>The owner's own: open ones of projects that are open, and those that were done. The client's are not the owner's days.</summary>
    public static IQueryable<HeldTask> Of(GesamtDb db) =>
        from task in db.Tasks.AsNoTracking()
        join project in db.Projects on task.ProjectId equals project.Id
        where !task.Removed && task.PublicId == null && (project.Standing.OnTable || task.DoneAt != null)
        select new HeldTask
        {
            Id = task.Id,
            Project = task.ProjectId,
            Title = task.Title,
            ProjectTitle = project.Title,
            WorkOn = task.WorkOn,
            Due = task.Due,
            Minutes = task.EstimateMinutes,
            DoneAt = task.DoneAt,
        };
}

/// <summary>What a run of days holds, and how full each is: the week, the month, the season and Today all read it here.</summary>
public sealed class HeldDays
{
    public required LocalDate First { get; init; }

    /// <summary>How many days.</summary>
    public required int Count { get; init; }
    public required IReadOnlyList<HeldMeeting> Meetings { get; init; }
    public required IReadOnlyList<AppointmentRow> Appointments { get; init; }

    /// <summary>Tasks with the day each takes up.</summary>
    public required IReadOnlyList<(HeldTask Task, LocalDate Day)> Tasks { get; init; }
    public required ImmutableArray<DayLoad> Loads { get; init; }

    /// <summary>The day after the last.</summary>
    public LocalDate End => First.PlusDays(Count);

    /// <summary>Whether a day is among them.</summary>
    public bool Holds(LocalDate? day) => day >= First && day < End;

    // Today, the week, the month and the season begin with these
    private static readonly Func<GesamtDb, Instant, Instant, IAsyncEnumerable<HeldMeeting>> MeetingsIn =
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant start, Instant end) =>
                db
                    .Meetings.AsNoTracking()
                    .Where(m => !m.Cancelled && m.Start < end && m.End > start)
                    .Join(
                        db.Projects,
                        m => m.ProjectId,
                        p => p.Id,
                        (m, p) => new HeldMeeting(m.Id, m.ProjectId, m.Name, p.Client!.Name, p.Title, m.Start, m.End)
                    )
        );
    private static readonly Func<GesamtDb, Instant, Instant, IAsyncEnumerable<AppointmentRow>> AppointmentsIn =
        EF.CompileAsyncQuery(
            (GesamtDb db, Instant start, Instant end) =>
                db.Appointments.AsNoTracking().Where(a => !a.Removed && a.Start < end && a.End > start)
        );

    /// <summary>Reads them: three statements, however many days.</summary>
    public static async Task<HeldDays> OfAsync(Desk desk, LocalDate first, int count)
    {
        var (start, end) = (desk.Calendar.StartOf(first), desk.Calendar.StartOf(first.PlusDays(count)));
        var meetings = await MeetingsIn(desk.Db, start, end).ToListAsync();
        var appointments = await AppointmentsIn(desk.Db, start, end).ToListAsync();
        var tasks = await TasksAsync(desk, first, first.PlusDays(count));
        return new()
        {
            First = first,
            Count = count,
            Meetings = [.. meetings.OrderBy(m => m.Start)],
            Appointments = [.. appointments.OrderBy(a => a.Start)],
            Tasks = tasks,
            Loads = Load.Of(
                first,
                count,
                StoreJson.Read<List<OpenSpan>>(desk.Studio.OpenHours),
                desk.Calendar,
                [
                    .. meetings.Select(m => new TakenTime(m.Start, m.End)),
                    .. appointments.Select(a => new TakenTime(a.Start, a.End)),
                ],
                [.. tasks.Select(one => new DayTask(one.Day, one.Task.Minutes))]
            ),
        };
    }

    private static readonly Func<GesamtDb, LocalDate, LocalDate, Instant, Instant, IAsyncEnumerable<HeldTask>> TasksIn =
        EF.CompileAsyncQuery(
            (GesamtDb db, LocalDate first, LocalDate end, Instant start, Instant until) =>
                HeldTask
                    .Of(db)
                    .Where(task =>
                        task.WorkOn >= first && (task.WorkOn < end || task.DoneAt >= start && task.DoneAt < until)
                    )
        );

    private static async Task<IReadOnlyList<(HeldTask Task, LocalDate Day)>> TasksAsync(
        Desk desk,
        LocalDate first,
        LocalDate end
    )
    {
        var tasks = await TasksIn(desk.Db, first, end, desk.Calendar.StartOf(first), desk.Calendar.StartOf(end))
            .ToListAsync();
        return
        [
            .. tasks
                .Select(task => (Task: task, Day: DayOf(desk, task)))
                .Where(one => one.Day >= first && one.Day < end)
                .OrderBy(one => one.Task.DoneAt is not null)
                .ThenBy(one => one.Task.Id.Value),
        ];
    }

    private static LocalDate DayOf(Desk desk, HeldTask task) =>
        Load.DayOf(task.WorkOn!.Value, task.DoneAt is { } done ? desk.Calendar.DateOf(done) : null);
}
