using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Projects;

/// <summary>A task as the rules see it.</summary>
/// <param name="Offset">Its distance to the date that matters, when it is counted from it.</param>
/// <param name="DoneBy">What fulfils it when it happens.</param>
/// <param name="Fixed">Its date was set by hand, so a moved date asks before it moves this.</param>
public sealed record OpenTask(
    TaskId Id,
    string Title,
    LocalDate? Due,
    Span? Offset = null,
    bool Fixed = false,
    bool Closing = false,
    Fulfilment? DoneBy = null,
    string? Phase = null
)
{
    /// <summary>What was said of how much it matters and takes.</summary>
    public TaskWeight Weight { get; init; } = TaskWeight.None;

    /// <summary>It is the client's to do.</summary>
    public bool IsClients { get; init; }
}

/// <summary>How much a task matters and takes, as far as somebody said.</summary>
/// <param name="Importance">1 to 3, 3 is high.</param>
/// <param name="Effort">1 to 3, 3 is much.</param>
/// <param name="Minutes">The estimate.</param>
public sealed record TaskWeight(int? Importance, int? Effort, int? Minutes)
{
    public const int Least = 1,
        Most = 3;

    public static readonly TaskWeight None = new(null, null, null);
}

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

/// <summary>What is known of a project that steps may ask for.</summary>
/// <param name="Details">By name; answers of forms fill them.</param>
public sealed record Traits(string? Source, ImmutableDictionary<string, string> Details)
{
    public static readonly Traits None = new(null, ImmutableDictionary<string, string>.Empty);
}
