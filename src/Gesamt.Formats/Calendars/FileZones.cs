using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using NodaTime;
using NodaTime.TimeZones;
using Calendar = Ical.Net.Calendar;

namespace Gesamt.Formats.Calendars;

/// <summary>Time zones that a calendar file describes itself (VTIMEZONE, RFC 5545, 3.6.5), for names that no zone table knows.</summary>
internal sealed class FileZones
{
    /// <summary>From a local time on, so far from UTC.</summary>
    private sealed record Change(LocalDateTime From, Offset Offset);

    private const int FirstYear = 1970,
        LastYear = 2100;

    private readonly Dictionary<string, List<Change>> zones = new(StringComparer.Ordinal);

    public static FileZones Of(Calendar calendar)
    {
        var of = new FileZones();
        foreach (
            var zone in calendar.TimeZones.Where(zone =>
                zone.TzId is { } id && DateTimeZoneProviders.Tzdb.GetZoneOrNull(id) is null
            )
        )
            of.zones[zone.TzId!] = [.. zone.TimeZoneInfos.SelectMany(Changes).OrderBy(change => change.From)];
        return of;
    }

    /// <summary>A time of the file as an instant; one without a zone, and a whole day, in <paramref name="floating"/>.</summary>
    /// <param name="id">The zone as the file names it.</param>
    public Instant At(CalDateTime time, string? id, DateTimeZone floating)
    {
        var local = LocalDateTime.FromDateTime(DateTime.SpecifyKind(time.Value, DateTimeKind.Unspecified));
        if (!time.HasTime || time.TzId is null)
            return local.InZone(floating, Resolvers.LenientResolver).ToInstant();
        if (id is null || !zones.TryGetValue(id, out var changes) || changes.Count == 0)
            return Instant.FromDateTimeUtc(DateTime.SpecifyKind(time.AsUtc, DateTimeKind.Utc));
        return local
            .WithOffset((changes.LastOrDefault(change => change.From <= local) ?? changes[0]).Offset)
            .ToInstant();
    }

    /// <summary>Every time an observance begins: its first, and where it is repeated, each year's.</summary>
    private static IEnumerable<Change> Changes(VTimeZoneInfo info)
    {
        if (info.DtStart is not { } begins || info.OffsetTo is not { } to)
            return [];
        var offset = Offset.FromTimeSpan(to.Offset);
        var first = LocalDateTime.FromDateTime(DateTime.SpecifyKind(begins.Value, DateTimeKind.Unspecified));
        if (info.RecurrenceRule is not { } rule)
            return [new(first, offset)];
        // asked of an event with the same rule, whose repetitions are those of the observance
        var repeated = new CalendarEvent
        {
            Start = new CalDateTime(begins.Value, CalDateTime.UtcTzId),
            Duration = Ical.Net.DataTypes.Duration.FromMinutes(1),
            RecurrenceRule = rule,
        };
        return
        [
            .. repeated
                .GetOccurrences(new CalDateTime(FirstYear, 1, 1))
                .TakeWhile(one => one.Period.StartTime.Year <= LastYear)
                .Select(one => new Change(
                    LocalDateTime.FromDateTime(
                        DateTime.SpecifyKind(one.Period.StartTime.Value, DateTimeKind.Unspecified)
                    ),
                    offset
                ))
                .Take(LastYear - FirstYear + 1),
        ];
    }
}
