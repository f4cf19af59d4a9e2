using System.Net;
using System.Net.Sockets;

namespace Gesamt.Web.Hosting;

/// <summary>Connections to addresses that somebody typed in. Those inside the house are refused after the name was resolved: the server could be tricked into asking for them.</summary>
public static class OutsideConnections
{
    /// <param name="inside">Whether addresses inside the house are allowed.</param>
    public static SocketsHttpHandler Handler(bool inside, int redirects) =>
        new() { ConnectCallback = (context, stop) => ConnectAsync(context, inside, stop), AllowAutoRedirect = redirects > 0, MaxAutomaticRedirections = Math.Max(1, redirects) };

    private static async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, bool inside, CancellationToken stop)
    {
        var addresses = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, stop);
        var open = addresses.FirstOrDefault(address => inside || !IsInside(address)) ?? throw new HttpRequestException("The address lies inside the house.");
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
}
