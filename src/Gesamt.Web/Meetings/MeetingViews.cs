using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using Gesamt.Core.Meetings;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Meetings;

/// <summary>A meeting on the record.</summary>
/// <param name="State">“in 3 days”, “cancelled”, “did not take place”, “held”.</param>
public sealed record MeetingDto(
    long Id,
    string Name,
    string When,
    string Place,
    string State,
    bool IsStanding,
    bool IsOver,
    string Agenda,
    IReadOnlyList<AnswerDto> Answers,
    string Notes
);

/// <summary>A meeting as its client sees it: never the notes.</summary>
public sealed record ClientMeetingDto(
    string Id,
    string Name,
    string When,
    string Place,
    string Agenda,
    bool CanChange,
    string ChangeUntil
);

/// <summary>A time that can be chosen.</summary>
public sealed record TimeDto(Instant Start, string Words);

/// <summary>The times of one day.</summary>
public sealed record TimesOfDayDto(string Day, IReadOnlyList<TimeDto> Times);

/// <summary>Times to choose from, in the visitor's zone.</summary>
/// <param name="StudioZone">Named where it differs.</param>
public sealed record TimesDto(
    string Name,
    int Minutes,
    string Place,
    string Agenda,
    IReadOnlyList<string> Questions,
    string Zone,
    string? StudioZone,
    IReadOnlyList<TimesOfDayDto> Days
);

/// <summary>Meetings as the record and the client’s page tell them.</summary>
public static class MeetingViews
{
    private const int MostDays = 30;

    /// <summary>The meetings of a project.</summary>
    public static IReadOnlyList<MeetingDto> Of(Desk desk, ProjectFile file, IEnumerable<MeetingRow> meetings) =>
        [.. meetings.OrderBy(m => m.Start).Select(m => Of(desk, m, MeetingState.WasMissed(file.History, m.Id)))];

    /// <summary>The kind of meeting that is offered and not chosen yet.</summary>
    public static async Task<string?> OfferedAsync(Desk desk, ProjectFile file) =>
        MeetingState.Offered(file.History) is { What.MeetingKind: var kind }
            ? await desk.Db.MeetingKinds.Where(k => k.Id == kind).Select(k => k.Name).SingleOrDefaultAsync()
            : null;

    /// <summary>One meeting.</summary>
    /// <param name="missed">Whether it did not take place, of one that nobody cancelled.</param>
    public static MeetingDto Of(Desk desk, MeetingRow m, bool missed)
    {
        var over = m.End <= desk.Now;
        var state =
            missed ? "did not take place"
            : m.Cancelled ? "cancelled"
            : m.Held ? "held"
            : over ? "over: how did it go?"
            : $"{DateWords.Distance(desk.Calendar.DateOf(m.Start), desk.Today)}{ReplyWords(m)}";
        return new(
            m.Id.Value,
            m.Name,
            OwnWhen(desk, m),
            MeetingLetters.PlaceWords(m),
            state,
            m is { Cancelled: false, Held: false },
            over,
            m.Agenda,
            desk.Tell(() => StoreJson.Read<List<Answer>>(m.Answers), () => [new("", "", Untold.Detail)])
                .Select(a => new AnswerDto(a.Question, a.Text))
                .ToList(),
            m.Notes
        );
    }

    /// <summary>What a client sees of them.</summary>
    public static async Task<IReadOnlyList<ClientMeetingDto>> ForClientAsync(Desk desk, ProjectFile file)
    {
        var now = desk.Now;
        var rows = await desk
            .Db.Meetings.AsNoTracking()
            .Where(m => m.ProjectId == file.Id && !m.Cancelled && !m.Held && m.End > now)
            .OrderBy(m => m.Start)
            .ToListAsync();
        return
        [
            .. rows.Select(m =>
            {
                var until = m.Start - Duration.FromHours(m.ChangeHours);
                return new ClientMeetingDto(
                    m.PublicId,
                    m.Name,
                    MeetingLetters.WhenWords(desk, m.Start, m.Zone),
                    MeetingLetters.PlaceWords(m),
                    m.Agenda,
                    until > now,
                    MeetingLetters.WhenWords(desk, until, m.Zone)
                );
            }),
        ];
    }

    /// <summary>Open times, told in the studio’s zone and in the one that is asked for.</summary>
    public static TimesDto Times(Desk desk, MeetingKindRow kind, IEnumerable<Instant> open, string? asked)
    {
        var zone = DateTimeZoneProviders.Tzdb.GetZoneOrNull(asked ?? "") ?? desk.Calendar.Zone;
        var days = open.Select(start => (start, Local: start.InZone(zone).LocalDateTime))
            .GroupBy(one => one.Local.Date)
            .Take(MostDays)
            .Select(day => new TimesOfDayDto(
                DateWords.Short(day.Key, desk.Today),
                [.. day.Select(one => new TimeDto(one.start, DateWords.Time(one.Local.TimeOfDay)))]
            ));
        var place = kind.Place switch
        {
            MeetingPlace.Video => "by video",
            MeetingPlace.Phone => "by phone",
            _ => kind.Where,
        };
        return new(
            kind.Name,
            kind.Minutes,
            place,
            kind.Agenda,
            [.. FormRule.Lines(kind.Questions)],
            zone.Id,
            zone.Id == desk.Calendar.Zone.Id ? null : desk.Calendar.Zone.Id,
            [.. days]
        );
    }

    /// <summary>What the client's calendar answered, as the end of a sentence.</summary>
    private static string ReplyWords(MeetingRow m) =>
        m.Reply switch
        {
            MeetingReply.Declined => ", declined in their calendar",
            MeetingReply.Tentative => ", tentative in their calendar",
            MeetingReply.Accepted => ", accepted in their calendar",
            _ => "",
        };

    private static string OwnWhen(Desk desk, MeetingRow m)
    {
        var (start, end) = (desk.Calendar.LocalOf(m.Start), desk.Calendar.LocalOf(m.End));
        return $"{DateWords.Short(start.Date, desk.Today)}, {DateWords.Time(start.TimeOfDay)} to {DateWords.Time(end.TimeOfDay)}";
    }
}
