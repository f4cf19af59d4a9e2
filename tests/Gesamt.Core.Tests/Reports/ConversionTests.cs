using Gesamt.Core.Reports;

namespace Gesamt.Core.Tests.Reports;

public sealed class ConversionTests
{
    private static readonly EndReason[] Reasons = Enum.GetValues<EndReason>();

    [Theory]
    [InlineData(0, 1, 0)]
    [InlineData(1, 0, 100)]
    [InlineData(1, 1, 50)]
    [InlineData(1, 2, 33)]
    [InlineData(2, 1, 67)]
    [InlineData(1, 7, 13)] // 12.5, half upwards
    [InlineData(1, 199, 1)] // 0.5
    [InlineData(1, 200, 0)]
    public void Of_those_decided(int wentOn, int lost, int percent) =>
        Assert.Equal(percent, Conversion.Percent(wentOn, Enumerable.Repeat(EndReason.Lost, lost)));

    [Fact]
    public void Nothing_decided_is_no_share()
    {
        Assert.Null(Conversion.Percent(0, []));
        Assert.Null(Conversion.Percent(0, [EndReason.Declined, EndReason.Referred, EndReason.Cancelled]));
    }

    [Fact]
    public void Only_lost_and_gone_quiet_lower_it() =>
        Gen.Select(Gen.Int[0, 500], Gen.Int[0, Reasons.Length - 1].Select(i => Reasons[i]).Array[0, 60])
            .Sample(
                (wentOn, ended) =>
                {
                    var before = Conversion.Percent(wentOn, ended);
                    foreach (var reason in Reasons)
                        if (reason is EndReason.Lost or EndReason.GoneQuiet)
                            Assert.True(Conversion.Percent(wentOn, [.. ended, reason]) <= (before ?? 100));
                        else
                            Assert.Equal(before, Conversion.Percent(wentOn, [.. ended, reason]));
                    Assert.True((Conversion.Percent(wentOn + 1, ended) ?? -1) >= (before ?? 0));
                }
            );
}
