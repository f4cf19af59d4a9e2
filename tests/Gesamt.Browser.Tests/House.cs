using Gesamt.Web.Hosting;
using Gesamt.Web.Ticking;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>The real server on a real SQLite file with the demo laid, its clock standing at Mon 25 Jan 2027 10:30 in Dublin until a test sets it.</summary>
public sealed class House : WebApplicationFactory<Program>
{
    // known beforehand, and one for all, since the letters of the demo carry links to it
    private static readonly int Port = FreePort();

    private readonly string data;
    private readonly bool keepsData;

    public House()
        : this(Directory.CreateTempSubdirectory("gesamt-browser").FullName, keepsData: false) =>
        LaidDemo.CopyTo(data, Lay);

    private House(string data, bool keepsData)
    {
        (this.data, this.keepsData) = (data, keepsData);
        UseKestrel(Port);
    }

    private static void Lay(string folder)
    {
        using var laying = new House(folder, keepsData: true);
        laying.StartServer();
    }

    public Uri Address
    {
        get
        {
            StartServer();
            return ClientOptions.BaseAddress;
        }
    }

    /// <summary>Moves the clock on and lets everything due act.</summary>
    public async Task WaitUntilAsync(Instant now)
    {
        ((AdjustableClock)Services.GetRequiredService<TimeProvider>()).Set(now, stands: true);
        await Services.GetRequiredService<Ticker>().TickAsync(CancellationToken.None);
        Services.GetRequiredService<Live>().ChangedAll();
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder) =>
        builder
            .UseEnvironment("Production") // as it is run
            .UseSetting("Logging:LogLevel:Default", "Warning")
            .UseSetting("Gesamt:Mode", "Test")
            .UseSetting("Gesamt:Data", data)
            .UseSetting("Gesamt:Flushes", "false")
            .UseSetting("Gesamt:Address", $"http://127.0.0.1:{Port}")
            .UseSetting("Gesamt:HoldSeconds", "0")
            .UseSetting("Gesamt:DemoFiles", Path.Combine(Root, "demo"))
            .UseSetting("Gesamt:Clock", "2027-01-25T10:30:00Z")
            .UseSetting("Gesamt:ClockStands", "true");

    /// <summary>The folder of the repository, found from where the tests were built.</summary>
    public static string Root { get; } = FindRoot();

    public static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Gesamt.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new DirectoryNotFoundException("Gesamt.slnx is above the tests.");
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing && !keepsData && Directory.Exists(data))
            Directory.Delete(data, recursive: true);
    }
}
