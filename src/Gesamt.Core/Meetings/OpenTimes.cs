using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Meetings;

/// <summary>Where a meeting takes place.</summary>
public enum MeetingPlace
{
    Video,
    Phone,
    Place,
}

/// <summary>A span of a weekday in which meetings can be; the studio's local time.</summary>
/// <param name="Until">After <paramref name="From"/>, or midnight for the end of the day.</param>
public sealed record OpenSpan(IsoDayOfWeek Day, LocalTime From, LocalTime Until)
{
    /// <summary>When it opens and closes on a day of its own weekday. Elapsed time is counted between them, so a clock change inside it shifts nothing.</summary>
    public (Instant Open, Instant Close) On(LocalDate day, StudioCalendar calendar) =>
        (
            calendar.At(day + From),
            Until == LocalTime.Midnight ? calendar.StartOf(day.PlusDays(1)) : calendar.At(day + Until)
        );
}

/// <summary>How meetings of a kind are offered.</summary>
/// <param name="Minutes">How long one lasts.</param>
/// <param name="Step">Starts lie this many minutes apart, from the opening of each span.</param>
/// <param name="Buffer">Minutes kept free before and after; between two meetings the larger of theirs counts.</param>
/// <param name="NoticeHours">A start is at least this far ahead.</param>
/// <param name="DaysAhead">And at most this many days.</param>
/// <param name="MostPerDay">Meetings of all kinds on one of the studio's days; null for no limit.</param>
public sealed record MeetingRule(int Minutes, int Step, int Buffer, int NoticeHours, int DaysAhead, int? MostPerDay);

/// <summary>A meeting that has its time already.</summary>
public readonly record struct Taken(Instant Start, Instant End, int Buffer);

/// <summary>A time taken by something in an outside calendar; it has no buffer.</summary>
public readonly record struct Busy(Instant Start, Instant End);

/// <summary>Which times can be offered: open hours less days off, own meetings and busy times.</summary>
public static class OpenTimes
{
    /// <summary>Every start that can be offered from now on, in order, each once.</summary>
    public static ImmutableArray<Instant> Of(
        MeetingRule rule,
        IReadOnlyList<OpenSpan> hours,
        StudioCalendar calendar,
        IReadOnlyCollection<Taken> meetings,
        IReadOnlyCollection<Busy> busy,
        Instant now
    )
    {
        var earliest = now + Duration.FromHours(rule.NoticeHours);
        var first = calendar.DateOf(earliest);
        var last = calendar.DateOf(now).PlusDays(rule.DaysAhead);
        var perDay = meetings.CountBy(meeting => calendar.DateOf(meeting.Start)).ToDictionary();
        var starts = new SortedSet<Instant>();
        for (var day = first; day <= last; day = day.PlusDays(1))
        {
            if (calendar.DaysOff.Contains(day) || perDay.GetValueOrDefault(day) >= (rule.MostPerDay ?? int.MaxValue))
                continue;
            foreach (var span in hours.Where(span => span.Day == day.DayOfWeek))
            foreach (var start in InSpan(rule, span, day, calendar))
                if (start >= earliest && IsFree(rule, start, meetings, busy))
                    starts.Add(start);
        }
        return [.. starts];
    }

    /// <summary>Whether one start can be had now: what is asked again, in the same transaction, when somebody takes it.</summary>
    public static bool IsOpen(
        Instant start,
        MeetingRule rule,
        IReadOnlyList<OpenSpan> hours,
        StudioCalendar calendar,
        IReadOnlyCollection<Taken> meetings,
        IReadOnlyCollection<Busy> busy,
        Instant now
    ) => Of(rule, hours, calendar, meetings, busy, now).Contains(start);

    /// <summary>Starts on the grid whose meeting lies inside the span.</summary>
    private static IEnumerable<Instant> InSpan(MeetingRule rule, OpenSpan span, LocalDate day, StudioCalendar calendar)
    {
        var (open, close) = span.On(day, calendar);
        for (
            var start = open;
            start + Duration.FromMinutes(rule.Minutes) <= close;
            start += Duration.FromMinutes(rule.Step)
        )
            yield return start;
    }

    private static bool IsFree(
        MeetingRule rule,
        Instant start,
        IReadOnlyCollection<Taken> meetings,
        IReadOnlyCollection<Busy> busy
    )
    {
        var end = start + Duration.FromMinutes(rule.Minutes);
        return meetings.All(meeting =>
                Duration.FromMinutes(Math.Max(rule.Buffer, meeting.Buffer)) is var gap
                && (end + gap <= meeting.Start || start >= meeting.End + gap)
            ) && busy.All(taken => end <= taken.Start || start >= taken.End);
    }
}
