using System.Runtime.Serialization;
using System.Text.RegularExpressions;
using Gesamt.Core.Meetings;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using NodaTime;
using NodaTime.Text;
using Calendar = Ical.Net.Calendar;
using Period = Ical.Net.DataTypes.Period;

namespace Gesamt.Formats.Calendars;

/// <summary>Reads the busy times of an outside calendar (RFC 5545), lenient in what it gets wrong: one entry that cannot be read costs none of the others.</summary>
public static partial class BusyTimes
{
    private const int MostOccurrences = 20_000;

    // an event of a zone nobody knows is read in its own wall time, to which the file's own rules are applied
    static BusyTimes()
    {
        var known = TimeZoneResolvers.TimeZoneResolver;
        TimeZoneResolvers.TimeZoneResolver = id =>
        {
            try
            {
                return known(id);
            }
            catch (ArgumentException)
            {
                return DateTimeZone.Utc;
            }
        };
    }

    /// <summary>Times between two instants that are taken: events with their repetitions, and times told as busy (VFREEBUSY); not what is cancelled, marked as free, or declined by its owner.</summary>
    /// <param name="zone">The zone of times that name none, and of whole days.</param>
    /// <param name="own">The owner's mail addresses, by which what they declined is told.</param>
    /// <exception cref="FormatException">The text is no calendar.</exception>
    public static IReadOnlyList<Busy> Read(
        string text,
        DateTimeZone zone,
        Instant from,
        Instant until,
        IReadOnlyCollection<string>? own = null
    )
    {
        if (!text.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            throw new FormatException(
                "This is no calendar. A calendar file ends in .ics and begins with BEGIN:VCALENDAR."
            );
        var window = new Window(zone, from, until, own ?? []);
        if (Whole(text, window) is { } all)
            return all;
        var read = Pieces(text)
            .Select(piece => Whole(piece, window) ?? Whole(Rules().Replace(piece, ""), window))
            .OfType<IReadOnlyList<Busy>>()
            .ToList();
        return read.Count > 0
            ? [.. read.SelectMany(busy => busy)]
            : throw new FormatException(
                "This calendar cannot be read. A calendar file ends in .ics and begins with BEGIN:VCALENDAR."
            );
    }

    private sealed record Window(DateTimeZone Zone, Instant From, Instant Until, IReadOnlyCollection<string> Own);

    /// <summary>All of a calendar; null where something in it cannot be read.</summary>
    private static IReadOnlyList<Busy>? Whole(string text, Window window)
    {
        try
        {
            if (Calendar.Load(text) is not { } calendar)
                return null;
            var zones = FileZones.Of(calendar);
            // repetitions are asked for from a day before, so that what began then and still goes on is seen
            var start = new CalDateTime(
                window.From.Minus(NodaTime.Duration.FromDays(1)).ToDateTimeUtc(),
                CalDateTime.UtcTzId
            );
            return
            [
                .. calendar
                    .GetOccurrences<CalendarEvent>(start)
                    .Take(MostOccurrences)
                    .Select(one =>
                        (
                            Event: (CalendarEvent)one.Source,
                            Busy: Of(one.Period, ((CalendarEvent)one.Source).Start?.TzId, zones, window)
                        )
                    )
                    // a day more, since an hour of a zone of the file's own was put in order by another
                    .TakeWhile(one => one.Busy.Start < window.Until.Plus(NodaTime.Duration.FromDays(1)))
                    .Where(one => IsTaken(one.Event, window))
                    .Select(one => one.Busy)
                    .Concat(Told(text))
                    .Where(busy => busy.End > window.From && busy.Start < window.Until && busy.End > busy.Start),
            ];
        }
        catch (Exception e)
            when (e
                    is SerializationException
                        or ArgumentException
                        or InvalidOperationException
                        or FormatException
                        or OverflowException
                        or NullReferenceException
            )
        {
            return null;
        }
    }

    private static bool IsTaken(CalendarEvent one, Window window) =>
        one.Status != EventStatus.Cancelled
        && one.Transparency != TransparencyType.Transparent
        && !"FREE".Equals(
            one.Properties["X-MICROSOFT-CDO-BUSYSTATUS"]?.Value?.ToString(),
            StringComparison.OrdinalIgnoreCase
        )
        && !IsDeclined(one, window.Own);

    /// <summary>Declined by the owner; where no address of the owner's is invited, by the only one who is.</summary>
    private static bool IsDeclined(CalendarEvent one, IReadOnlyCollection<string> own)
    {
        bool Declined(Attendee attendee) =>
            EventParticipationStatus.Declined.Equals(attendee.ParticipationStatus, StringComparison.OrdinalIgnoreCase);
        var mine = one
            .Attendees.Where(attendee =>
                attendee.Value is { } address
                && own.Any(mail => address.ToString().EndsWith($":{mail}", StringComparison.OrdinalIgnoreCase))
            )
            .ToList();
        return mine.Count > 0 ? mine.All(Declined) : one.Attendees is [var only] && Declined(only);
    }

    /// <param name="id">The zone as the file names it: the library has resolved it by then.</param>
    private static Busy Of(Period period, string? id, FileZones zones, Window window) =>
        new(
            zones.At(period.StartTime, id, window.Zone),
            zones.At(period.EffectiveEndTime ?? period.StartTime, id, window.Zone)
        );

    /// <summary>Times told as busy (RFC 5545, 3.8.2.6): in UTC, each from its beginning to an end or for so long.</summary>
    private static IEnumerable<Busy> Told(string text) =>
        from component in FreeBusies()
            .Matches(Fold().Replace(text.ReplaceLineEndings("\r\n"), ""))
            .Take(MostOccurrences)
        from line in FreeBusy().Matches(component.Value)
        where !line.Groups[1].Value.Contains("FBTYPE=FREE", StringComparison.OrdinalIgnoreCase)
        from part in line.Groups[2].Value.Split(',').Take(MostOccurrences)
        let ends = part.Trim().Split('/')
        where ends.Length == 2 && Utc.Parse(ends[0]).Success
        let begin = Utc.Parse(ends[0]).Value.InUtc().ToInstant()
        let end = Utc.Parse(ends[1]) is { Success: true, Value: var at } ? at.InUtc().ToInstant()
        : PeriodPattern.Roundtrip.Parse(ends[1]) is { Success: true, Value: var length }
            ? Utc.Parse(ends[0]).Value.Plus(length).InUtc().ToInstant()
        : begin
        select new Busy(begin, end);

    private static readonly LocalDateTimePattern Utc = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss'Z'"
    );

