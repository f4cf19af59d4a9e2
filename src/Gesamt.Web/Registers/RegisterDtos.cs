using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Registers;

/// <summary>What a row of the Register can show.</summary>
public enum RegisterColumn
{
    Client,
    Kind,
    Stage,
    Milestone,
    Turn,
    Reason,
    Date,
    Source,
    Campaign,
    Value,
    Agreed,
    Paid,
    Owed,
    Inquiry,
    Booked,
    Over,

    /// <summary>Time worked; there only where hours are kept.</summary>
    Worked,

    /// <summary>What an hour earns; there only where hours are kept.</summary>
    AnHour,

    /// <summary>How the routine that is looked for stands, with both its dates; there only where one is.</summary>
    Routine,
}

/// <summary>By what the Register is put together. Months and years are those of the inquiry.</summary>
public enum RegisterGroup
{
    Standing,
    Month,
    Year,
    Kind,
    Source,
    Client,
    Stage,
    BookedMonth,
    None,
}

/// <summary>A view of the Register: what is shown of which projects, in which order.</summary>
public sealed record RegisterQuery
{
    /// <summary>In the order they are shown.</summary>
    [FromQuery]
    public RegisterColumn[]? Columns { get; init; }

    /// <summary>By what rows stand together.</summary>
    public RegisterGroup? Group { get; init; }
    public string? Sort { get; init; }
    public bool? Desc { get; init; }

    /// <summary>Part of a title or a client's name.</summary>
    public string? Words { get; init; }
    public string? Kind { get; init; }
    public string? Source { get; init; }

    /// <summary>Only open projects at this stage.</summary>
    public Stage? Stage { get; init; }
    public int? Year { get; init; }

    /// <summary>Only those that stand so.</summary>
    public RegisterStanding? Standing { get; init; }

    /// <summary>Only those of which this is true.</summary>
    public RegisterOnly? Only { get; init; }

    /// <summary>Only those on which a routine of this name runs or ran.</summary>
    public string? Routine { get; init; }

    /// <summary>Only where it stands so.</summary>
    public RunState? Run { get; init; }

    /// <summary>Rows shown of each group.</summary>
    public int? Most { get; init; }

    [FromQuery]
    public string[]? Details { get; init; }
}

/// <summary>What of the moment a project is looked for by.</summary>
public enum RegisterOnly
{
    /// <summary>An invoice or a task of it is late.</summary>
    Late,

    /// <summary>Its date, a task or an invoice of it falls into this week.</summary>
    DueThisWeek,

    /// <summary>Its inquiry came within the last 24 hours.</summary>
    CameIn,
}

/// <summary>Not yet booked, booked, over (ended or finished) and not put away yet, put away.</summary>
public enum RegisterStanding
{
    NotBooked,
    Booked,
    Over,
    PutAway,
}

/// <param name="Column">Null for a detail of a kind.</param>
public sealed record RegisterColumnDto(RegisterColumn? Column, string Words, bool IsAmount);

/// <param name="Cells">In the order of the columns.</param>
public sealed record RegisterRowDto(long Id, string Title, IReadOnlyList<string> Cells);

/// <param name="Sums">In the order of the columns; empty where there is nothing to add up.</param>
/// <param name="More">Rows that are not shown.</param>
public sealed record RegisterGroupDto(
    string Name,
    string Count,
    IReadOnlyList<string> Sums,
    IReadOnlyList<RegisterRowDto> Rows,
    int More
);

/// <summary>The table, and what it can be narrowed by.</summary>
/// <param name="Offered">The columns that can be shown.</param>
public sealed record RegisterDto(
    string Summary,
    IReadOnlyList<RegisterColumnDto> Columns,
    IReadOnlyList<RegisterGroupDto> Groups,
    IReadOnlyList<string> Kinds,
    IReadOnlyList<string> Sources,
    IReadOnlyList<int> Years,
    IReadOnlyList<string> Details,
    IReadOnlyList<RegisterColumnDto> Offered
);
