using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Briefs;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;

namespace Gesamt.Core.Projects;

/// <summary>What is kept of the agreed price when a project is cancelled so many days before its date, or later.</summary>
public sealed record CancelStep(int DaysBefore, Rate Keeps)
{
    // whoever writes so many days means from the beginning on
    private const int Always = 1_000;

    /// <summary>Whether it holds so many days before the date.</summary>
    public bool HoldsAt(int left) => left <= DaysBefore || DaysBefore >= Always;

    /// <summary>The terms as a contract says them: “until 60 days before the opening day 25 % of the price is kept, until 14 days before it 50 %, and later all of it”. Null for none.</summary>
    /// <param name="terms">The earliest first.</param>
    /// <param name="date">What the kind calls its date; empty for none.</param>
    public static string? Words(ImmutableArray<CancelStep> terms, string date)
    {
        if (terms.IsEmpty)
            return null;
        var before = $"before {(date.Length > 0 ? $"the {date}" : "the date")}";
        // each share holds until the day on which the next begins
        var shares = terms.Select(
            (step, i) => (step.Keeps, Until: i + 1 < terms.Length ? terms[i + 1].DaysBefore + 1 : 0)
        );
        if (terms[0].DaysBefore < Always)
            shares = shares.Prepend((new Rate(0), terms[0].DaysBefore + 1));
        var said = shares.ToList();
        return string.Join(
            ", ",
            said.Select(
                (share, i) =>
                {
                    var until = Days(share.Until, i == 0 ? before : "before it");
                    var kept = Share(share.Keeps);
                    return i == 0 ? $"{(until.Length > 0 ? $"{until} " : "")}{kept} of the price is kept"
                        : until.Length > 0 ? $"{until} {kept}"
                        : $"and later {kept}{(share.Keeps.PartsPerMillion == 1_000_000 ? " of it" : "")}";
                }
            )
        );
    }

    private static string Days(int until, string before) =>
        until switch
        {
            0 => "",
            1 => $"until the day {before}",
            _ => $"until {NumberText.Number(until)} days {before}",
        };

    private static string Share(Rate keeps) =>
        keeps.PartsPerMillion switch
        {
            0 => "nothing",
            1_000_000 => "all",
            _ => $"{NumberText.Number(keeps.InPercent)} %",
        };
}

/// <summary>What makes a project won (booked): the contract signed by all who must, the booking payment, or both in any order.</summary>
public enum WinRule
{
    Signature,
    Payment,
    Both,
}

/// <summary>When the follow-ups of an inquiry begin: as it comes, or when the owner has read the answers.</summary>
public enum FollowUps
{
    AtOnce,
    WhenRead,
}

/// <summary>A phase of the work.</summary>
/// <param name="Days">How many days it usually takes; null where that is not said.</param>
public sealed record KindPhase(string Name, int? Days = null)
{
    public static implicit operator KindPhase(string name) => new(name);
}

/// <summary>What a kind calls one of the five gates; its meaning stays.</summary>
public sealed record GateWord(Gate Gate, string Name);

/// <summary>By which fact a milestone is reached.</summary>
public enum MilestoneSign
{
    CallHeld,
    BriefApproved,
    FormReturned,
    DraftApproved,

    /// <summary>The owner says so.</summary>
    Said,
}

/// <summary>A kind's own step inside a gate, such as “proof printed”. It is seen on the way, and keeps no gate open.</summary>
public sealed record Milestone(string Name, Gate Gate, MilestoneSign By);

/// <summary>What a kind of work demands, as pinned on the project when it began.</summary>
/// <param name="Gates">The gates it has, in their order.</param>
/// <param name="Demands">Details that must be known before the Lead gate closes.</param>
/// <param name="MainDate">What the date that matters is called, such as “opening day”; empty for work without one.</param>
/// <param name="BookingDays">Days from the signature until the booking payment is due.</param>
/// <param name="Phases">Phases of the work in their order.</param>
/// <param name="Rounds">Rounds of review that are included in the price.</param>
/// <param name="ClosingSteps">What is done after the handover before the project is finished.</param>
/// <param name="Details">Details the kind wants to know, with their sort.</param>
/// <param name="Brief">The parts of its brief in their order.</param>
/// <param name="ReplyWithin">Business days within which an inquiry is promised an answer.</param>
public sealed record KindRules(
    ImmutableArray<Gate> Gates,
    WinRule Win,
    ImmutableArray<string> Demands,
    string MainDate,
    int BookingDays,
    int ReplyWithin,
    AgeLimits AgeLimits,
    ImmutableArray<KindPhase> Phases,
    int Rounds,
    ImmutableArray<string> ClosingSteps,
    ImmutableArray<DetailRule> Details,
    ImmutableArray<BriefPart> Brief,
    FollowUps FollowUps
)
{
    public static readonly KindRules Default = new(
        [.. Enum.GetValues<Gate>()],
        WinRule.Both,
        [],
        "date",
        7,
        2,
        AgeLimits.Default,
        [],
        3,
        [],
        [],
        [],
        FollowUps.AtOnce
    );

    /// <summary>Its own words for gates; those without one keep the usual.</summary>
    public ImmutableArray<GateWord> GateWords { get; init; } = [];

    /// <summary>Its own steps inside gates, in their order.</summary>
    public ImmutableArray<Milestone> Milestones { get; init; } = [];

    /// <summary>What its terms keep of the price when a project is cancelled; nothing where there are none.</summary>
    public ImmutableArray<CancelStep> CancelTerms { get; init; } = [];

    /// <summary>Whether final files can be opened by the client only once everything is paid.</summary>
    public bool FinalsWait { get; init; }

    /// <summary>Whether a letter of progress says how long was worked, as for work by the hour.</summary>
    public bool TellsHours { get; init; }

    /// <summary>What its clients read to begin with, once that part of their page is open.</summary>
    public Introduction Introduction { get; init; } = Introduction.None;

    /// <summary>How many minutes before the true start guests are told to come, where a run sheet does not say otherwise.</summary>
    public int GuestsEarlier { get; init; }

    /// <summary>Hours that the first week of such a project takes; null for as many as usual.</summary>
    public int? FirstWeekHours { get; init; }

    /// <summary>What the kind calls a gate.</summary>
    public string NameOf(Gate gate) => GateWords.FirstOrDefault(word => word.Gate == gate)?.Name ?? gate.ToString();

    /// <summary>Whether one of its phases has this name.</summary>
    public bool HasPhase(string name) => Phases.Any(phase => phase.Name == name);

    /// <summary>Every detail the kind wants to know; what it demands without a rule of its own is a short text.</summary>
    public IEnumerable<DetailRule> AllDetails =>
        Details.Concat(
            Demands
                .Where(name => Details.All(detail => detail.Name != name))
                .Select(name => new DetailRule(name, FieldSort.ShortText, null, null, false))
        );
}
