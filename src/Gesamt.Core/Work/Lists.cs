using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Core.Work;

/// <summary>Who reads a list besides its owner, and who changes it.</summary>
public enum ListReader
{
    /// <summary>Nobody.</summary>
    Owner,

    /// <summary>The client reads it.</summary>
    Shown,

    /// <summary>The client reads and changes it.</summary>
    Edited,
}

/// <summary>What a column of a list holds.</summary>
public enum ColumnSort
{
    Text,
    Number,
    Amount,
    Date,
    YesNo,
    OneOf,
    Person,
    Link,
}

/// <summary>A column of a list.</summary>
/// <param name="Key">What its cells are kept under; it stays when the name changes.</param>
/// <param name="Choices">Of a column that holds one of them.</param>
/// <param name="Sum">Whether its numbers or amounts are added up below.</param>
/// <param name="Step">Whether its dates are steps of a plan: they show in the week until they are done.</param>
public sealed record ListColumn(
    string Key,
    string Name,
    ColumnSort Sort,
    ImmutableArray<string> Choices,
    bool Sum = false,
    bool Step = false
);

/// <summary>An entry of a list: a row, a picture with its words, or a paragraph.</summary>
/// <param name="Cells">By column, as <see cref="ListRule.Read"/> keeps them; none for an empty cell.</param>
/// <param name="Struck">Left out for now: it stays in its place, counts in no sum, and can be put back.</param>
/// <param name="Removed">Taken out by the owner.</param>
public sealed record EntryState(ImmutableDictionary<string, string> Cells, bool Struck, bool Removed)
{
    /// <summary>An entry that holds nothing yet.</summary>
    public static readonly EntryState Fresh = new(ImmutableDictionary<string, string>.Empty, false, false);

    public string this[ListColumn column] => Cells.GetValueOrDefault(column.Key, "");

    /// <summary>Whether two hold the same; the order in which cells were written says nothing.</summary>
    public bool Equals(EntryState? other) =>
        other is not null
        && (Struck, Removed) == (other.Struck, other.Removed)
        && Cells.Count == other.Cells.Count
        && Cells.All(cell => other.Cells.GetValueOrDefault(cell.Key) == cell.Value);

    public override int GetHashCode() => HashCode.Combine(Struck, Removed, Cells.Count);
}

/// <summary>The sum of a column.</summary>
/// <param name="Number">Of a column of numbers; null for amounts.</param>
/// <param name="Amounts">One for each currency, the one with the most entries first.</param>
public sealed record ColumnSum(ListColumn Column, decimal? Number, ImmutableArray<Money> Amounts);

/// <summary>A step of a plan: a dated cell.</summary>
/// <param name="Entry">The key of its entry.</param>
/// <param name="What">What the entry is called.</param>
public sealed record PlanStep(string Entry, ListColumn Column, string What, LocalDate On, bool Done);

/// <summary>A board as it is approved: the pictures that stand, in their order, by their SHA-256, with their words.</summary>
public sealed record AgreedBoard(string Name, ImmutableArray<AgreedPicture> Pictures);

/// <summary>A picture of an approved board.</summary>
public sealed record AgreedPicture(string Hash, string Words);

/// <summary>Lists with typed columns: what a cell holds, how it is written, and what a column comes to.</summary>
public static partial class ListRule
{
    public const int MostEntries = 2_000,
        MostColumns = 24,
        MostChoices = 40,
        LongestName = 80,
        LongestText = 500;

    private const decimal MostNumber = 1_000_000_000;

    private const string Done = " done";

    /// <summary>What the words of a picture, or a paragraph of notes, are kept under.</summary>
    public static readonly ListColumn Words = new("words", "Words", ColumnSort.Text, []);

    /// <summary>What a cell holds, told from how people write it: text on one line, a number without groups, “12.5 EUR”, an ISO date, “yes” or “no”, one of the choices, a name, an address. Empty stays empty.</summary>
    /// <returns>What is kept; else what is allowed, in words.</returns>
    /// <remarks>What could well be two numbers is asked about, never guessed.</remarks>
    public static (string? Kept, string? Mistake) Read(
        ListColumn column,
        string typed,
        LocalDate today,
        StudioCalendar calendar,
        Currency currency
    )
    {
        var text = Typed.OneLine(typed);
        if (text.Length == 0)
            return ("", null);
        if (text.Length > LongestText)
            return (null, $"At most {LongestText} characters, these are {text.Length}.");
        return column.Sort switch
        {
            ColumnSort.Number => Number(text),
            ColumnSort.Amount => Amount(text, currency),
            ColumnSort.Date => Date(column, text, today, calendar),
            ColumnSort.YesNo => YesNo(text),
            ColumnSort.OneOf => OneOf(column, text),
            ColumnSort.Link => Link(text),
            _ => (text, null),
        };
    }

