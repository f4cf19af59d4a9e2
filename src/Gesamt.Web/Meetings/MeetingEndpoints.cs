using System.Security.Cryptography;
using System.Text;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Meetings;
using Gesamt.Formats.Calendars;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Meetings;

/// <summary>The kind of meeting whose times are offered, and the letter that says so.</summary>
public sealed record OfferMeetingDto(int Kind, string Subject, string Body);

/// <param name="Start">The studio's local time.</param>
/// <param name="Link">A video link of one's own; a room is opened where it is left out.</param>
public sealed record SetMeetingDto(int Kind, LocalDateTime Start, string? Link = null);

/// <summary>Where a meeting is moved to, in the studio’s time.</summary>
public sealed record MoveMeetingDto(LocalDateTime Start);

/// <summary>Where a client moves it to.</summary>
public sealed record MoveToDto(Instant Start);

/// <summary>The owner’s notes of a meeting, and the agenda that the client sees; what is left out stays as it is.</summary>
public sealed record MeetingNotesDto(string? Notes, string? Agenda);

/// <summary>An outside calendar whose busy times are kept.</summary>
public sealed record CalendarDto(int Id, string Name, string? Address, string? Fetched, string? Problem, int BusyTimes);

/// <param name="Address">Subscribed to; or <paramref name="Content"/>, the text of a file.</param>
public sealed record NewCalendarDto(string Name, string? Address, string? Content);

/// <summary>The addresses of meetings, their kinds and outside calendars.</summary>
public static class MeetingEndpoints
{
    public static void MapMeetings(this RouteGroupBuilder api)
    {
        api.MapGet("/meeting-kinds", (Desk desk) => MeetingKinds.AllAsync(desk));
        api.MapPost(
            "/meeting-kinds",
            async (MeetingKindDto save, Desk desk) =>
                new MeetingKindIdDto(await MeetingKinds.SaveAsync(desk, null, save))
        );
        api.MapPut(
            "/meeting-kinds/{id:int}",
            async (int id, MeetingKindDto save, Desk desk) =>
                new MeetingKindIdDto(await MeetingKinds.SaveAsync(desk, id, save))
        );
        api.MapDelete(
            "/meeting-kinds/{id:int}",
            async (int id, Desk desk) =>
            {
                await MeetingKinds.RemoveAsync(desk, id);
                return TypedResults.NoContent();
            }
        );
        MapOfProject(api.MapGroup("/projects/{id:long}"));
        MapCalendars(api);
    }

