using System.Globalization;
using Gesamt.Core.Calendar;
using Gesamt.Core.Planning;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>Days, meetings and tasks as the week and the month tell them.</summary>
public static class DayViews
{
    /// <summary>The head of a day.</summary>
    public static WeekDayDto Head(Desk desk, DayLoad load) =>
        new(
            load.Day,
            load.Day.ToString("ddd d", CultureInfo.InvariantCulture),
            DateWords.OfToday(load.Day),
            load.Day == desk.Today,
            load.Open == 0,
            Of(load)
        );

    /// <summary>How full a day is.</summary>
    public static DayLoadDto Of(DayLoad load) =>
        new(
            load.Words,
            load.Open > 0 ? Math.Min(100, load.Planned * 100 / load.Open)
                : load.Planned > 0 ? 100
                : 0,
            load.Over > 0 ? $"{WorkTime.Words(load.Over)} too much" : "",
            load.Unestimated switch
            {
                0 => "",
                1 => "1 task says no hours",
                var many => $"{many} tasks say no hours",
            }
        );

    /// <summary>Meetings, appointments and times taken elsewhere, each on every day it touches, in the order of their time.</summary>
    public static IReadOnlyList<WeekMeetingDto> Meetings(
        Desk desk,
        HeldDays held,
        IReadOnlyList<(Instant Start, Instant End)> busy
    ) =>
        [
            .. held
                .Meetings.Select(m =>
                    (m.Start, m.End, Words: $"{m.Name}, {m.Client}", Of: m.Title, (long?)m.Project.Value, (int?)null)
                )
                .Concat(held.Appointments.Select(a => (a.Start, a.End, Words: a.What, Of: "", (long?)null, (int?)a.Id)))
                .Concat(busy.Select(b => (b.Start, b.End, Words: "Busy elsewhere", Of: "", (long?)null, (int?)null)))
                .OrderBy(one => one.Start)
                .SelectMany(one =>
                    DaysOf(desk, one.Start, one.End)
                        .Where(day => held.Holds(day))
                        .Select(day => new WeekMeetingDto(
                            day,
                            Time(desk, one.Start, one.End, day),
                            one.Words,
                            one.Of,
                            one.Item5,
                            one.Item6
                        ))
                ),
        ];

    /// <summary>A task as it stands in a day, or beside the days.</summary>
    /// <param name="where">Its project, where that is not said beside it already.</param>
    public static PlannedTaskDto Task(Desk desk, HeldTask task, LocalDate? day, string where = "") =>
        new(
            task.Id.Value,
            task.Project.Value,
            task.Title,
            day,
            task.Minutes is { } minutes ? WorkTime.Words(minutes) : "",
            task.Due is { } due ? DateWords.Due(due, desk.Today, task.DoneAt is not null) : "",
            new(
                task.DoneAt is not null,
                task.DoneAt is null && task.Due < desk.Today,
                task.DoneAt is null && task.WorkOn < desk.Today,
                where
            )
        );

    private static IEnumerable<LocalDate> DaysOf(Desk desk, Instant start, Instant end)
    {
        // what ends at midnight does not touch the day after
        var last = desk.Calendar.DateOf(end - Duration.Epsilon);
        for (var day = desk.Calendar.DateOf(start); day <= last; day = day.PlusDays(1))
            yield return day;
    }

    private static string Time(Desk desk, Instant start, Instant end, LocalDate day)
    {
        string Of(Instant at) => DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay);
        return desk.Calendar.DateOf(start) == day ? Of(start)
            : end < desk.Calendar.StartOf(day.PlusDays(1)) ? $"until {Of(end)}"
            : "all day";
    }
}
