using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Spent;

/// <summary>The one clock of the studio: it runs for one project at a time, and what it ran becomes hours by local day.</summary>
public static class Clock
{
    private const int LongestWords = 200;

    public static void MapWorkClock(this RouteGroupBuilder api)
    {
        var clock = api.MapGroup("/work-clock");
        clock.MapGet("", (Desk desk) => OfAsync(desk));
        clock.MapPost("", (StartClockDto start, Desk desk) => StartAsync(desk, start));
        clock.MapPost("/stop", (Desk desk) => StopAsync(desk));
        clock.MapPost("/{id:int}/answer", (int id, ClockAnswerDto answer, Desk desk) => AnswerAsync(desk, id, answer));
    }

    public static async Task<WorkClockDto> OfAsync(Desk desk)
    {
        if (desk.Studio.HoursOff)
            return new(true, null, []);
        var rows = await desk
            .Db.Clocks.AsNoTracking()
            .OrderBy(c => c.Id)
            .Select(c => new
            {
                Row = c,
                Project = desk.Db.Projects.Where(p => p.Id == c.ProjectId).Select(p => p.Title).First(),
                Task = desk.Db.Tasks.Where(t => t.Id == c.TaskId).Select(t => t.Title).FirstOrDefault(),
            })
            .ToListAsync();
        return new(
            false,
            rows.Where(one => one.Row.IsRunning)
                .Select(one => new ClockRunDto(
                    one.Row.ProjectId.Value,
                    one.Project,
                    one.Row.TaskId?.Value,
                    one.Task ?? one.Row.Words,
                    desk.Calendar.DateOf(one.Row.StartedAt) == desk.Today
                        ? TimeOf(desk, one.Row.StartedAt)
                        : At(desk, one.Row.StartedAt),
                    (int)(desk.Now - one.Row.StartedAt).TotalMinutes
                ))
                .SingleOrDefault(),
            [
                .. rows.Where(one => !one.Row.IsRunning)
                    .Select(one => new ClockAskedDto(
                        one.Row.Id,
                        one.Row.ProjectId.Value,
                        one.Project,
                        one.Task ?? one.Row.Words,
                        $"{WorkTime.Words(WorkClock.Minutes(one.Row.StartedAt, one.Row.StoppedAt!.Value))}, from {At(desk, one.Row.StartedAt)}, to {At(desk, one.Row.StoppedAt.Value)}"
                    )),
            ]
        );
    }

    /// <summary>Starts it, and stops what it ran for before.</summary>
    /// <exception cref="RefusedException">No hours are kept in this studio.</exception>
    public static async Task<ClockStoppedDto> StartAsync(Desk desk, StartClockDto start)
    {
        if (desk.Studio.HoursOff)
            throw new RefusedException("Hours are switched off in the studio’s habits.");
        var words = start.Words.Trim();
        if (words.Length > LongestWords)
            throw new InvalidException(("words", $"What is done is said in at most {LongestWords} characters."));
        // a rehearsal goes on with a clock of its own; work is done in the studio’s time
        var now = desk.Now;
        var stopped = await desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(new(start.Project));
            TaskId? task = start.Task is { } id
                ? await act.Db.Tasks.AnyAsync(t => t.Id == new TaskId(id) && t.ProjectId == file.Id && !t.Removed)
                    ? new(id)
                    : throw new InvalidException(("task", "This project has no such task."))
                : null;
            var runs = await act.Db.Clocks.SingleOrDefaultAsync(c => c.IsRunning);
            if (runs is { } same && same.ProjectId == file.Id && same.TaskId == task)
            {
                if (words.Length > 0)
                    same.Words = words;
                return null;
            }
            var stop = runs is null ? null : await StopAsync(act, runs, now);
            act.Db.Clocks.Add(
                new()
                {
                    ProjectId = file.Id,
                    TaskId = task,
                    Words = words,
                    StartedAt = now,
                    IsRunning = true,
                }
            );
            return stop;
        });
        return await ToldAsync(desk, stopped);
    }

    /// <summary>Stops it; its time is kept as hours.</summary>
    /// <exception cref="RefusedException">It does not run.</exception>
    public static async Task<ClockStoppedDto> StopAsync(Desk desk)
    {
        var now = desk.Now;
        return await ToldAsync(
            desk,
            await desk.ActAsync(async act =>
                await act.Db.Clocks.SingleOrDefaultAsync(c => c.IsRunning) is { } runs
                    ? await StopAsync(act, runs, now)
                    : throw new RefusedException("The clock does not run.")
            )
        );
    }

    /// <summary>Says how long was really worked while a clock ran on and on.</summary>
    /// <exception cref="InvalidException">The time is none.</exception>
    public static async Task<ClockStoppedDto> AnswerAsync(Desk desk, int id, ClockAnswerDto answer)
    {
        var stopped = await desk.ActAsync(async act =>
        {
            var row =
                await act.Db.Clocks.SingleOrDefaultAsync(c => c.Id == id && !c.IsRunning)
                ?? throw new MissingException("clock");
            ImmutableArray<DayMinutes> days =
                answer.Drop ? []
                : string.IsNullOrWhiteSpace(answer.Time)
                    ? WorkClock.ByDay(row.StartedAt, row.StoppedAt!.Value, act.Calendar)
                : [new(act.Calendar.DateOf(row.StartedAt), Keeping.TimeOf(answer.Time))];
            return await KeepAsync(act, row, days);
        });
        return await ToldAsync(desk, stopped);
    }

    /// <summary>What was kept, of which project.</summary>
    private sealed record Stopped(ProjectId Project, IReadOnlyList<HoursRow> Hours);

    private static async Task<Stopped?> StopAsync(Act act, ClockRow row, Instant now)
    {
        if (!WorkClock.IsAskedAbout(row.StartedAt, now))
            return await KeepAsync(act, row, WorkClock.ByDay(row.StartedAt, now, act.Calendar));
        (row.IsRunning, row.StoppedAt) = (false, now);
        await act.Db.SaveChangesAsync();
        act.Touch(row.ProjectId);
        return null;
    }

    private static async Task<Stopped> KeepAsync(Act act, ClockRow row, ImmutableArray<DayMinutes> days)
    {
        var hours = days.Select(day => new HoursRow
            {
                ProjectId = row.ProjectId,
                TaskId = row.TaskId,
                On = day.Day,
                Minutes = day.Minutes,
                Words = row.Words,
            })
            .ToList();
        act.Db.Hours.AddRange(hours);
        act.Db.Clocks.Remove(row);
        await act.Db.SaveChangesAsync();
        if (hours.Count > 0)
            await act.RecordAsync(
                await act.OpenAsync(row.ProjectId),
                Actor.Owner,
                [.. hours.Select(one => new Happening.HoursKept(one.Id))]
            );
        return new(row.ProjectId, hours);
    }

    private static async Task<ClockStoppedDto> ToldAsync(Desk desk, Stopped? stopped)
    {
        var clock = await OfAsync(desk);
        if (stopped is not { Hours: [_, ..] hours })
            return new(clock, "", 0, []);
        var title = await desk.Db.Projects.Where(p => p.Id == stopped.Project).Select(p => p.Title).SingleAsync();
        return new(
            clock,
            $"Kept: {WorkTime.Words(hours.Sum(one => one.Minutes))} for {title}",
            stopped.Project.Value,
            [.. hours.Select(one => one.Id.Value)]
        );
    }

    private static string At(Desk desk, Instant at) => $"{desk.Short(desk.Calendar.DateOf(at))}, {TimeOf(desk, at)}";

    private static string TimeOf(Desk desk, Instant at) => DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay);
}