    private static void MapOfProject(RouteGroupBuilder project)
    {
        project.MapPost(
            "/meetings/offer",
            async (long id, OfferMeetingDto offer, Scheduling scheduling, Settings settings) =>
                new SentDto(
                    (await scheduling.OfferAsync(new(id), offer.Kind, offer.Subject, offer.Body)).Id.Value,
                    settings.HoldSeconds
                )
        );
        project.MapPost(
            "/meetings/offer/back",
            async (long id, Scheduling scheduling) =>
            {
                await scheduling.TakeOfferBackAsync(new(id));
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings",
            async (long id, SetMeetingDto set, Scheduling scheduling) =>
            {
                await scheduling.SetAsync(new(id), set.Kind, set.Start, set.Link);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings/{meeting:long}/move",
            async (long id, long meeting, MoveMeetingDto move, Scheduling scheduling, Desk desk) =>
            {
                await scheduling.MoveAsync(new(id), new(meeting), desk.Calendar.At(move.Start), Actor.Owner);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings/{meeting:long}/cancel",
            async (long id, long meeting, Scheduling scheduling) =>
            {
                await scheduling.CancelAsync(new(id), new(meeting), Actor.Owner);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings/{meeting:long}/held",
            async (long id, long meeting, MeetingNotesDto notes, Scheduling scheduling) =>
            {
                await scheduling.HeldAsync(new(id), new(meeting), notes.Notes, notes.Agenda);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings/{meeting:long}/missed",
            async (long id, long meeting, Scheduling scheduling) =>
            {
                await scheduling.MissedAsync(new(id), new(meeting));
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/meetings/{meeting:long}/again",
            async (long id, long meeting, Scheduling scheduling) =>
            {
                await scheduling.AskAgainAsync(new(id), new(meeting));
                return TypedResults.NoContent();
            }
        );
        project.MapPut(
            "/meetings/{meeting:long}",
            async (long id, long meeting, MeetingNotesDto notes, Scheduling scheduling) =>
            {
                await scheduling.NoteAsync(new(id), new(meeting), notes.Notes, notes.Agenda);
                return TypedResults.NoContent();
            }
        );
    }

    private static void MapCalendars(RouteGroupBuilder api)
    {
        api.MapGet("/calendars", async (Desk desk) => (
                    await desk
                        .Db.Calendars.AsNoTracking()
                        .OrderBy(c => c.Id)
                        .Select(c => new
                        {
                            c.Id,
                            c.Name,
                            c.Address,
                            c.FetchedAt,
                            c.Problem,
                            Count = desk.Db.Busy.Count(b => b.CalendarId == c.Id),
                        })
                        .ToListAsync()
                ).Select(c => new CalendarDto(c.Id, c.Name, c.Address, c.FetchedAt is { } at ? desk.Precisely(at) : null, c.Problem, c.Count)).ToList());
        api.MapPost(
            "/calendars",
            async (NewCalendarDto calendar, Desk desk, ICalendarSource source, CancellationToken stop) =>
            {
                if (calendar.Name.Trim().Length is 0 or > 80)
                    throw new InvalidException(("name", "A name of 1 to 80 characters is needed."));
                var row = new CalendarRow
                {
                    Name = calendar.Name.Trim(),
                    Address = string.IsNullOrWhiteSpace(calendar.Address) ? null : calendar.Address.Trim(),
                    FetchedAt = desk.Now,
                };
                try
                {
                    await OutsideCalendars.ReadAsync(
                        desk,
                        row,
                        row.Address is { } address ? await source.FetchAsync(address, stop) : calendar.Content ?? ""
                    );
                }
                catch (Exception e) when (e is FormatException or IOException)
                {
                    throw new InvalidException((row.Address is null ? "content" : "address", e.Message));
                }
                return TypedResults.NoContent();
            }
        );
        api.MapDelete(
            "/calendars/{id:int}",
            async (int id, Desk desk) =>
            {
                await desk.Db.Busy.Where(b => b.CalendarId == id).ExecuteDeleteAsync();
                await desk.Db.Calendars.Where(c => c.Id == id).ExecuteDeleteAsync();
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>Times on the client’s page.</summary>
    public static RouteGroupBuilder MapClientMeetings(this RouteGroupBuilder page)
    {
        page.MapGet(
            "/times",
            async (string? zone, string? moving, HttpContext http, Desk desk, Scheduling scheduling) =>
            {
                var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                var meeting = moving is null ? null : await OneAsync(desk, file.Id, moving);
                var kind = await scheduling.KindAsync(
                    meeting?.KindId
                        ?? MeetingState.Offered(file.History)?.What.MeetingKind
                        ?? throw new RefusedException("No time is to be chosen at the moment.")
                );
                return MeetingViews.Times(desk, kind, await scheduling.OpenAsync(kind, meeting?.Id), zone);
            }
        );
        page.MapPost(
            "/times",
            async (BookTimeDto book, HttpContext http, Scheduling scheduling) =>
            {
                await scheduling.TakeAsync(ClientLink.Link(http).ProjectId, book);
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/meetings/{meeting}/move",
            async (string meeting, MoveToDto to, HttpContext http, Desk desk, Scheduling scheduling) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                await scheduling.MoveAsync(
                    project,
                    (await OneAsync(desk, project, meeting)).Id,
                    to.Start,
                    Actor.Client
                );
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/meetings/{meeting}/cancel",
            async (string meeting, HttpContext http, Desk desk, Scheduling scheduling) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                await scheduling.CancelAsync(project, (await OneAsync(desk, project, meeting)).Id, Actor.Client);
                return Results.NoContent();
            }
        );
        return page;
    }

    /// <summary>The owner's private feed of own meetings and dated tasks; whoever knows the address reads it, and it can be made anew.</summary>
    public static void MapFeed(this WebApplication app) =>
        app.MapGet(
                "/feed/{key}.ics",
                async (string key, Desk desk, IEnumerable<IFeeds> feeds) =>
                {
                    if (
                        desk.Studio.FeedKey is not { } known
                        || !CryptographicOperations.FixedTimeEquals(
                            Encoding.UTF8.GetBytes(known),
                            Encoding.UTF8.GetBytes(key)
                        )
                    )
                        throw new MissingException("feed");
                    var (from, today) = (desk.Now - Duration.FromDays(60), desk.Today);
                    var meetings = await desk
                        .Db.Meetings.AsNoTracking()
                        .Where(m => m.End > from && !desk.Db.RehearsalIds.Contains(m.ProjectId))
                        .OrderBy(m => m.Start)
                        .Take(2_000)
                        .ToListAsync();
                    var files = await desk.Db.OpenManyAsync(
                        [.. meetings.Select(m => m.ProjectId).Distinct()],
                        desk.Calendar
                    );
                    var tasks = await desk
                        .Db.Tasks.AsNoTracking()
                        .Where(t => t.Due != null && t.DoneAt == null && !t.Removed && t.PublicId == null)
                        .OrderBy(t => t.Due)
                        .Take(2_000)
                        .Join(
                            desk.Db.Projects.Where(p => p.Standing.Ended == null),
                            t => t.ProjectId,
                            p => p.Id,
                            (t, p) =>
                                new
                                {
                                    t.Id,
                                    t.Due,
                                    t.Title,
                                    Project = p.Title,
                                }
                        )
                        .ToListAsync();
                    List<CalendarMeeting> hours = [];
                    List<CalendarTask> days = [];
                    foreach (var feed in feeds)
                    {
                        hours.AddRange(await feed.EventsAsync(desk, from));
                        days.AddRange(await feed.DaysAsync(desk));
                    }
                    return Results.Text(
                        Invitations.Feed(
                            desk.Studio.Name,
                            meetings
                                .Where(m => files.ContainsKey(m.ProjectId))
                                .Select(m =>
                                    MeetingLetters.ToCalendar(desk, files[m.ProjectId], m) with
                                    {
                                        Stamp = m.Start,
                                        Cancelled = m.Cancelled,
                                        AlarmMinutes = 30,
                                    }
                                )
                                .Concat(hours),
                            tasks
                                .Select(t => new CalendarTask(
                                    $"task-{t.Id.Value}@{desk.Studio.MailDomain}",
                                    t.Due!.Value,
                                    t.Title,
                                    t.Project,
                                    desk.Calendar.StartOf(t.Due.Value),
                                    0
                                ))
                                .Concat(days)
                        ),
                        "text/calendar; charset=utf-8"
                    );
                }
            )
            .LimitCalls(ClientLink.RateLimit)
            .ExcludeFromDescription();

    private static async Task<MeetingRow> OneAsync(Desk desk, ProjectId project, string meeting) =>
        await desk.Db.Meetings.AsNoTracking().SingleOrDefaultAsync(m => m.PublicId == meeting && m.ProjectId == project)
        ?? throw new MissingException("meeting");
}

/// <summary>What else of the owner’s days goes into the feed.</summary>
public interface IFeeds
{
    /// <param name="since">What ended earlier is left out.</param>
    Task<IReadOnlyList<CalendarMeeting>> EventsAsync(Desk desk, Instant since) =>
        Task.FromResult<IReadOnlyList<CalendarMeeting>>([]);

    /// <summary>What falls on a day without an hour.</summary>
    Task<IReadOnlyList<CalendarTask>> DaysAsync(Desk desk) => Task.FromResult<IReadOnlyList<CalendarTask>>([]);
}

/// <summary>The number of a kind of meeting.</summary>
public sealed record MeetingKindIdDto(int Id);
