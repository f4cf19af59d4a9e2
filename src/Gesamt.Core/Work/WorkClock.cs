using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>Minutes of a local day.</summary>
public readonly record struct DayMinutes(LocalDate Day, int Minutes);

/// <summary>What a clock that ran comes to.</summary>
public static class WorkClock
{
    private static readonly Duration Longest = Duration.FromHours(12);

    /// <summary>Whether it ran for longer than anybody works at a stretch, so that its time is asked about.</summary>
    public static bool IsAskedAbout(Instant started, Instant stopped) => stopped - started > Longest;

    /// <summary>Whole minutes, half of one goes up; at least one.</summary>
    public static int Minutes(Instant started, Instant stopped) => Math.Max(1, Rounded(stopped - started));

    /// <summary>The minutes by local day, in order; they add up to <see cref="Minutes"/>. A day that is 25 hours long counts 24 at most.</summary>
    public static ImmutableArray<DayMinutes> ByDay(Instant started, Instant stopped, StudioCalendar calendar)
    {
        var days = ImmutableArray.CreateBuilder<DayMinutes>();
        var (first, last) = (calendar.DateOf(started), calendar.DateOf(stopped));
        var before = 0;
        for (var day = first; day <= last; day = day.PlusDays(1))
        {
            var until = day == last ? Minutes(started, stopped) : Rounded(calendar.StartOf(day.PlusDays(1)) - started);
            if (until > before)
                days.Add(new(day, Math.Min(until - before, WorkTime.Most)));
            before = until;
        }
        return days.ToImmutable();
    }

    private static int Rounded(Duration time) => (int)Math.Floor(time.TotalMinutes + 0.5);
}
