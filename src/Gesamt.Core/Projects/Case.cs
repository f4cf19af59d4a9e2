using System.Collections.Immutable;
using Gesamt.Core.Briefs;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Core.Projects;

/// <summary>A task as the rules see it.</summary>
/// <param name="Offset">Its distance to the date that matters, when it is counted from it.</param>
/// <param name="Fixed">Its date was set by hand, so a moved date asks before it moves this.</param>
public sealed record OpenTask(
    TaskId Id,
    string Title,
    LocalDate? Due,
    Span? Offset = null,
    bool Fixed = false,
    bool Closing = false
);

/// <summary>Everything the rules need to know of one project: its kind as it was when it began, its facts, open tasks and runs.</summary>
public sealed record Case(
    ProjectId Id,
    KindRules Kind,
    History History,
    ImmutableArray<OpenTask> OpenTasks,
    ImmutableArray<Run> Runs,
    StudioCalendar Calendar
)
{
    /// <summary>What steps may ask for, where one of the runs does.</summary>
    public Traits Traits { get; init; } = Traits.None;

    /// <summary>The date that matters, such as the opening day, with its time of day.</summary>
    public LocalDateTime? MainDate => DateNamed(Kind.MainDate);

    /// <summary>A named date, as it was set last.</summary>
    public LocalDateTime? DateNamed(string name) =>
        History.Last<Happening.DateSet>(set => set.Name == name) is { What: var set }
            ? set.Date + (set.Time ?? StudioCalendar.DefaultTime)
            : null;

    /// <summary>Whether it was put out of the daily lists.</summary>
    public bool IsPutAway =>
        History.Last<Happening.PutAway>() is { } away
        && !History.Facts.Any(fact =>
            fact.What is Happening.TakenOut or Happening.TakenUp && History.IsAfter(fact, away.Fact)
        );

    /// <summary>How it ended, unless it was taken up again.</summary>
    public Seen<Happening.Ended>? End =>
        History.Last<Happening.Ended>() is { } end
        && !(History.Last<Happening.TakenUp>() is { } again && History.IsAfter(again.Fact, end.Fact))
            ? end
            : null;
}

/// <summary>What a kind of work demands, as pinned on the project when it began.</summary>
/// <param name="Gates">The gates it has, in their order.</param>
/// <param name="Demands">Details that must be known before the Lead gate closes.</param>
/// <param name="MainDate">What the date that matters is called, such as “opening day”.</param>
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
    ImmutableArray<string> Phases,
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

    /// <summary>Every detail the kind wants to know; what it demands without a rule of its own is a short text.</summary>
    public IEnumerable<DetailRule> AllDetails =>
        Details.Concat(
            Demands
                .Where(name => Details.All(detail => detail.Name != name))
                .Select(name => new DetailRule(name, FieldSort.ShortText, null, null, false))
        );
}

/// <summary>When the follow-ups of an inquiry begin: as it comes, or when the owner has read the answers.</summary>
public enum FollowUps
{
    AtOnce,
    WhenRead,
}
