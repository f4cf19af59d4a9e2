using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Texts;
using NodaTime;

namespace Gesamt.Core.Calendar;

/// <summary>To which side a day without a year, or a name of a day, is read.</summary>
public enum Lean
{
    /// <summary>Something to come: the next such day.</summary>
    Ahead,

    /// <summary>Something that happened: the last such day, today counted.</summary>
    Back,
}

/// <summary>A day or a time of day as somebody types it into a field of its own.</summary>
public static partial class TypedDate
{
    private const int Longest = 60;

    /// <summary>Said of a text that is no day.</summary>
    public const string AllowedDay = "Write a day, such as fri, 12 mar, in 3 weeks or 2027-03-12.";

    /// <summary>Said of a text that is no time of day.</summary>
    public const string AllowedTime = "Write a time of day, such as 9:30, 14:00 or 3 pm.";

    /// <summary>The day that the whole text means: “fri”, “12 mar”, “in 3 weeks”, “yesterday”, “2 days ago”, “12.3.2027”, 2027-03-12 (ISO 8601); null for anything else, and for one outside <see cref="Dates"/>.</summary>
    /// <remarks>Dots put the day first (common practice); slashes are read in the order of the house, or in the other where that one alone gives a date. A weekday before a date is left aside: the date decides, and is shown with its own.</remarks>
    public static LocalDate? Day(string text, LocalDate today, StudioCalendar calendar, Lean lean = Lean.Ahead)
    {
        var plain = Spaces().Replace(text.Trim().TrimEnd('.', ','), " ");
        if (plain.Length is 0 or > Longest)
            return null;
        return Read(BeforeDate().Replace(plain, ""), today, calendar, lean) is { } date && Dates.IsAllowed(date)
            ? date
            : null;
    }

    /// <summary>The time of day that the whole text means, to the minute: “9”, “9:30”, “9.30”, “0930”, “3 pm”, “noon”; null for anything else.</summary>
    public static LocalTime? Time(string text)
    {
        var plain = text.Trim().ToLowerInvariant();
        if (plain is "noon")
            return LocalTime.Noon;
        if (plain is "midnight")
            return LocalTime.Midnight;
        if (Clock().Match(plain) is not { Success: true } match)
            return null;
        var hour = Number(match.Groups["hour"].Value);
        var minute = match.Groups["minute"].Success ? Number(match.Groups["minute"].Value) : 0;
        if (match.Groups["half"].Success)
        {
            if (hour is 0 or > 12)
                return null;
            hour = (hour % 12) + (match.Groups["half"].Value == "p" ? 12 : 0);
        }
        return hour <= 23 ? new LocalTime(hour, minute) : null;
    }

    private static LocalDate? Read(string plain, LocalDate today, StudioCalendar calendar, Lean lean)
    {
        if (plain.Equals("yesterday", StringComparison.OrdinalIgnoreCase))
            return today.PlusDays(-1);
        if (Whole(Ago(), plain) is { } ago)
            return calendar.Add(today, Backwards(DatePhrases.SpanOf(ago)));
        if (Whole(DatePhrases.InSoLong(), plain) is { } after)
            return calendar.Add(today, DatePhrases.SpanOf(after));
        if (Whole(DatePhrases.Iso(), plain) is { } iso)
            return DatePhrases.IsoOf(iso);
        if (Whole(DatePhrases.DayMonth(), plain) is { } written)
            return Leant(DatePhrases.DateOf(written, today), !written.Groups[5].Success, today, lean);
        if (Whole(Named(), plain) is { } named)
            return named.Groups["last"].Success ? LastNamed(named.Groups[1].Value, today.PlusDays(-1))
                : lean == Lean.Back && !named.Groups["next"].Success ? LastNamed(named.Groups[1].Value, today)
                : DatePhrases.DayNamed(named.Groups[1].Value, today);
        return Whole(Figures(), plain) is { } figures ? InFigures(figures, today, lean) : null;
    }

    private static Match? Whole(Regex words, string text) =>
        words.Match(text) is { Success: true } match && match.Index == 0 && match.Length == text.Length ? match : null;

    private static Span Backwards(Span span) => span with { Count = -span.Count };

    /// <summary>A day that was meant to lie behind, a year earlier where the next such day lies ahead.</summary>
    private static LocalDate? Leant(LocalDate? next, bool withoutYear, LocalDate today, Lean lean) =>
        withoutYear && lean == Lean.Back && next > today ? LastSuch(next.Value, today) : next;

    private static LocalDate LastSuch(LocalDate next, LocalDate today) =>
        Enumerable
            .Range(0, 9)
            .Select(back => today.Year - back)
            .Where(year => next.Day <= CalendarSystem.Iso.GetDaysInMonth(year, next.Month))
            .Select(year => new LocalDate(year, next.Month, next.Day))
            .First(date => date <= today);

    /// <summary>The last day of that name up to another; what lies ahead by its own meaning stays there.</summary>
    private static LocalDate LastNamed(string word, LocalDate until)
    {
        var next = DatePhrases.DayNamed(word, until);
        return word.StartsWith("to", StringComparison.OrdinalIgnoreCase) ? next : next.PlusDays(-7);
    }

    private static LocalDate? InFigures(Match match, LocalDate today, Lean lean)
    {
        var (first, second) = (Number(match.Groups[1].Value), Number(match.Groups[2].Value));
        // after dots the day comes first everywhere; slashes put the parts in the house's order, unless only the other gives a date
        var monthFirst =
            match.Groups["mark"].Value == "/"
            && (second > 12 || first <= 12 && HouseStyle.Current.Days == DayOrder.MonthFirst);
        var (day, month) = monthFirst ? (second, first) : (first, second);
        if (month is 0 or > 12 || day is 0 or > 31)
            return null;
        if (match.Groups["year"].Success)
            return DatePhrases.Real(FullYear(match.Groups["year"].Value), month, day);
        var next = Enumerable
            .Range(today.Year, 9)
            .Select(year => DatePhrases.Real(year, month, day))
            .FirstOrDefault(date => date >= today);
        return Leant(next, true, today, lean);
    }

    private static int FullYear(string year) => Number(year) + (year.Length == 2 ? 2000 : 0);

    private static int Number(string digits) => int.Parse(digits, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(\d{1,3}|a|one)\s*(days?|weeks?|months?)\s+ago()$", RegexOptions.IgnoreCase)]
    private static partial Regex Ago();

    [GeneratedRegex(
        @"^(?:(?<next>next|on|by|until)\s+|(?<last>last)\s+(?!to))?(today|tomorrow|" + DatePhrases.DayName + ")$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Named();

    [GeneratedRegex("^(?:" + DatePhrases.DayName + @")[,.]?\s+(?=.*\d)", RegexOptions.IgnoreCase)]
    private static partial Regex BeforeDate();

    [GeneratedRegex(@"^(\d{1,2})(?<mark>[./])(\d{1,2})(?:\k<mark>(?<year>\d{4}|\d{2})?)?$")]
    private static partial Regex Figures();

    [GeneratedRegex(@"^(?<hour>\d{1,2})(?:[:.h]?(?<minute>[0-5]\d)|h|:)?\s*(?:(?<half>[ap])\.?m\.?)?$")]
    private static partial Regex Clock();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
