using Gesamt.Core.Texts;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using Calendar = Ical.Net.Calendar;

namespace Gesamt.Formats.Calendars;

/// <summary>What an invitation does: asks to come, or says it is off (RFC 5546, 3.2.2 and 3.2.5).</summary>
public enum InvitationMethod
{
    Request,
    Cancel,
}

/// <summary>A meeting as calendars know it. The UID stays through every change; the sequence counts them.</summary>
/// <param name="Stamp">When this text was made (DTSTAMP).</param>
public sealed record CalendarMeeting(
    string Uid,
    int Sequence,
    Instant Start,
    Instant End,
    string Title,
    string Description,
    string Location,
    Instant Stamp,
    (string Name, string Mail)? Organizer = null,
    (string Name, string Mail)? Attendee = null,
    bool Cancelled = false,
    int? AlarmMinutes = null
)
{
    /// <summary>What the invited person said: they chose the time themselves, or answered; else they are asked.</summary>
    public Attendance Attendance { get; init; } = Attendance.Asked;

    /// <summary>Whether it is provisional (STATUS:TENTATIVE, RFC 5545, 3.8.1.11).</summary>
    public bool Tentative { get; init; }
}

/// <summary>What an invited person says (PARTSTAT, RFC 5545, 3.2.12).</summary>
public enum Attendance
{
    Asked,
    Accepted,
    Declined,
    Tentative,
}

/// <summary>A task that is due on a day.</summary>
public sealed record CalendarTask(
    string Uid,
    LocalDate Due,
    string Title,
    string Description,
    Instant Stamp,
    int? AlarmMinutes = null
);

/// <summary>Writes iCalendar (RFC 5545). Times are written in UTC, so that no zone table can be read differently.</summary>
public static class Invitations
{
    private const string Producer = "-//Gesamt//Meetings//EN";

    /// <summary>An invitation to go with a letter.</summary>
    public static string Of(InvitationMethod method, CalendarMeeting meeting)
    {
        var calendar = new Calendar
        {
            Method = method == InvitationMethod.Request ? CalendarMethods.Request : CalendarMethods.Cancel,
            ProductId = Producer,
        };
        calendar.Events.Add(Event(meeting with { Cancelled = method == InvitationMethod.Cancel }));
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>A feed of meetings and dated tasks, with alarms.</summary>
    public static string Feed(string name, IEnumerable<CalendarMeeting> meetings, IEnumerable<CalendarTask> tasks)
    {
        var calendar = new Calendar { Method = CalendarMethods.Publish, ProductId = Producer };
        calendar.AddProperty("X-WR-CALNAME", Typed.OneLine(name));
        foreach (var meeting in meetings)
            calendar.Events.Add(Event(meeting));
        foreach (var task in tasks)
            calendar.Events.Add(DayOf(task));
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static CalendarEvent Event(CalendarMeeting meeting)
    {
        var made = new CalendarEvent
        {
            Uid = meeting.Uid,
            Sequence = meeting.Sequence,
            DtStamp = Utc(meeting.Stamp),
            Start = Utc(meeting.Start),
            End = Utc(meeting.End),
            Summary = Typed.OneLine(meeting.Title),
            Description = Typed.Lines(meeting.Description),
            Location = Typed.OneLine(meeting.Location),
            Status =
                meeting.Cancelled ? EventStatus.Cancelled
                : meeting.Tentative ? EventStatus.Tentative
                : EventStatus.Confirmed,
        };
        if (meeting.Organizer is { } organizer)
            made.Organizer = new($"mailto:{organizer.Mail}") { CommonName = Named(organizer.Name) };
        if (meeting.Attendee is { } attendee)
            made.Attendees.Add(
                new($"mailto:{attendee.Mail}")
                {
                    CommonName = Named(attendee.Name),
                    ParticipationStatus = StatusOf(meeting.Attendance),
                    Role = ParticipationRole.RequiredParticipant,
                    Rsvp = meeting.Attendance == Attendance.Asked,
                }
            );
        if (meeting is { AlarmMinutes: { } minutes, Cancelled: false })
            made.Alarms.Add(Alarm(meeting.Title, minutes));
        return made;
    }

    private static string StatusOf(Attendance attendance) =>
        attendance switch
        {
            Attendance.Accepted => EventParticipationStatus.Accepted,
            Attendance.Declined => EventParticipationStatus.Declined,
            Attendance.Tentative => EventParticipationStatus.Tentative,
            _ => EventParticipationStatus.NeedsAction,
        };

    /// <summary>What a reply says (METHOD:REPLY, RFC 5546, 3.2.3): of which meeting, and what its attendee answers. Null where it is none.</summary>
    public static (string Uid, Attendance Attendance)? ReplyIn(string text)
    {
        try
        {
            var replied = Calendar.Load(text)?.Events.FirstOrDefault();
            return replied is { Uid: { } uid, Attendees: [var attendee, ..] }
                ? (
                    uid,
                    attendee.ParticipationStatus?.ToUpperInvariant() switch
                    {
                        EventParticipationStatus.Accepted => Attendance.Accepted,
                        EventParticipationStatus.Declined => Attendance.Declined,
                        EventParticipationStatus.Tentative => Attendance.Tentative,
                        _ => Attendance.Asked,
                    }
                )
                : null;
        }
        catch (Exception e)
            when (e
                    is System.Runtime.Serialization.SerializationException
                        or ArgumentException
                        or InvalidOperationException
                        or FormatException
            )
        {
            return null;
        }
    }

    /// <summary>A whole day that takes no time: most calendar programs show no VTODO of a feed.</summary>
    private static CalendarEvent DayOf(CalendarTask task)
    {
        var made = new CalendarEvent
        {
            Uid = task.Uid,
            DtStamp = Utc(task.Stamp),
            Start = new CalDateTime(task.Due.Year, task.Due.Month, task.Due.Day),
            End = new CalDateTime(task.Due.PlusDays(1).Year, task.Due.PlusDays(1).Month, task.Due.PlusDays(1).Day),
            Summary = Typed.OneLine(task.Title),
            Description = Typed.Lines(task.Description),
            Transparency = TransparencyType.Transparent,
        };
        if (task.AlarmMinutes is { } minutes)
            made.Alarms.Add(Alarm(task.Title, minutes));
        return made;
    }

    /// <summary>A name as a parameter can hold it: one line, without the quotation mark that would end it (RFC 5545, 3.2).</summary>
    private static string Named(string name) => Typed.OneLine(name).Replace('"', '\'');

    private static Alarm Alarm(string title, int minutes) =>
        new()
        {
            Action = AlarmAction.Display,
            Description = Typed.OneLine(title),
            Trigger = new Trigger(Ical.Net.DataTypes.Duration.FromMinutes(-minutes)),
        };

    private static CalDateTime Utc(Instant instant) => new(instant.ToDateTimeUtc(), CalDateTime.UtcTzId);
}
