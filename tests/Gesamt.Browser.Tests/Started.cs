using System.Diagnostics;

namespace Gesamt.Browser.Tests;

/// <summary>The program as a stranger starts it: a process of its own, on an empty folder, by the machine's clock.</summary>
public sealed class Started : IDisposable
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);

    private readonly string data = Directory.CreateTempSubdirectory("gesamt-started").FullName;
    private readonly Process process;

    public Started()
    {
        var web = Path.Combine(House.Root, "src", "Gesamt.Web");
        Address = new($"http://127.0.0.1:{House.FreePort()}");
        var start = new ProcessStartInfo("dotnet", [Path.Combine(web, "bin", "Release", "net10.0", "Gesamt.Web.dll")])
        {
            // beside the pages as they were built
            WorkingDirectory = web,
            RedirectStandardError = true,
        };
        start.Environment["ASPNETCORE_ENVIRONMENT"] = "Production";
        start.Environment["ASPNETCORE_URLS"] = Address.ToString();
        start.Environment["Gesamt__Mode"] = "Real";
        start.Environment["Gesamt__Data"] = data;
        start.Environment["Gesamt__HoldSeconds"] = "0";
        start.Environment["Logging__LogLevel__Default"] = "Critical";
        process = Process.Start(start)!;
        process.BeginErrorReadLine();
        Wait();
    }

    public Uri Address { get; }

    private void Wait()
    {
        using var client = new HttpClient { BaseAddress = Address };
        var patience = Stopwatch.StartNew();
        while (patience.Elapsed < Longest && !process.HasExited)
            try
            {
                client.GetAsync("/api/session").GetAwaiter().GetResult();
                return;
            }
            catch (HttpRequestException)
            {
                Thread.Yield();
            }
        throw new InvalidOperationException("The program does not answer.");
    }

    public void Dispose()
    {
        if (!process.HasExited)
            process.Kill();
        process.WaitForExit();
        process.Dispose();
        Directory.Delete(data, recursive: true);
    }
}
