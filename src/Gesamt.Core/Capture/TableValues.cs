using System.Collections.Immutable;
using System.Globalization;
using Gesamt.Core.Calendar;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Core.Capture;

/// <summary>How a table writes its dates.</summary>
public enum DateStyle
{
    YearMonthDay,
    DayMonthYear,
    MonthDayYear,
    DayMonthName,
}

/// <summary>How a table writes its numbers.</summary>
public enum NumberStyle
{
    Point,
    Comma,
}

/// <summary>What a column of a table is.</summary>
public enum ImportColumn
{
    LeaveOut,
    Name,
    Organisation,
    Mail,
    Phone,
    Profile,
    Title,
    Number,
    Kind,
    Source,
    Campaign,
    Inquired,
    Date,
    Standing,
    Amount,
    Words,
}

/// <summary>Reads dates, numbers and headings of tables that somebody kept by hand.</summary>
public static class TableValues
{
    private static readonly char[] Separators = ['.', '/', '-'];

    // words of headings, common practice
    private static readonly (ImportColumn Column, string[] Words)[] Headings =
    [
        (ImportColumn.Mail, ["mail", "e-mail", "email"]),
        (ImportColumn.Phone, ["phone", "tel", "mobile"]),
        (ImportColumn.Number, ["no", "no.", "nr", "nr.", "number", "reference", "ref", "id", "#"]),
        (ImportColumn.Profile, ["profile", "website", "web", "link"]),
        (ImportColumn.Organisation, ["organisation", "organization", "company", "business", "firm"]),
        (
            ImportColumn.Inquired,
            ["inquired", "inquiry", "received", "enquiry", "contacted", "created", "came", "asked"]
        ),
        (ImportColumn.Standing, ["status", "state", "standing", "stage"]),
        (ImportColumn.Amount, ["amount", "price", "value", "total", "fee", "budget"]),
        (ImportColumn.Campaign, ["campaign", "promotion"]),
        (ImportColumn.Source, ["source", "found", "referred", "how"]),
        (ImportColumn.Kind, ["kind", "type", "service"]),
        (ImportColumn.Title, ["title", "project", "job"]),
        (ImportColumn.Words, ["note", "notes", "comment", "message", "description", "words"]),
        (ImportColumn.Date, ["date", "day", "event", "deadline", "due", "opening"]),
        (ImportColumn.Name, ["name", "client", "contact", "customer"]),
    ];

    public static LocalDate? Date(string text, DateStyle style)
    {
        var plain = text.Trim();
        // a time behind the date is left away
        if (style != DateStyle.DayMonthName)
            plain = plain.Split(' ', 'T')[0];
        if (style == DateStyle.DayMonthName)
            return new[] { "d MMM uuuu", "d MMMM uuuu" }
                .Select(pattern =>
                    LocalDatePattern
                        .CreateWithInvariantCulture(pattern)
                        .Parse(plain.Replace(".", "", StringComparison.Ordinal))
                )
                .FirstOrDefault(parsed => parsed.Success && Dates.IsAllowed(parsed.Value))
                ?.Value;
        var parts = plain.Split(Separators);
        if (parts.Length != 3 || !parts.All(part => part.Length is 1 or 2 or 4 && part.All(char.IsAsciiDigit)))
            return null;
        var numbers = parts.Select(part => int.Parse(part, CultureInfo.InvariantCulture)).ToArray();
        var (year, month, day, yearAt) = style switch
        {
            DateStyle.YearMonthDay => (numbers[0], numbers[1], numbers[2], 0),
            DateStyle.DayMonthYear => (numbers[2], numbers[1], numbers[0], 2),
            _ => (numbers[2], numbers[0], numbers[1], 2),
        };
        if (parts[yearAt].Length == 2)
            year += 2000;
        return
            year >= Dates.First.Year
            && year <= Dates.Last.Year
            && month is >= 1 and <= 12
            && day >= 1
            && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;
    }

    /// <summary>A number with its thousands set apart or not, and with a currency's sign or code around it.</summary>
    public static decimal? Number(string text, NumberStyle style)
    {
        var plain = new string([.. text.Where(c => char.IsAsciiDigit(c) || c is '.' or ',' or '-')]);
        var (thousands, point) = style == NumberStyle.Point ? (',', '.') : ('.', ',');
        if (
            plain.Count(c => c == point) > 1
            || plain.IndexOf(point) is >= 0 and var at && plain.LastIndexOf(thousands) > at
        )
            return null;
        var groups = plain.Split(point)[0].TrimStart('-').Split(thousands);
        if (groups.Length > 1 && groups.Skip(1).Any(group => group.Length != 3))
            return null;
        return decimal.TryParse(
            plain.Replace(thousands.ToString(), "", StringComparison.Ordinal).Replace(point, '.'),
            NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;
    }

    /// <summary>The styles by which every value can be read; several where days and months could be either.</summary>
    public static ImmutableArray<DateStyle> StylesOf(IEnumerable<string> values)
    {
        var filled = values.Where(value => value.Trim().Length > 0).ToList();
        return filled.Count == 0
            ? []
            : [.. Enum.GetValues<DateStyle>().Where(style => filled.All(value => Date(value, style) is not null))];
    }

    /// <summary>The style by which every number can be read. Where both fit and mean different numbers, the one in which the three digits are thousands: amounts have no third decimal, common practice.</summary>
    public static NumberStyle? NumbersOf(IEnumerable<string> values)
    {
        var filled = values.Where(value => value.Trim().Length > 0).ToList();
        var fits =
            filled.Count == 0
                ? []
                : Enum.GetValues<NumberStyle>()
                    .Where(style => filled.All(value => Number(value, style) is not null))
                    .ToList();
        return fits.Count == 0
            ? null
            : fits.FirstOrDefault(
                style =>
                    filled.All(value =>
                        Number(value, style) is { } number
                        && decimal.Round(number, 2) == number
                        && !IsThousandths(value, style)
                    ),
                fits[0]
            );
    }

    /// <summary>Whether a column as a whole can be read in both styles and means different numbers: “1.500” and nothing that tells.</summary>
    public static bool NumbersInDoubt(IEnumerable<string> values)
    {
        var filled = values.Where(value => value.Trim().Length > 0).ToList();
        return filled.All(value =>
                Number(value, NumberStyle.Point) is not null && Number(value, NumberStyle.Comma) is not null
            ) && filled.Any(value => Number(value, NumberStyle.Point) != Number(value, NumberStyle.Comma));
    }

    /// <summary>Three digits behind the decimal mark.</summary>
    private static bool IsThousandths(string value, NumberStyle style) =>
        value.LastIndexOf(style == NumberStyle.Point ? '.' : ',') is >= 0 and var mark
        && value[(mark + 1)..].Count(char.IsAsciiDigit) == 3;

    /// <summary>What columns seem to be by their headings, each thing once; the first that fits has it.</summary>
    public static ImmutableArray<ImportColumn> Guess(IReadOnlyList<string> headings)
    {
        var guessed = headings.Select(_ => ImportColumn.LeaveOut).ToArray();
        foreach (var (column, words) in Headings)
            for (var i = 0; i < headings.Count; i++)
                if (
                    guessed[i] == ImportColumn.LeaveOut
                    && headings[i].ToLowerInvariant().Split(' ', '_', '(', ')', '/').Any(words.Contains)
                )
                {
                    guessed[i] = column;
                    break;
                }
        return [.. guessed];
    }
}
