using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Amounts;

/// <summary>Sums by EN 16931-1:2017; the numbers were computed by hand.</summary>
public class TotalsTests
{
    private static readonly Rate Standard = Rate.Percent(23),
        Reduced = Rate.Percent(13.5m);

    private static PricedLine Line(decimal quantity, decimal price, Rate rate, decimal discount = 0) =>
        new(quantity, price, Eur(discount), rate);

    [Fact] // BR-CO-10, -13, -14, -15: 2 × 10.005 = 20.01; 3.5 × 7.77 = 27.195 → 27.20; 47.21 × 23 % = 10.8583 → 10.86
    public void Lines_are_rounded_before_they_are_summed()
    {
        var totals = Totals.OfLines([Line(2, 10.005m, Standard), Line(3.5m, 7.77m, Standard)], Eur(0));
        Assert.Equal((Eur(47.21m), Eur(10.86m), Eur(58.07m)), (totals.Net, totals.Tax, totals.Payable));
    }

    [Fact] // BR-CO-17 and BR-CO-14: 100.00 × 23 % = 23.00; 33.33 × 13.5 % = 4.49955 → 4.50
    public void Tax_is_rounded_once_per_rate()
    {
        var totals = Totals.OfLines([Line(1, 33.33m, Reduced), Line(1, 100, Standard)], Eur(0));
        Assert.Equal([Eur(23), Eur(4.50m)], totals.Parts.Select(part => part.Tax));
        Assert.Equal(Eur(160.83m), totals.Payable);
    }

    [Fact] // common practice: discount before tax
    public void A_discount_comes_off_before_tax() =>
        Assert.Equal(Eur(720), Totals.OfLines([Line(1, 640, Rate.Percent(20), 40)], Eur(0)).Payable);

    [Fact] // BR-CO-11: the document discount of 10.00 on nets 200.00 and 100.00 is 6.67 and 3.33
    public void A_document_discount_is_one_allowance_per_rate() =>
        Assert.Equal(
            [Eur(193.33m), Eur(96.67m)],
            Totals.OfLines([Line(1, 100, Reduced), Line(1, 200, Standard)], Eur(10)).Parts.Select(part => part.Net)
        );

    [Fact] // BT-114, BT-115: 600.00 / 1.23 = 487.804… → 487.80; tax 112.19; 600.00 − 599.99 = 0.01
    public void A_promised_gross_stays_what_was_promised()
    {
        var totals = Totals.OfGross(Eur(600), Standard);
        Assert.Equal(
            (Eur(487.80m), Eur(112.19m), Eur(0.01m), Eur(600)),
            (totals.Net, totals.Tax, totals.RoundingAmount, totals.Payable)
        );
    }

    [Fact] // BR-CO-16: the rounding amount is at most one minor unit per rate
    public void A_gross_never_needs_more_than_one_cent() =>
        Gen.Select(Gen.Long[1, 100_000_000], Gen.Int[0, 300_000])
            .Sample(
                (minor, parts) =>
                {
                    var totals = Totals.OfGross(new Money(minor, Currency.Eur), new Rate(parts));
                    Assert.Equal(minor, totals.Payable.Minor);
                    Assert.InRange(totals.RoundingAmount.Minor, -1, 1);
                },
                iter: 5_000
            );

    [Fact] // worked by hand: 1,271.20 / 1.23 = 1,033.4959 → 1,033.50, its tax 237.705 → 237.71, rounding −0.01
    public void A_part_taken_back_is_what_was_open_to_the_cent()
    {
        var part = Totals.OfLines([new(1, 1440, Eur(0), Rate.Percent(23))], Eur(0)).OfPart(Eur(1271.20m));
        Assert.Equal(
            (Eur(1033.50m), Eur(237.71m), Eur(-0.01m), Eur(1271.20m)),
            (part.Net, part.Tax, part.RoundingAmount, part.Payable)
        );
    }

    [Fact] // BT-115 is what was promised; BR-CO-17 holds per rate; BT-114 is at most a cent per rate
    public void Any_part_of_any_sums_comes_to_itself() =>
        Gen.Select(Gen.Long[1_000, 5_000_000], Gen.Long[0, 500_000], Gen.Int[0, 300_000], Gen.Int[1, 999])
            .Sample(
                (net, net2, rate, share) =>
                {
                    var whole = Totals.OfLines(
                        [new(1, net / 100m, Eur(0), new Rate(rate)), new(1, net2 / 100m, Eur(0), Rate.Percent(13.5m))],
                        Eur(0)
                    );
                    var gross = new Money(whole.Payable.Minor * share / 1000, Currency.Eur);
                    var part = whole.OfPart(gross);
                    Assert.Equal(gross, part.Payable);
                    Assert.All(part.Parts, one => Assert.Equal(one.Net.Times(one.Rate), one.Tax));
                    Assert.True(
                        Math.Abs(part.RoundingAmount.Minor) <= part.Parts.Length,
                        part.RoundingAmount.ToString()
                    );
                },
                iter: 3_000
            );
}
