using System.Net;
using System.Net.Sockets;
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

/// <summary>A calendar on the web. Addresses inside the house are refused: the owner's browser could be tricked into asking for them.</summary>
public sealed class WebCalendars : ICalendarSource, IDisposable
{
    private const int Most = 5 * 1024 * 1024;

    private readonly HttpClient client = new(new SocketsHttpHandler { ConnectCallback = ConnectAsync, AllowAutoRedirect = true, MaxAutomaticRedirections = 3 }) { Timeout = TimeSpan.FromSeconds(8), MaxResponseContentBufferSize = Most };

    public async Task<string> FetchAsync(string address, CancellationToken stop)
    {
        try
        {
            return await client.GetStringAsync(new Uri(address), stop);
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException or UriFormatException or InvalidOperationException or NotSupportedException)
        {
            throw new IOException(e is HttpRequestException { StatusCode: { } status } ? $"The address answers {(int)status}." : "The address does not answer.", e);
        }
    }

    private static async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken stop)
    {
        var addresses = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, stop);
        var open = addresses.FirstOrDefault(address => !IsInside(address)) ?? throw new HttpRequestException("The address lies inside the house.");
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(new IPEndPoint(open, context.DnsEndPoint.Port), stop);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch (SocketException e)
        {
            socket.Dispose();
            throw new HttpRequestException("The address does not answer.", e);
        }
    }

    /// <summary>Loopback, link-local, private (RFC 1918, RFC 4193) and shared (RFC 6598) addresses.</summary>
    public static bool IsInside(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6) address = address.MapToIPv4();
        if (IPAddress.IsLoopback(address) || address.IsIPv6LinkLocal || address.IsIPv6UniqueLocal || address.IsIPv6SiteLocal || address.Equals(IPAddress.Any) || address.Equals(IPAddress.IPv6Any)) return true;
        if (address.AddressFamily != AddressFamily.InterNetwork) return false;
        var b = address.GetAddressBytes();
        return b[0] is 0 or 10 or 127 || b[0] == 172 && b[1] is >= 16 and < 32 || b[0] == 192 && b[1] == 168 || b[0] == 169 && b[1] == 254 || b[0] == 100 && b[1] is >= 64 and < 128 || b[0] >= 224;
    }

    public void Dispose() => client.Dispose();
}

/// <summary>Keeps the busy times of outside calendars.</summary>
public static class OutsideCalendars
{
    /// <summary>How far ahead busy times are kept; no kind of meeting is offered further.</summary>
    public const int DaysAhead = 400;

    private static readonly Duration Often = Duration.FromMinutes(15);

    /// <summary>Fetches subscribed calendars again that were not asked for a while.</summary>
    public static async Task RefreshAsync(Desk desk, ICalendarSource source, Duration? olderThan, CancellationToken stop)
    {
        var before = desk.Now - (olderThan ?? Often);
        foreach (var row in await desk.Db.Calendars.Where(c => c.Address != null && (c.FetchedAt == null || c.FetchedAt <= before)).ToListAsync(stop))
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
        var busy = BusyTimes.Read(text, desk.Calendar.Zone, desk.Now - Duration.FromDays(1), desk.Now + Duration.FromDays(DaysAhead));
        await using var transaction = await desk.BeginAsync();
        row.Content = text;
        if (row.Id == 0) desk.Db.Calendars.Add(row);
        await desk.Db.SaveChangesAsync();
        await desk.Db.Busy.Where(b => b.CalendarId == row.Id).ExecuteDeleteAsync();
        desk.Db.Busy.AddRange(busy.Select(b => new BusyRow { CalendarId = row.Id, Start = b.Start, End = b.End }));
        await desk.CommitAsync(transaction);
    }
}
