using System.Collections.Immutable;
using Gesamt.Core.Proposals;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Proposals;

/// <summary>Quantities within limits, price steps, discounts, gross prices and fixed payments, chosen by a client.</summary>
public class ChoosingTests
{
    private static readonly PlanDates Dates = new(
        Date("2027-03-12"),
        name => name == "opening night" ? Date("2027-04-02") : null,
        Date("2027-01-15"),
        World.Calendar
    );

    private static readonly OfferLine Names = new(
        "names",
        LineRole.Extra,
        null,
        "Gilded name",
        "",
        3,
        "",
        38,
        Rate.Percent(23),
        false
    )
    {
        Limits = new(1, 12),
        Steps = [new(6, 35), new(10, 30)],
    };

    private static readonly Offer Hall = new(
        "Hall",
        "",
        "",
        Currency.Eur,
        Date("2027-02-22"),
        [new("mural", LineRole.Included, null, "Hall mural", "", 27, "m²", 140, Rate.Percent(23), false), Names],
        [new(Rate.Percent(40), new DueRule.OnBooking(7)), new(Rate.Percent(60), new DueRule.OnHandover(14))]
    );

    private static PricedChoice Of(Offer offer, params (string Key, decimal Quantity)[] chosen) =>
        Pricing.Of(
            offer,
            new(
                [.. chosen.Select(one => one.Key)],
                chosen.ToImmutableSortedDictionary(one => one.Key, one => one.Quantity)
            ),
            Dates
        );

    [Theory] // 27 × 140 = 3 780; a price step counts for the whole quantity
    [InlineData(3, 3894), InlineData(5, 3970), InlineData(6, 3990), InlineData(9, 4095), InlineData(10, 4080)]
    public void A_quantity_within_its_limits_is_priced_at_its_step(decimal names, decimal net) =>
        Assert.Equal(Eur(net), Of(Hall, ("names", names)).Totals.Net);

    [Theory]
    [InlineData(0), InlineData(13), InlineData(2.5), InlineData(-1)]
    public void A_quantity_outside_its_limits_is_refused_by_its_name(decimal names)
    {
        var refused = Assert.Throws<OfferException>(() => Of(Hall, ("names", names)));
        Assert.Equal("quantity.names", refused.Field);
        Assert.Contains("from 1 to 12, in whole numbers", refused.Message);
    }

    [Fact]
    public void What_has_no_limits_keeps_its_quantity() =>
        Assert.Contains("fixed", Assert.Throws<OfferException>(() => Of(Hall, ("mural", 20))).Message);

    [Fact] // common practice: the discount before the tax
    public void Discounts_come_off_before_the_tax_a_lines_own_first()
    {
        var offer = Hall with
        {
            Lines = [Hall.Lines[0] with { Less = new Discount.Share(Rate.Percent(10)) }, Names],
            Less = new(new Discount.Amount(202), "second project"),
        };
        var priced = Of(offer);
        Assert.Equal((Eur(3402), Eur(202), Eur(3200)), (priced.Sum, priced.Less, priced.Totals.Net));
        Assert.Equal(Eur(3936), priced.Totals.Payable);
    }

    [Fact]
    public void More_off_than_there_is_is_refused() =>
        Assert.Equal(
            "less",
            Assert.Throws<OfferException>(() => Of(Hall with { Less = new(new Discount.Amount(3781), "") })).Field
        );

    [Fact] // common practice: price 3,000 net, deposit 1,200, rest 1,800
    public void Fixed_payments_come_first_and_shares_divide_the_rest()
    {
        var offer = Hall with
        {
            Lines = [Hall.Lines[0] with { Quantity = 1, UnitPrice = 3000 }],
            Plan =
            [
                new(new(0), new DueRule.OnBooking(7), 1200),
                new(Rate.Percent(50), new DueRule.AroundDate("opening night", Span.Days(-7), 14)),
                new(Rate.Percent(50), new DueRule.AroundDate("closing night", Span.None, 14)),
            ],
        };
        var priced = Of(offer);
        Assert.Equal([Eur(1200), Eur(900), Eur(900)], priced.Instalments.Select(part => part.Part.Totals.Net));
        Assert.Equal(
            [
                "1 200.00 before tax to book",
                "50 % of the rest, due 26 March 2027",
                "50 % of the rest, due on the closing night",
            ],
            priced.Instalments.Select(part => part.Words.Replace('\u202f', ' '))
        );
        Assert.Equal(Date("2027-03-12"), priced.Instalments[1].InvoiceOn);
        Assert.Equal(Eur(1476), priced.DueOnBooking); // 1 200 × 1.23
    }

    [Theory]
    [InlineData(3780, false), InlineData(4000, false), InlineData(3000, true)]
    public void Fixed_payments_that_leave_nothing_or_too_much_are_refused(decimal amount, bool alone)
    {
        var offer = Hall with
        {
            Plan =
            [
                new(new(0), new DueRule.OnBooking(7), amount),
                .. alone ? [] : new[] { new PlanPart(Rate.Percent(100), new DueRule.OnHandover(14)) },
            ],
        };
        Assert.Equal("plan", Assert.Single(OfferCheck.Faults(offer, Dates)).Field);
    }

