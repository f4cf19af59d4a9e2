using System.Collections.Immutable;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Briefs;

/// <summary>The four groups a brief is arranged in.</summary>
public enum BriefGroup
{
    Why,
    What,
    Frame,
    Watch,
}

/// <summary>What a part is for beyond being read: guiding points stay in sight all along, obstacles come back at the phase they concern.</summary>
public enum BriefUse
{
    None,
    Guide,
    Obstacle,
}

/// <summary>A part of a kind's brief.</summary>
/// <param name="Private">The owner's alone; by no path the client's.</param>
/// <param name="From">The key of the form field whose answer fills it to begin with.</param>
/// <param name="AfterBooking">Filled only once the project is booked.</param>
public sealed record BriefPart(
    string Key,
    string Name,
    BriefGroup Group,
    BriefUse Use = BriefUse.None,
    bool Private = false,
    string? From = null,
    bool AfterBooking = false
);

/// <summary>Where a brief stands with the client.</summary>
/// <param name="Put">When it was put to them; null while it never was, or was taken back.</param>
/// <param name="Hash">SHA-256 of the text they were shown.</param>
public sealed record BriefState(Instant? Put, string? Hash, Instant? Approved, Instant? Remarked)
{
    public bool IsOpen => Put is not null && Approved is null && Remarked is null;
}

public static class BriefRule
{
    /// <summary>The brief as it was put last, and what came of it.</summary>
    public static BriefState Of(History history)
    {
        var state = new BriefState(null, null, null, null);
        foreach (var fact in history.Facts)
            state = fact.What switch
            {
                Happening.BriefPut put => new(fact.Happened, put.Hash, null, null),
                Happening.BriefTakenBack => new(null, null, null, null),
                Happening.BriefApproved approved when approved.Hash == state.Hash => state with
                {
                    Approved = fact.Happened,
                },
                Happening.BriefRemarked => state with { Remarked = fact.Happened },
                _ => state,
            };
        return state;
    }

    /// <summary>Obstacles, one a line, “paint: damp in the north corner” for one phase; those of phases in work, and those that name none.</summary>
    public static ImmutableArray<string> ToWatch(string obstacles, IReadOnlyDictionary<string, PhaseState> phases) =>
        [
            .. Obstacles(obstacles, [.. phases.Keys])
                .Where(one =>
                    one.Phase is null
                        ? phases.Values.Any(state => state == PhaseState.InWork)
                        : phases[one.Phase] == PhaseState.InWork
                )
                .Select(one => one.Words),
        ];

    /// <summary>Obstacles, one a line, each with the phase it names; null where it names none.</summary>
    public static IEnumerable<(string? Phase, string Words)> Obstacles(
        string obstacles,
        IReadOnlyCollection<string> phases
    ) =>
        from line in obstacles.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        let phase = phases.FirstOrDefault(name => line.StartsWith($"{name}:", StringComparison.OrdinalIgnoreCase))
        select (phase, phase is null ? line : line[(phase.Length + 1)..].Trim());
}
