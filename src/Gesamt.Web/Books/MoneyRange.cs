using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Web.Hosting;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Books;

/// <summary>Which figures are looked at.</summary>
public enum MoneyAs
{
    /// <summary>Money on the day it moved.</summary>
    Received,

    /// <summary>Invoices on the day they were issued.</summary>
    Billed,
}

/// <summary>Which days are looked at, of which currency, and how.</summary>
public sealed record MoneyQuery
{
    /// <summary>A year, or “all” for every year; the present one where nothing is said.</summary>
    public string? Year { get; init; }

    /// <summary>The first day of any other range (ISO 8601).</summary>
    public string? From { get; init; }

    /// <summary>Its last day.</summary>
    public string? Until { get; init; }
    public MoneyAs? As { get; init; }

    /// <summary>By ISO 4217; the studio's own where none is said.</summary>
    public string? Currency { get; init; }
}

/// <summary>A column of the picture: a month, or a year.</summary>
internal sealed record MoneyColumn(LocalDate First, LocalDate Last, string Name, string Long)
{
    /// <summary>The months of some days, or their years where there would be too many months.</summary>
    public static IReadOnlyList<MoneyColumn> Over(LocalDate first, LocalDate last, int mostMonths)
    {
        List<YearMonth> months = [.. EntryBook.Months(first.ToYearMonth(), last.ToYearMonth())];
        return months.Count <= mostMonths
            ?
            [
                .. months.Select(month => new MoneyColumn(
                    LocalDate.Max(month.OnDayOfMonth(1), first),
                    LocalDate.Min(month.OnDayOfMonth(1).PlusMonths(1).PlusDays(-1), last),
                    month.ToString("MMM", System.Globalization.CultureInfo.InvariantCulture)
                        + (
                            first.Year == last.Year
                                ? ""
                                : month.ToString(" uu", System.Globalization.CultureInfo.InvariantCulture)
                        ),
                    DateWords.Month(month.OnDayOfMonth(1))
                )),
            ]
            :
            [
                .. Enumerable
                    .Range(first.Year, last.Year - first.Year + 1)
                    .Select(year => new MoneyColumn(
                        LocalDate.Max(new(year, 1, 1), first),
                        LocalDate.Min(new(year, 12, 31), last),
                        $"{year}",
                        $"{year}"
                    )),
            ];
    }
}

/// <summary>The days of a query.</summary>
/// <param name="Last">Included.</param>
internal sealed record MoneyRange(LocalDate First, LocalDate Last, string Title, MoneyAs As, Currency Currency)
{
    private const int MostMonths = 24,
        MostYears = 60;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static MoneyRange Of(Desk desk, MoneyQuery query, LocalDate earliest)
    {
        var currency =
            query.Currency is not { Length: > 0 } code ? desk.Currency
            : Currency.All.ContainsKey(code) ? Currency.Of(code)
            : throw new InvalidException(("currency", "A currency by its three letters (ISO 4217), such as EUR."));
        var how = query.As ?? MoneyAs.Received;
        if (query.From is { Length: > 0 } || query.Until is { Length: > 0 })
        {
            var (first, last) = (Day("from", query.From), Day("until", query.Until));
            if (last < first)
                throw new InvalidException(("until", "The last day is not before the first."));
            if (last > first.PlusYears(MostYears))
                throw new InvalidException(("until", $"At most {MostYears} years at once."));
            return new(first, last, $"{DateWords.Long(first)} to {DateWords.Long(last)}", how, currency);
        }
        if (query.Year == "all")
            return new(
                new(Math.Min(earliest.Year, desk.Today.Year), 1, 1),
                new(desk.Today.Year, 12, 31),
                "All years",
                how,
                currency
            );
        var year = YearOf(desk, query.Year);
        return new(new(year, 1, 1), new(year, 12, 31), $"{year}", how, currency);
    }

    /// <exception cref="InvalidException">It is no year.</exception>
    public static int YearOf(Desk desk, string? text) =>
        text is not { Length: > 0 } ? desk.Today.Year
        : int.TryParse(text, System.Globalization.CultureInfo.InvariantCulture, out var year)
        && year is >= 1990 and < 2200
            ? year
        : throw new InvalidException(("year", "A year from 1990 to 2199, or all."));

    /// <summary>The quarter of the year a day lies in, both days included.</summary>
    public static (LocalDate First, LocalDate Last) Quarter(LocalDate day)
    {
        var first = new LocalDate(day.Year, (day.Month - 1) / 3 * 3 + 1, 1);
        return (first, first.PlusMonths(3).PlusDays(-1));
    }

    /// <exception cref="InvalidException">It is no day.</exception>
    public static LocalDate Day(string field, string? text) =>
        LocalDatePattern.Iso.Parse(text ?? "") is { Success: true, Value: { Year: >= 1990 and < 2200 } day }
            ? day
            : throw new InvalidException((field, "A day as 2027-01-25, from the years 1990 to 2199."));

    /// <summary>Months, or years where there would be too many of them.</summary>
    public IReadOnlyList<MoneyColumn> Columns => MoneyColumn.Over(First, Last, MostMonths);
}