    private static (string?, string?) Number(string text) =>
        NumberText.Exact(text) is { } number && Fits(number)
            ? (Plain(number), null)
            : (null, $"A number such as 12 or {NumberText.Number(2.5m)}.{NumberText.Doubt(text)}");

    private static bool Fits(decimal number) => Math.Abs(number) <= MostNumber && decimal.Round(number, 6) == number;

    private static (string?, string?) Amount(string text, Currency currency)
    {
        var of = CurrencyIn(text) ?? currency;
        if (NumberReading.Amount(text, currency: of) is not { } major || !Fits(major))
            return (
                null,
                $"An amount such as {NumberText.Number(1200.5m)}0, with its currency where that is another.{NumberText.Doubt(text)}"
            );
        return Money.Of(major, of).Major == major
            ? ($"{Plain(major)} {of.Code}", null)
            : (null, $"{of.Code} has {of.Exponent} decimals at most.");
    }

    private static Currency? CurrencyIn(string text) =>
        Codes().Match(text) is { Success: true } match
            ? match.Value switch
            {
                "€" => Currency.Eur,
                "£" => Currency.Of("GBP"),
                "$" => Currency.Of("USD"),
                "¥" => Currency.Of("JPY"),
                var code when Currency.All.ContainsKey(code) => Currency.Of(code),
                _ => null,
            }
            : null;

    private static (string?, string?) Date(ListColumn column, string text, LocalDate today, StudioCalendar calendar)
    {
        var done = column.Step && text.EndsWith(Done, StringComparison.OrdinalIgnoreCase);
        var day = done ? text[..^Done.Length] : text;
        return TypedDate.Day(day, today, calendar) is { } date
            ? (StepText(date, done), null)
            : (null, TypedDate.AllowedDay);
    }

    private static (string?, string?) YesNo(string text) =>
        text.ToLowerInvariant() switch
        {
            "yes" or "y" or "true" or "1" or "x" => ("yes", null),
            "no" or "n" or "false" or "0" => ("no", null),
            _ => (null, "Yes or no."),
        };

    private static (string?, string?) OneOf(ListColumn column, string text) =>
        column.Choices.FirstOrDefault(choice => choice.Equals(text, StringComparison.OrdinalIgnoreCase)) is { } choice
            ? (choice, null)
            : (null, $"Choose one of: {string.Join(", ", column.Choices)}.");

    private static (string?, string?) Link(string text)
    {
        var meant = text.StartsWith("www.", StringComparison.OrdinalIgnoreCase) ? $"https://{text}" : text;
        return Uri.TryCreate(meant, UriKind.Absolute, out var uri) && uri.Scheme is "https" or "http"
            ? (meant, null)
            : (null, "A link begins with https:// or http://.");
    }

    /// <summary>A cell in words: numbers and amounts in the style of the house, dates with their weekday.</summary>
    public static string Told(ListColumn column, string kept, LocalDate today) =>
        kept.Length == 0
            ? ""
            : column.Sort switch
            {
                ColumnSort.Number when NumberIn(kept) is { } number => NumberText.Number(number),
                ColumnSort.Amount when AmountIn(kept) is { } money => MoneyText.Of(money),
                ColumnSort.Date when DateIn(kept) is { } on => DateWords.Short(on.Date, today)
                    + (on.Done ? ", done" : ""),
                _ => kept,
            };

    /// <summary>A cell as a field or a table holds it: it is read as what it is again.</summary>
    /// <param name="currency">Of amounts that stand without it.</param>
    public static string Written(ListColumn column, string kept, Currency currency) =>
        column.Sort switch
        {
            ColumnSort.Number when NumberIn(kept) is { } number => Undoubted(number),
            ColumnSort.Amount when AmountIn(kept) is { } money => Undoubted(money.Major)
                + (money.Currency == currency ? "" : $" {money.Currency.Code}"),
            ColumnSort.Date when DateIn(kept) is { } on => StepText(on.Date, column.Step && on.Done),
            _ => kept,
        };

    // three decimals could be thousands: a fourth says that they are none
    private static string Undoubted(decimal number)
    {
        var text = NumberText.Number(number);
        return NumberReading.IsDoubtful(text) ? $"{text}0" : text;
    }

