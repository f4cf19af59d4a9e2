using Gesamt.Core.Proposals;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Proposals;

public class PricingTests
{
    private static OfferLine Line(
        string key,
        LineRole role,
        decimal quantity,
        decimal price,
        string? group = null,
        bool suggested = false
    ) => new(key, role, group, key, "", quantity, "", price, Rate.Percent(23), suggested);

    private static readonly Offer Offer = new(
        "Harbour wall",
        "",
        "",
        Currency.Eur,
        Date("2027-01-29"),
        [
            Line("gable", LineRole.Included, 31, 140),
            Line("scaffold", LineRole.OneOf, 6, 130, "access"),
            Line("lift", LineRole.OneOf, 4, 140, "access", true),
            Line("name", LineRole.Extra, 14, 20, suggested: true),
            Line("wash", LineRole.Extra, 1, 190),
        ],
        [
            new(Rate.Percent(40), new DueRule.OnBooking(7)),
            new(Rate.Percent(60), new DueRule.AroundMainDate(Span.None, 14)),
        ]
    );

    private static PricedChoice Of(params string[] chosen) => Of(Offer, Choice.Of(chosen));

    private static PricedChoice Of(Offer offer, Choice choice) => Pricing.Of(offer, choice, Dates);

    private static readonly PlanDates Dates = new(
        Date("2027-03-12"),
        name => name == "opening night" ? Date("2027-04-02") : null,
        Date("2027-01-15"),
        World.Calendar
    );

    private static OfferException Refused(Offer offer, string on = "2027-01-10") =>
        Assert.Throws<OfferException>(() => OfferCheck.Demand(offer, Dates with { SignedOn = Date(on) }));

    [Fact] // the picture of the proposal page
    public void The_choice_is_priced_with_its_instalments_and_dates()
    {
        var priced = Of("scaffold", "name");
        Assert.Equal((Eur(5400), Eur(1242), Eur(6642)), (priced.Totals.Net, priced.Totals.Tax, priced.Totals.Payable));
        Assert.Equal(
            [
                (Eur(2656.80m), Date("2027-01-22"), Date("2027-01-15")),
                (Eur(3985.20m), Date("2027-03-12"), Date("2027-02-26")),
            ],
            priced.Instalments.Select(i => (i.Part.Payable, i.Due!.Value, i.InvoiceOn!.Value))
        );
        Assert.Equal(Eur(2656.80m), priced.DueOnBooking);
    }

    [Theory]
    [InlineData("access"), InlineData("scaffold", "lift"), InlineData("scaffold", "carpet")]
    public void A_choice_of_none_or_two_or_of_something_else_is_refused(params string[] chosen) =>
        Assert.Throws<OfferException>(() => Of(chosen.Where(c => c != "access").ToArray()));

    [Fact]
    public void The_suggested_choice_is_always_a_possible_one() =>
        Assert.Equal(Eur(5180), Of([.. Pricing.Suggested(Offer).Keys]).Totals.Net);

    [Theory]
    [InlineData(50, 40, "plan"), InlineData(100, 0, "plan")]
    public void Shares_must_add_up(decimal first, decimal second, string field) =>
        Assert.Equal(
            field,
            Refused(
                Offer with
                {
                    Plan =
                    [
                        new(Rate.Percent(first), new DueRule.OnBooking(7)),
                        new(Rate.Percent(second), new DueRule.OnBooking(7)),
                    ],
                }
            ).Field
        );

    [Fact]
    public void A_choice_of_one_needs_something_to_choose_from() =>
        Assert.Contains("nothing to choose from", Refused(Offer with { Lines = Offer.Lines.RemoveAt(2) }).Message);

    [Fact]
    public void Any_choice_has_instalments_that_add_up_to_its_total() =>
        Gen.Select(Gen.Bool, Gen.Bool, Gen.Bool)
            .Sample(
                (lift, name, wash) =>
                {
                    string[] chosen =
                    [
                        lift ? "lift" : "scaffold",
                        .. name ? ["name"] : Array.Empty<string>(),
                        .. wash ? ["wash"] : Array.Empty<string>(),
                    ];
                    var priced = Of(chosen);
                    Assert.Equal(
                        priced.Totals.Payable,
                        priced.Instalments.Select(i => i.Part.Payable).Sum(Currency.Eur)
                    );
                }
            );
}
