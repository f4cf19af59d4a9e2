using Gesamt.Core.Books;

namespace Gesamt.Core.Tests.Books;

public sealed class ForecastTests
{
    private static readonly LocalDate Today = new(2027, 1, 25);

    private static Money Eur(long minor) => new(minor, Currency.Eur);

    /// <summary>Laplace, Essai philosophique sur les probabilités (1814): after n successes in n trials the next is (n + 1) / (n + 2). His own example is the sun that rose on 1 826 213 days.</summary>
    [Fact]
    public void The_sun_rises_tomorrow() => Assert.Equal((1_826_214, 1_826_215), new Chance(1_826_213, 0).Fraction);

    [Theory]
    [InlineData(0, 0, 50)]
    [InlineData(1, 0, 67)]
    [InlineData(0, 1, 33)]
    [InlineData(23, 12, 65)]
    [InlineData(1, 5, 25)]
    public void A_chance_is_one_more_on_either_side(int won, int lost, int percent) =>
        Assert.Equal(percent, new Chance(won, lost).Percent);

    [Fact]
    public void The_owners_own_figure_goes_before_the_counts()
    {
        var chance = new Chance(3, 1, Own: 90);
        Assert.Equal(90, chance.Percent);
        Assert.Equal(Eur(9_000), chance.Of(Eur(10_000)));
    }

    [Fact]
    public void A_chance_of_an_amount_is_rounded_half_away_from_zero() =>
        // 2/3 of 100.00 and of 0.01
        Assert.Equal((Eur(6_667), Eur(1)), (new Chance(1, 0).Of(Eur(10_000)), new Chance(1, 0).Of(Eur(1))));

    [Fact]
    public void What_is_late_stands_in_the_present_month_and_what_is_ahead_in_its_own()
    {
        var placed = Forecast
            .Of(
                new(
                    [new(new(2026, 12, 3), Eur(400))],
                    [new(new(2026, 11, 5), Eur(100)), new(Today, Eur(200)), new(new(2027, 3, 9), Eur(300))],
                    [new(new(2027, 1, 4), Eur(10)), new(new(2027, 5, 1), Eur(20)), new(null, Eur(30))],
                    null
                ),
                Today
            )
            .ToList();
        Assert.Equal(
            [
                new Placed(Place.Received, new(2026, 12), Eur(400), Eur(400)),
                new Placed(Place.Late, new(2027, 1), Eur(100), Eur(100)),
                new Placed(Place.Sent, new(2027, 1), Eur(200), Eur(200)),
                new Placed(Place.Sent, new(2027, 3), Eur(300), Eur(300)),
                new Placed(Place.ToCome, new(2027, 1), Eur(10), Eur(10)),
                new Placed(Place.ToCome, new(2027, 5), Eur(20), Eur(20)),
                new Placed(Place.ToCome, null, Eur(30), Eur(30)),
            ],
            placed
        );
    }

    private static readonly Gen<Coming[]> Parts = Gen.Select(
        Gen.Int[-400, 400].Nullable(),
        Gen.Long[1, 900_000],
        (days, minor) => new Coming(days is { } known ? Today.PlusDays(known) : null, Eur(minor))
    ).Array[0, 6];

    private static readonly Gen<ProjectMoney> AnyProject = Gen.Select(
        Parts,
        Parts,
        Parts,
        Gen.Select(Gen.Int[0, 60], Gen.Int[0, 60], (won, lost) => new Chance(won, lost)).Nullable(),
        (received, owed, ahead, chance) =>
            new ProjectMoney([.. received], [.. owed.Where(part => part.On is not null)], [.. ahead], chance)
    );

    [Fact]
    public void Every_amount_stands_in_exactly_one_place() =>
        AnyProject.Sample(project =>
        {
            var placed = Forecast.Of(project, Today).ToList();
            Assert.Equal(
                project
                    .Received.Concat(project.Owed)
                    .Concat(project.Ahead)
                    .Select(part => part.Amount)
                    .Sum(Currency.Eur),
                placed.Select(one => one.Whole).Sum(Currency.Eur)
            );
            Assert.Equal(project.Received.Length + project.Owed.Length + project.Ahead.Length, placed.Count);
            // a booked one counts in full, one that is not by its chance alone
            Assert.All(placed, one => Assert.True(one.Place == Place.Likely || one.Amount == one.Whole));
            Assert.Equal(
                project.Chance is null ? 0 : project.Ahead.Length,
                placed.Count(one => one.Place == Place.Likely)
            );
            // nothing is expected in a month that is over
            Assert.All(
                placed.Where(one => one.Place != Place.Received && one.Month is not null),
                one => Assert.True(one.Month!.Value.CompareTo(Today.ToYearMonth()) >= 0)
            );
        });

    [Fact]
    public void An_hourly_week_and_a_monthly_cost_in_months_and_years()
    {
        // 60 an hour, 8 h a week; 35 a month
        Assert.Equal(Eur(208_000), Equivalent.Monthly(Eur(48_000), Every.Week));
        Assert.Equal(Eur(42_000), Equivalent.Yearly(Eur(3_500), Every.Month));
        Assert.Equal(Eur(6_000), Equivalent.Monthly(Eur(18_000), Every.Quarter));
        Assert.Equal(Eur(800), Equivalent.Monthly(Eur(9_600), Every.Year));
        Assert.Equal(Eur(26_000), Equivalent.Yearly(Eur(1_000), Every.TwoWeeks));
    }
}
