namespace Gesamt.Core.Calendar;

/// <summary>The unit a step or a due date is counted in.</summary>
public enum SpanUnit
{
    Minutes,
    Hours,
    Days,
    BusinessDays,
    Weeks,
    Months,
    Years,
}

/// <summary>So many units after (positive) or before (negative) something.</summary>
/// <remarks>Minutes and hours are elapsed time; everything longer is calendar arithmetic on the local date.</remarks>
public readonly record struct Span(int Count, SpanUnit Unit)
{
    public static readonly Span None = new(0, SpanUnit.Minutes);

    public static Span Days(int count) => new(count, SpanUnit.Days);

    public static Span Hours(int count) => new(count, SpanUnit.Hours);

    public static Span Months(int count) => new(count, SpanUnit.Months);

    public bool IsElapsed => Unit is SpanUnit.Minutes or SpanUnit.Hours;

    /// <summary>“28 days before”, “1 month after”, “2 hours after”; empty for nothing.</summary>
    public string Words
    {
        get
        {
            if (Count == 0)
                return "";
            var size = Math.Abs(Count);
            var unit = Unit switch
            {
                SpanUnit.Minutes => "minute",
                SpanUnit.Hours => "hour",
                SpanUnit.Days => "day",
                SpanUnit.BusinessDays => "business day",
                SpanUnit.Weeks => "week",
                SpanUnit.Months => "month",
                _ => "year",
            };
            return $"{size} {unit}{(size == 1 ? "" : "s")} {(Count < 0 ? "before" : "after")}";
        }
    }
}
