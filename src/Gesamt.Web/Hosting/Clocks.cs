using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>A clock that can be set, for the demo and the tests; it stands still or runs on from where it was set.</summary>
public sealed class AdjustableClock(TimeProvider real) : TimeProvider
{
    private readonly Lock gate = new();
    private TimeSpan offset = TimeSpan.Zero;
    private DateTimeOffset? standing;

    public override DateTimeOffset GetUtcNow()
    {
        lock (gate)
            return standing ?? real.GetUtcNow() + offset;
    }

    /// <summary>Sets the clock; standing, it keeps showing exactly that instant.</summary>
    public void Set(Instant now, bool stands)
    {
        lock (gate)
        {
            standing = stands ? now.ToDateTimeOffset() : null;
            offset = now.ToDateTimeOffset() - real.GetUtcNow();
        }
    }

    public bool Stands
    {
        get
        {
            lock (gate)
                return standing is not null;
        }
    }
}

/// <summary>Time as NodaTime says it.</summary>
public static class Clocks
{
    /// <summary>The instant it is by this clock.</summary>
    public static Instant Now(this TimeProvider time) => Instant.FromDateTimeOffset(time.GetUtcNow());
}
