using Gesamt.Store.Model;

namespace Gesamt.Web.Reports;

/// <summary>A goal as it is set and changed.</summary>
/// <param name="Measures">One or several.</param>
public sealed record SaveGoalDto(int Year, string Title, IReadOnlyList<SaveMeasureDto> Measures);

/// <summary>What a goal is measured by; numbers as they are typed.</summary>
/// <param name="Words">Empty for the words of its figure.</param>
/// <param name="Start">Empty for 0.</param>
/// <param name="Present">Not used where a figure says it.</param>
/// <param name="Figure">Null for a measure that is typed.</param>
/// <param name="Kind">Only work of this kind, where the figure counts projects.</param>
/// <param name="AtLeast">Only projects of that price or more, without tax; empty for all.</param>
public sealed record SaveMeasureDto(
    string Words,
    string Start,
    string Target,
    string Present,
    GoalFigure? Figure = null,
    long? Kind = null,
    string? Source = null,
    string? AtLeast = null
);

/// <summary>The goals of a year.</summary>
/// <param name="Years">Those with goals, and the present one.</param>
/// <param name="Elapsed">How much of the year has passed, 0 to 1.</param>
/// <param name="Figures">Those a measure can be taken from.</param>
public sealed record GoalsDto(
    int Year,
    IReadOnlyList<int> Years,
    double Elapsed,
    IReadOnlyList<GoalDto> Goals,
    IReadOnlyList<GoalFigureDto> Figures
);

/// <param name="Words">What it is called: “booked projects”.</param>
/// <param name="CountsProjects">It can be narrowed to a kind, a source, a least price.</param>
public sealed record GoalFigureDto(GoalFigure Figure, string Words, bool CountsProjects);

/// <param name="Under">“9 of 12”, or “2 measures, their mean”.</param>
/// <param name="Percent">0 to 100; 100 only where all of it is reached.</param>
public sealed record GoalDto(
    long Id,
    string Title,
    string Under,
    int Percent,
    IReadOnlyList<MeasureDto> Measures,
    SaveGoalDto Said
);

/// <param name="Told">“9 of 12”.</param>
/// <param name="Percent">0 to 100.</param>
/// <param name="ByItself">It is taken from a figure.</param>
public sealed record MeasureDto(string Words, string Told, int Percent, bool ByItself);

public sealed record GoalIdDto(long Id);
