using Gesamt.Core.Reports;

namespace Gesamt.Core.Tests.Reports;

public sealed class GoalProgressTests
{
    [Fact]
    public void Measures_at_80_and_40_per_cent_make_a_goal_at_60()
    {
        Assert.Equal(60, GoalProgress.Percent([new(10, 26, 30), new(0, 4, 10)]));
        Assert.Equal(80, GoalProgress.Percent([new(10, 26, 30)]));
    }

    [Theory]
    [InlineData(14, 9, 4, 50)] // falling
    [InlineData(14, 20, 4, 0)] // the wrong way
    [InlineData(14, 2, 4, 100)] // further than wanted
    [InlineData(0, 15, 12, 100)]
    [InlineData(0, -3, 12, 0)]
    [InlineData(0, 0, 12, 0)]
    [InlineData(-10, 0, 10, 50)]
    [InlineData(5, 5, 5, 100)] // the target is the start: reached, or not
    [InlineData(5, 4, 5, 0)]
    [InlineData(0, 2, 3, 66)] // not rounded up: 100 says that all of it is reached
    public void One_measure_rises_or_falls(int start, int present, int target, int percent) =>
        Assert.Equal(percent, GoalProgress.Percent([new(start, present, target)]));

    [Fact]
    public void No_measure_is_no_figure() => Assert.Null(GoalProgress.Percent([]));

    [Fact]
    public void Nothing_short_of_every_measure_is_all_of_it()
    {
        Gen.Select(
                Gen.Int[-20, 20],
                Gen.Int[-20, 20],
                Gen.Int[-20, 20],
                (start, present, target) => new Measure(start, present, target)
            )
            .Array[1, 5]
            .Sample(measures =>
            {
                var percent = GoalProgress.Percent(measures)!.Value;
                Assert.InRange(percent, 0, 100);
                Assert.Equal(measures.All(one => one.Share == 1), percent == 100);
            });
    }
}
