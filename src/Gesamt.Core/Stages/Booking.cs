using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Stages;

/// <summary>What makes a project won (booked): the contract signed by all who must, the booking payment, or both in any order.</summary>
public enum WinRule { Signature, Payment, Both }

/// <summary>Whether a project is booked, and since when. It stays so wherever the project goes next.</summary>
public static class Booking
{
    /// <summary>The later of what the kind's rule needs; null while it is not met, or after “not won after all”.</summary>
    public static Instant? WonAt(Case project)
    {
        var gates = GateRule.Read(project);
        var signed = ClosedAt(gates, Gate.Contract);
        var paid = ClosedAt(gates, Gate.Payment);
        var won = project.Kind.Win switch
        {
            WinRule.Signature => signed,
            WinRule.Payment => paid,
            _ => signed is null || paid is null ? null : signed > paid ? signed : paid,
        };
        return project.History.Last<Happening.NotWonAfterAll>() is { Recorded: var taken } && won <= taken ? null : won;
    }

    // a gate the kind does not have asks nothing, so the win waits for the other alone
    private static Instant? ClosedAt(IEnumerable<GateReading> gates, Gate gate) =>
        gates.FirstOrDefault(reading => reading.Gate == gate) is { } reading ? reading.ClosedAt : Instant.MinValue;
}
