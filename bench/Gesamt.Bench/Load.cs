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
    private const int Warm = 30,
        Measured = 200;

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
        var sign = new HttpRequestMessage(HttpMethod.Post, "/api/session")
        {
            Content = JsonContent.Create(new { password = "harbour light" }),
        };
        sign.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString());
        (await client.SendAsync(sign)).EnsureSuccessStatusCode();
        await TokenAsync();
        return client;
    }

    /// <summary>Two addresses in turns, so that what else the machine does meets both alike.</summary>
    public static async Task<(Times First, Times Second)> PairAsync(Func<Task> first, Func<Task> second)
    {
        List<double> a = [],
            b = [];
        for (var i = 0; i < Warm + Measured; i++)
        {
            var (one, two) = (await TimeAsync(first), await TimeAsync(second));
            if (i < Warm)
                continue;
            a.Add(one);
            b.Add(two);
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
