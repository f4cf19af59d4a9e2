namespace Gesamt.Core.Tests.Calendar;

/// <summary>The time of work, as it is typed, told and billed.</summary>
public class WorkTimeTests
{
    [Theory]
    [InlineData("2.25", 135)]
    [InlineData("2,25", 135)]
    [InlineData("2.25 hours", 135)]
    [InlineData("1:30", 90)]
    [InlineData("1:30 h", 90)]
    [InlineData("1h30", 90)]
    [InlineData("1 h 15 min", 75)]
    [InlineData("90 min", 90)]
    [InlineData(" 8 ", 480)]
    [InlineData("0.01", 1)]
    [InlineData("24", 1440)]
    public void A_field_holds_time_as_people_write_it(string text, int minutes) =>
        Assert.Equal(minutes, WorkTime.Read(text));

    [Theory]
    [InlineData("")]
    [InlineData("0")]
    [InlineData("-1")]
    [InlineData("0.001")]
    [InlineData("24.01")]
    [InlineData("25:00")]
    [InlineData("1:60")]
    [InlineData("all day")]
    [InlineData("2 hours 3 brushes")]
    [InlineData("99999999999999999999")]
    public void What_is_no_time_of_one_day_is_none(string text) => Assert.Null(WorkTime.Read(text));

    [Fact]
    public void Every_time_of_a_day_is_read_as_it_was_told()
    {
        for (var minutes = 1; minutes <= WorkTime.Most; minutes++)
            Assert.Equal(minutes, WorkTime.Read(WorkTime.Words(minutes)));
    }

    [Fact]
    public void An_invoice_counts_hundredths_of_an_hour()
    {
        Assert.Equal(0.33m, WorkTime.Hours(20));
        // 0.075 and 0.025 lie between two: half goes up, not to the even one
        Assert.Equal([0.08m, 0.03m, 12.25m], new[] { 5, 2, 735 }.Select(WorkTime.Hours));
        Gen.Int[1, 100_000].Sample(minutes => Math.Abs(WorkTime.Hours(minutes) * 60 - minutes) <= 0.3m);
    }
}
