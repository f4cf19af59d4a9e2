using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Meetings;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>When in a project a kind of meeting belongs: to judge the fit, or to gather the brief.</summary>
public enum MeetingTime
{
    BeforeBooking,
    AfterBooking,
}

/// <summary>A kind of meeting as clients choose it.</summary>
public sealed class MeetingKindRow
{
    public int Id { get; set; }
    public required string Name { get; set; }
    public MeetingTime When { get; set; }
    public MeetingPlace Place { get; set; }

    /// <summary>The address, for a meeting at a place.</summary>
    public string Where { get; set; } = "";
    public int Minutes { get; set; }
    public int Step { get; set; }
    public int Buffer { get; set; }
    public int NoticeHours { get; set; }
    public int DaysAhead { get; set; }
    public int? MostPerDay { get; set; }

    /// <summary>Until how many hours before it clients move or cancel by themselves.</summary>
    public int ChangeHours { get; set; }

    /// <summary>How many hours before it a reminder goes out; 0 for none.</summary>
    public int ReminderHours { get; set; }

    /// <summary>Sent with the confirmation.</summary>
    public string Agenda { get; set; } = "";

    /// <summary>Questions answered with the choice of a time, one a line.</summary>
    public string Questions { get; set; } = "";
    public int Edition { get; set; }
    public bool Removed { get; set; }

    public MeetingRule Rule => new(Minutes, Step, Buffer, NoticeHours, DaysAhead, MostPerDay);
}

/// <summary>What an invited person's calendar answers (RFC 5546, 3.2.3).</summary>
public enum MeetingReply
{
    Accepted,
    Declined,
    Tentative,
}

/// <summary>A meeting with its time; whether it stands is in the facts, and copied here so that times are found by it.</summary>
public sealed class MeetingRow
{
    public MeetingId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public int KindId { get; set; }
    public required string PublicId { get; set; }

    [Personal("Meeting")]
    public required string Name { get; set; }
    public Instant Start { get; set; }
    public Instant End { get; set; }
    public int Buffer { get; set; }
    public int ChangeHours { get; set; }

    /// <summary>iCalendar's UID stays, its SEQUENCE counts the changes (RFC 5545, 3.8.4.7 and 3.8.7.4).</summary>
    public required string Uid { get; set; }
    public int Sequence { get; set; }
    public MeetingPlace Place { get; set; }

    [Personal]
    public string Where { get; set; } = "";

    [Personal]
    public string? Room { get; set; }

    [Personal]
    public string? Passcode { get; set; }

    [Personal]
    public string Agenda { get; set; } = "";

    [HoldsJson]
    [Personal("[]")]
    public string Answers { get; set; } = "[]";

    /// <summary>The owner's alone.</summary>
    [Personal]
    public string Notes { get; set; } = "";

    /// <summary>The zone its client chose it in.</summary>
    public required string Zone { get; set; }
    public Instant? RemindAt { get; set; }

    /// <summary>Who chose the time.</summary>
    public Actor By { get; set; }

    /// <summary>What the client's calendar answered to the invitation; null before it does.</summary>
    public MeetingReply? Reply { get; set; }
    public bool Cancelled { get; set; }
    public bool Held { get; set; }
}

/// <summary>A time the owner keeps for something without a client: no meeting is offered in it, and it takes up its day.</summary>
public sealed class AppointmentRow
{
    public int Id { get; set; }
    public required string What { get; set; }
    public string Where { get; set; } = "";
    public Instant Start { get; set; }
    public Instant End { get; set; }

    /// <summary>Raised by every change; a stale save is answered with both.</summary>
    public int Edition { get; set; }
    public bool Removed { get; set; }
}

/// <summary>An outside calendar whose times are busy: a file that was imported, or an address that is asked again.</summary>
public sealed class CalendarRow
{
    public int Id { get; set; }
    public required string Name { get; set; }
    public string? Address { get; set; }
    public string Content { get; set; } = "";
    public Instant? FetchedAt { get; set; }
    public string? Problem { get; set; }
}

/// <summary>A time taken in an outside calendar.</summary>
public sealed class BusyRow
{
    public int Id { get; set; }
    public int CalendarId { get; set; }
    public Instant Start { get; set; }
    public Instant End { get; set; }
}
