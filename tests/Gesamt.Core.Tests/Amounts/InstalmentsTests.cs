using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Amounts;

public class InstalmentsTests
{
    private static Totals Price(decimal net, decimal percent) =>
        Totals.OfLines([new PricedLine(1, net, Eur(0), Rate.Percent(percent))], Eur(0));

    [Fact] // worked by hand: 100.03 × 23 % = 23.0069 → 23.01; 40.01 would carry 9.20 and 60.02 only 13.80
    public void Net_moves_by_a_cent_where_the_taxes_would_not_add_up()
    {
        var parts = Instalments.Of(Price(100.03m, 23), 40, 60);
        Assert.Equal([Eur(40.00m), Eur(60.03m)], parts.Select(part => part.Totals.Net));
        Assert.Equal([Eur(9.20m), Eur(13.81m)], parts.Select(part => part.Totals.Tax));
    }

    [Fact] // common practice
    public void A_deposit_splits_the_price_and_leaves_the_balance()
    {
        var parts = Instalments.Of(Price(3000, 0), 1200, 1800);
        Assert.Equal([Eur(1200), Eur(1800)], parts.Select(part => part.Payable));
    }

    [Fact] // the picture of the proposal page: 5 400 net at 23 %, 40 / 60
    public void Forty_and_sixty_per_cent_of_a_mural() =>
        Assert.Equal(
            [Eur(2656.80m), Eur(3985.20m)],
            Instalments.Of(Price(5400, 23), 40, 60).Select(part => part.Payable)
        );

    [Fact] // EN 16931, BR-CO-17: each part's tax is its own net × rate, and the parts still add up
    public void Instalments_of_any_price_add_up() =>
        Gen.Select(
                Gen.Long[1_000, 50_000_000],
                Gen.Long[1_000, 5_000_000],
                Gen.Int[0, 300_000],
                Gen.Long[1, 100].Array[1, 6]
            )
            .Sample(
                (net, net2, rate, weights) =>
                {
                    var price = Totals.OfLines(
                        [
                            new PricedLine(1, net / 100m, Eur(0), new Rate(rate)),
                            new PricedLine(1, net2 / 100m, Eur(0), Rate.Percent(13.5m)),
                        ],
                        Eur(0)
                    );
                    var parts = Instalments.Of(price, weights);
                    Assert.All(
                        parts.SelectMany(part => part.Totals.Parts),
                        part => Assert.Equal(part.Net.Times(part.Rate), part.Tax)
                    );
                    Assert.Equal(
                        (price.Net, price.Tax, price.Payable),
                        (
                            parts.Select(part => part.Totals.Net).Sum(Currency.Eur),
                            parts.Select(part => part.Totals.Tax).Sum(Currency.Eur),
                            parts.Select(part => part.Payable).Sum(Currency.Eur)
                        )
                    );
                },
                iter: 3_000
            );

    [Fact] // EN 16931, BR-CO-17, over a million prices and plans
    public void A_million_prices_split_to_the_cent()
    {
        var random = new Random(16931);
        for (var i = 0; i < 1_000_000; i++)
        {
            var (net, rate) = (random.NextInt64(500, 2_000_000), new Rate(random.Next(0, 271) * 1_000));
            long[] weights = [.. Enumerable.Range(0, random.Next(2, 5)).Select(_ => random.NextInt64(1, 100))];
            var price = Totals.OfNet(new(net, Currency.Eur), rate);
            long nets = 0,
                taxes = 0;
            foreach (var part in Instalments.Of(price, weights))
            {
                var only = part.Totals.Parts[0];
                if (only.Tax != only.Net.Times(rate) || only.Net.Minor < 0)
                    Assert.Fail($"{only} of {net} at {rate} in {string.Join('/', weights)}");
                nets += only.Net.Minor;
                taxes += only.Tax.Minor;
            }
            if (nets != net || taxes != price.Tax.Minor)
                Assert.Fail($"{nets} + {taxes} of {net} at {rate} in {string.Join('/', weights)}");
        }
    }

    [Fact] // a gift beside what is paid for: 0.00 at 13.5 % is no reason to refuse 3,000.00 at 23 %
    public void A_free_line_with_a_rate_of_its_own_can_be_split()
    {
        var parts = Instalments.Of(
            Totals.OfLines([new(1, 3000, Eur(0), Rate.Percent(23)), new(1, 0, Eur(0), Rate.Percent(13.5m))], Eur(0)),
            40,
            60
        );
        Assert.Equal([Eur(1476), Eur(2214)], parts.Select(part => part.Payable));
    }

    [Fact]
    public void What_is_free_as_a_whole_is_free_in_each_part() =>
        Assert.Equal([Eur(0), Eur(0)], Instalments.Of(Price(0, 23), 40, 60).Select(part => part.Payable));

    [Fact]
    public void A_price_too_small_for_its_plan_is_refused() =>
        Assert.Throws<InstalmentException>(() => Instalments.Of(Price(0.01m, 23), 40, 60));
}
