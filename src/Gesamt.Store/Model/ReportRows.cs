using Gesamt.Core;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>The first stay of a project at a gate; derived from facts and replaced in the transaction that changes it.</summary>
[Derived]
public sealed class StayRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public Gate Gate { get; set; }

    /// <summary>When the project came in, beside its stays so that those of some years are read in one piece; null where nothing is counted, of a rehearsal and of what was no inquiry.</summary>
    public Instant? BeganAt { get; set; }

    /// <summary>The day it came there; null once it is over.</summary>
    public LocalDate? Since { get; set; }

    /// <summary>From one day of the studio to the other; null while it lasts.</summary>
    public int? Days { get; set; }

    /// <summary>It passed or ended; false while it lasts, and where it was sent back.</summary>
    public bool Left { get; set; }
}

/// <summary>What the owner wants to reach in a year.</summary>
public sealed class GoalRow
{
    public GoalId Id { get; set; }
    public int Year { get; set; }
    public required string Title { get; set; }

    /// <summary>What it is measured by, as JSON.</summary>
    [HoldsJson]
    public required string Measures { get; set; }
    public bool Removed { get; set; }
}

/// <summary>A figure that a measure of a goal can be taken from, of the goal's year.</summary>
public enum GoalFigure
{
    /// <summary>Inquiries that came.</summary>
    Inquiries,

    /// <summary>Projects that were booked.</summary>
    Booked,

    /// <summary>What was agreed with them, without tax.</summary>
    Agreed,

    /// <summary>Clients whose first project was booked.</summary>
    NewClients,

    /// <summary>How many of a hundred inquiries that are decided became work.</summary>
    Share,

    /// <summary>Half of its inquiries left the Lead stage in so many days.</summary>
    LeadDays,

    /// <summary>What an hour of the finished work earned.</summary>
    AnHour,

    /// <summary>Hours that were worked.</summary>
    Hours,

    /// <summary>What clients paid, tax included.</summary>
    Received,

    /// <summary>What is left of all that came after all that was spent.</summary>
    Left,
}

/// <summary>What a goal is measured by.</summary>
/// <param name="Present">As the owner typed it last; not used where a figure says it.</param>
/// <param name="Figure">Null for a measure that is typed.</param>
/// <param name="Kind">Only work of this kind, where the figure counts projects.</param>
/// <param name="Source">Only what came from there, likewise.</param>
/// <param name="AtLeast">Only projects of that price or more, without tax, in major units; likewise.</param>
public sealed record GoalMeasure(
    string Words,
    decimal Start,
    decimal Target,
    decimal Present,
    GoalFigure? Figure,
    long? Kind,
    string? Source,
    decimal? AtLeast
);
