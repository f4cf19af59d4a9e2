using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Web.Hosting;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests;

/// <summary>The process is ended with SIGKILL at each place before and after each commit of sending: nothing confirmed is lost, nothing is sent twice.</summary>
public sealed class KillTests
{
    private const int Kills = 3;
    // only an end for what would hang: a busy machine needs many times what a quiet one does
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan Poll = TimeSpan.FromMilliseconds(20);

    public static TheoryData<string> Points => [.. KillPoints.All];

    [Theory, MemberData(nameof(Points))]
    public async Task Nothing_is_lost_and_nothing_sent_twice(string point)
    {
        var data = Directory.CreateTempSubdirectory("gesamt-kill").FullName;
        try
        {
            List<string> confirmed = [];
            for (var kill = 0; kill < Kills; kill++)
            {
                using var dying = Start(data, point);
                if (await InquireAsync(dying, $"kill{kill}@lanternhouse.example")) confirmed.Add($"kill{kill}@lanternhouse.example");
                await dying.Process.WaitForExitAsync(Patience());
                Assert.Equal(137, dying.Process.ExitCode); // 128 + SIGKILL
            }
            using (var whole = Start(data, null)) await UntilSettledAsync(whole, data);

            var projects = Read(data, "gesamt.db", "SELECT c.Mail FROM Projects p JOIN People c ON c.Id = p.ClientId");
            var posted = Read(data, "post-office.db", "SELECT Recipient FROM Messages WHERE FromStudio = 1").Select(Address).ToList();
            Assert.Subset(projects.ToHashSet(), confirmed.ToHashSet());
            Assert.NotEmpty(projects);
            Assert.Equal(projects.Order(), posted.Order());
            Assert.Equal(projects.Count, Read(data, "gesamt.db", "SELECT Id FROM Facts WHERE Kind = 'LetterSent'").Count);
            Assert.Equal(projects.Count, Read(data, "gesamt.db", "SELECT Id FROM Facts WHERE Kind = 'StepDone'").Count);
            Assert.Equal(["ok"], Read(data, "gesamt.db", "PRAGMA integrity_check"));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }

    private sealed record Running(Process Process, Uri Address) : IDisposable
    {
        public void Dispose()
        {
            if (!Process.HasExited) Process.Kill();
            Process.WaitForExit();
            Process.Dispose();
        }
    }

    private static Running Start(string data, string? point)
    {
        using var listener = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        var address = $"http://127.0.0.1:{((System.Net.IPEndPoint)listener.LocalEndpoint).Port}";
        listener.Stop();
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Gesamt.Web.dll")]) { WorkingDirectory = data };
        foreach (var (name, value) in new[]
        {
            ("ASPNETCORE_URLS", address), ("Gesamt__Mode", "Test"), ("Gesamt__Data", data), ("Gesamt__Address", address), ("Gesamt__DemoFiles", Path.Combine(Studio.Root, "demo")),
            ("Gesamt__DemoProjects", "false"), ("Gesamt__Clock", "2027-01-25T10:30:00Z"), ("Gesamt__ClockStands", "true"), ("Logging__LogLevel__Default", "None"), ("GESAMT_KILL_AT", point ?? ""),
        }) start.Environment[name] = value;
        return new(Process.Start(start)!, new(address));
    }

    /// <summary>Sends an inquiry as soon as the server answers; whether it was confirmed before the end.</summary>
    private static async Task<bool> InquireAsync(Running server, string mail)
    {
        using var client = new HttpClient(new HttpClientHandler { UseCookies = true }) { BaseAddress = server.Address, Timeout = Longest };
        try
        {
            while (!await AnswersAsync(client) && !server.Process.HasExited) await Task.Delay(Poll);
            var form = await client.GetFromJsonAsync<JsonElement>("/forms/mural");
            var request = new HttpRequestMessage(HttpMethod.Post, "/forms/mural") { Content = JsonContent.Create(new { answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail }, token = form.GetProperty("token").GetString() }) };
            request.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString());
            return (await client.SendAsync(request)).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false; // it ended while it was asked
        }
    }

    private static async Task<bool> AnswersAsync(HttpClient client)
    {
        try
        {
            return (await client.GetAsync("/forms/mural")).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    /// <summary>Waits until every project's thank-you has been confirmed.</summary>
    private static async Task UntilSettledAsync(Running server, string data)
    {
        var patience = Patience();
        using var client = new HttpClient { BaseAddress = server.Address };
        while (!await AnswersAsync(client)) await Task.Delay(Poll, patience);
        while (Read(data, "gesamt.db", "SELECT 1 FROM Projects p WHERE NOT EXISTS (SELECT 1 FROM Outbox o WHERE o.ProjectId = p.Id AND o.State = 'Confirmed')").Count > 0)
        {
            await Task.Delay(Poll, patience);
        }
    }

    private static CancellationToken Patience() => new CancellationTokenSource(Longest).Token;

    private static string Address(string recipient) => recipient[(recipient.IndexOf('<') + 1)..].TrimEnd('>');

    private static List<string> Read(string data, string file, string sql)
    {
        using var open = new SqliteConnection($"Data Source={Path.Combine(data, file)};Pooling=False;Default Timeout=10");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        List<string> rows = [];
        while (reader.Read()) rows.Add(reader.GetValue(0).ToString()!);
        return rows;
    }
}
