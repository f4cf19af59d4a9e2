using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Calendar;

public class StudioCalendarTests
{
    [Theory] // common practice
    [InlineData("2027-09-10", -60, SpanUnit.Days, "2027-07-12")]
    [InlineData("2027-09-10", -70, SpanUnit.Days, "2027-07-02")]
    [InlineData("2027-04-16", -60, SpanUnit.Days, "2027-02-15")]
    [InlineData("2027-04-16", -70, SpanUnit.Days, "2027-02-05")]
    [InlineData("2027-06-12", -4, SpanUnit.Months, "2027-02-12")]
    [InlineData("2027-10-31", -3, SpanUnit.Months, "2027-07-31")]
    [InlineData("2027-10-31", -6, SpanUnit.Months, "2027-04-30")]
    [InlineData("2027-10-31", -8, SpanUnit.Months, "2027-02-28")]
    [InlineData("2027-01-22", 1, SpanUnit.BusinessDays, "2027-01-25")]
    [InlineData("2027-01-24", -1, SpanUnit.BusinessDays, "2027-01-22")]
    public void A_step_counts_from_its_date(string date, int count, SpanUnit unit, string expected) =>
        Assert.Equal(Date(expected), World.Calendar.Add(Date(date), new Span(count, unit)));

    [Fact] // NodaTime's lenient resolver: skipped times move forward by the gap, doubled ones take the earlier
    public void Local_times_that_do_not_exist_or_exist_twice_are_resolved()
    {
        Assert.Equal(Instant.FromUtc(2027, 3, 28, 1, 30), World.Calendar.At(new LocalDateTime(2027, 3, 28, 1, 30)));
        Assert.Equal(Instant.FromUtc(2027, 10, 31, 0, 30), World.Calendar.At(new LocalDateTime(2027, 10, 31, 1, 30)));
    }

    [Fact]
    public void Days_keep_the_time_of_day_over_a_clock_change_and_hours_do_not()
    {
        var saturday = At("2027-03-27 18:00");
        Assert.Equal(At("2027-03-28 18:00"), World.Calendar.Add(saturday, Span.Days(1)));
        Assert.Equal(At("2027-03-28 19:00"), World.Calendar.Add(saturday, Span.Hours(24)));
    }

    [Theory] // Mon–Fri, 08:00 to 18:00
    [InlineData("2027-01-25 10:30", false, "2027-01-25 10:30")]
    [InlineData("2027-01-25 18:00", false, "2027-01-26 08:00")]
    [InlineData("2027-01-22 20:00", false, "2027-01-25 08:00")]
    [InlineData("2027-01-24 12:00", true, "2027-01-22 17:59")]
    [InlineData("2027-01-25 07:00", true, "2027-01-22 17:59")]
    public void Sending_hours_move_later_and_what_must_be_before_earlier(string at, bool earlier, string expected) =>
        Assert.Equal(At(expected), World.Calendar.WithinSendingHours(At(at), earlier));

    [Fact]
    public void Business_days_there_and_back_meet_again() =>
        Gen.Select(Gen.Int[0, 3000], Gen.Int[1, 60])
            .Sample(
                (day, count) =>
                {
                    var date = new LocalDate(2024, 1, 1).PlusDays(day);
                    var there = World.Calendar.Add(date, new Span(count, SpanUnit.BusinessDays));
                    Assert.True(World.Calendar.IsBusinessDay(there));
                    var between = Enumerable
                        .Range(1, DateWords.DaysBetween(date, there))
                        .Count(k => World.Calendar.IsBusinessDay(date.PlusDays(k)));
                    Assert.Equal(count, between);
                }
            );
}

public class WordsTests
{
    [Theory] // common practice
    [InlineData("2027-01-26", false, "due tomorrow")]
    [InlineData("2027-01-25", false, "due today")]
    [InlineData("2027-01-24", false, "1 day late")]
    [InlineData("2027-01-22", false, "3 days late")]
    [InlineData("2027-01-24", true, "")]
    public void Due_dates_are_told_in_words(string due, bool done, string words) =>
        Assert.Equal(words, DateWords.Due(Date(due), Date("2027-01-25"), done));

    [Theory] // common practice: one day after 18:00 ends at 18:00 the next day; two days, then three more, is five
    [InlineData("2027-01-25 18:00", "2027-01-27 17:59", "1 d")]
    [InlineData("2027-01-25 18:00", "2027-01-27 18:00", "2 d")]
    [InlineData("2027-01-25 18:00", "2027-01-30 18:00", "5 d")]
    [InlineData("2027-03-26 18:00", "2027-03-28 18:00", "2 d")] // the clocks went forward that night
    [InlineData("2027-01-25 06:30", "2027-01-25 10:30", "4 h")]
    public void Ages_run_from_a_local_time_to_the_same_local_time(string since, string now, string age) =>
        Assert.Equal(age, Age.Of(At(since), At(now), Dublin).Short.Replace('\u00a0', ' '));

    [Theory]
    [
        InlineData(1, AgeBand.Fresh),
        InlineData(2, AgeBand.Waiting),
        InlineData(7, AgeBand.Waiting),
        InlineData(8, AgeBand.Old)
    ]
    public void Ages_stand_in_three_columns(int days, AgeBand band) =>
        Assert.Equal(band, AgeLimits.Default.BandOf(new Age(days, 0)));

    [Fact]
    public void The_distance_of_the_opening_day_is_told() =>
        Assert.Equal("in 46 days", DateWords.Distance(Date("2027-03-12"), Date("2027-01-25")));

    [Fact] // in Dublin the clocks went back on 31 October 2027 at 02:00, so that 01:00 to 02:00 came twice
    public void An_age_never_runs_backwards_in_the_hour_that_comes_twice()
    {
        var since = World.At("2027-10-30 01:30");
        var first = World.At("2027-10-31 00:00");
        var ages = Enumerable
            .Range(0, 400)
            .Select(minute => Age.Of(since, first + NodaTime.Duration.FromMinutes(minute), World.Dublin))
            .ToList();
        Assert.All(
            ages.Zip(ages.Skip(1)),
            pair =>
                Assert.True(
                    (pair.Second.Days, pair.Second.Hours).CompareTo((pair.First.Days, pair.First.Hours)) >= 0
                        || pair.Second.Days > pair.First.Days
                )
        );
        Assert.Equal(1, Age.Of(since, World.At("2027-10-31 01:30"), World.Dublin).Days);
    }
}