    /// <summary>The number a kept cell is.</summary>
    public static decimal? NumberIn(string kept) =>
        decimal.TryParse(
            kept,
            NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;

    /// <summary>The amount a kept cell is.</summary>
    public static Money? AmountIn(string kept) =>
        kept.Split(' ') is [var number, var code] && NumberIn(number) is { } major && Currency.All.ContainsKey(code)
            ? Money.Of(major, Currency.Of(code))
            : null;

    /// <summary>A date as it is kept; one that is a step may be done.</summary>
    public static string StepText(LocalDate date, bool done) => LocalDatePattern.Iso.Format(date) + (done ? Done : "");

    /// <summary>The date a kept cell is, and whether that step is done.</summary>
    public static (LocalDate Date, bool Done)? DateIn(string kept)
    {
        var done = kept.EndsWith(Done, StringComparison.Ordinal);
        return LocalDatePattern.Iso.Parse(done ? kept[..^Done.Length] : kept) is { Success: true } parsed
            ? (parsed.Value, done)
            : null;
    }

    /// <summary>The sums of the columns that are added up: of every entry that stands, amounts in each currency by itself.</summary>
    public static ImmutableArray<ColumnSum> Sums(IEnumerable<ListColumn> columns, IEnumerable<EntryState> entries)
    {
        var standing = entries.Where(Stands).ToList();
        return
        [
            .. columns
                .Where(column => column is { Sum: true, Sort: ColumnSort.Number or ColumnSort.Amount })
                .Select(column =>
                    column.Sort == ColumnSort.Number
                        ? new ColumnSum(column, standing.Sum(entry => NumberIn(entry[column]) ?? 0), [])
                        : new ColumnSum(
                            column,
                            null,
                            [
                                .. standing
                                    .Select(entry => AmountIn(entry[column]))
                                    .OfType<Money>()
                                    .GroupBy(money => money.Currency)
                                    .OrderByDescending(same => same.Count())
                                    .ThenBy(same => same.Key.Code, StringComparer.Ordinal)
                                    .Select(same => same.Sum(same.Key)),
                            ]
                        )
                ),
        ];
    }

    /// <summary>Neither struck out nor taken out.</summary>
    public static bool Stands(EntryState entry) => !entry.Struck && !entry.Removed;

    /// <summary>The steps of a plan: every date in a column of steps, called by the first text of its entry.</summary>
    public static IEnumerable<PlanStep> Steps(
        IReadOnlyList<ListColumn> columns,
        IEnumerable<(string Key, EntryState State)> entries
    ) =>
        from entry in entries
        where Stands(entry.State)
        from column in columns
        where column is { Sort: ColumnSort.Date, Step: true }
        let day = DateIn(entry.State[column])
        where day is not null
        select new PlanStep(
            entry.Key,
            column,
            columns
                .Where(one => one.Sort is not (ColumnSort.Date or ColumnSort.YesNo))
                .Select(one => entry.State[one])
                .FirstOrDefault(text => text.Length > 0)
                ?? "",
            day.Value.Date,
            day.Value.Done
        );

    /// <summary>Which sort holds every one of these texts, so that a column taken over is kept as what it is; text where none does.</summary>
    public static ColumnSort SortOf(IEnumerable<string> texts, LocalDate today, StudioCalendar calendar)
    {
        var filled = texts.Where(text => text.Length > 0).ToList();
        if (filled.Count == 0)
            return ColumnSort.Text;
        // a bare year or a table number is no amount: that is said by its sign, its code or its cents
        foreach (var sort in new[] { ColumnSort.Number, ColumnSort.Amount, ColumnSort.Date, ColumnSort.Link })
            if (
                filled.TrueForAll(text =>
                    Read(new("", "", sort, []), text, today, calendar, Currency.Eur).Kept is not null
                    && (sort != ColumnSort.Number || CurrencyIn(text) is null)
                )
            )
                return sort;
        return filled.TrueForAll(text => text.ToLowerInvariant() is "yes" or "no") ? ColumnSort.YesNo : ColumnSort.Text;
    }

    /// <summary>What was approved last of a board; null while nothing was.</summary>
    public static Seen<Happening.BoardApproved>? Approved(History history, ListId board) =>
        history.Last<Happening.BoardApproved>(approved => approved.Board == board);

    private static string Plain(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);

    [GeneratedRegex(@"[€$£¥]|\b[A-Z]{3}\b")]
    private static partial Regex Codes();
}
