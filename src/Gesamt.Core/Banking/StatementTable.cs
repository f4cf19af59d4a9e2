using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Capture;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Banking;

/// <summary>What a column of a bank's table is.</summary>
public enum StatementColumn
{
    LeaveOut,
    Day,

    /// <summary>Money in and out, by its sign.</summary>
    Amount,
    In,
    Out,
    Party,
    Text,
    Reference,
    BankReference,
    Currency,
}

/// <summary>A bank's table that cannot be read so; says which column, and what is wrong with it.</summary>
public sealed class StatementException(string field, string message) : Exception(message)
{
    public string Field { get; } = field;
}

/// <summary>Reads statements that a bank gives out as a table, by columns that the owner matched once.</summary>
public static class StatementTable
{
    // words of headings as banks write them, English and German; common practice
    private static readonly (StatementColumn Column, string[] Words)[] Headings =
    [
        (StatementColumn.BankReference, ["transaction id", "bank reference", "entry reference", "buchungsreferenz"]),
        (StatementColumn.Reference, ["structured reference", "creditor reference", "zahlungsreferenz"]),
        (StatementColumn.Day, ["booking date", "posted", "date", "buchungsdatum", "buchungstag", "datum", "valuta"]),
        (StatementColumn.In, ["credit", "money in", "paid in", "in", "haben", "eingang"]),
        (StatementColumn.Out, ["debit", "money out", "paid out", "out", "soll", "ausgang"]),
        (StatementColumn.Amount, ["amount", "betrag", "value"]),
        (StatementColumn.Currency, ["currency", "währung", "ccy"]),
        (StatementColumn.Party, ["name", "payer", "payee", "counterparty", "auftraggeber", "partner"]),
        (
            StatementColumn.Text,
            ["description", "text", "details", "memo", "verwendungszweck", "buchungstext", "reference"]
        ),
    ];

    /// <summary>What columns seem to be by their headings, each thing once; the first that fits has it.</summary>
    public static ImmutableArray<StatementColumn> Guess(IReadOnlyList<string> headings)
    {
        var guessed = headings.Select(_ => StatementColumn.LeaveOut).ToArray();
        foreach (var (column, words) in Headings)
            if (
                words
                    .SelectMany(word =>
                        Enumerable
                            .Range(0, headings.Count)
                            .Where(i => guessed[i] == StatementColumn.LeaveOut && Says(headings[i], word))
                    )
                    .Select(i => (int?)i)
                    .FirstOrDefault() is
                { } at
            )
                guessed[at] = column;
        return [.. guessed];
    }

    /// <summary>The lines of a table; rows without a day and an amount, such as a closing balance, are left out.</summary>
    /// <param name="account">Whose they are, as the owner says.</param>
    /// <param name="otherwise">The currency of rows that name none.</param>
    /// <exception cref="StatementException">A column is missing, or something in it cannot be read.</exception>
    public static BankStatement Read(
        string account,
        IReadOnlyList<IReadOnlyList<string>> rows,
        ImmutableArray<StatementColumn> columns,
        Currency otherwise
    )
    {
        int At(StatementColumn column) => columns.IndexOf(column);
        if (At(StatementColumn.Day) < 0)
            throw new StatementException("columns", "Say which column holds the day.");
        if (At(StatementColumn.Amount) < 0 && At(StatementColumn.In) < 0)
            throw new StatementException("columns", "Say which column holds the amount, or money in and money out.");
        string Cell(IReadOnlyList<string> row, StatementColumn column) =>
            At(column) is >= 0 and var at && at < row.Count ? row[at].Trim() : "";
        var filled = rows.Where(row =>
                Cell(row, StatementColumn.Day).Length > 0
                && (
                    Cell(row, StatementColumn.Amount).Length > 0
                    || Cell(row, StatementColumn.In).Length > 0
                    || Cell(row, StatementColumn.Out).Length > 0
                )
            )
            .ToList();
        var days = DaysOf(filled.Select(row => Cell(row, StatementColumn.Day)));
        var numbers = NumbersOf(
            filled.SelectMany(row =>
                new[]
                {
                    Cell(row, StatementColumn.Amount),
                    Cell(row, StatementColumn.In),
                    Cell(row, StatementColumn.Out),
                }
            )
        );
        return new(
            account,
            [
                .. filled.Select(row => new BankLine(
                    TableValues.Date(Cell(row, StatementColumn.Day), days)!.Value,
                    AmountOf(
                        Cell(row, StatementColumn.Amount),
                        Cell(row, StatementColumn.In),
                        Cell(row, StatementColumn.Out),
                        numbers,
                        CurrencyOf(Cell(row, StatementColumn.Currency), otherwise)
                    ),
                    Cell(row, StatementColumn.Party),
                    Cell(row, StatementColumn.Text),
                    ReferenceOf(Cell(row, StatementColumn.Reference), Cell(row, StatementColumn.Text)),
                    Cell(row, StatementColumn.BankReference)
                )),
            ]
        );
    }

    /// <summary>Of several styles that fit, the one of the studio's place.</summary>
    private static DateStyle DaysOf(IEnumerable<string> cells)
    {
        var styles = TableValues.StylesOf(cells);
        var here = HouseStyle.Current.Days == DayOrder.MonthFirst ? DateStyle.MonthDayYear : DateStyle.DayMonthYear;
        return styles.IsEmpty
                ? throw new StatementException("columns", "The column of the day holds something that is no day.")
            : styles.Contains(here) ? here
            : styles[0];
    }

    private static NumberStyle NumbersOf(IEnumerable<string> cells) =>
        TableValues.NumbersOf(cells)
        ?? throw new StatementException("columns", "The column of the amount holds something that is no amount.");

    private static Money AmountOf(string amount, string coming, string going, NumberStyle style, Currency currency)
    {
        decimal Of(string text) => text.Length == 0 ? 0 : TableValues.Number(text, style)!.Value;
        // money out is written with its sign by some banks, without it by others
        var sum = amount.Length > 0 ? Of(amount) : Of(coming) - Math.Abs(Of(going));
        return Math.Abs(sum) <= 1_000_000_000_000m
            ? Money.Of(sum, currency)
            : throw new StatementException("columns", $"“{amount}” is more than an account can hold.");
    }

    private static Currency CurrencyOf(string code, Currency otherwise) =>
        code.Length > 0 && Currency.All.ContainsKey(code.ToUpperInvariant())
            ? Currency.Of(code.ToUpperInvariant())
            : otherwise;

    /// <summary>A structured reference also where a bank writes it among the words.</summary>
    private static string ReferenceOf(string reference, string text)
    {
        if (CreditorReference.IsValid(reference))
            return reference;
        var words = text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        for (var from = 0; from < words.Length; from++)
        for (
            var to = from + 1;
            words[from].StartsWith("RF", StringComparison.OrdinalIgnoreCase) && to <= Math.Min(words.Length, from + 7);
            to++
        )
            if (string.Concat(words[from..to]) is var one && CreditorReference.IsValid(one))
                return one;
        return "";
    }

    private static bool Says(string heading, string word)
    {
        var plain = heading.Trim().ToLowerInvariant().Replace('_', ' ').Replace('-', ' ');
        return plain == word
            || $" {plain.Replace('(', ' ').Replace(')', ' ').Replace('/', ' ')} ".Contains(
                $" {word} ",
                StringComparison.Ordinal
            );
    }
}
