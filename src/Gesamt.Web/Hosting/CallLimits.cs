using System.Collections.Concurrent;
using System.Globalization;
using System.Threading.RateLimiting;

namespace Gesamt.Web.Hosting;

/// <summary>How often one address may call, each kind of call by its name.</summary>
/// <remarks>The framework's middleware over the same limiters wakes ten times a second for as long as the house stands, which was most of what an idle studio cost. Here a window is looked at when somebody calls.</remarks>
public static class CallLimits
{
    /// <summary>So many windows are kept before those that nobody used for as long are dropped.</summary>
    private const int Most = 1_000;

    private static readonly TimeSpan Window = TimeSpan.FromMinutes(1);

    private sealed record Limited(string Name);

    /// <summary>Counts calls of these addresses under a name.</summary>
    public static T LimitCalls<T>(this T addresses, string name)
        where T : IEndpointConventionBuilder
    {
        addresses.Add(endpoint => endpoint.Metadata.Add(new Limited(name)));
        return addresses;
    }

    /// <summary>Refuses whoever called too often, and says when to come again (RFC 6585, 4; RFC 9110, 10.2.3).</summary>
    public static void UseCallLimits(this WebApplication app, params (string Name, int PerMinute)[] limits)
    {
        var perMinute = limits.ToDictionary(limit => limit.Name, limit => limit.PerMinute);
        ConcurrentDictionary<(string, string), FixedWindowRateLimiter> windows = [];
        app.Use(
            async (context, next) =>
            {
                if (context.GetEndpoint()?.Metadata.GetMetadata<Limited>() is { Name: var name })
                {
                    using var lease = Current(windows, (name, context.VisitorAddress()), perMinute[name])
                        .AttemptAcquire();
                    if (!lease.IsAcquired)
                    {
                        Refuse(context.Response, lease);
                        return;
                    }
                }
                await next(context);
            }
        );
    }

    private static FixedWindowRateLimiter Current(
        ConcurrentDictionary<(string, string), FixedWindowRateLimiter> windows,
        (string, string) caller,
        int perMinute
    )
    {
        if (windows.Count >= Most && !windows.ContainsKey(caller))
            DropUnused(windows);
        var window = windows.GetOrAdd(
            caller,
            _ =>
                new(
                    new()
                    {
                        PermitLimit = perMinute,
                        Window = Window,
                        AutoReplenishment = false,
                    }
                )
        );
        window.TryReplenish();
        return window;
    }

    private static void DropUnused(ConcurrentDictionary<(string, string), FixedWindowRateLimiter> windows)
    {
        foreach (var (caller, window) in windows)
            if (window.TryReplenish() && window.IdleDuration is not null)
                windows.TryRemove(caller, out _);
    }

    private static void Refuse(HttpResponse response, RateLimitLease lease)
    {
        response.StatusCode = StatusCodes.Status429TooManyRequests;
        if (lease.TryGetMetadata(MetadataName.RetryAfter, out var after))
            response.Headers.RetryAfter = ((int)after.TotalSeconds).ToString(CultureInfo.InvariantCulture);
    }
}
