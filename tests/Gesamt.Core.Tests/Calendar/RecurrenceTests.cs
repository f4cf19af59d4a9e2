using Ical.Net.DataTypes;

namespace Gesamt.Core.Tests.Calendar;

public class RecurrenceTests
{
    private static LocalDate?[] Days(Recurrence recurrence, int count) =>
        [.. Enumerable.Range(0, count).Select(recurrence.DayOf)];

    [Fact] // common practice
    public void Monthly_from_the_31st_clamps_and_comes_back() =>
        Assert.Equal(
            [new LocalDate(2027, 1, 31), new(2027, 2, 28), new(2027, 3, 31), new(2027, 4, 30)],
            Days(new(Every.Month, new(2027, 1, 31)), 4)
        );

    [Theory] // RFC 5545 by Ical.Net; for months the last of BYMONTHDAY=28..31 is what clamping gives
    [InlineData(Every.Week, "FREQ=WEEKLY")]
    [InlineData(Every.TwoWeeks, "FREQ=WEEKLY;INTERVAL=2")]
    [InlineData(Every.Month, "FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1")]
    public void Days_agree_with_an_independent_expansion(Every every, string rule)
    {
        var theirs = new Ical.Net.CalendarComponents.CalendarEvent
        {
            Start = new CalDateTime(2024, 1, 31),
            RecurrenceRule = new RecurrenceRule(rule),
        }
            .GetOccurrences(new CalDateTime(2024, 1, 31))
            .Take(60)
            .Select(o => (LocalDate?)LocalDate.FromDateTime(o.Period.StartTime.Value))
            .ToArray();
        Assert.Equal(theirs, Days(new(every, new(2024, 1, 31)), 60));
    }

    [Fact] // R4: a leap day comes back every fourth year
    public void Yearly_from_a_leap_day_clamps_in_between() =>
        Assert.Equal(
            [new LocalDate(2028, 2, 29), new(2029, 2, 28), new(2030, 2, 28), new(2031, 2, 28), new(2032, 2, 29)],
            Days(new(Every.Year, new(2028, 2, 29)), 5)
        );

    [Fact]
    public void It_ends_with_its_last_day_or_its_count()
    {
        Assert.Equal(
            [new LocalDate(2027, 1, 25), new(2027, 2, 1), null],
            Days(new(Every.Week, new(2027, 1, 25), Until: new(2027, 2, 1)), 3)
        );
        Assert.Equal(
            [new LocalDate(2027, 1, 25), new(2027, 2, 1), null],
            Days(new(Every.Week, new(2027, 1, 25), Count: 2), 3)
        );
    }

    [Fact] // whatever the day it begins on: no day between two periods, and none in both
    public void Periods_follow_each_other_without_gap() =>
        Gen.Select(Gen.Enum<Every>(), Gen.Int[0, 3_000], Gen.Int[0, 60])
            .Sample(
                (every, day, k) =>
                {
                    var recurrence = new Recurrence(every, new LocalDate(2024, 1, 1).PlusDays(day));
                    var (from, until) = recurrence.PeriodOf(k);
                    return from == recurrence.DayOf(k)
                        && until.PlusDays(1) == recurrence.PeriodOf(k + 1).From
                        && from <= until;
                }
            );
}
