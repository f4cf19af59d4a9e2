using System.Collections.Immutable;
using NodaTime;
using NodaTime.TimeZones;

namespace Gesamt.Core.Calendar;

/// <summary>The studio's zone, days off and sending hours, with the date arithmetic that follows from them.</summary>
/// <param name="Zone">Where the studio's days begin and end.</param>
/// <param name="DaysOff">Single dates on which nothing is done; Saturdays and Sundays are off anyway.</param>
/// <param name="SendFrom">Earliest local time at which a step may write to a client.</param>
/// <param name="SendUntil">Local time from which a step waits for the next sending day; after <paramref name="SendFrom"/>.</param>
public sealed record StudioCalendar(
    DateTimeZone Zone,
    ImmutableHashSet<LocalDate> DaysOff,
    LocalTime SendFrom,
    LocalTime SendUntil
)
{
    /// <summary>A named date without a time of its own means nine in the morning.</summary>
    public static readonly LocalTime DefaultTime = new(9, 0);

    public LocalDate DateOf(Instant instant) => instant.InZone(Zone).Date;

    public LocalDateTime LocalOf(Instant instant) => instant.InZone(Zone).LocalDateTime;

    /// <summary>The start of a local day; where midnight is skipped, its first moment.</summary>
    public Instant StartOf(LocalDate date) => Zone.AtStartOfDay(date).ToInstant();

    /// <summary>A local time as an instant: skipped times move forward by the gap, doubled ones take the earlier.</summary>
    public Instant At(LocalDateTime local) => local.InZone(Zone, Resolvers.LenientResolver).ToInstant();

    public bool IsBusinessDay(LocalDate date) =>
        date.DayOfWeek is not (IsoDayOfWeek.Saturday or IsoDayOfWeek.Sunday) && !DaysOff.Contains(date);

    /// <summary>A date so many days, weeks, months or years away; months clamp to the month's end.</summary>
    /// <exception cref="ArgumentException">The span counts minutes or hours.</exception>
    public LocalDate Add(LocalDate date, Span span) =>
        span.Unit switch
        {
            SpanUnit.Days => date.PlusDays(span.Count),
            SpanUnit.Weeks => date.PlusWeeks(span.Count),
            SpanUnit.Months => date.PlusMonths(span.Count),
            SpanUnit.Years => date.PlusYears(span.Count),
            SpanUnit.BusinessDays => BusinessDays(date, span.Count),
            _ when span.Count == 0 => date,
            _ => throw new ArgumentException("Minutes and hours are elapsed time and need an instant.", nameof(span)),
        };

    /// <summary>An instant so far from another: elapsed for minutes and hours; else the local date moves and the time of day stays, or becomes <paramref name="timeOfDay"/>.</summary>
    public Instant Add(Instant anchor, Span span, LocalTime? timeOfDay = null)
    {
        if (span.IsElapsed && (span.Count != 0 || timeOfDay is null))
            return anchor
                + (span.Unit == SpanUnit.Hours ? Duration.FromHours(span.Count) : Duration.FromMinutes(span.Count));
        var local = LocalOf(anchor);
        return At((span.Count == 0 ? local.Date : Add(local.Date, span)) + (timeOfDay ?? local.TimeOfDay));
    }

    /// <summary>Within sending hours: a moment outside them moves to the next opening, or back to the last for what must be out before something.</summary>
    public Instant WithinSendingHours(Instant instant, bool earlier)
    {
        var local = LocalOf(instant);
        var day = local.Date;
        if (IsBusinessDay(day) && local.TimeOfDay >= SendFrom && local.TimeOfDay < SendUntil)
            return instant;
        if (earlier)
        {
            if (!IsBusinessDay(day) || local.TimeOfDay < SendFrom)
                day = BusinessDays(day, -1);
            return At(day + SendUntil.PlusMinutes(-1));
        }
        if (!IsBusinessDay(day) || local.TimeOfDay >= SendUntil)
            day = BusinessDays(day, 1);
        return At(day + SendFrom);
    }

    /// <summary>The n-th business day strictly after (before) a date; 0 is the date itself.</summary>
    private LocalDate BusinessDays(LocalDate date, int count)
    {
        var step = Math.Sign(count);
        for (var left = Math.Abs(count); left > 0; )
        {
            date = date.PlusDays(step);
            if (IsBusinessDay(date))
                left--;
        }
        return date;
    }
}
