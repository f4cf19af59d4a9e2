using NodaTime;
using NodaTime.Text;

namespace Gesamt.Core.Calendar;

/// <summary>The dates that are taken from anybody: a studio's work and its papers lie within them, and so does all arithmetic that is done with them.</summary>
public static class Dates
{
    public static readonly LocalDate First = new(1900, 1, 1),
        Last = new(2199, 12, 31);

    /// <summary>Said of a date outside.</summary>
    public const string Allowed = "A date from 1900 to 2199, such as 2027-03-12.";

    public static bool IsAllowed(LocalDate date) => date >= First && date <= Last;

    /// <summary>A date in ISO 8601, if it is one that is allowed.</summary>
    public static LocalDate? Read(string text) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true, Value: var date } && IsAllowed(date) ? date : null;
}
