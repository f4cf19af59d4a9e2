using System.Collections.Concurrent;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.SignIn;

/// <summary>Growing waits after wrong passwords, for each address and for the account as a whole. A browser the owner signed in with before is counted by itself: no stranger's guessing shuts the owner out of it.</summary>
/// <remarks>Kept in memory: a restart forgives, and the limit per minute holds all the same.</remarks>
public sealed class Tries(TimeProvider time)
{
    private const int FreeByAddress = 4,
        FreeByAccount = 12,
        MostKept = 10_000;
    private static readonly Duration Longest = Duration.FromMinutes(15),
        Forgotten = Duration.FromHours(6);
    private const string Account = "account";

    private sealed record Failed(int Count, Instant Last);

    private readonly ConcurrentDictionary<string, Failed> failed = new();

    /// <summary>How long whoever asks has to wait before the next try; zero for now.</summary>
    /// <param name="known">The name of a browser the owner signed in with before.</param>
    public Duration WaitOf(string address, string? known)
    {
        var now = time.Now();
        return known is not null
            ? Wait(KeyOf(known), FreeByAddress, now)
            : Duration.Max(Wait(KeyOf(address), FreeByAddress, now), Wait(Account, FreeByAccount, now));
    }

    public void Fail(string address, string? known)
    {
        var now = time.Now();
        if (failed.Count > MostKept)
            foreach (var (key, old) in failed)
                if (now - old.Last > Longest)
                    failed.TryRemove(key, out _);
        foreach (var key in known is not null ? [KeyOf(known)] : new[] { KeyOf(address), Account })
            failed.AddOrUpdate(
                key,
                _ => new(1, now),
                (_, before) => new(now - before.Last > Forgotten ? 1 : before.Count + 1, now)
            );
    }

    public void Succeed(string address, string? known) => failed.TryRemove(KeyOf(known ?? address), out _);

    private Duration Wait(string key, int free, Instant now)
    {
        if (!failed.TryGetValue(key, out var one) || one.Count < free)
            return Duration.Zero;
        var wait = Duration.Min(Duration.FromSeconds(Math.Pow(2, Math.Min(one.Count - free, 12))), Longest);
        return Duration.Max(Duration.Zero, one.Last + wait - now);
    }

    private static string KeyOf(string who) => $"of {who}";
}
