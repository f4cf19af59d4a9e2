using NodaTime;

namespace Gesamt.Core.Calendar;

/// <summary>How often something comes again.</summary>
public enum Every
{
    Week,
    TwoWeeks,
    Month,
    Quarter,
    Year,
}

/// <summary>Days that come again. Occurrence k is the first day and k units, always counted from the first, so that 31 January gives 28 February and then 31 March.</summary>
/// <param name="Until">The last day on which one can fall; null for no such day.</param>
/// <param name="Count">How many there are; null for no such number.</param>
public sealed record Recurrence(Every Every, LocalDate First, LocalDate? Until = null, int? Count = null)
{
    /// <summary>The day of occurrence k, counted from 0; null where it is over before.</summary>
    public LocalDate? DayOf(int k) => k >= Count || Plain(k) > Until ? null : Plain(k);

    /// <summary>What occurrence k is for: from its day to the day before the next would be.</summary>
    public (LocalDate From, LocalDate Until) PeriodOf(int k) => (Plain(k), Plain(k + 1).PlusDays(-1));

    private LocalDate Plain(int k) =>
        Every switch
        {
            Every.Week => First.PlusWeeks(k),
            Every.TwoWeeks => First.PlusWeeks(2 * k),
            Every.Month => First.PlusMonths(k),
            Every.Quarter => First.PlusMonths(3 * k),
            _ => First.PlusYears(k),
        };
}

/// <summary>How often something comes again, in words.</summary>
public static class EveryWords
{
    /// <summary>“every two weeks”.</summary>
    public static string Of(Every every) =>
        every switch
        {
            Every.Week => "every week",
            Every.TwoWeeks => "every two weeks",
            Every.Month => "every month",
            Every.Quarter => "every quarter",
            _ => "every year",
        };
}
