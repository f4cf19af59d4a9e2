using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Meetings;
using NodaTime;

namespace Gesamt.Core.Planning;

/// <summary>A meeting as it takes up a day: with a client, or an appointment of one's own.</summary>
public readonly record struct TakenTime(Instant Start, Instant End);

/// <summary>A task on the day it is worked on.</summary>
/// <param name="Minutes">How long it will take; null where nobody said.</param>
public readonly record struct DayTask(LocalDate Day, int? Minutes);

/// <summary>How much is planned for a day, against how much of it is open. In minutes.</summary>
/// <param name="Open">Open hours; none on a day off.</param>
/// <param name="Meetings">Lengths of its meetings.</param>
/// <param name="Tasks">Estimates of the tasks worked on that day.</param>
/// <param name="Unestimated">Tasks without an estimate: counted beside it, not guessed.</param>
public readonly record struct DayLoad(LocalDate Day, int Open, int Meetings, int Tasks, int Unestimated)
{
    /// <summary>Meetings and tasks together.</summary>
    public int Planned => Meetings + Tasks;

    /// <summary>What is more than the day holds.</summary>
    public int Over => Math.Max(0, Planned - Open);

    /// <summary>“6 h 30 min of 7 h”, “7 h open” where nothing is planned; of a closed day what is planned alone, and nothing while that is nothing.</summary>
    public string Words =>
        (Open, Planned) switch
        {
            (0, 0) => "",
            (0, var planned) => WorkTime.Words(planned),
            (var open, 0) => $"{WorkTime.Words(open)} open",
            var (open, planned) => $"{WorkTime.Words(planned)} of {WorkTime.Words(open)}",
        };
}

/// <summary>The load of days: lengths of meetings and estimates of tasks, against open hours less days off.</summary>
public static class Load
{
    /// <summary>Each day from the first on, in order.</summary>
    /// <param name="days">How many.</param>
    public static ImmutableArray<DayLoad> Of(
        LocalDate first,
        int days,
        IReadOnlyList<OpenSpan> hours,
        StudioCalendar calendar,
        IReadOnlyCollection<TakenTime> meetings,
        IReadOnlyCollection<DayTask> tasks
    )
    {
        var taken = new int[days];
        foreach (var meeting in meetings)
        {
            var from = Math.Max(0, DateWords.DaysBetween(first, calendar.DateOf(meeting.Start)));
            var until = Math.Min(days - 1, DateWords.DaysBetween(first, calendar.DateOf(meeting.End)));
            for (var at = from; at <= until; at++)
                taken[at] += Within(meeting, first.PlusDays(at), calendar);
        }
        var of = tasks.ToLookup(task => task.Day);
        return
        [
            .. Enumerable
                .Range(0, days)
                .Select(at =>
                {
                    var day = first.PlusDays(at);
                    return new DayLoad(
                        day,
                        OpenMinutes(day, hours, calendar),
                        taken[at],
                        of[day].Sum(task => task.Minutes ?? 0),
                        of[day].Count(task => task.Minutes is null)
                    );
                }),
        ];
    }

    /// <summary>The day a task takes up: the one it was planned for; of one that was done before, the day it was done.</summary>
    public static LocalDate DayOf(LocalDate workOn, LocalDate? doneOn) => doneOn < workOn ? doneOn.Value : workOn;

    /// <summary>“27 h planned of 33 h open. Tuesday holds 2 h too much.”</summary>
    public static string Summary(IReadOnlyCollection<DayLoad> days)
    {
        var (planned, open) = (days.Sum(day => day.Planned), days.Sum(day => day.Open));
        var unsaid = days.Sum(day => day.Unestimated);
        List<string> said =
        [
            planned == 0 ? $"Nothing planned{(open > 0 ? $", {WorkTime.Words(open)} open" : "")}"
            : open == 0 ? $"{WorkTime.Words(planned)} planned, none open"
            : $"{WorkTime.Words(planned)} planned of {WorkTime.Words(open)} open",
        ];
        if (unsaid > 0)
            said.Add(unsaid == 1 ? "One task says no hours" : $"{unsaid} tasks say no hours");
        var full = days.Where(day => day.Over > 0).ToList();
        if (full is [var first, .. var more])
            said.Add(
                string.Join(
                    ", ",
                    more.Select(day => $"{day.Day.DayOfWeek} {WorkTime.Words(day.Over)}")
                        .Prepend($"{first.Day.DayOfWeek} holds {WorkTime.Words(first.Over)} too much")
                )
            );
        return $"{string.Join(". ", said)}.";
    }

    /// <summary>How long a day is open: its spans, those that overlap once, as the clock runs on that day.</summary>
    public static int OpenMinutes(LocalDate day, IReadOnlyList<OpenSpan> hours, StudioCalendar calendar)
    {
        if (calendar.DaysOff.Contains(day))
            return 0;
        var open = Duration.Zero;
        var until = Instant.MinValue;
        foreach (var span in hours.Where(span => span.Day == day.DayOfWeek).OrderBy(span => span.From))
        {
            var (from, close) = span.On(day, calendar);
            var begins = from > until ? from : until;
            if (close <= begins)
                continue;
            open += close - begins;
            until = close;
        }
        return Minutes(open);
    }

    private static int Within(TakenTime meeting, LocalDate day, StudioCalendar calendar)
    {
        var (start, end) = (calendar.StartOf(day), calendar.StartOf(day.PlusDays(1)));
        var (from, until) = (meeting.Start > start ? meeting.Start : start, meeting.End < end ? meeting.End : end);
        return until > from ? Minutes(until - from) : 0;
    }

    private static int Minutes(Duration duration) => (int)duration.TotalMinutes;
}
