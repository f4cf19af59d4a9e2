using Gesamt.Formats.Calendars;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Meetings;

/// <summary>Fetches a calendar from an address.</summary>
public interface ICalendarSource
{
    /// <exception cref="IOException">It cannot be fetched; says why.</exception>
    Task<string> FetchAsync(string address, CancellationToken stop);
}

/// <summary>A calendar on the web; never one inside the house.</summary>
public sealed class WebCalendars : ICalendarSource, IDisposable
{
    private const int Most = 5 * 1024 * 1024;

    private readonly HttpClient client = new(OutsideConnections.Handler(inside: false, redirects: 3))
    {
        Timeout = TimeSpan.FromSeconds(8),
        MaxResponseContentBufferSize = Most,
    };

    /// <inheritdoc/>
    public async Task<string> FetchAsync(string address, CancellationToken stop)
    {
        try
        {
            return await client.GetStringAsync(new Uri(address), stop);
        }
        catch (Exception e)
            when (e
                    is HttpRequestException
                        or TaskCanceledException
                        or UriFormatException
                        or InvalidOperationException
                        or NotSupportedException
            )
        {
            throw new IOException(
                e is HttpRequestException { StatusCode: { } status }
                    ? $"The address answers {(int)status}."
                    : "The address does not answer.",
                e
            );
        }
    }

    public void Dispose() => client.Dispose();
}

/// <summary>Keeps the busy times of outside calendars.</summary>
public static class OutsideCalendars
{
    /// <summary>How far ahead busy times are kept; no kind of meeting is offered further.</summary>
    public const int DaysAhead = 400;

    private static readonly Duration Often = Duration.FromMinutes(15);
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(10);

    /// <summary>Fetches subscribed calendars again that were not asked for a while.</summary>
    public static async Task RefreshAsync(
        Desk desk,
        ICalendarSource source,
        Duration? olderThan,
        CancellationToken stop
    )
    {
        var before = desk.Now - (olderThan ?? Often);
        foreach (
            var row in await desk
                .Db.Calendars.Where(c => c.Address != null && (c.FetchedAt == null || c.FetchedAt <= before))
                .ToListAsync(stop)
        )
        {
            try
            {
                await ReadAsync(desk, row, await source.FetchAsync(row.Address!, stop));
                row.Problem = null;
            }
            catch (Exception e) when (e is IOException or FormatException)
            {
                // what was known stays: better a time too few than a meeting too many
                row.Problem = e.Message;
            }
            row.FetchedAt = desk.Now;
            await desk.Db.SaveChangesAsync(stop);
        }
    }

    /// <exception cref="FormatException">The text is no calendar.</exception>
    public static async Task ReadAsync(Desk desk, CalendarRow row, string text)
    {
        var (zone, from, until) = (
            desk.Calendar.Zone,
            desk.Now - Duration.FromDays(1),
            desk.Now + Duration.FromDays(DaysAhead)
        );
        IReadOnlyList<Core.Meetings.Busy> busy;
        try
        {
            // a rule that never comes to an end must not end the reading of all others
            var own = desk.Studio.Mail;
            busy = await Task.Run(() => BusyTimes.Read(text, zone, from, until, [own])).WaitAsync(Longest);
        }
        catch (TimeoutException e)
        {
            throw new FormatException("This calendar takes too long to read: one of its rules may have no end.", e);
        }
        await desk.ActAsync(async act =>
        {
            row.Content = text;
            if (row.Id == 0)
                desk.Db.Calendars.Add(row);
            await desk.Db.SaveChangesAsync();
            await desk.Db.Busy.Where(b => b.CalendarId == row.Id).ExecuteDeleteAsync();
            desk.Db.Busy.AddRange(
                busy.Select(b => new BusyRow
                {
                    CalendarId = row.Id,
                    Start = b.Start,
                    End = b.End,
                })
            );
        });
    }
}
