using System.Diagnostics;
using System.Text.Json;
using Gesamt.Web.Hosting;

namespace Gesamt.Bench;

/// <summary>Times of many requests, in milliseconds of a whole HTTP round trip.</summary>
public sealed record Times(double P50, double P95)
{
    public static Times Of(IEnumerable<double> all)
    {
        var sorted = all.Order().ToList();
        return new(sorted[sorted.Count / 2], sorted[(int)(sorted.Count * 0.95)]);
    }
}

public static class Load
{
    private const int Warm = 60,
        Rounds = 3,
        Measured = 100;

    /// <summary>Somebody signed in at an address.</summary>
    public static async Task<HttpClient> OwnerAsync(HttpClient client)
    {
        async Task TokenAsync()
        {
            var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
            client.DefaultRequestHeaders.Remove(Writes.TokenHeader);
            client.DefaultRequestHeaders.Add(Writes.TokenHeader, session.GetProperty("token").GetString());
        }
        await TokenAsync();
        await PostAsync(client, "/api/session", new { password = "harbour light" });
        await TokenAsync();
        return client;
    }

    /// <summary>One write of somebody signed in.</summary>
    public static async Task PostAsync(HttpClient client, string path, object body)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString());
        (await client.SendAsync(request)).EnsureSuccessStatusCode();
    }

    /// <summary>How it is measured, for whoever reads the figures.</summary>
    public static readonly string How =
        $"Whole HTTP round trips in milliseconds, in turns with the twin: after every view was asked {Warm} times, {Rounds} rounds of all views with {Measured} each, of which the quietest is told for each view, because others share these processors.";

    /// <summary>Pairs of addresses, the two of a pair in turns, so that what else the machine does meets both alike.</summary>
    public static async Task<IReadOnlyDictionary<string, (Times Ours, Times Theirs)>> PairsAsync(
        IReadOnlyDictionary<string, (Func<Task> Ours, Func<Task> Theirs)> pairs
    )
    {
        foreach (var (ours, theirs) in pairs.Values)
            await RoundAsync(ours, theirs, Warm);
        Dictionary<string, (Times Ours, Times Theirs)> quietest = [];
        for (var i = 0; i < Rounds; i++)
            foreach (var (name, (ours, theirs)) in pairs)
            {
                var round = await RoundAsync(ours, theirs, Measured);
                if (!quietest.TryGetValue(name, out var best) || round.Ours.P95 < best.Ours.P95)
                    quietest[name] = round;
            }
        return quietest;
    }

    private static async Task<(Times Ours, Times Theirs)> RoundAsync(Func<Task> ours, Func<Task> theirs, int times)
    {
        List<double> a = [],
            b = [];
        for (var i = 0; i < times; i++)
        {
            a.Add(await TimeAsync(ours));
            b.Add(await TimeAsync(theirs));
        }
        return (Times.Of(a), Times.Of(b));
    }

    public static async Task<double> TimeAsync(Func<Task> act)
    {
        var started = Stopwatch.GetTimestamp();
        await act();
        return Stopwatch.GetElapsedTime(started).TotalMilliseconds;
    }
}
