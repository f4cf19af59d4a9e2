namespace Gesamt.Web.Hosting;

/// <summary>Who is at the door.</summary>
public static class Visitors
{
    /// <summary>The address a request comes from: what a trusted proxy says, else the connection's own. Of IPv6 the network, which is what one household has (RFC 6177).</summary>
    public static string VisitorAddress(this HttpContext http)
    {
        if (http.Connection.RemoteIpAddress is not { } address)
            return "unknown";
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        if (address.AddressFamily != System.Net.Sockets.AddressFamily.InterNetworkV6)
            return address.ToString();
        var bytes = address.GetAddressBytes();
        bytes.AsSpan(8).Clear();
        return $"{new System.Net.IPAddress(bytes)}/64";
    }
}
