using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Amounts;

namespace Gesamt.Core.Calendar;

/// <summary>How long work takes or took, in whole minutes: read as people write it, told, and counted in hours for an invoice.</summary>
public static partial class WorkTime
{
    /// <summary>Most that one day holds.</summary>
    public const int Most = 24 * 60;

    private const int LongestHours = 100_000;

    // “2.25 hours”, “1 h 15 min”, “1:30 h”, “1h30”, “90 min”
    private const string HoursUnit = "(?:h|hrs?|hours?)",
        MinutesUnit = "(?:mins?|minutes?)";

    internal const string Pattern =
        @"(?:(?<hours>\d{1,3}(?:[.,]\d{1,2})?)\s*"
        + HoursUnit
        + @"(?:\s*(?:and\s+)?(?<minutes>\d{1,2})\s*"
        + MinutesUnit
        + @")?|(?<hours>\d{1,2}):(?<minutes>[0-5]\d)\s*"
        + HoursUnit
        + @"|(?<hours>\d{1,2})h(?<minutes>[0-5]\d)|(?<minutes>\d{1,3}(?:[.,]\d{1,2})?)\s*"
        + MinutesUnit
        + ")";

    /// <summary>The time of work that a field holds; there a number alone counts hours, and “1:30” needs no unit. Null where it is none of 1 minute to a whole day.</summary>
    /// <param name="most">Most minutes it can be, where that is not a day.</param>
    public static int? Read(string text, int most = Most)
    {
        var plain = text.Trim();
        decimal? minutes =
            Whole().Match(plain) is { Success: true } spelled ? MinutesOf(spelled)
            : Clock().Match(plain) is { Success: true } clock ? MinutesOf(clock)
            : NumberReading.Of(plain) is { } hours and >= 0 and <= LongestHours
                ? decimal.Round(hours * 60, MidpointRounding.AwayFromZero)
            : null;
        return minutes >= 1 && minutes <= most ? (int)minutes.Value : null;
    }

    /// <summary>“2 h 15 min”, “45 min”, “8 h”.</summary>
    public static string Words(int minutes) =>
        (minutes / 60, minutes % 60) switch
        {
            (0, var rest) => $"{rest} min",
            (var hours, 0) => $"{hours} h",
            var (hours, rest) => $"{hours} h {rest} min",
        };

    /// <summary>In hours with two decimals, as an invoice counts them; half of a hundredth goes up.</summary>
    public static decimal Hours(int minutes) => decimal.Round(minutes / 60m, 2, MidpointRounding.AwayFromZero);

    internal static int MinutesOf(Match match)
    {
        decimal Of(string name) =>
            match.Groups[name] is { Success: true } group
                ? decimal.Parse(group.Value.Replace(',', '.'), CultureInfo.InvariantCulture)
                : 0;
        return (int)decimal.Round(Of("hours") * 60 + Of("minutes"), MidpointRounding.AwayFromZero);
    }

    [GeneratedRegex("^" + Pattern + "$", RegexOptions.IgnoreCase)]
    private static partial Regex Whole();

    [GeneratedRegex(@"^(?<hours>\d{1,2}):(?<minutes>[0-5]\d)$")]
    private static partial Regex Clock();
}
