using System.Runtime.Serialization;
using Gesamt.Core.Meetings;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using NodaTime;
using NodaTime.TimeZones;
using Calendar = Ical.Net.Calendar;

namespace Gesamt.Formats.Calendars;

/// <summary>Reads the busy times of an outside calendar (RFC 5545), lenient in what it gets wrong.</summary>
public static class BusyTimes
{
    private const int MostOccurrences = 20_000;

    // an event of a zone nobody knows is kept at its written time rather than losing the whole calendar
    static BusyTimes()
    {
        var known = TimeZoneResolvers.TimeZoneResolver;
        TimeZoneResolvers.TimeZoneResolver = id =>
        {
            try { return known(id); }
            catch (ArgumentException) { return DateTimeZone.Utc; }
        };
    }

    /// <summary>Times between two instants that are taken: events that are not cancelled and not marked as free, with their repetitions.</summary>
    /// <param name="zone">The zone of times that name none, and of whole days.</param>
    /// <exception cref="FormatException">The text is no calendar, or one of its rules cannot be read.</exception>
    public static IReadOnlyList<Busy> Read(string text, DateTimeZone zone, Instant from, Instant until)
    {
        try
        {
            var calendar = Calendar.Load(text) ?? throw new FormatException("This is no calendar: it holds no BEGIN:VCALENDAR.");
            // repetitions are asked for from a day before, so that what began then and still goes on is seen
            var start = new CalDateTime(from.Minus(NodaTime.Duration.FromDays(1)).ToDateTimeUtc(), CalDateTime.UtcTzId);
            return
            [
                .. calendar.GetOccurrences<CalendarEvent>(start).Take(MostOccurrences).Select(one => (Event: (CalendarEvent)one.Source, Busy: Of(one.Period, zone)))
                    .TakeWhile(one => one.Busy.Start < until)
                    .Where(one => one.Busy.End > from && one.Busy.End > one.Busy.Start && one.Event.Status != EventStatus.Cancelled && one.Event.Transparency != TransparencyType.Transparent)
                    .Select(one => one.Busy),
            ];
        }
        catch (Exception e) when (e is SerializationException or ArgumentException or InvalidOperationException)
        {
            throw new FormatException("This calendar cannot be read. A calendar file ends in .ics and begins with BEGIN:VCALENDAR.", e);
        }
    }

    private static Busy Of(Ical.Net.DataTypes.Period period, DateTimeZone zone) => new(At(period.StartTime, zone), At(period.EffectiveEndTime ?? period.StartTime, zone));

    private static Instant At(CalDateTime time, DateTimeZone zone) =>
        time.HasTime && time.TzId is not null ? Instant.FromDateTimeUtc(DateTime.SpecifyKind(time.AsUtc, DateTimeKind.Utc))
        : LocalDateTime.FromDateTime(DateTime.SpecifyKind(time.Value, DateTimeKind.Unspecified)).InZone(zone, Resolvers.LenientResolver).ToInstant();
}
