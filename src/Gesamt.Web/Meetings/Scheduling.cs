using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Meetings;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Meetings;

/// <param name="Answers">To the kind's questions, in their order.</param>
public sealed record BookTimeDto(Instant Start, string Zone, string[]? Answers = null);

/// <summary>Offers times, and gives each to one client only: it is decided again in the transaction that takes it.</summary>
public sealed class Scheduling(
    Desk desk,
    ICalendarSource calendars,
    IVideoRooms rooms,
    Doorplate plate,
    ILogger<Scheduling> log
)
{
    private static readonly Duration Fresh = Duration.FromSeconds(30);

    /// <summary>Puts the choice of a time to the client, with a letter.</summary>
    public async Task<LetterRow> OfferAsync(ProjectId project, int kind, string subject, string body)
    {
        return await desk.ActAsync(async act =>
        {
            var (file, row) = (await desk.OpenAsync(project), await KindAsync(kind));
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            var letter = await LettersOut.ClaimAsync(act, file, subject, body, null);
            await act.RecordAsync(file, Actor.Owner, new Happening.MeetingOffered(row.Id));
            return letter;
        });
    }

    /// <summary>Takes offered times back.</summary>
    public async Task TakeOfferBackAsync(ProjectId project)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (MeetingState.Offered(file.History) is not null)
                await act.RecordAsync(file, Actor.Owner, new Happening.MeetingNotOffered());
        });
    }

    /// <summary>Starts that are open now for a kind of meeting.</summary>
    /// <param name="moving">A meeting that is to be moved and leaves its own time free.</param>
    public async Task<ImmutableArray<Instant>> OpenAsync(MeetingKindRow kind, MeetingId? moving = null)
    {
        await OutsideCalendars.RefreshAsync(desk, calendars, Fresh, CancellationToken.None);
        return await OpenNowAsync(kind, moving);
    }

    /// <summary>The client takes a time.</summary>
    /// <exception cref="RefusedException">Somebody was quicker, or the outside calendar took it meanwhile.</exception>
    public async Task<MeetingRow> TakeAsync(ProjectId project, BookTimeDto book)
    {
        var offered =
            MeetingState.Offered((await desk.OpenAsync(project)).History)
            ?? throw new RefusedException("No time is to be chosen any more. Load the page again.");
        var kind = await KindAsync(offered.What.MeetingKind);
        var answers = Answers(kind, book.Answers);
        var room = await RoomAsync(kind, project);
        await OutsideCalendars.RefreshAsync(desk, calendars, Duration.Zero, CancellationToken.None);
        desk.Db.ChangeTracker.Clear();
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (MeetingState.Offered(file.History) is null)
                throw new RefusedException("A time was chosen already. Load the page again.");
            if (!(await OpenNowAsync(kind, null)).Contains(book.Start))
                throw new RefusedException(
                    "This time was taken a moment ago. The others are still open: please choose again."
                );
            var meeting = await AddAsync(act, file, kind, book.Start, ZoneOf(book.Zone), answers, room, Actor.Client);
            return meeting;
        });
    }

    /// <summary>The owner sets a time agreed otherwise; open hours bind clients only.</summary>
    /// <param name="link">Where it is met on video; a room is opened where it is empty.</param>
    public async Task<MeetingRow> SetAsync(ProjectId project, int kindId, LocalDateTime at, string? link = null)
    {
        var kind = await KindAsync(kindId);
        var start = desk.Calendar.At(at);
        if (start <= desk.Now)
            throw new InvalidException(("start", "A time from now on. What was already, is recorded as “We spoke”."));
        var room = OwnRoom(kind, link) ?? await RoomAsync(kind, project);
        return await desk.ActAsync(async act =>
        {
            var end = start + Duration.FromMinutes(kind.Minutes);
            if (
                await desk
                    .Db.Meetings.Where(m =>
                        !m.Cancelled && m.Start < end && m.End > start && !desk.Db.RehearsalIds.Contains(m.ProjectId)
                    )
                    .Select(m => m.Name)
                    .FirstOrDefaultAsync() is
                { } other
            )
                throw new InvalidException(("start", $"There is a meeting at that time: {other}."));
            if (
                await desk
                    .Db.Appointments.Where(a => !a.Removed && a.Start < end && a.End > start)
                    .Select(a => a.What)
                    .FirstOrDefaultAsync() is
                { } own
            )
                throw new InvalidException(("start", $"You keep that time for yourself: {own}."));
            return await AddAsync(
                act,
                await desk.OpenAsync(project),
                kind,
                start,
                desk.Calendar.Zone.Id,
                [],
                room,
                Actor.Owner
            );
        });
    }

    /// <exception cref="RefusedException">It is too near, over, or the new time is taken.</exception>
    public async Task MoveAsync(ProjectId project, MeetingId id, Instant start, Actor by)
    {
        await desk.ActAsync(async act =>
        {
            var (file, meeting) = await StandingAsync(project, id, by);
            var kind = await desk.Db.MeetingKinds.AsNoTracking().SingleAsync(k => k.Id == meeting.KindId);
            if (by == Actor.Client && !(await OpenNowAsync(kind, id)).Contains(start))
                throw new RefusedException(
                    "This time was taken a moment ago. The others are still open: please choose again."
                );
            if (start <= desk.Now)
                throw new InvalidException(("start", "A time from now on."));
            (meeting.Start, meeting.End) = (start, start + (meeting.End - meeting.Start));
            meeting.Sequence++;
            meeting.RemindAt = RemindAt(kind, start);
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, by, new Happening.MeetingMoved(id, meeting.Start, meeting.End));
            await MeetingLetters.SendAsync(act, file, meeting, MeetingLetters.Moved);
        });
    }

    /// <summary>Cancels a meeting, whoever does it; the other side gets a letter.</summary>
    public async Task CancelAsync(ProjectId project, MeetingId id, Actor by)
    {
        await desk.ActAsync(async act =>
        {
            var (file, meeting) = await StandingAsync(project, id, by);
            (meeting.Cancelled, meeting.RemindAt) = (true, null);
            meeting.Sequence++;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, by, new Happening.MeetingCancelled(id, by == Actor.Client));
            await MeetingLetters.SendAsync(act, file, meeting, MeetingLetters.Cancelled);
        });
    }

    /// <summary>It took place; the notes stay the owner's alone.</summary>
    public async Task HeldAsync(ProjectId project, MeetingId id, string? notes, string? agenda = null)
    {
        await desk.ActAsync(async act =>
        {
            var (file, meeting) = await OneAsync(project, id);
            if (meeting.Cancelled)
                throw new RefusedException("This meeting was cancelled.");
            KeepWords(meeting, notes, agenda);
            (meeting.Held, meeting.RemindAt) = (true, null);
            await desk.Db.SaveChangesAsync();
            if (!file.History.Any<Happening.MeetingHeld>(held => held.Meeting == id))
                await act.RecordAsync(file, Actor.Owner, new Happening.MeetingHeld(id));
        });
    }

    /// <summary>Its time is over and nobody met. No letter goes out: what to write is the owner's to say.</summary>
    /// <exception cref="RefusedException">It is still to come, or something else was said of it.</exception>
    public async Task MissedAsync(ProjectId project, MeetingId id)
    {
        await desk.ActAsync(async act =>
        {
            var (file, meeting) = await StandingAsync(project, id, Actor.Owner);
            if (meeting.End > desk.Now)
                throw new RefusedException("This meeting is still to come: it can be moved or cancelled.");
            (meeting.Cancelled, meeting.RemindAt) = (true, null);
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.MeetingMissed(id));
        });
    }

    /// <summary>Takes back that it was held, or that it did not take place.</summary>
    /// <exception cref="RefusedException">Neither was said of it.</exception>
    public async Task AskAgainAsync(ProjectId project, MeetingId id)
    {
        await desk.ActAsync(async act =>
        {
            var (file, meeting) = await OneAsync(project, id);
            if (
                !file.History.Any<Happening.MeetingHeld>(held => held.Meeting == id)
                && !file.History.Any<Happening.MeetingMissed>(missed => missed.Meeting == id)
            )
                throw new RefusedException("This cannot be taken back.");
            (meeting.Held, meeting.Cancelled) = (false, false);
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.MeetingAsksAgain(id));
        });
    }

    /// <summary>Keeps the owner’s notes, and the agenda that the client sees.</summary>
    public async Task NoteAsync(ProjectId project, MeetingId id, string? notes, string? agenda)
    {
        await desk.ActAsync(async act =>
        {
            var (_, meeting) = await OneAsync(project, id);
            KeepWords(meeting, notes, agenda);
            act.Touch(project);
        });
    }

    /// <summary>Reminders whose time has come, each once: the time is taken away in the transaction that claims the letter.</summary>
    public async Task RemindAsync(CancellationToken stop)
    {
        var now = desk.Now;
        await Independent.EachAsync(
            log,
            "reminder of meeting",
            await Due(desk.Db, now),
            id => RemindAsync(id, now),
            stop
        );
    }

    private static readonly Func<GesamtDb, Instant, Task<List<MeetingId>>> Due = Prepared.Rows(
        (GesamtDb db, Instant now) =>
            db.Meetings.Where(m => m.RemindAt <= now && !db.RehearsalIds.Contains(m.ProjectId)).Select(m => m.Id)
    );

    private async Task RemindAsync(MeetingId id, Instant now)
    {
        desk.Db.ChangeTracker.Clear();
        await desk.ActAsync(async act =>
        {
            var meeting = await desk.Db.Meetings.SingleAsync(m => m.Id == id);
            if (meeting.RemindAt is null)
                return;
            meeting.RemindAt = null;
            // after a standstill nobody is reminded of what is over
            if (!meeting.Cancelled && meeting.Start > now)
                await MeetingLetters.SendAsync(
                    act,
                    await desk.OpenAsync(meeting.ProjectId),
                    meeting,
                    MeetingLetters.Reminder
                );
        });
    }

    /// <summary>One kind of meeting.</summary>
    public async Task<MeetingKindRow> KindAsync(int id) =>
        await desk.Db.MeetingKinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == id && !k.Removed)
        ?? throw new MissingException("kind of meeting");

    private async Task<ImmutableArray<Instant>> OpenNowAsync(MeetingKindRow kind, MeetingId? moving)
    {
        var (from, until) = (desk.Now - Duration.FromDays(1), desk.Now + Duration.FromDays(kind.DaysAhead + 2));
        var meetings = await desk
            .Db.Meetings.AsNoTracking()
            .Where(m =>
                !m.Cancelled
                && m.End > from
                && m.Start < until
                && (moving == null || m.Id != moving)
                && !desk.Db.RehearsalIds.Contains(m.ProjectId)
            )
            .Select(m => new
            {
                m.Start,
                m.End,
                m.Buffer,
            })
            .ToListAsync();
        var busy = await desk
            .Db.Busy.AsNoTracking()
            .Where(b => b.End > from && b.Start < until)
            .Select(b => new { b.Start, b.End })
            .ToListAsync();
        var own = await desk
            .Db.Appointments.AsNoTracking()
            .Where(a => !a.Removed && a.End > from && a.Start < until)
            .Select(a => new { a.Start, a.End })
            .ToListAsync();
        return OpenTimes.Of(
            kind.Rule,
            StoreJson.Read<List<OpenSpan>>(desk.Studio.OpenHours),
            desk.Calendar,
            [.. meetings.Select(m => new Taken(m.Start, m.End, m.Buffer))],
            [.. busy.Concat(own).Select(b => new Busy(b.Start, b.End))],
            desk.Now
        );
    }

    private async Task<MeetingRow> AddAsync(
        Act act,
        ProjectFile file,
        MeetingKindRow kind,
        Instant start,
        string zone,
        IReadOnlyList<Answer> answers,
        VideoRoom? room,
        Actor by
    )
    {
        var meeting = new MeetingRow
        {
            ProjectId = file.Id,
            KindId = kind.Id,
            PublicId = Codes.New() + Codes.New(),
            Name = kind.Name,
            Start = start,
            End = start + Duration.FromMinutes(kind.Minutes),
            Buffer = kind.Buffer,
            ChangeHours = kind.ChangeHours,
            Uid = $"{Guid.NewGuid():n}@{desk.Studio.MailDomain}",
            Place = kind.Place,
            Where = kind.Where,
            Room = room?.Link,
            Passcode = room?.Passcode is { Length: > 0 } code ? code : null,
            Agenda = kind.Agenda,
            Answers = StoreJson.Write(answers),
            Zone = zone,
            By = by,
            RemindAt = RemindAt(kind, start),
        };
        desk.Db.Meetings.Add(meeting);
        await desk.Db.SaveChangesAsync();
        await act.RecordAsync(file, by, new Happening.MeetingBooked(meeting.Id, meeting.Start, meeting.End));
        await MeetingLetters.SendAsync(act, file, meeting, MeetingLetters.Confirmed);
        return meeting;
    }

    private Instant? RemindAt(MeetingKindRow kind, Instant start) =>
        kind.ReminderHours > 0 && start - Duration.FromHours(kind.ReminderHours) is var at && at > desk.Now ? at : null;

    private static VideoRoom? OwnRoom(MeetingKindRow kind, string? link)
    {
        if (string.IsNullOrWhiteSpace(link))
            return null;
        if (kind.Place != MeetingPlace.Video)
            throw new InvalidException(("link", $"“{kind.Name}” is no video call."));
        return WebAddress.Is(WebAddress.Meant(link))
            ? new(WebAddress.Meant(link), "")
            : throw new InvalidException(("link", WebAddress.Allowed));
    }

    private async Task<VideoRoom?> RoomAsync(MeetingKindRow kind, ProjectId project) =>
        kind.Place == MeetingPlace.Video
            ? await rooms.OpenAsync(
                $"{kind.Name}, {await desk.Db.Projects.Where(p => p.Id == project).Select(p => p.Title).SingleOrDefaultAsync() ?? throw new MissingException("project")}",
                plate.Address,
                CancellationToken.None
            )
            : null;

    private async Task<(ProjectFile, MeetingRow)> OneAsync(ProjectId project, MeetingId id) =>
        (
            await desk.OpenAsync(project),
            await desk.Db.Meetings.SingleOrDefaultAsync(m => m.Id == id && m.ProjectId == project)
                ?? throw new MissingException("meeting")
        );

    private async Task<(ProjectFile, MeetingRow)> StandingAsync(ProjectId project, MeetingId id, Actor by)
    {
        var (file, meeting) = await OneAsync(project, id);
        if (meeting.Cancelled || meeting.Held)
            throw new RefusedException("This meeting is over or cancelled.");
        if (by == Actor.Client && meeting.Start - Duration.FromHours(meeting.ChangeHours) <= desk.Now)
            throw new RefusedException($"It is too near to be changed here: write to {desk.Studio.Owner} or ring.");
        return (file, meeting);
    }

    private static IReadOnlyList<Answer> Answers(MeetingKindRow kind, string[]? given)
    {
        var questions = FormRule.Lines(kind.Questions).ToList();
        if (given?.Any(text => text.Length > FormRule.LongLength) == true)
            throw new InvalidException(("answers", $"An answer has at most {FormRule.LongLength} characters."));
        return
        [
            .. questions
                .Select((question, i) => new Answer($"q{i}", question, given?.ElementAtOrDefault(i)?.Trim() ?? ""))
                .Where(answer => answer.Text.Length > 0),
        ];
    }

    private string ZoneOf(string zone) =>
        DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is null ? desk.Calendar.Zone.Id : zone;

    // what is not said stays as it is
    private static void KeepWords(MeetingRow meeting, string? notes, string? agenda)
    {
        if (notes?.Length > 20_000)
            throw new InvalidException(("notes", "At most 20 000 characters."));
        if (agenda?.Length > 5_000)
            throw new InvalidException(("agenda", "At most 5 000 characters."));
        (meeting.Notes, meeting.Agenda) = (notes?.Trim() ?? meeting.Notes, agenda?.Trim() ?? meeting.Agenda);
    }
}
