using Gesamt.Core.Invoicing;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Invoicing;

public class BillTests
{
    private static Bill Of(params BillLine[] lines) => new(Currency.Eur, [.. lines]) { DueDays = 14 };

    private static BillLine Line(decimal quantity, decimal price, string tax, Discount? less = null)
    {
        var (rate, category) = TaxText.Read(tax)!.Value;
        return new("k", "Lettering", "", quantity, "letter", price, new(rate, category), less);
    }

    private static string[] Faults(Bill bill, string seller = "IE 1234567T", string buyer = "ATU12345678") =>
        [.. BillCheck.Faults(bill, seller, buyer).Select(fault => fault.Field)];

    [Fact] // 7-checks 15, common practice: 640.00 less 40.00 at 20 % is 720.00, the discount before the tax
    public void A_discount_comes_off_before_the_tax()
    {
        Assert.Equal(Eur(720), Of(Line(1, 640, "20", new Discount.Amount(40))).Sums().Totals.Payable);
        var whole = Of(Line(1, 640, "20")) with { Less = new(new Discount.Amount(40), "second project") };
        Assert.Equal(Eur(720), whole.Sums().Totals.Payable);
    }

    [Fact] // 7-checks: gross 600.00 at 23 % is net 487.80, tax 112.19, rounding 0.01
    public void Prices_with_tax_are_asked_for_to_the_cent()
    {
        var totals = (Of(Line(2, 300, "23")) with { Gross = true }).Sums().Totals;
        Assert.Equal(
            (Eur(487.80m), Eur(112.19m), Eur(0.01m), Eur(600)),
            (totals.Net, totals.Tax, totals.RoundingAmount, totals.Payable)
        );
    }

    [Fact]
    public void What_is_taxed_differently_at_the_same_rate_is_kept_apart()
    {
        var totals = (Of(Line(1, 100, "0"), Line(1, 50, "exempt"), Line(1, 10, "23")) with { ExemptReason = "art" })
            .Sums()
            .Totals;
        Assert.Equal(
            [(TaxCategory.Standard, Eur(10)), (TaxCategory.Zero, Eur(100)), (TaxCategory.Exempt, Eur(50))],
            totals.Parts.Select(part => (part.Category, part.Net))
        );
    }

    [Fact]
    public void What_can_be_issued_has_no_fault() => Assert.Empty(Faults(Of(Line(3, 20, "23"))));

    [Fact]
    public void Every_fault_names_its_field()
    {
        Assert.Equal(["lines"], Faults(Of()));
        Assert.Equal(["lines[0].title"], Faults(Of(Line(1, 20, "23") with { Title = " " })));
        Assert.Equal(["lines[0].quantity"], Faults(Of(Line(0, 20, "23"))));
        Assert.Equal(["lines[1].unitPrice"], Faults(Of(Line(1, 20, "23"), Line(1, -1, "23"))));
        Assert.Equal(["exemptReason"], Faults(Of(Line(1, 20, "exempt"))));
        Assert.Equal(["lines"], Faults(Of(Line(1, 0, "23"))));
        Assert.Equal(["lines"], Faults(Of(Line(1, 20, "23", new Discount.Amount(30)), Line(1, 100, "23"))));
        Assert.Equal(["less"], Faults(Of(Line(1, 20, "23")) with { Less = new(new Discount.Amount(30), "") }));
        Assert.Equal(
            ["performedUntil"],
            Faults(Of(Line(1, 20, "23")) with { Performed = new(Date("2027-02-02"), Date("2027-02-01")) })
        );
        Assert.Equal(["dueDays"], Faults(Of(Line(1, 20, "23")) with { DueDays = 366 }));
        var dear = Enumerable.Repeat(Line(1_000_000, 100_000_000, "23"), 200);
        Assert.Equal(["lines"], Faults(new(Currency.Of("KWD"), [.. dear])));
    }

    [Fact] // EN 16931, BR-AE-2 to BR-AE-4
    public void Reverse_charge_needs_the_tax_numbers_of_both()
    {
        var bill = Of(Line(1, 20, "reverse charge"));
        Assert.Empty(Faults(bill));
        Assert.Equal(["lines"], Faults(bill, buyer: ""));
        Assert.Equal(["lines"], Faults(bill, seller: " "));
        Assert.Equal(Eur(20), bill.Sums().Totals.Payable);
    }

    [Theory]
    [
        InlineData("23", 230_000, TaxCategory.Standard),
        InlineData(" 13.5 % ", 135_000, TaxCategory.Standard),
        InlineData("0", 0, TaxCategory.Zero),
        InlineData("Exempt", 0, TaxCategory.Exempt),
        InlineData("reverse", 0, TaxCategory.ReverseCharge)
    ]
    public void Tax_reads_as_it_is_typed(string text, int parts, TaxCategory category) =>
        Assert.Equal((new Rate(parts), category), TaxText.Read(text));

    [Theory, InlineData("101"), InlineData("-1"), InlineData("none"), InlineData(""), InlineData("23.00001")]
    public void What_is_no_tax_is_none(string text) => Assert.Null(TaxText.Read(text));

    [Fact]
    public void Tax_is_shown_as_it_would_be_typed()
    {
        foreach (var text in new[] { "23", "0", "exempt", "reverse charge", "13.5" })
            Assert.Equal(text, TaxText.Of(TaxText.Read(text)!.Value.Rate, TaxText.Read(text)!.Value.Category));
    }
}