    /// <summary>The same calendar once for every UID, with the zones of the file: an event and its changed repetitions stay together.</summary>
    private static IEnumerable<string> Pieces(string text)
    {
        var plain = text.ReplaceLineEndings("\r\n");
        var zones = string.Concat(Components("VTIMEZONE").Matches(plain).Select(match => match.Value));
        var entries = Components("VEVENT")
            .Matches(plain)
            .Concat(Components("VFREEBUSY").Matches(plain))
            .Select(match => match.Value);
        return entries
            .Take(MostOccurrences)
            .GroupBy(entry => Uid().Match(entry) is { Success: true } uid ? uid.Groups[1].Value : entry)
            .Select(same =>
                $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Gesamt//Reading//EN\r\n{zones}{string.Concat(same)}END:VCALENDAR\r\n"
            );
    }

    private static Regex Components(string name) =>
        name switch
        {
            "VTIMEZONE" => TimeZones(),
            "VEVENT" => Events(),
            _ => FreeBusies(),
        };

    [GeneratedRegex(
        @"^BEGIN:VTIMEZONE\r\n.*?^END:VTIMEZONE\r\n",
        RegexOptions.Singleline | RegexOptions.Multiline | RegexOptions.IgnoreCase
    )]
    private static partial Regex TimeZones();

    [GeneratedRegex(
        @"^BEGIN:VEVENT\r\n.*?^END:VEVENT\r\n",
        RegexOptions.Singleline | RegexOptions.Multiline | RegexOptions.IgnoreCase
    )]
    private static partial Regex Events();

    [GeneratedRegex(
        @"^BEGIN:VFREEBUSY\r\n.*?^END:VFREEBUSY\r\n",
        RegexOptions.Singleline | RegexOptions.Multiline | RegexOptions.IgnoreCase
    )]
    private static partial Regex FreeBusies();

    [GeneratedRegex(@"^UID[^:\r\n]*:([^\r\n]+)", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex Uid();

    [GeneratedRegex(@"^FREEBUSY((?:;[^:\r\n]*)?):([^\r\n]*)", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex FreeBusy();

    [GeneratedRegex(@"\r\n[ \t]")]
    private static partial Regex Fold();

    // an event whose rule cannot be read is kept at its first time
    [GeneratedRegex(
        @"^(?:RRULE|EXRULE|RDATE|EXDATE)[:;][^\r\n]*\r\n(?:[ \t][^\r\n]*\r\n)*",
        RegexOptions.Multiline | RegexOptions.IgnoreCase
    )]
    private static partial Regex Rules();
}
