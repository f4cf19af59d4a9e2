using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>How a payment stands in the season.</summary>
public enum DotSort
{
    Received,

    /// <summary>Invoiced and not paid, due then.</summary>
    Sent,
    Late,

    /// <summary>Agreed, and not invoiced yet.</summary>
    ToCome,
}

/// <summary>A month of the season.</summary>
/// <param name="At">Its first day, in days from the first that is shown.</param>
public sealed record SeasonMonthDto(string Name, int At);

/// <summary>What the season is drawn on; every place is counted in days from its first.</summary>
/// <param name="First">The first day that is shown.</param>
/// <param name="Days">How many are shown.</param>
/// <param name="Today">Null where it is not among them.</param>
/// <param name="Span">Months across.</param>
public sealed record SeasonScaleDto(
    LocalDate First,
    int Days,
    int? Today,
    int Span,
    IReadOnlyList<SeasonMonthDto> Months
);

/// <summary>A phase as a bar. What is known of its days reads in its words.</summary>
/// <param name="Until">The day after its last; of one that is in work with no known end, the day after today.</param>
/// <param name="IsOpen">Nothing says when it ends.</param>
public sealed record SeasonPhaseDto(string Words, PhaseState State, int From, int Until, bool IsOpen);

/// <summary>A payment as a dot.</summary>
public sealed record SeasonDotDto(int At, DotSort Sort, string Words);

/// <summary>The date that matters.</summary>
/// <param name="Words">“12 Mar, opening day”; “if agreed” where it is not booked.</param>
public sealed record SeasonDateDto(int At, string Words);

/// <summary>While a project rests.</summary>
public sealed record SeasonRestDto(int From, int Until, string Words);

/// <summary>What is still to come of a project, tax included, and what that is of.</summary>
public sealed record SeasonMoneyDto(string ToCome, string Under, bool IsLate);

/// <summary>A project across the months.</summary>
/// <param name="Under">Where it is, or when it begins.</param>
public sealed record SeasonRowDto(
    long Id,
    string Title,
    string Under,
    IReadOnlyList<SeasonPhaseDto> Phases,
    IReadOnlyList<SeasonDotDto> Dots,
    SeasonDateDto? Date,
    SeasonRestDto? Rest,
    SeasonMoneyDto Money
);

/// <summary>A week of the owner's.</summary>
/// <param name="At">Its Monday.</param>
/// <param name="Share">Planned of open, per cent, 100 at most.</param>
/// <param name="Free">Enough is left for a start.</param>
public sealed record SeasonWeekDto(LocalDate Monday, int At, string Words, int Share, bool Over, bool Free);

/// <summary>A kind of work that could be begun.</summary>
/// <param name="Hours">Its first week takes.</param>
public sealed record StartKindDto(long Id, string Name, int Hours);

/// <summary>When the next work begins, and from when new work could.</summary>
/// <param name="Next">“Mon 1 Feb, Kestrel climbing hall”; empty for none.</param>
/// <param name="Free">“Mon 22 Feb”, or that no week in sight leaves as much.</param>
/// <param name="Hours">That the first week of new work takes.</param>
public sealed record StartsDto(
    string Next,
    long? NextProject,
    string Free,
    int Hours,
    long? Kind,
    IReadOnlyList<StartKindDto> Kinds
);

/// <summary>All that is open, across months.</summary>
/// <param name="Undated">How many open projects have nothing in these months.</param>
public sealed record SeasonDto(
    string Title,
    AroundDto Around,
    StartsDto Starts,
    SeasonScaleDto Scale,
    IReadOnlyList<SeasonRowDto> Rows,
    int Undated,
    IReadOnlyList<SeasonWeekDto> Weeks
);
