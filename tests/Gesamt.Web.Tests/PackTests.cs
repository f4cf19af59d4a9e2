using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Gesamt.Web.Tests;

/// <summary>What ./gesamt pack makes: run where there is no SDK, nothing of this machine’s settings, and a service manager that listens.</summary>
public sealed class PackTests : IDisposable
{
    private static readonly string Packed = Path.Combine(Studio.Root, ".pack", "gesamt-linux-x64.tar.gz");
    private readonly Folder folder = new();

    public void Dispose() => folder.Dispose();

    private async Task<string> UnpackedAsync()
    {
        Assert.True(File.Exists(Packed), "Make it first: ./gesamt pack");
        await RunAsync("tar", "-xzf", Packed, "-C", folder.Path);
        return Path.Combine(folder.Path, "gesamt");
    }

    private static async Task<(int Exit, string Said)> RunAsync(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        var (said, wrong) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await said + await wrong);
    }

    [Fact]
    public async Task It_runs_with_nothing_but_itself_tells_the_service_manager_and_logs_lines_of_JSON()
    {
        var made = await UnpackedAsync();
        foreach (var file in new[] { "gesamt.service", "nginx.conf", "docs/running.md" })
            Assert.True(File.Exists(Path.Combine(made, file)), file);
        var (socket, port) = (folder.Of("notify"), Server.FreePort());
        using var manager = new Socket(AddressFamily.Unix, SocketType.Dgram, ProtocolType.Unspecified);
        manager.Bind(new UnixDomainSocketEndPoint(socket));
        var start = new ProcessStartInfo(Path.Combine(made, "program", "Gesamt.Web"))
        {
            WorkingDirectory = Path.Combine(made, "program"),
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        // as the unit says it, and not a word more
        start.Environment.Clear();
        foreach (
            Match said in Regex.Matches(
                await File.ReadAllTextAsync(Path.Combine(made, "gesamt.service")),
                "^Environment=([^=]+)=(.*)$",
                RegexOptions.Multiline
            )
        )
            start.Environment[said.Groups[1].Value] = said.Groups[2].Value;
        start.Environment["Gesamt__Data"] = folder.Of("data");
        start.Environment["ASPNETCORE_URLS"] = $"http://127.0.0.1:{port}";
        start.Environment["NOTIFY_SOCKET"] = socket;
        // not the house's code, which a journal keeps for the owner to read
        start.Environment["Gesamt__StudioName"] = "Ida paints";
        start.Environment["Gesamt__OwnerName"] = "Ida";
        start.Environment["Gesamt__OwnerMail"] = "ida@studio.example";
        start.Environment["Gesamt__OwnerPassword"] = "harbour light";
        start.Environment["Logging__LogLevel__Default"] = "Information";
        using var process = Process.Start(start)!;
        try
        {
            var log = process.StandardOutput.ReadToEndAsync();
            using var patience = new CancellationTokenSource(Server.Longest);
            var told = new byte[256];
            var length = await manager.ReceiveAsync(told, SocketFlags.None, patience.Token);
            Assert.Equal("READY=1", Encoding.UTF8.GetString(told, 0, length));
            using var client = new HttpClient { BaseAddress = new($"http://127.0.0.1:{port}") };
            Assert.Equal("Healthy", await client.GetStringAsync("/health"));
            Assert.Equal(HttpStatusCode.OK, (await client.GetAsync("/today")).StatusCode);
            using (await RunningAsync("kill", "-TERM", process.Id.ToString(CultureInfo.InvariantCulture)))
                await process.WaitForExitAsync(patience.Token);
            Assert.Equal(0, process.ExitCode);
            var lines = (await log).Split('\n', StringSplitOptions.RemoveEmptyEntries);
            Assert.NotEmpty(lines);
            Assert.All(
                lines,
                line =>
                    Assert.Equal(
                        TimeSpan.Zero,
                        JsonDocument.Parse(line).RootElement.GetProperty("Timestamp").GetDateTimeOffset().Offset
                    )
            );
            Assert.DoesNotContain("harbour light", string.Concat(lines));
        }
        finally
        {
            if (!process.HasExited)
                process.Kill();
        }
    }

    private static async Task<Process> RunningAsync(string program, params string[] arguments)
    {
        var process = Process.Start(program, arguments);
        await process.WaitForExitAsync();
        return process;
    }

    [Fact] // systemd.exec(5), systemd-analyze(1)
    public async Task The_unit_holds_for_systemd_and_leaves_the_service_little_to_reach()
    {
        var made = await UnpackedAsync();
        var unit = folder.Of("gesamt.service");
        await File.WriteAllTextAsync(
            unit,
            (await File.ReadAllTextAsync(Path.Combine(made, "gesamt.service"))).Replace("/opt/gesamt", made)
        );
        var (exit, said) = await RunAsync("systemd-analyze", "verify", unit);
        Assert.True(exit == 0 && said.Length == 0, said);
        (exit, said) = await RunAsync("systemd-analyze", "security", "--offline=true", "--threshold=20", unit);
        Assert.True(exit == 0, said);
    }

    [Fact]
    public async Task Every_setting_the_unit_and_the_page_about_running_name_is_one_the_program_knows()
    {
        var known = typeof(Hosting.Settings).GetProperties().Select(setting => $"Gesamt__{setting.Name}").ToHashSet();
        var named = new List<string>();
        foreach (var file in new[] { "deploy/gesamt.service", "docs/running.md", "docs/guide/running-it.md" })
            named.AddRange(
                Regex
                    .Matches(await File.ReadAllTextAsync(Path.Combine(Studio.Root, file)), @"Gesamt__\w+")
                    .Select(m => m.Value)
            );
        Assert.NotEmpty(named);
        Assert.All(named, name => Assert.Contains(name, known));
    }
}
