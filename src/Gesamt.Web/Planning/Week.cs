using System.Globalization;
using Gesamt.Core.Calendar;
using Gesamt.Core.Planning;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>One week: a row for each project that has something in it, a column for each day.</summary>
public static class Week
{
    /// <summary>Days of a week.</summary>
    public const int Days = 7;

    /// <param name="day">Any day of it.</param>
    public static async Task<WeekDto> OfAsync(Desk desk, LocalDate day, BesideShow show)
    {
        var monday = MondayOf(day);
        var held = await HeldDays.OfAsync(desk, monday, Days);
        return new(
            TitleOf(monday, desk.Today),
            Load.Summary(held.Loads),
            new(monday.PlusDays(-Days), MondayOf(desk.Today), monday.PlusDays(Days)),
            [.. held.Loads.Select(load => DayViews.Head(desk, load))],
            DayViews.Meetings(desk, held, await BusyAsync(desk, held)),
            await RowsAsync(desk, held),
            await Beside.OfAsync(desk, held, show)
        );
    }

    /// <summary>The Monday of a day's week.</summary>
    public static LocalDate MondayOf(LocalDate day) => day.PlusDays(-((int)day.DayOfWeek - 1));

    /// <summary>Times that outside calendars have taken.</summary>
    internal static async Task<IReadOnlyList<(Instant Start, Instant End)>> BusyAsync(Desk desk, HeldDays held)
    {
        var (from, until) = (desk.Calendar.StartOf(held.First), desk.Calendar.StartOf(held.End));
        return
        [
            .. (
                await desk
                    .Db.Busy.AsNoTracking()
                    .Where(b => b.Start < until && b.End > from)
                    .Select(b => new { b.Start, b.End })
                    .ToListAsync()
            ).Select(b => (b.Start, b.End)),
        ];
    }

    private static async Task<IReadOnlyList<WeekRowDto>> RowsAsync(Desk desk, HeldDays held)
    {
        var tasks = held.Tasks.ToLookup(one => one.Task.Project);
        var notes = (await DayNotes.OfAsync(desk, held)).ToLookup(note => note.Project, note => note.Note);
        var ids = tasks.Select(same => same.Key).Union(notes.Select(same => same.Key)).ToList();
        var projects = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                p.Title,
                p.Pinned.Rules,
                p.Standing.MainDate,
            })
            .ToListAsync();
        return
        [
            .. projects
                .OrderBy(p => p.MainDate ?? LocalDate.MaxIsoValue)
                .ThenBy(p => p.Title, StringComparer.Ordinal)
                .ThenBy(p => p.Id.Value)
                .Select(p => new WeekRowDto(
                    p.Id.Value,
                    p.Title,
                    Under(desk, [.. tasks[p.Id].Select(one => one.Task)], p.MainDate, p.Rules),
                    [.. tasks[p.Id].Select(one => DayViews.Task(desk, one.Task, one.Day))],
                    [.. notes[p.Id]]
                )),
        ];
    }

    /// <summary>“5 h, Order scaffold is late”, else how far its date is away.</summary>
    private static string Under(Desk desk, IReadOnlyList<HeldTask> tasks, LocalDate? date, string rules)
    {
        var minutes = tasks.Sum(task => task.Minutes ?? 0);
        return string.Join(
            ", ",
            new[]
            {
                minutes > 0 ? WorkTime.Words(minutes) : null,
                tasks.FirstOrDefault(task => task.DoneAt is null && task.Due < desk.Today) is { } late
                    ? $"{late.Title} is late"
                : date >= desk.Today ? $"{DayNotes.MainDate(desk, rules)} {DateWords.Distance(date.Value, desk.Today)}"
                : null,
            }.OfType<string>()
        );
    }

    /// <summary>“25 to 31 January”, “29 March to 4 April”, with the year where it is not this one.</summary>
    private static string TitleOf(LocalDate monday, LocalDate today)
    {
        var sunday = monday.PlusDays(Days - 1);
        var month = sunday.ToString("MMMM", CultureInfo.InvariantCulture);
        var year = sunday.Year == today.Year && monday.Year == today.Year ? "" : $" {sunday.Year}";
        return monday.Month == sunday.Month
            ? $"{monday.Day} to {sunday.Day} {month}{year}"
            : $"{monday.Day} {monday.ToString("MMMM", CultureInfo.InvariantCulture)}{(monday.Year == sunday.Year ? "" : $" {monday.Year}")} to {sunday.Day} {month}{year}";
    }
}