    [Fact]
    public void The_least_that_can_be_chosen_must_have_a_plan_as_well()
    {
        var offer = Hall with
        {
            Lines = [Hall.Lines[0] with { Limits = new(1, 30) }, Names],
            Plan = [new(new(0), new DueRule.OnBooking(7), 500), new(Rate.Percent(100), new DueRule.OnHandover(14))],
        };
        Assert.Contains("least that can be chosen", Assert.Single(OfferCheck.Faults(offer, Dates)).Words);
    }

    [Fact]
    public void Everything_that_is_wrong_is_said_at_once_each_with_its_place()
    {
        var offer = Hall with
        {
            Title = " ",
            ValidUntil = Date("2027-01-14"),
            Lines = [Hall.Lines[0] with { Quantity = 0 }, Names with { Limits = new(4, 12) }],
            Plan = [new(Rate.Percent(90), new DueRule.OnBooking(7))],
        };
        Assert.Equal(
            ["title", "validUntil", "lines.mural", "lines.names", "plan"],
            OfferCheck.Faults(offer, Dates).Select(fault => fault.Field)
        );
    }

    private static readonly Gen<Offer> AnyOffer = Gen.Select(
            Gen.Bool,
            Gen.Select(Gen.Int[1, 40], Gen.Int[1, 50_000], Gen.Int[0, 3]).Array[1, 5],
            Gen.Int[0, 60],
            Gen.Int[1, 4],
            Gen.Int[0, 3]
        )
        .Select(
            (gross, lines, less, parts, currency) =>
                Hall with
                {
                    Currency = Currency.Of(new[] { "EUR", "JPY", "KWD", "EUR" }[currency]),
                    Gross = gross,
                    Less = less == 0 ? null : new(new Discount.Share(Rate.Percent(less / 2m)), "as a friend"),
                    Lines =
                    [
                        .. lines.Select(
                            (line, i) =>
                                new OfferLine(
                                    $"l{i}",
                                    i == 0 ? LineRole.Included : LineRole.Extra,
                                    null,
                                    $"Service {i}",
                                    "",
                                    line.Item1,
                                    "",
                                    1_000 + line.Item2 / 100m,
                                    Rate.Percent(new[] { 23m, 13.5m, 9m, 0m }[line.Item3]),
                                    false
                                )
                                {
                                    Limits = new(1, 100),
                                }
                        ),
                    ],
                    Plan =
                    [
                        .. Enumerable
                            .Range(0, parts)
                            .Select(i => new PlanPart(
                                new((i == parts - 1 ? 1_000_000 - i * (1_000_000 / parts) : 1_000_000 / parts)),
                                new DueRule.OnHandover(i)
                            )),
                    ],
                }
        );

    [Fact]
    public void Whatever_is_chosen_is_invoiced_to_the_last_unit() =>
        Gen.Select(AnyOffer, Gen.Int[1, 100].Array[5], Gen.Bool.Array[5])
            .Sample(
                (offer, quantities, taken) =>
                {
                    var chosen = offer
                        .Lines.Where((line, i) => line.Role == LineRole.Extra && taken[i])
                        .Select(line => line.Key)
                        .ToImmutableHashSet();
                    var choice = new Choice(
                        chosen,
                        offer
                            .Lines.Where(line => line.Role == LineRole.Included || chosen.Contains(line.Key))
                            .Select((line, i) => (line.Key, Quantity: (decimal)quantities[i]))
                            .ToImmutableSortedDictionary(one => one.Key, one => one.Quantity)
                    );
                    var priced = Pricing.Of(offer, choice, Dates);
                    var parts = priced.Instalments.Select(part => part.Part.Totals).ToList();
                    Money Sum(Func<Totals, Money> of) => parts.Select(of).Sum(offer.Currency);
                    // what is seen is what is stored, and what is stored is what is invoiced
                    Assert.Equal(priced.Totals.Payable, priced.Parts.Select(part => part.Amount).Sum(offer.Currency));
                    Assert.Equal(
                        (priced.Totals.Net, priced.Totals.Tax, priced.Totals.RoundingAmount),
                        (Sum(part => part.Net), Sum(part => part.Tax), Sum(part => part.RoundingAmount))
                    );
                    foreach (var part in parts.SelectMany(part => part.Parts))
                        Assert.Equal(part.Net.Times(part.Rate), part.Tax); // BR-CO-17
                    if (offer.Gross)
                        Assert.Equal(priced.Sum - priced.Less, priced.Totals.Payable); // BT-115
                    else
                        Assert.All(parts, part => Assert.Equal(0, part.RoundingAmount.Minor));
                },
                iter: 400
            );
}
