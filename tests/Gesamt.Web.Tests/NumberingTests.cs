using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Web.Hosting;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests;

/// <summary>Invoices are issued sixteen at once by a process that is killed meanwhile: no number is given twice or left out, and none that was confirmed is lost.</summary>
public sealed class NumberingTests
{
    private const int AtOnce = 16,
        Kills = 4;

    [Fact]
    public async Task Numbers_have_no_gaps_over_kills()
    {
        var data = Laid.Copy(withProjects: false);
        try
        {
            List<(long Project, int Edition)> bills = [];
            using (var first = Server.Start(data))
            {
                using var owner = await OwnerAsync(first);
                for (var i = 0; i < AtOnce; i++)
                    bills.Add(await WriteAsync(owner, i));
            }
            HashSet<string> confirmed = [];
            var random = new Random(16);
            for (var kill = 0; kill < Kills; kill++)
            {
                using var dying = Server.Start(data);
                using var owner = await OwnerAsync(dying);
                var issuing = bills.Select(bill => IssueAsync(owner, bill.Project, bill.Edition)).ToList();
                // somewhere between the first answer and the last
                await Task.WhenAny(issuing);
                await Task.Delay(random.Next(0, 60), TestContext.Current.CancellationToken);
                dying.Process.Kill();
                confirmed.UnionWith((await Task.WhenAll(issuing)).OfType<string>());
            }
            using (var whole = Server.Start(data))
            {
                using var owner = await OwnerAsync(whole);
                // what is left, one after the other: a busy machine may have answered some that they come too many at once
                foreach (var bill in bills)
                    if (await IssueAsync(owner, bill.Project, bill.Edition) is { } number)
                        confirmed.Add(number);
            }
            var numbers = Server.Read(data, "gesamt.db", "SELECT Number FROM Invoices ORDER BY Sequence");
            Assert.Equal(Enumerable.Range(1, AtOnce).Select(i => $"2027-{i:000}"), numbers);
            Assert.Subset(numbers.ToHashSet(), confirmed);
            Assert.Equal(
                [AtOnce.ToString(System.Globalization.CultureInfo.InvariantCulture)],
                Server.Read(data, "gesamt.db", "SELECT count(*) FROM Facts WHERE Kind = 'InvoiceIssued'")
            );
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }

    private static async Task<HttpClient> OwnerAsync(Server server)
    {
        Assert.True(await server.AnswersAsync());
        var client = new HttpClient(new HttpClientHandler { UseCookies = true })
        {
            BaseAddress = server.Address,
            Timeout = Server.Longest,
        };
        await TokenAsync(client);
        (
            await SendAsync(client, HttpMethod.Post, "/api/session", new { password = "harbour light" })
        ).EnsureSuccessStatusCode();
        await TokenAsync(client);
        return client;
    }

    private static async Task TokenAsync(HttpClient client)
    {
        var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
        client.DefaultRequestHeaders.Remove(Writes.TokenHeader);
        client.DefaultRequestHeaders.Add(Writes.TokenHeader, session.GetProperty("token").GetString());
    }

    private static Task<HttpResponseMessage> SendAsync(HttpClient client, HttpMethod method, string path, object body)
    {
        var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString("n"));
        return client.SendAsync(request);
    }

    private static async Task<(long Project, int Edition)> WriteAsync(HttpClient owner, int i)
    {
        var kinds = await owner.GetFromJsonAsync<JsonElement>("/api/kinds");
        var kind = kinds[0].GetProperty("id").GetInt64();
        var made = await SendAsync(
            owner,
            HttpMethod.Post,
            "/api/inquiries",
            Booking.TypedIn(kind, $"Client {i}", $"client{i}@lanternhouse.example")
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        var project = (await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt64();
        var kept = await SendAsync(
            owner,
            HttpMethod.Put,
            $"/api/projects/{project}/bill",
            new { edition = 0, bill = Bills.Lettering() }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        return (project, (await kept.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("edition").GetInt32());
    }

    /// <summary>The number it was given; null where it was issued before, or nobody lived to say so.</summary>
    private static async Task<string?> IssueAsync(HttpClient owner, long project, int edition)
    {
        try
        {
            var answer = await SendAsync(
                owner,
                HttpMethod.Post,
                $"/api/projects/{project}/bill/issue",
                new { edition }
            );
            if (answer.StatusCode == HttpStatusCode.Conflict)
                return null;
            answer.EnsureSuccessStatusCode();
            return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("number").GetString();
        }
        catch (Exception e) when (e is HttpRequestException or IOException)
        {
            return null;
        }
    }
}
