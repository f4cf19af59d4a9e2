using System.Xml.Linq;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Amounts;

public class MoneyTests
{
    [Fact] // ISO 4217 list one as published, shipped with the npm package currency-codes
    public void Minor_units_are_those_of_the_published_list()
    {
        var published = XDocument
            .Load(Path.Combine(AppContext.BaseDirectory, "iso-4217-list-one.xml"))
            .Descendants("CcyNtry")
            .Where(entry => int.TryParse(entry.Element("CcyMnrUnts")?.Value, out _))
            .Select(entry => (Code: entry.Element("Ccy")!.Value, Places: int.Parse(entry.Element("CcyMnrUnts")!.Value)))
            .Distinct()
            .ToDictionary(entry => entry.Code, entry => entry.Places);
        Assert.True(published.Count > 150);
        Assert.Equal(
            published.OrderBy(pair => pair.Key, StringComparer.Ordinal),
            Currency
                .All.Where(pair => published.ContainsKey(pair.Key))
                .OrderBy(pair => pair.Key, StringComparer.Ordinal)
        );
    }

    [Fact]
    public void Amounts_of_two_currencies_are_never_summed() =>
        Assert.Throws<CurrencyMismatchException>(() => Eur(1) + Money.Of(1, Currency.Of("JPY")));

    [Theory] // half away from zero
    [InlineData(0.005, 1), InlineData(-0.005, -1), InlineData(0.0149, 1), InlineData(2.675, 268)]
    public void Rounding_is_half_away_from_zero(decimal major, long minor) => Assert.Equal(minor, Eur(major).Minor);

    [Theory] // ISO 4217 exponents
    [InlineData("EUR", "€ 6 642.00"), InlineData("JPY", "JPY 6 642"), InlineData("KWD", "KWD 6 642.000")]
    public void Amounts_are_written_with_all_their_places(string currency, string text) =>
        Assert.Equal(
            text,
            MoneyText.Of(Money.Of(6642, Currency.Of(currency))).Replace('\u202f', ' ').Replace('\u00a0', ' ')
        );

    [Theory] // a minus as wide as the plus (U+2212)
    [InlineData(-6100, "− 61.00", "€ −61.00"), InlineData(265_680, "+ 2 656.80", "€ 2 656.80")]
    public void What_came_or_went_bears_its_sign(long minor, string signed, string text)
    {
        static string Spaced(string text) => text.Replace('\u202f', ' ').Replace('\u00a0', ' ');
        var money = new Money(minor, Currency.Eur);
        Assert.Equal(signed, Spaced(MoneyText.Signed(money)));
        Assert.Equal(text, Spaced(MoneyText.Of(money)));
    }

    [Fact]
    public void Shares_add_up_to_the_whole_and_differ_from_proportion_by_less_than_one() =>
        Gen.Select(Gen.Long[-1_000_000_000, 1_000_000_000], Gen.Long[0, 1_000_000].Array[1, 12])
            .Where((_, weights) => weights.Sum() > 0)
            .Sample(
                (whole, weights) =>
                {
                    var parts = new Money(whole, Currency.Eur).Split(weights);
                    Assert.Equal(whole, parts.Sum(part => part.Minor));
                    for (var i = 0; i < weights.Length; i++)
                        Assert.True(Math.Abs(parts[i].Minor - (decimal)whole * weights[i] / weights.Sum()) < 1);
                },
                iter: 5_000
            );

    [Fact]
    public void A_tie_of_remainders_goes_to_the_earlier() =>
        Assert.Equal([2, 1], new Money(3, Currency.Eur).Split(1, 1).Select(part => part.Minor));
}
