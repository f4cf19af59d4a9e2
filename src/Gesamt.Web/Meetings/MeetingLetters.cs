using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Meetings;
using Gesamt.Formats.Calendars;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Meetings;

/// <summary>Letters about a meeting that go by themselves, each with its entry for the calendar. Their texts are letters like any other, and are used when the studio has them.</summary>
public static class MeetingLetters
{
    public const string Confirmed = "meeting-confirmed",
        Moved = "meeting-moved",
        Cancelled = "meeting-cancelled",
        Reminder = "meeting-reminder";

    private static readonly Dictionary<string, (string Subject, string Body)> Usual = new()
    {
        [Confirmed] = (
            "[meeting]: [meeting when]",
            "Hello [first name, or: there],\n\nour [meeting] about [project] is on [meeting when].\n\n[meeting place]\n\nIf it does not suit you any more, move or cancel it here: [page link]\n\n[owner]"
        ),
        [Moved] = (
            "Moved: [meeting], now [meeting when]",
            "Hello [first name, or: there],\n\nour [meeting] about [project] is now on [meeting when].\n\n[meeting place]\n\n[owner]"
        ),
        [Cancelled] = (
            "Cancelled: [meeting]",
            "Hello [first name, or: there],\n\nour [meeting] about [project], planned for [meeting when], is cancelled.\n\n[owner]"
        ),
        [Reminder] = (
            "Tomorrow and soon: [meeting], [meeting when]",
            "Hello [first name, or: there],\n\na short reminder of our [meeting] about [project]: [meeting when].\n\n[meeting place]\n\nIf it does not suit you any more: [page link]\n\n[owner]"
        ),
    };

    /// <summary>Claims such a letter. Somebody without a mail address gets none.</summary>
    public static async Task SendAsync(Act act, ProjectFile file, MeetingRow meeting, string key)
    {
        if (file.MailTo is null)
            return;
        var template = await act
            .Desk.Db.LetterTemplates.AsNoTracking()
            .For(file.Row.KindId, key)
            .Select(t => new { t.Subject, t.Body })
            .FirstOrDefaultAsync();
        var (subject, body) = template is null ? Usual[key] : (template.Subject, template.Body);
        var words = await Writing.WordsAsync(act.Desk, file) with
        {
            Meeting = meeting.Name.ToLowerInvariant(),
            MeetingWhen = WhenWords(act.Desk, meeting.Start, meeting.Zone),
            MeetingPlace = PlaceWords(meeting),
        };
        var filled = Writing.Fill(subject, body, words);
        var letter = Sending.NewLetter(act.Desk, file, filled.Subject, filled.Body, byItself: true);
        if (key != Reminder)
            letter.Invitation = Invitations.Of(
                key == Cancelled ? InvitationMethod.Cancel : InvitationMethod.Request,
                ToCalendar(act.Desk, file, meeting)
            );
        act.Db.Letters.Add(letter);
        await act.Db.SaveChangesAsync();
        // what cannot be filled waits for the owner, as any letter does
        if (filled.Gaps.Count > 0)
            (letter.State, letter.Gaps) = (LetterState.Held, string.Join(", ", filled.Gaps));
        else
            Sending.Claim(act, letter, Sending.KeyOf(letter), act.Now);
    }

    /// <summary>A meeting as an event by RFC 5545.</summary>
    public static CalendarMeeting ToCalendar(Desk desk, ProjectFile file, MeetingRow meeting) =>
        new(
            meeting.Uid,
            meeting.Sequence,
            meeting.Start,
            meeting.End,
            $"{meeting.Name}, {file.Row.Title}",
            meeting.Agenda,
            PlaceWords(meeting),
            desk.Now,
            (desk.Studio.Owner, desk.Studio.Mail),
            file.MailTo is { } mail ? (file.MailContact.Name, mail) : null
        )
        {
            Attendance = meeting.Reply switch
            {
                MeetingReply.Accepted => Attendance.Accepted,
                MeetingReply.Declined => Attendance.Declined,
                MeetingReply.Tentative => Attendance.Tentative,
                _ => meeting.By == Actor.Client ? Attendance.Accepted : Attendance.Asked,
            },
        };

    /// <summary>“Thu 28 Jan, 10:00 (America/New_York), 15:00 in Europe/Dublin”: in the client's zone, the studio's beside it where they differ.</summary>
    public static string WhenWords(Desk desk, Instant start, string zone)
    {
        var theirs = DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) ?? desk.Calendar.Zone;
        var (local, own) = (start.InZone(theirs).LocalDateTime, desk.Calendar.LocalOf(start));
        var words = $"{DateWords.Short(local.Date, desk.Today)}, {DateWords.Time(local.TimeOfDay)} ({theirs.Id})";
        return local == own
            ? words
            : $"{words}, {(own.Date == local.Date ? "" : $"{DateWords.Short(own.Date, desk.Today)} ")}{DateWords.Time(own.TimeOfDay)} in {desk.Calendar.Zone.Id}";
    }

    public static string PlaceWords(MeetingRow meeting) =>
        meeting.Place switch
        {
            MeetingPlace.Phone => "By phone.",
            MeetingPlace.Video when meeting.Room is { } room =>
                $"By video: {room}{(meeting.Passcode is { } code ? $" (passcode {code})" : "")}",
            MeetingPlace.Video => "By video; the link follows.",
            _ => meeting.Where,
        };
}
