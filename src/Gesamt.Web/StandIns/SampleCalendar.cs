using Gesamt.Formats.Calendars;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using NodaTime;

namespace Gesamt.Web.StandIns;

/// <param name="Start">Local to the studio.</param>
public sealed record SampleEventDto(long Id, string Title, LocalDateTime Start, int Minutes);

/// <summary>The stand-in outside calendar: what the owner does elsewhere. It can be subscribed to under <see cref="Address"/>, and any other address is asked on the web.</summary>
public sealed class SampleCalendar(Settings settings, WebCalendars web)
    : StandInFile(
        settings.Data,
        "outside-calendar.db",
        "CREATE TABLE IF NOT EXISTS Events(Id INTEGER PRIMARY KEY, Title TEXT NOT NULL, Start INTEGER NOT NULL, Minutes INTEGER NOT NULL) STRICT;"
    ),
        ICalendarSource
{
    public const string Address = "stand-in:calendar";

    /// <inheritdoc/>
    public Task<string> FetchAsync(string address, CancellationToken stop)
    {
        if (address != Address)
            return web.FetchAsync(address, stop);
        return Task.FromResult(
            Invitations.Feed(
                "Outside calendar",
                Events()
                    .Select(e => new CalendarMeeting(
                        $"outside-{e.Id}@stand-in.example",
                        0,
                        e.Start,
                        e.Start + Duration.FromMinutes(e.Minutes),
                        e.Title,
                        "",
                        "",
                        e.Start
                    )),
                []
            )
        );
    }

    /// <summary>What stands in it; length in minutes.</summary>
    public IReadOnlyList<(long Id, string Title, Instant Start, int Minutes)> Events()
    {
        using var open = Open();
        return Read(
            open,
            "SELECT Id, Title, Start, Minutes FROM Events ORDER BY Start",
            row =>
                (row.GetInt64(0), row.GetString(1), Instant.FromUnixTimeSeconds(row.GetInt64(2)), (int)row.GetInt64(3))
        );
    }

    public void Put(string title, Instant start, int minutes)
    {
        using var open = Open();
        Run(
            open,
            "INSERT INTO Events(Title, Start, Minutes) VALUES($t, $s, $m)",
            ("$t", title),
            ("$s", start.ToUnixTimeSeconds()),
            ("$m", minutes)
        );
    }

    public void Remove(long id)
    {
        using var open = Open();
        Run(open, "DELETE FROM Events WHERE Id = $id", ("$id", id));
    }
}
