using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>Whose turn it is.</summary>
public enum Side
{
    Yours,
    Clients,
    Nobodys,
}

/// <summary>Where a project stands at an instant: f(facts, dates, settings, now).</summary>
/// <param name="Since">How long the turn has lasted; null when it is nobody's.</param>
/// <param name="Nudged">How often the client was reminded since their turn began; 0 on anybody else's.</param>
/// <param name="Until">Until when nobody need act.</param>
/// <param name="LateSince">The due date of the oldest unpaid invoice that is past due: a clock of its own, never mixed with waiting.</param>
/// <param name="Held">Letters that wait for an OK.</param>
/// <param name="ValidUntil">The next instant at which this changes by itself.</param>
public sealed record Standing(
    Stage Stage,
    Side Turn,
    WaitKind Waits,
    string Words,
    Instant? Since,
    int Nudged,
    Instant? Until,
    Instant? BookedAt,
    EndReason? Ended,
    LocalDate? LateSince,
    int Held,
    Instant? HeldSince,
    Instant? ValidUntil
)
{
    public bool IsOpen => Ended is null && Stage != Stage.Finished;

    /// <summary>How often they were nudged, in words: “nudged once”; null for never.</summary>
    public static string? NudgedWords(int times) =>
        times switch
        {
            0 => null,
            1 => "nudged once",
            2 => "nudged twice",
            _ => $"nudged {times} times",
        };

    /// <summary>Open, or over with something left for the owner.</summary>
    public bool IsOnTable => IsOpen || Turn == Side.Yours;
}
