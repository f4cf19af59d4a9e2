using Gesamt.Core.Books;

namespace Gesamt.Core.Tests.Books;

public sealed class TaxesTests
{
    private static Money Eur(long minor) => new(minor, Currency.Eur);

    private static Totals Invoice(params (long Net, int Percent)[] lines) =>
        Totals.OfLines(
            [.. lines.Select(line => new PricedLine(1, line.Net / 100m, Eur(0), Rate.Percent(line.Percent)))],
            Eur(0)
        );

    [Fact]
    public void Half_of_an_invoice_is_half_of_its_tax()
    {
        var half = Taxes.OfPayment(Invoice((100_00, 23)), Eur(0), Eur(61_50));
        Assert.Equal((Eur(50_00), Eur(11_50)), (half.Net, half.Tax));
    }

    [Fact]
    public void A_part_is_split_over_the_rates_in_proportion()
    {
        // 123.00 at 23 % and 109.00 at 9 %: 23.20 of 232.00 is a tenth of each
        var part = Taxes.OfPayment(Invoice((100_00, 23), (100_00, 9)), Eur(0), Eur(23_20));
        Assert.Equal(
            [(Rate.Percent(23), Eur(10_00), Eur(2_30)), (Rate.Percent(9), Eur(10_00), Eur(90))],
            part.Parts.Select(one => (one.Rate, one.Net, one.Tax))
        );
    }

    [Fact]
    public void What_is_paid_ahead_has_no_tax_yet()
    {
        var invoice = Invoice((100_00, 23));
        Assert.Equal(Eur(23_00), Taxes.OfPayment(invoice, Eur(0), Eur(200_00)).Tax);
        Assert.Equal(Eur(0), Taxes.OfPayment(invoice, Eur(123_00), Eur(77_00)).Tax);
    }

    [Fact]
    public void What_is_given_back_takes_its_tax_along()
    {
        var invoice = Invoice((100_00, 23));
        var back = Taxes.OfPayment(invoice, Eur(123_00), Eur(-61_50));
        Assert.Equal((Eur(-50_00), Eur(-11_50)), (back.Net, back.Tax));
    }

    [Fact]
    public void An_amount_with_its_tax_is_net_and_tax()
    {
        var part = Taxes.OfGross(Eur(600_00), Rate.Percent(23));
        Assert.Equal((Eur(487_80), Eur(112_20)), (part.Net, part.Tax));
    }

    /// <summary>However an invoice is paid, in parts, with money given back between: what was taxed is what it says, exactly.</summary>
    [Fact]
    public void All_payments_of_an_invoice_come_to_its_tax() =>
        Gen.Select(
                Gen.Select(
                    Gen.Long[1, 400_000],
                    Gen.Int[0, 4].Select(which => new[] { 0, 5, 9, 20, 23 }[which]),
                    (net, rate) => (net, rate)
                ).Array[1, 4],
                Gen.Double[0, 1].Array[0, 5]
            )
            .Sample(
                (lines, cuts) =>
                {
                    var invoice = Invoice(lines);
                    var whole = invoice.Payable.Minor;
                    long[] paid = [.. cuts.Select(cut => (long)(cut * whole)), whole];
                    var sum = Totals.Zero(Currency.Eur);
                    var before = 0L;
                    foreach (var to in paid)
                    {
                        sum = sum.Plus(Taxes.OfPayment(invoice, Eur(before), Eur(to - before)));
                        before = to;
                    }
                    Assert.Equal(invoice.Net, sum.Net);
                    Assert.Equal(invoice.Tax, sum.Tax);
                    foreach (var part in invoice.Parts)
                        Assert.Equal(part.Tax, sum.Parts.Single(one => one.Kind == part.Kind).Tax);
                }
            );
}
