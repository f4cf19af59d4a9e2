using Gesamt.Core.Facts;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>Which inquiries are looked at: those that came in some days, of one kind, source or campaign where that is said.</summary>
public sealed record ReportQuery
{
    /// <summary>A year, or “all” for every year; this one and the two before where nothing is said.</summary>
    public string? Year { get; init; }

    /// <summary>The first day of any other range (ISO 8601).</summary>
    public string? From { get; init; }

    /// <summary>Its last day.</summary>
    public string? Until { get; init; }
    public long? Kind { get; init; }
    public string? Source { get; init; }
    public string? Campaign { get; init; }

    /// <summary>Whether more is said than the days.</summary>
    internal bool IsNarrowed => Kind is not null || Source is { Length: > 0 } || Campaign is { Length: > 0 };
}

/// <summary>By what it is told who brought how much.</summary>
public enum ReportBy
{
    Source,
    Campaign,
    Kind,
    Service,
    Client,
    Project,
}

/// <summary>What a figure counts.</summary>
public enum ReportOf
{
    /// <summary>All that came; at a gate, all that came as far.</summary>
    Came,

    /// <summary>Went on from a gate, whatever became of them later.</summary>
    Passed,

    /// <summary>Ended without going on.</summary>
    Ended,

    /// <summary>Stand there, and are open; without a gate, are open and not booked.</summary>
    Open,

    /// <summary>Ended by the client without becoming work: lost, gone quiet, cancelled.</summary>
    Lost,

    /// <summary>Ended by the studio without becoming work: declined, referred.</summary>
    Apart,

    /// <summary>Became work.</summary>
    Won,

    /// <summary>Stood at a gate, with how long.</summary>
    Stood,

    /// <summary>The first that a client booked.</summary>
    NewClients,

    /// <summary>Agreed to after so many reminders.</summary>
    Chased,

    /// <summary>Finished work with hours: what an hour is worked out from.</summary>
    Hourly,
}

/// <summary>One figure of the reports.</summary>
public sealed record ReportPick
{
    public ReportOf? Of { get; init; }
    public Gate? Gate { get; init; }
    public EndReason? Reason { get; init; }

    /// <summary>A month or year of the reports by its first day (ISO 8601).</summary>
    public string? At { get; init; }
    public ReportBy? By { get; init; }

    /// <summary>The row, together with <see cref="By"/>; empty for what is not known.</summary>
    public string? Key { get; init; }
    public int? Chases { get; init; }
    public int? Most { get; init; }
}

/// <summary>The days of a query.</summary>
/// <param name="Last">Included.</param>
internal sealed record ReportRange(LocalDate First, LocalDate Last, string Title)
{
    private const int MostMonths = 36,
        YearsBefore = 2;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static ReportRange Of(Desk desk, ReportQuery query, LocalDate earliest)
    {
        if (
            query.Year is not { Length: > 0 }
            && query.From is not { Length: > 0 }
            && query.Until is not { Length: > 0 }
        )
        {
            var first = new LocalDate(desk.Today.Year - YearsBefore, 1, 1);
            return new(first, desk.Today, $"{first.Year} to now");
        }
        var asked = new MoneyQuery
        {
            Year = query.Year,
            From = query.From,
            Until = query.Until,
        };
        var range = MoneyRange.Of(desk, asked, earliest);
        return new(
            range.First,
            LocalDate.Max(range.First, LocalDate.Min(range.Last, desk.Today)),
            query.Year == "all" ? "all years" : range.Title
        );
    }

    /// <summary>Months, or years where there would be too many of them.</summary>
    public IReadOnlyList<MoneyColumn> Columns => MoneyColumn.Over(First, Last, MostMonths);
}
