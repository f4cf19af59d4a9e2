using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Gesamt.Web.Erasing;
using Gesamt.Web.Hosting;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests;

/// <summary>The process is ended with SIGKILL at each place before and after each commit of sending: nothing confirmed is lost, nothing is sent twice. And between an erasure and its clearing.</summary>
public sealed class KillTests
{
    private const int Kills = 3;
    private static readonly TimeSpan Poll = TimeSpan.FromMilliseconds(20);

    public static TheoryData<string> Points => [.. KillPoints.All];

    [Theory, MemberData(nameof(Points))]
    public async Task Nothing_is_lost_and_nothing_sent_twice(string point)
    {
        var data = Laid.Copy(withProjects: false);
        try
        {
            List<string> confirmed = [];
            for (var kill = 0; kill < Kills; kill++)
            {
                using var dying = Server.Start(data, ("GESAMT_KILL_AT", point));
                if (await InquireAsync(dying, $"kill{kill}@lanternhouse.example"))
                    confirmed.Add($"kill{kill}@lanternhouse.example");
                await dying.Process.WaitForExitAsync(Patience());
                Assert.Equal(137, dying.Process.ExitCode); // 128 + SIGKILL
            }
            using (var whole = Server.Start(data))
                await UntilSettledAsync(whole, data);

            var projects = Server.Read(
                data,
                "gesamt.db",
                "SELECT c.Mail FROM Projects p JOIN People c ON c.Id = p.ClientId"
            );
            var posted = Server
                .Read(data, "post-office.db", "SELECT Recipient FROM Messages WHERE FromStudio = 1")
                .Select(Address)
                .ToList();
            Assert.Subset(projects.ToHashSet(), confirmed.ToHashSet());
            Assert.NotEmpty(projects);
            Assert.Equal(projects.Order(), posted.Order());
            Assert.Equal(
                projects.Count,
                Server.Read(data, "gesamt.db", "SELECT Id FROM Facts WHERE Kind = 'LetterSent'").Count
            );
            Assert.Equal(
                projects.Count,
                Server.Read(data, "gesamt.db", "SELECT Id FROM Facts WHERE Kind = 'StepDone'").Count
            );
            Assert.Equal(["ok"], Server.Read(data, "gesamt.db", "PRAGMA integrity_check"));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }

    [Fact]
    public async Task Somebody_erased_just_before_a_kill_is_cleared_off_the_disk_after_it()
    {
        const string word = "zwetschgenmus";
        var data = Laid.Copy(withProjects: false);
        try
        {
            using (var dying = Server.Start(data, ("GESAMT_KILL_AT", KillPoints.Erased)))
            {
                Assert.True(await InquireAsync(dying, "gone@lanternhouse.example", word));
                await UntilSettledAsync(dying, data);
                await Assert.ThrowsAsync<HttpRequestException>(() => EraseAsync(dying, data));
                await dying.Process.WaitForExitAsync(Patience());
            }
            Assert.NotEmpty(Holding(data, word));
            Assert.Empty(Server.Read(data, "gesamt.db", "SELECT Id FROM People WHERE Name = 'Mona Delarue'"));
            await using (var after = new OnFolder(data))
                await after.Services.GetRequiredService<Clearing>().RetryAsync(CancellationToken.None);
            Assert.Empty(Holding(data, word));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }

    private static async Task EraseAsync(Server server, string data)
    {
        using var client = Client(server);
        async Task PostAsync(string path, object body)
        {
            var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
            var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
            request.Headers.Add(Writes.TokenHeader, session.GetProperty("token").GetString());
            request.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString());
            var answer = await client.SendAsync(request);
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        }
        var person = Assert.Single(Server.Read(data, "gesamt.db", "SELECT Id FROM People WHERE Name = 'Mona Delarue'"));
        await PostAsync("/api/session", new { password = "harbour light" });
        var project = Assert.Single(
            Server.Read(data, "gesamt.db", $"SELECT Id FROM Projects WHERE ClientId = {person}")
        );
        await PostAsync($"/api/projects/{project}/happened", new { sort = "NotAFit", words = "" });
        await PostAsync($"/api/people/{person}/erase", new { });
    }

    private static List<string> Holding(string data, string word) =>
        [
            .. Directory
                .EnumerateFiles(data, "*", SearchOption.AllDirectories)
                .Where(file =>
                    Encoding.UTF8.GetString(File.ReadAllBytes(file)).Contains(word, StringComparison.Ordinal)
                ),
        ];

    private static HttpClient Client(Server server) =>
        new(new HttpClientHandler { UseCookies = true }) { BaseAddress = server.Address, Timeout = Server.Longest };

    /// <summary>Sends an inquiry as soon as the server answers; whether it was confirmed before the end.</summary>
    private static async Task<bool> InquireAsync(Server server, string mail, string wish = "A lantern.")
    {
        using var client = Client(server);
        try
        {
            while (!await AnswersAsync(client) && !server.Process.HasExited)
                await Task.Delay(Poll);
            var form = await client.GetFromJsonAsync<JsonElement>("/forms/mural");
            var request = new HttpRequestMessage(HttpMethod.Post, "/forms/mural")
            {
                Content = JsonContent.Create(
                    new
                    {
                        answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail, ["wish"] = wish },
                        token = form.GetProperty("token").GetString(),
                    }
                ),
            };
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
    private static async Task UntilSettledAsync(Server server, string data)
    {
        var patience = Patience();
        using var client = new HttpClient { BaseAddress = server.Address };
        while (!await AnswersAsync(client))
            await Task.Delay(Poll, patience);
        while (
            Server
                .Read(
                    data,
                    "gesamt.db",
                    "SELECT 1 FROM Projects p WHERE NOT EXISTS (SELECT 1 FROM Outbox o WHERE o.ProjectId = p.Id AND o.State = 'Confirmed')"
                )
                .Count > 0
        )
        {
            await Task.Delay(Poll, patience);
        }
    }

    private static CancellationToken Patience() => new CancellationTokenSource(Server.Longest).Token;

    private static string Address(string recipient) => recipient[(recipient.IndexOf('<') + 1)..].TrimEnd('>');
}
