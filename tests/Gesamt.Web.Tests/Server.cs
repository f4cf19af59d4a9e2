using System.Diagnostics;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests;

/// <summary>The program as a process of its own, which can be killed, started on a broken folder, or stand behind a proxy.</summary>
public sealed class Server : IDisposable
{
    // only an end for what would hang: a busy machine needs many times what a quiet one does
    public static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan Poll = TimeSpan.FromMilliseconds(20);

    /// <summary>The program as ./gesamt runs it, when nothing was built since; else as it was built last. The copy beside the tests has no native libraries.</summary>
    private static string Program { get; } =
        new[]
        {
            Path.Combine(Studio.Root, ".app", "Gesamt.Web.dll"),
            Path.Combine(Studio.Root, "src", "Gesamt.Web", "bin", "Release", "net10.0", "Gesamt.Web.dll"),
        }
            .Where(File.Exists)
            .MaxBy(File.GetLastWriteTimeUtc)!;

    public Process Process { get; }
    public Uri Address { get; }

    /// <summary>What it said on its way out.</summary>
    public Task<string> Said { get; }

    private Server(Process process, Uri address) =>
        (Process, Address, Said) = (process, address, process.StandardError.ReadToEndAsync());

    public static Server Start(string data, params (string Name, string Value)[] settings)
    {
        var port = FreePort();
        var address = $"http://127.0.0.1:{port}";
        var start = new ProcessStartInfo("dotnet", [Program])
        {
            WorkingDirectory = Path.GetTempPath(),
            RedirectStandardError = true,
            RedirectStandardInput = true,
        };
        foreach (
            var (name, value) in new[]
            {
                ("ASPNETCORE_URLS", address),
                ("Gesamt__Mode", "Test"),
                ("Gesamt__Data", data),
                ("Gesamt__Address", address),
                ("Gesamt__DemoFiles", Path.Combine(Studio.Root, "demo")),
                ("Gesamt__DemoProjects", "false"),
                ("Gesamt__Clock", "2027-01-25T10:30:00Z"),
                ("Gesamt__ClockStands", "true"),
                ("Logging__LogLevel__Default", "None"),
            }.Concat(settings)
        )
            start.Environment[name] = value;
        var process = Process.Start(start)!;
        process.StandardInput.Close();
        return new(process, new(address));
    }

    /// <summary>The real thing, set up as ./gesamt start does.</summary>
    public static Server StartReal(string data, params (string Name, string Value)[] settings) =>
        Start(
            data,
            [
                ("Gesamt__Mode", "Real"),
                ("Gesamt__StudioName", "Ida paints"),
                ("Gesamt__OwnerName", "Ida"),
                ("Gesamt__OwnerMail", "ida@studio.example"),
                ("Gesamt__OwnerPassword", "harbour light"),
                .. settings,
            ]
        );

    /// <summary>The real thing on an empty folder: it serves its first page.</summary>
    public static Server StartUnowned(string data, params (string Name, string Value)[] settings) =>
        Start(data, [("Gesamt__Mode", "Real"), .. settings]);

    public static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }

    /// <summary>Waits until it answers, or has ended.</summary>
    /// <returns>Whether it answers.</returns>
    public async Task<bool> AnswersAsync()
    {
        using var client = new HttpClient { BaseAddress = Address, Timeout = Longest };
        using var patience = new CancellationTokenSource(Longest);
        while (!Process.HasExited)
            try
            {
                await client.GetAsync("/i/none", patience.Token);
                return true;
            }
            catch (HttpRequestException)
            {
                await Task.Delay(Poll, patience.Token);
            }
        return false;
    }

    public static List<string> Read(string data, string file, string sql)
    {
        using var open = new SqliteConnection(
            $"Data Source={Path.Combine(data, file)};Pooling=False;Default Timeout=10"
        );
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        List<string> rows = [];
        while (reader.Read())
            rows.Add(reader.GetValue(0).ToString()!);
        return rows;
    }

    public void Dispose()
    {
        if (!Process.HasExited)
            Process.Kill();
        Process.WaitForExit();
        Process.Dispose();
    }
}

/// <summary>A folder that goes with its test.</summary>
public sealed class Folder : IDisposable
{
    public string Path { get; } = Directory.CreateTempSubdirectory("gesamt-test").FullName;

    public string Of(params string[] parts) => System.IO.Path.Combine([Path, .. parts]);

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        if (Directory.Exists(Path))
            Directory.Delete(Path, recursive: true);
    }
}
