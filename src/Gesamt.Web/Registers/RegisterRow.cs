using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using NodaTime;

namespace Gesamt.Web.Registers;

/// <summary>A project in the register, with what its columns show.</summary>
internal sealed record RegisterRow(
    long Id,
    string Title,
    string Client,
    string Kind,
    string? Source,
    string? Campaign,
    RegisterStood Standing
)
{
    /// <summary>Minutes worked; 0 for none, or where nobody asked.</summary>
    public int Minutes { get; set; }

    /// <summary>What an hour earns; null for no figure, or where nobody asked.</summary>
    public Money? AnHour { get; set; }

    /// <summary>The run of the routine that is looked for; null where none is.</summary>
    public RoutineRuns.Ran? Run { get; set; }

    /// <summary>Details that were asked for, by their name.</summary>
    public IReadOnlyDictionary<string, string> Details { get; set; } = new Dictionary<string, string>();

    /// <summary>The same as they are written in the house.</summary>
    public IReadOnlyDictionary<string, string> InHouse { get; set; } = new Dictionary<string, string>();
}

/// <summary>Of a standing what a row can show: thousands are read, and each column costs.</summary>
internal sealed class RegisterStood
{
    public Stage Stage { get; init; }
    public Side Turn { get; init; }
    public required string Words { get; init; }
    public Instant? Since { get; init; }
    public Instant? Until { get; init; }
    public EndReason? Ended { get; init; }
    public LocalDate? MainDate { get; init; }
    public string? Currency { get; init; }
    public long? AgreedMinor { get; init; }
    public long? NetMinor { get; init; }
    public long PaidMinor { get; init; }
    public long OwedMinor { get; init; }
    public Instant? BeganAt { get; init; }
    public Instant? BookedAt { get; init; }
    public Instant? FinishedAt { get; init; }
    public bool PutAway { get; init; }
    public string? Milestone { get; init; }
}
