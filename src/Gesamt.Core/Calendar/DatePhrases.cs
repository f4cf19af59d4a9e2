using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace Gesamt.Core.Calendar;

/// <summary>How people write days: “fri”, “12 mar”, “in 3 weeks”, “2 weeks before”, 2027-03-12 (ISO 8601). The words are found inside a longer text, too.</summary>
internal static partial class DatePhrases
{
    /// <summary>“today”, “tomorrow”, or the next day of that name after today.</summary>
    internal static LocalDate DayNamed(string word, LocalDate today)
    {
        var lower = word.ToLowerInvariant();
        return lower switch
        {
            "today" => today,
            "tomorrow" => today.PlusDays(1),
            _ => today.Next(
                (IsoDayOfWeek)(1 + Array.FindIndex(Days, day => lower.StartsWith(day, StringComparison.Ordinal)))
            ),
        };
    }

    /// <summary>A day and month without a year is the next such day, today counted.</summary>
    internal static LocalDate? DateOf(Match match, LocalDate today)
    {
        var (day, name) = match.Groups[1].Success
            ? (match.Groups[1].Value, match.Groups[2].Value)
            : (match.Groups[4].Value, match.Groups[3].Value);
        var month = 1 + Array.FindIndex(Months, known => name.StartsWith(known, StringComparison.OrdinalIgnoreCase));
        var number = int.Parse(day, CultureInfo.InvariantCulture);
        if (match.Groups[5].Success)
            return Real(int.Parse(match.Groups[5].Value, CultureInfo.InvariantCulture), month, number);
        return Enumerable
            .Range(today.Year, 5)
            .Select(year => Real(year, month, number))
            .FirstOrDefault(date => date >= today);
    }

    internal static LocalDate? IsoOf(Match match) =>
        Real(
            int.Parse(match.Groups[1].Value, CultureInfo.InvariantCulture),
            int.Parse(match.Groups[2].Value, CultureInfo.InvariantCulture),
            int.Parse(match.Groups[3].Value, CultureInfo.InvariantCulture)
        );

    internal static LocalDate? Real(int year, int month, int day) =>
        year >= Dates.First.Year
        && year <= Dates.Last.Year
        && month is >= 1 and <= 12
        && day >= 1
        && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    internal static Span SpanOf(Match match)
    {
        var count = match.Groups[1].Value.ToLowerInvariant() is "a" or "one"
            ? 1
            : int.Parse(match.Groups[1].Value, CultureInfo.InvariantCulture);
        var unit = char.ToLowerInvariant(match.Groups[2].Value[0]) switch
        {
            'd' => SpanUnit.Days,
            'w' => SpanUnit.Weeks,
            _ => SpanUnit.Months,
        };
        return new(match.Groups[3].Value.Equals("before", StringComparison.OrdinalIgnoreCase) ? -count : count, unit);
    }

    private static readonly string[] Days = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];
    private static readonly string[] Months =
    [
        "jan",
        "feb",
        "mar",
        "apr",
        "may",
        "jun",
        "jul",
        "aug",
        "sep",
        "oct",
        "nov",
        "dec",
    ];

    [GeneratedRegex(
        WholeNumber + @"(\d{1,3}|a|one)\s*(days?|weeks?|months?)\s+(before|after)\b",
        RegexOptions.IgnoreCase
    )]
    internal static partial Regex Around();

    [GeneratedRegex(@"\bin\s+(\d{1,3}|a|one)\s*(days?|weeks?|months?)\b()", RegexOptions.IgnoreCase)]
    internal static partial Regex InSoLong();

    [GeneratedRegex(@"(?<![\w-])(\d{4})-(\d{2})-(\d{2})(?![\w-])")]
    internal static partial Regex Iso();

    // whole names only: “12 markers” and “2 decals” are no dates
    private const string Month =
        "(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)";

    [GeneratedRegex(
        @"(?<prep>\b(?:on|by|for|until)\s+)?"
            + WholeNumber
            + @"(?:(\d{1,2})(?:st|nd|rd|th)?\s+("
            + Month
            + @")|("
            + Month
            + @")\s+(\d{1,2})(?:st|nd|rd|th)?)(?![\w-])(?!\.\d)(?:,?\s+(\d{4})(?![\w-]))?",
        RegexOptions.IgnoreCase
    )]
    internal static partial Regex DayMonth();

    [GeneratedRegex(
        @"(?<prep>\b(?:on|by|for|until|next)\s+)?(?<![\w-])(today|tomorrow|" + DayName + @")(?![\w-])",
        RegexOptions.IgnoreCase
    )]
    internal static partial Regex Weekday();

    internal const string DayName =
        "mon(?:day)?|tue(?:s|sday)?|wed(?:nesday)?|thu(?:r|rs|rsday)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?";

    // the end of “2.5”, “1:30”, “1/2” or “2-3” is no number of its own
    internal const string WholeNumber = "(?<![\\w.,:/–-])";
}
