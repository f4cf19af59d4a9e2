using System.Net;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Hosting;

/// <summary>How this copy runs: the real thing, or with stand-ins and a clock that can be set.</summary>
public enum RunMode
{
    Real,
    Demo,
    Test,
}

/// <summary>Settings of one running copy, from the command line, the environment or appsettings.</summary>
public sealed class Settings
{
    /// <summary>The real thing unless something else is said.</summary>
    public RunMode Mode { get; init; } = RunMode.Real;

    /// <summary>The folder that holds everything: database, keys, stand-ins.</summary>
    public string Data { get; init; } = "data";

    /// <summary>Whether every commit is on the disk before it is confirmed, so that a power cut loses nothing. Tests that pull no plug do without.</summary>
    public bool Flushes { get; init; } = true;

    /// <summary>The address clients reach, for links in letters; the server's own when empty.</summary>
    public string Address { get; init; } = "";

    /// <summary>Seconds in which a letter can be taken back before it is handed over.</summary>
    public int HoldSeconds { get; init; } = 10;

    /// <summary>A mail server from the environment, for a studio set up without its pages.</summary>
    public SmtpSettings? Smtp { get; init; }

    /// <summary>The folder of the demo's readable files: an empty demo is laid from it.</summary>
    public string? DemoFiles { get; init; }

    /// <summary>The folder of the starting sets, each in a folder of its own; they ship with the program.</summary>
    public string Sets { get; init; } = Path.Combine(AppContext.BaseDirectory, "sets");

    /// <summary>What every set leaves to be as usual.</summary>
    public string UsualSet => Path.Combine(Sets, "usual");

    /// <summary>Whether the demo's projects are played, or its studio is laid without any.</summary>
    public bool DemoProjects { get; init; } = true;

    /// <summary>Where the clock of a demo or test begins, in ISO 8601 with its zone; now when left out.</summary>
    public string? Clock { get; init; }

    /// <summary>Whether that clock stands still until it is set.</summary>
    public bool ClockStands { get; init; }

    /// <summary>The owner's password and names, for a studio that is set up without a browser; left out, its first page asks for them.</summary>
    public string? OwnerPassword { get; init; }
    public string OwnerName { get; init; } = "";
    public string OwnerMail { get; init; } = "";
    public string StudioName { get; init; } = "";
    public string Zone { get; init; } = "Etc/UTC";

    /// <summary>How often one address may try in a minute.</summary>
    public int SignInsPerMinute { get; init; } = 10;
    public int InquiriesPerMinute { get; init; } = 20;
    public int ClientCallsPerMinute { get; init; } = 300;
    public int OpenCallsPerMinute { get; init; } = 120;

    /// <summary>Room for files of forms that are not sent yet: from one address, and in all.</summary>
    public long UploadMegabytesPerAddress { get; init; } = 200;
    public long UploadMegabytes { get; init; } = 1_000;

    /// <summary>How much a client may put on their own page in a day.</summary>
    public long ClientMegabytesPerDay { get; init; } = 1_000;

    /// <summary>Less room than so many megabytes, on the disk of the studio or of its backups, is told on Today and by the health address.</summary>
    public long DiskMegabytes { get; init; } = 200;

    /// <summary>The instant a demo or a test begins at.</summary>
    /// <exception cref="SettingException">It is no instant.</exception>
    public Instant? ClockAt =>
        Clock is null ? null
        : OffsetDateTimePattern.Rfc3339.Parse(Clock) is { Success: true, Value: var at } ? at.ToInstant()
        : throw SettingException.Of("Clock", Clock, "no moment with its zone, such as 2027-01-25T10:30:00Z");

    /// <summary>Where nightly backups are kept; beside the studio's own files when empty. Another disk is better.</summary>
    public string Backups { get; init; } = "";
    public string BackupFolder => Backups.Length > 0 ? Backups : Path.Combine(Data, "backups");

    /// <summary>Addresses of proxies whose X-Forwarded-For and X-Forwarded-Proto are believed, or their networks (10.0.0.0/8), parted by commas.</summary>
    public string Proxies { get; init; } = "127.0.0.1, ::1";

    /// <summary>The same, read.</summary>
    /// <exception cref="SettingException">One is neither.</exception>
    public (IReadOnlyList<IPAddress> Addresses, IReadOnlyList<System.Net.IPNetwork> Networks) Believed()
    {
        var (addresses, networks) = (new List<IPAddress>(), new List<System.Net.IPNetwork>());
        foreach (
            var proxy in Proxies.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
            if (System.Net.IPNetwork.TryParse(proxy, out var network))
                networks.Add(network);
            else if (IPAddress.TryParse(proxy, out var address))
                addresses.Add(address);
            else
                throw SettingException.Of("Proxies", proxy, "neither an address nor a network such as 10.0.0.0/8");
        return (addresses, networks);
    }

    public bool IsSecure => Address.StartsWith("https:", StringComparison.OrdinalIgnoreCase);

    public string Database => Path.Combine(Data, "gesamt.db");
    public string Files => Path.Combine(Data, "files");
    public string Keys => Path.Combine(Data, "keys");

    /// <summary>Whether the small simulated outside world answers instead of real services.</summary>
    public bool HasStandIns => Mode != RunMode.Real || Smtp is null;

    /// <summary>Whether clients can pay on their page: through the stand-in, as long as no provider is plugged in.</summary>
    public bool PaysOnPage => Mode != RunMode.Real;
}

/// <summary>A real mail server to hand letters over to (RFC 5321).</summary>
public sealed class SmtpSettings
{
    public required string Host { get; init; }
    public int Port { get; init; } = 587;
    public string? User { get; init; }
    public string? Password { get; init; }

    /// <summary>Off only for a server on the same machine.</summary>
    public bool Tls { get; init; } = true;
}
