using Gesamt.Core.Meetings;
using Gesamt.Core.Planning;

namespace Gesamt.Core.Tests.Planning;

/// <summary>How full days are against open hours.</summary>
public sealed class LoadTests
{
    private static readonly LocalDate Monday = World.Date("2027-01-25");

    private static readonly OpenSpan[] Hours =
    [
        .. Enumerable.Range(1, 5).Select(day => new OpenSpan((IsoDayOfWeek)day, new(9, 0), new(day == 5 ? 14 : 16, 0))),
    ];

    private static DayLoad[] Week(TakenTime[]? meetings = null, params DayTask[] tasks) =>
        [.. Load.Of(Monday, 7, Hours, World.Calendar, meetings ?? [], tasks)];

    private static TakenTime Meeting(string from, string until) => new(World.At(from), World.At(until));

    [Fact]
    public void A_day_holds_its_meetings_and_the_estimates_of_its_tasks()
    {
        var week = Week(
            [Meeting("2027-01-25 09:00", "2027-01-25 10:30")],
            new(Monday, 300),
            new(Monday.PlusDays(1), 540)
        );
        Assert.Equal(new DayLoad(Monday, 420, 90, 300, 0), week[0]);
        Assert.Equal("6 h 30 min of 7 h", week[0].Words);
        Assert.Equal((0, 120), (week[0].Over, week[1].Over));
        Assert.Equal(("5 h open", ""), (week[4].Words, week[5].Words));
        Assert.Equal("15 h 30 min planned of 33 h open. Tuesday holds 2 h too much.", Load.Summary(week));
    }

    [Fact]
    public void A_task_that_says_no_hours_is_counted_beside_and_not_guessed()
    {
        var week = Week(null, new(Monday, null), new(Monday, 60), new(Monday.PlusDays(2), null));
        Assert.Equal((60, 1), (week[0].Planned, week[0].Unestimated));
        Assert.Equal("1 h planned of 33 h open. 2 tasks say no hours.", Load.Summary(week));
    }

    [Fact]
    public void A_day_off_is_not_open_and_what_is_planned_on_it_is_too_much()
    {
        var calendar = World.Calendar with { DaysOff = [Monday] };
        var day = Load.Of(Monday, 1, Hours, calendar, [], [new(Monday, 120)]).Single();
        Assert.Equal((0, 120, "2 h"), (day.Open, day.Over, day.Words));
        Assert.Equal("2 h planned, none open. Monday holds 2 h too much.", Load.Summary([day]));
    }

    [Fact]
    public void Hours_that_overlap_are_open_once_and_a_span_until_midnight_ends_with_the_day()
    {
        OpenSpan[] hours =
        [
            new(IsoDayOfWeek.Monday, new(9, 0), new(12, 0)),
            new(IsoDayOfWeek.Monday, new(11, 0), new(13, 0)),
            new(IsoDayOfWeek.Monday, new(11, 30), new(12, 0)),
            new(IsoDayOfWeek.Monday, new(22, 0), LocalTime.Midnight),
        ];
        Assert.Equal(6 * 60, Load.OpenMinutes(Monday, hours, World.Calendar));
    }

    // Dublin's clocks go forward at 01:00 on Sunday 28 March 2027 and back at 02:00 on 31 October (IANA time zone database)
    [Theory]
    [InlineData("2027-03-28", 3 * 60)]
    [InlineData("2027-10-31", 5 * 60)]
    public void On_the_day_the_clocks_change_a_span_is_as_long_as_it_lasts(string day, int minutes) =>
        Assert.Equal(
            minutes,
            Load.OpenMinutes(World.Date(day), [new(IsoDayOfWeek.Sunday, LocalTime.Midnight, new(4, 0))], World.Calendar)
        );

    [Fact]
    public void A_meeting_over_midnight_takes_up_each_day_for_its_part()
    {
        var week = Week([Meeting("2027-01-25 22:30", "2027-01-27 01:00")]);
        Assert.Equal([90, 24 * 60, 60, 0], week.Take(4).Select(day => day.Meetings));
    }

    [Fact]
    public void What_was_done_before_its_day_takes_up_the_day_it_was_done()
    {
        var (wednesday, tuesday) = (Monday.PlusDays(2), Monday.PlusDays(1));
        Assert.Equal(tuesday, Load.DayOf(wednesday, tuesday));
        Assert.Equal(wednesday, Load.DayOf(wednesday, null));
        Assert.Equal(wednesday, Load.DayOf(wednesday, wednesday.PlusDays(5)));
    }

    [Fact]
    public void The_sum_of_the_days_is_the_sum_of_what_was_planned() =>
        Gen.Select(
                Gen.Select(Gen.Int[0, 6], Gen.Int[1, 600]).Array[0, 20],
                Gen.Select(Gen.Int[0, 6 * 24 * 60], Gen.Int[1, 24 * 60]).Array[0, 10]
            )
            .Sample(
                (tasks, meetings) =>
                {
                    var start = World.Calendar.StartOf(Monday);
                    var week = Week(
                        [
                            .. meetings.Select(one => new TakenTime(
                                start + Duration.FromMinutes(one.Item1),
                                start + Duration.FromMinutes(one.Item1 + one.Item2)
                            )),
                        ],
                        [.. tasks.Select(one => new DayTask(Monday.PlusDays(one.Item1), one.Item2))]
                    );
                    Assert.Equal(
                        tasks.Sum(one => one.Item2) + meetings.Sum(one => one.Item2),
                        week.Sum(day => day.Planned)
                    );
                    Assert.All(week, day => Assert.Equal(Math.Max(0, day.Planned - day.Open), day.Over));
                }
            );

    [Theory]
    [InlineData(10, "2027-02-08")]
    [InlineData(23, "2027-02-08")]
    [InlineData(24, "2027-02-15")]
    [InlineData(34, null)]
    public void The_next_free_start_is_the_Monday_of_the_first_week_that_leaves_enough(int hours, string? monday)
    {
        // 33 h are open a week; the first is full, and the second leaves 23 h
        var days = Load.Of(
            Monday,
            28,
            Hours,
            World.Calendar,
            [],
            [new(Monday.PlusDays(7), 32 * 60), new(Monday, 33 * 60), new(Monday.PlusDays(14), 10 * 60)]
        );
        Assert.Equal(monday is null ? null : World.Date(monday), FreeStart.Of(days.Chunk(7), hours, Monday));
    }

    [Fact]
    public void A_week_that_has_begun_is_no_start() =>
        Assert.Equal(
            Monday.PlusDays(7),
            FreeStart.Of(Load.Of(Monday, 14, Hours, World.Calendar, [], []).Chunk(7), 10, Monday.PlusDays(1))
        );
}
