using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public sealed class WorkClockTests
{
    private static (string Day, int Minutes)[] Days(Instant started, Instant stopped) =>
        [
            .. WorkClock
                .ByDay(started, stopped, World.Calendar)
                .Select(day => (NodaTime.Text.LocalDatePattern.Iso.Format(day.Day), day.Minutes)),
        ];

    [Fact]
    public void A_clock_that_ran_over_midnight_is_split_by_local_day() =>
        Assert.Equal([("2027-01-25", 70), ("2027-01-26", 95)], Days(At("2027-01-25 22:50"), At("2027-01-26 01:35")));

    [Fact] // the clocks went forward from 1:00 to 2:00 that night: from 23:00 to 3:00 are three hours
    public void The_hour_that_is_not_there_is_not_worked() =>
        Assert.Equal([("2027-03-27", 60), ("2027-03-28", 120)], Days(At("2027-03-27 23:00"), At("2027-03-28 03:00")));

    [Fact]
    public void Half_a_minute_goes_up_and_something_is_at_least_a_minute()
    {
        var begun = At("2027-01-25 10:00");
        Assert.Equal(2, WorkClock.Minutes(begun, begun + Duration.FromSeconds(90)));
        Assert.Equal(1, WorkClock.Minutes(begun, begun + Duration.FromSeconds(89)));
        Assert.Equal([("2027-01-25", 1)], Days(begun, begun));
    }

    [Fact]
    public void More_than_twelve_hours_are_asked_about()
    {
        var begun = At("2027-01-25 09:00");
        Assert.False(WorkClock.IsAskedAbout(begun, begun + Duration.FromHours(12)));
        Assert.True(WorkClock.IsAskedAbout(begun, begun + Duration.FromHours(12) + Duration.FromSeconds(1)));
    }

    [Fact]
    public void The_days_add_up_to_what_it_ran()
    {
        var gen =
            from start in Gen.Int[0, 366 * 24 * 60 * 60]
            from seconds in Gen.Int[0, 72 * 60 * 60]
            select (start, seconds);
        gen.Sample(drawn =>
        {
            var started = At("2027-01-01 00:00") + Duration.FromSeconds(drawn.start);
            var stopped = started + Duration.FromSeconds(drawn.seconds);
            var days = WorkClock.ByDay(started, stopped, World.Calendar);
            // a day of 25 hours counts 24: what ran in it beyond them is left out
            var missing = WorkClock.Minutes(started, stopped) - days.Sum(day => day.Minutes);
            var most = days.Any(day => day.Minutes == Gesamt.Core.Calendar.WorkTime.Most) ? 60 : 0;
            Assert.True(missing >= 0 && missing <= most, $"{missing} minutes of {drawn} are missing");
            Assert.All(days, day => Assert.InRange(day.Minutes, 1, Gesamt.Core.Calendar.WorkTime.Most));
            Assert.Equal(days.Select(day => day.Day).Order().Distinct(), days.Select(day => day.Day));
        });
    }

    [Theory] // common practice: 3,000 over 40 h; over 0 h
    [InlineData(3_000, 0, 40 * 60, "75")]
    [InlineData(3_000, 600, 40 * 60, "60")]
    [InlineData(100, 0, 90, "66.67")]
    [InlineData(100, 400, 60, "-300")]
    [InlineData(3_000, 0, 0, null)]
    public void An_hour_earns_what_is_left_of_the_price(int net, int costs, int minutes, string? each) =>
        Assert.Equal(
            each is null ? (Money?)null : Eur(decimal.Parse(each, System.Globalization.CultureInfo.InvariantCulture)),
            Earned.PerHour(Eur(net), Eur(costs), minutes)
        );
}
