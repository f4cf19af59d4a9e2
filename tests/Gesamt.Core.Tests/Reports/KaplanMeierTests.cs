using Gesamt.Core.Reports;

namespace Gesamt.Core.Tests.Reports;

public sealed class KaplanMeierTests
{
    /// <summary>
    /// The 21 patients on 6-mercaptopurine in E. J. Freireich et al., Blood 21 (1963), 699–716: weeks in remission, those
    /// still in remission marked. The estimate is the one printed in D. Collett, Modelling Survival Data in Medical Research,
    /// and in Kleinbaum and Klein, Survival Analysis, table 2.1, to four decimals.
    /// </summary>
    private static readonly Lasted[] Remission =
    [
        .. new[] { 6, 6, 6, 7, 10, 13, 16, 22, 23 }.Select(weeks => new Lasted(weeks, true)),
        .. new[] { 6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35 }.Select(weeks => new Lasted(weeks, false)),
    ];

    [Fact]
    public void The_published_table_of_remissions_is_met()
    {
        var survival = KaplanMeier.Of(Remission);
        Assert.Equal(
            [
                (6, 21, 3, 0.8571),
                (7, 17, 1, 0.8067),
                (10, 15, 1, 0.7529),
                (13, 12, 1, 0.6902),
                (16, 11, 1, 0.6275),
                (22, 7, 1, 0.5378),
                (23, 6, 1, 0.4482),
            ],
            survival.Steps.Select(step => (step.Days, step.AtRisk, step.Left, Math.Round(step.Staying.Rough, 4)))
        );
        Assert.Equal(23, survival.Median);
        Assert.Equal((21, 35), (survival.Count, survival.Longest));
    }

    [Fact]
    public void Shares_are_exact_fractions()
    {
        var survival = KaplanMeier.Of(Remission);
        Assert.Equal(new(6, 7), survival.Steps[0].Staying);
        Assert.Equal(new(96, 119), survival.Steps[1].Staying);
    }

    [Fact] // the other arm of the same trial, where nobody was censored: the plain share of those left
    public void Without_anybody_still_there_it_is_the_plain_share()
    {
        int[] weeks = [1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23];
        var survival = KaplanMeier.Of(weeks.Select(week => new Lasted(week, true)));
        foreach (var step in survival.Steps)
            Assert.Equal(
                weeks.Count(week => week > step.Days),
                (int)(step.Staying.Of * weeks.Length / step.Staying.All)
            );
        Assert.Equal(8, survival.Median);
    }

    [Fact]
    public void Exactly_half_is_half_and_more_than_half_is_not_yet()
    {
        Assert.Equal(3, KaplanMeier.Of([new(3, true), new(9, false)]).Median);
        Assert.Null(KaplanMeier.Of([new(3, true), new(9, false), new(9, false)]).Median);
        Assert.Null(KaplanMeier.Of([]).Median);
        Assert.Equal(0, KaplanMeier.Of([new(0, true), new(0, true)]).Median);
    }

    [Fact]
    public void It_never_rises_and_is_the_product_of_what_each_day_left()
    {
        Gen.Select(Gen.Int[0, 40], Gen.Bool, (days, left) => new Lasted(days, left))
            .Array[0, 60]
            .Sample(sample =>
            {
                var survival = KaplanMeier.Of(sample);
                var product = 1.0;
                foreach (var step in survival.Steps)
                {
                    var atRisk = sample.Count(one => one.Days >= step.Days);
                    var left = sample.Count(one => one.Days == step.Days && one.Left);
                    product *= 1 - (double)left / atRisk;
                    Assert.Equal((atRisk, left), (step.AtRisk, step.Left));
                    if (product > 0)
                        Assert.Equal(product, step.Staying.Rough, tolerance: 1e-9);
                    else
                        Assert.True(step.Staying.Of.IsZero);
                }
                Assert.Equal(
                    survival.Steps.Select(step => step.Staying.Rough).OrderDescending(),
                    survival.Steps.Select(step => step.Staying.Rough)
                );
            });
    }
}
