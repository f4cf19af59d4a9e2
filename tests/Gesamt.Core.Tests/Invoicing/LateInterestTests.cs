using Gesamt.Core.Invoicing;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Invoicing;

public class LateInterestTests
{
    // the European Central Bank's rates as the half-years of 2024 began, from memory
    private static readonly ReferenceRate[] Rates = [new(Date("2024-01-01"), 4.50m), new(Date("2024-07-01"), 4.25m)];
    private static readonly LateTerms Law = new LateTerms.Statutory();

    private static LateCharge? Charge(
        LateTerms terms,
        string until,
        BuyerSort buyer = BuyerSort.Business,
        params (string On, decimal Amount)[] paid
    ) =>
        LateInterest.Of(
            terms,
            buyer,
            Eur(1000),
            Date("2024-03-31"),
            paid.Select(one => (Date(one.On), Eur(one.Amount))),
            Date(until),
            Rates
        );

    [Fact] // Directive 2011/7/EU, articles 2 (6), 3 and 6: 8 points above, each day at its half-year's rate, and 40 euro
    public void Two_half_years_each_bear_their_own_rate()
    {
        var charge = Charge(Law, "2024-09-30")!;
        Assert.Equal((Eur(62.04m), Eur(40), Eur(102.04m)), (charge.Interest, charge.Sum, charge.Total));
        Assert.Equal([(91, 12.50m), (92, 12.25m)], charge.Spans.Select(span => (span.Days, span.Percent)));
    }

    [Fact]
    public void A_part_payment_steps_it_down_from_the_next_day()
    {
        var charge = Charge(Law, "2024-09-30", BuyerSort.Business, ("2024-05-15", 400))!;
        Assert.Equal(Eur(43.39m), charge.Interest);
        Assert.Equal(
            [(45, Eur(1000)), (46, Eur(600)), (92, Eur(600))],
            charge.Spans.Select(span => (span.Days, span.Open))
        );
    }

    [Fact]
    public void The_day_of_payment_bears_interest_and_the_due_day_does_not()
    {
        Assert.Null(Charge(Law, "2024-03-31"));
        Assert.Equal(1, Charge(Law, "2024-04-01")!.Spans.Sum(span => span.Days));
    }

    [Fact] // no row, no proposal
    public void Without_the_rate_of_a_half_year_nothing_is_proposed() => Assert.Null(Charge(Law, "2025-01-01"));

    [Fact]
    public void Private_people_are_not_asked_for_what_the_law_gives_among_businesses()
    {
        Assert.Null(Charge(Law, "2024-09-30", BuyerSort.Private));
        Assert.NotNull(Charge(Law, "2024-09-30", BuyerSort.PublicBody));
    }

    [Fact] // 12 × 1 % / 365 a day: 1,000 for 365 days is 120
    public void Per_cent_a_month_is_counted_by_the_day()
    {
        var month = new LateTerms.PerMonth(Rate.Percent(1));
        Assert.Equal(Eur(120), Charge(month, "2025-03-31")!.Interest);
        Assert.Equal(Eur(0), Charge(month, "2025-03-31")!.Sum);
        Assert.NotNull(Charge(month, "2024-04-30", BuyerSort.Private));
    }

    [Fact]
    public void A_fixed_sum_is_due_once()
    {
        Assert.Equal(Eur(15), Charge(new LateTerms.Fixed(15), "2024-04-01")!.Total);
        Assert.Equal(Eur(15), Charge(new LateTerms.Fixed(15), "2030-04-01")!.Total);
        Assert.Null(Charge(new LateTerms.Nothing(), "2030-04-01"));
    }

    [Fact] // simple interest by the day, summed in another way and rounded once
    public void It_is_the_sum_of_its_days() =>
        Gen.Select(Gen.Int[0, 183], Gen.Long[1, 99_999], Gen.Int[1, 183])
            .Sample(
                (on, minor, until) =>
                {
                    var due = Date("2024-03-31");
                    var (last, paid) = (due.PlusDays(until), due.PlusDays(on));
                    var charge = LateInterest.Of(
                        Law,
                        BuyerSort.Business,
                        Eur(1000),
                        due,
                        [(paid, new Money(minor, Currency.Eur))],
                        last,
                        Rates
                    )!;
                    var sum = 0m;
                    for (var day = due.PlusDays(1); day <= last; day = day.PlusDays(1))
                        sum += (100_000 - (day > paid ? minor : 0)) * (day.Month < 7 ? 12.5m : 12.25m) / 100;
                    Assert.Equal(Rounding.ToLong(sum / 365), charge.Interest.Minor);
                }
            );
}
