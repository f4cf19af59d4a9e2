using System.Net;
using System.Net.Sockets;

namespace Gesamt.Web.Hosting;

/// <summary>Connections to addresses that somebody typed in. Those inside the house are refused after the name was resolved: the server could be tricked into asking for them.</summary>
public static class OutsideConnections
{
    /// <param name="inside">Whether addresses inside the house are allowed.</param>
    public static SocketsHttpHandler Handler(bool inside, int redirects) =>
        new()
        {
            ConnectCallback = (context, stop) => ConnectAsync(context, inside, stop),
            AllowAutoRedirect = redirects > 0,
            MaxAutomaticRedirections = Math.Max(1, redirects),
        };

    private static async ValueTask<Stream> ConnectAsync(
        SocketsHttpConnectionContext context,
        bool inside,
        CancellationToken stop
    )
    {
        var addresses = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, stop);
        var open =
            addresses.FirstOrDefault(address => inside || !IsInside(address))
            ?? throw new HttpRequestException("The address lies inside the house.");
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

    /// <summary>Loopback, link-local, private (RFC 1918, RFC 4193) and shared (RFC 6598) addresses, multicast, what is reserved, and all of these as they lie inside an IPv6 address (see <see cref="Carried"/>).</summary>
    public static bool IsInside(IPAddress address)
    {
        if (address.AddressFamily == AddressFamily.InterNetworkV6 && Carried(address) is { } carried)
            return IsInside(carried);
        if (address.IsIPv6Multicast)
            return true;
        if (
            IPAddress.IsLoopback(address)
            || address.IsIPv6LinkLocal
            || address.IsIPv6UniqueLocal
            || address.IsIPv6SiteLocal
            || address.Equals(IPAddress.Any)
            || address.Equals(IPAddress.IPv6Any)
        )
            return true;
        if (address.AddressFamily != AddressFamily.InterNetwork)
            return false;
        var b = address.GetAddressBytes();
        return b is [192, 0, 0, _] or [192, 0, 2, _] or [198, 18 or 19, _, _] or [198, 51, 100, _] or [203, 0, 113, _]
            || b[0] is 0 or 10 or 127
            || b[0] == 172 && b[1] is >= 16 and < 32
            || b[0] == 192 && b[1] == 168
            || b[0] == 169 && b[1] == 254
            || b[0] == 100 && b[1] is >= 64 and < 128
            || b[0] >= 224;
    }

    /// <summary>The IPv4 address that an IPv6 address stands for: mapped (RFC 4291, 2.5.5.2), compatible (2.5.5.1), NAT64 (RFC 6052, 2.1 and RFC 8215), 6to4 (RFC 3056, 2), Teredo (RFC 4380, 4); null for any other.</summary>
    private static IPAddress? Carried(IPAddress address)
    {
        var b = address.GetAddressBytes();
        return b switch
        {
            [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0xff, 0xff, ..] => new(b.AsSpan(12)),
            [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, ..]
                when !address.Equals(IPAddress.IPv6Any) && !address.Equals(IPAddress.IPv6Loopback) => new(b.AsSpan(12)),
            [0x00, 0x64, 0xff, 0x9b, ..] => new(b.AsSpan(12)),
            [0x20, 0x02, ..] => new(b.AsSpan(2, 4)),
            [0x20, 0x01, 0, 0, ..] => new([.. b[12..].Select(part => (byte)~part)]),
            _ => null,
        };
    }
}
