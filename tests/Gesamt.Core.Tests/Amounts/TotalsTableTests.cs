using System.Collections.Immutable;
using System.Globalization;

namespace Gesamt.Core.Tests.Amounts;

/// <summary>Totals against a table worked out with Python's decimal module (ROUND_HALF_UP) by the rules of EN 16931 that each case names, with no code of ours.</summary>
public class TotalsTableTests
{
    private static readonly string Place = Path.Combine(AppContext.BaseDirectory, "Amounts", "totals.tsv");

    public static TheoryData<string> Cases() =>
        [.. File.ReadLines(Place).Where(line => !line.StartsWith('#')).Select(line => line.Split('\t')[0])];

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    private static Discount? DiscountOf(string text) =>
        text is "-" or "0" ? null
        : text.EndsWith('%') ? new Discount.Share(Rate.Percent(Number(text[..^1])))
        : new Discount.Amount(Number(text));

    private static PricedLine Line(string text, Currency currency)
    {
        var parts = text.Split(':');
        var line = new PricedLine(
            Number(parts[0]),
            Number(parts[1]),
            Money.Zero(currency),
            Rate.Percent(Number(parts[3]))
        );
        return DiscountOf(parts[2]) is { } less ? line with { Discount = less.From(line.Net) } : line;
    }

    [Theory, MemberData(nameof(Cases))]
    public void The_sums_are_those_of_the_table(string name)
    {
        var row = File.ReadLines(Place)
            .Single(line => line.StartsWith($"{name}\t", StringComparison.Ordinal))
            .Split('\t');
        var currency = Currency.Of(row[1]);
        var lines = row[3].Split(' ').Select(text => Line(text, currency)).ToList();
        var less = DiscountOf(row[4])?.From(lines.Select(line => line.Net).Sum(currency)) ?? Money.Zero(currency);
        var totals = row[2] == "gross" ? Totals.OfGrossLines(lines, less) : Totals.OfLines(lines, less);
        Assert.Equal(
            row[5]
                .Split(' ')
                .Select(part => part.Split(':').Select(Number).ToImmutableArray())
                .Select(p => (p[0], p[1], p[2])),
            totals.Parts.Select(part => (part.Rate.InPercent, part.Net.Major, part.Tax.Major))
        );
        Assert.Equal((Number(row[6]), Number(row[7])), (totals.RoundingAmount.Major, totals.Payable.Major));
    }

    [Fact]
    public void The_table_is_as_long_as_it_is_said_to_be() => Assert.True(Cases().Count >= 40);
}
