using Gesamt.Formats.Calendars;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>A time the owner keeps for something without a client.</summary>
/// <param name="From">The studio's local time.</param>
/// <param name="Edition">The one that was changed; null takes whatever is there.</param>
public sealed record AppointmentDto(
    string What,
    string Where,
    LocalDateTime From,
    LocalDateTime Until,
    int? Edition = null
);

/// <summary>The number of an appointment just made.</summary>
public sealed record AppointmentIdDto(int Id);

/// <summary>Own appointments: made, changed, taken out and put back.</summary>
public static class Appointments
{
    private const int LongestWords = 200,
        MostDays = 31;

    /// <summary>One of them, to be changed.</summary>
    public static async Task<AppointmentDto> OneAsync(Desk desk, int id) => Of(desk, await RowAsync(desk, id));

    /// <param name="id">The one that is changed; null makes a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="StaleException">Somebody changed it meanwhile.</exception>
    public static Task<int> SaveAsync(Desk desk, int? id, AppointmentDto save)
    {
        var (from, until) = (desk.Calendar.At(save.From), desk.Calendar.At(save.Until));
        List<(string, string)> wrong = [];
        if (save.What.Trim().Length is 0 or > LongestWords)
            wrong.Add(("what", $"Say what it is in 1 to {LongestWords} characters."));
        if (save.Where.Trim().Length > LongestWords)
            wrong.Add(("where", $"A place of at most {LongestWords} characters."));
        if (until <= from)
            wrong.Add(("until", "It ends after it begins."));
        else if (until - from > Duration.FromDays(MostDays))
            wrong.Add(("until", $"It lasts at most {MostDays} days. Longer absences are days off: see The studio."));
        if (wrong.Count > 0)
            throw new InvalidException([.. wrong]);
        return desk.ActAsync(async act =>
        {
            var row = id is { } known ? await RowAsync(desk, known) : null;
            if (row is not null && save.Edition is { } edition && edition != row.Edition)
                throw new StaleException(Of(desk, row));
            if (row is null)
                act.Db.Appointments.Add(row = new() { What = "" });
            else
                row.Edition++;
            (row.What, row.Where, row.Start, row.End) = (save.What.Trim(), save.Where.Trim(), from, until);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <summary>Takes it out, or puts it back.</summary>
    public static Task RemoveAsync(Desk desk, int id, bool removed) =>
        desk.ActAsync(async act => (await RowAsync(desk, id)).Removed = removed);

    private static AppointmentDto Of(Desk desk, AppointmentRow row) =>
        new(row.What, row.Where, desk.Calendar.LocalOf(row.Start), desk.Calendar.LocalOf(row.End), row.Edition);

    private static async Task<AppointmentRow> RowAsync(Desk desk, int id) =>
        await desk.Db.Appointments.SingleOrDefaultAsync(a => a.Id == id) ?? throw new MissingException("appointment");
}

/// <summary>Own appointments in the owner's feed.</summary>
public sealed class AppointmentFeed : IFeeds
{
    private const int Most = 1_000;

    /// <inheritdoc/>
    public async Task<IReadOnlyList<CalendarMeeting>> EventsAsync(Desk desk, Instant since) =>
        [
            .. (
                await desk
                    .Db.Appointments.AsNoTracking()
                    .Where(a => !a.Removed && a.End > since)
                    .OrderBy(a => a.Start)
                    .Take(Most)
                    .ToListAsync()
            ).Select(row => new CalendarMeeting(
                $"appointment-{row.Id}@{desk.Studio.MailDomain}",
                row.Edition,
                row.Start,
                row.End,
                row.What,
                "",
                row.Where,
                row.Start
            )),
        ];

    /// <inheritdoc/>
    public Task<IReadOnlyList<CalendarTask>> DaysAsync(Desk desk) => Task.FromResult<IReadOnlyList<CalendarTask>>([]);
}
