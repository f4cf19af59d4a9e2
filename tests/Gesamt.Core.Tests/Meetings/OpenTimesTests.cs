using Gesamt.Core.Meetings;

namespace Gesamt.Core.Tests.Meetings;

public sealed class OpenTimesTests
{
    private static readonly MeetingRule Rule = new(30, 30, 0, 0, 14, null);

    private static StudioCalendar In(string zone, params string[] off) =>
        new(DateTimeZoneProviders.Tzdb[zone], [.. off.Select(World.Date)], new(8, 0), new(18, 0));

    private static OpenSpan Open(IsoDayOfWeek day, int from, int until) =>
        new(day, new(from, 0), until == 24 ? LocalTime.Midnight : new(until, 0));

    private static string[] Times(StudioCalendar calendar, IEnumerable<Instant> starts, string date) =>
        [
            .. starts
                .Select(start => start.InZone(calendar.Zone))
                .Where(at => at.Date == World.Date(date))
                .Select(at => DateWords.Time(at.TimeOfDay)),
        ];

    private static string[] Monday(
        MeetingRule rule,
        Taken[]? meetings = null,
        Busy[]? busy = null,
        params OpenSpan[] hours
    ) =>
        Times(
            World.Calendar,
            OpenTimes.Of(
                rule,
                hours.Length > 0 ? hours : [Open(IsoDayOfWeek.Monday, 10, 12)],
                World.Calendar,
                meetings ?? [],
                busy ?? [],
                World.At("2027-01-25 09:00")
            ),
            "2027-01-25"
        );

    private static Taken Meeting(string from, string until, int buffer = 0) =>
        new(World.At($"2027-01-25 {from}"), World.At($"2027-01-25 {until}"), buffer);

    [Fact]
    public void Starts_lie_on_the_grid_and_the_meeting_inside_the_span()
    {
        Assert.Equal(["10:00", "10:30", "11:00", "11:30"], Monday(Rule));
        Assert.Equal(["10:00", "10:30", "11:00"], Monday(Rule with { Minutes = 45 }));
        Assert.Equal(["10:00", "10:45", "11:30"], Monday(Rule with { Step = 45 }));
        Assert.Empty(Monday(Rule with { Minutes = 121 }));
    }

    [Fact]
    public void Two_spans_that_overlap_offer_each_time_once() =>
        Assert.Equal(
            ["10:00", "10:30", "11:00", "11:30"],
            Monday(Rule, null, null, Open(IsoDayOfWeek.Monday, 10, 12), Open(IsoDayOfWeek.Monday, 11, 12))
        );

    [Fact]
    public void The_larger_buffer_of_two_meetings_counts()
    {
        Assert.Equal(["10:00", "11:30"], Monday(Rule, [Meeting("10:30", "11:30")]));
        Assert.Equal(["10:00", "11:30"], Monday(Rule with { Buffer = 0 }, [Meeting("10:45", "11:15", 15)]));
        Assert.Equal(["10:00", "11:30"], Monday(Rule with { Buffer = 15 }, [Meeting("10:45", "11:15", 5)]));
        Assert.Empty(Monday(Rule with { Buffer = 5 }, [Meeting("10:45", "11:15", 20)]));
        Assert.Equal(["11:30"], Monday(Rule with { Buffer = 30 }, [Meeting("10:30", "11:00")]));
    }

    [Fact]
    public void Buffers_may_lie_outside_the_span_and_busy_times_have_none()
    {
        Assert.Equal(["10:00", "10:30", "11:00", "11:30"], Monday(Rule with { Buffer = 60 }));
        Assert.Equal(
            ["10:00", "11:30"],
            Monday(Rule with { Buffer = 60 }, null, [new(World.At("2027-01-25 10:30"), World.At("2027-01-25 11:30"))])
        );
    }

    [Fact]
    public void Notice_the_furthest_day_and_days_off_narrow_it()
    {
        Assert.Equal(["11:00", "11:30"], Monday(Rule with { NoticeHours = 2 }));
        string[] Days(MeetingRule rule, StudioCalendar calendar) =>
            [
                .. OpenTimes
                    .Of(rule, [Open(IsoDayOfWeek.Monday, 10, 11)], calendar, [], [], World.At("2027-01-25 09:00"))
                    .Select(start => NodaTime.Text.LocalDatePattern.Iso.Format(calendar.DateOf(start)))
                    .Distinct(),
            ];
        Assert.Equal(["2027-01-25", "2027-02-01", "2027-02-08"], Days(Rule, World.Calendar));
        Assert.Equal(["2027-01-25", "2027-02-01"], Days(Rule with { DaysAhead = 13 }, World.Calendar));
        Assert.Equal(["2027-01-25", "2027-02-08"], Days(Rule, In("Europe/Dublin", "2027-02-01")));
    }

    [Fact]
    public void Most_per_day_counts_meetings_of_all_kinds_on_the_studios_day()
    {
        Assert.Empty(Monday(Rule with { MostPerDay = 1 }, [Meeting("15:00", "15:30")]));
        Assert.NotEmpty(Monday(Rule with { MostPerDay = 2 }, [Meeting("15:00", "15:30")]));
        // half past midnight in Dublin's summer is the day before in UTC, and still Dublin's day
        var late = new Taken(World.At("2027-07-05 00:30"), World.At("2027-07-05 01:00"), 0);
        Assert.Empty(
            Times(
                World.Calendar,
                OpenTimes.Of(
                    Rule with
                    {
                        MostPerDay = 1,
                    },
                    [Open(IsoDayOfWeek.Monday, 10, 12)],
                    World.Calendar,
                    [late],
                    [],
                    World.At("2027-07-04 09:00")
                ),
                "2027-07-05"
            )
        );
    }

    [Theory] // dates of the changes: IANA time zone database 2024a and later; Lord Howe moves by half an hour
    [InlineData("Europe/Dublin", "2027-03-28", 2)] // forward at 01:00: 00:00 to 03:00 holds two hours
    [InlineData("Europe/Dublin", "2027-10-31", 4)] // back at 02:00: it holds four
    [InlineData("America/New_York", "2027-03-14", 2)]
    [InlineData("America/New_York", "2027-11-07", 4)]
    [InlineData("Australia/Lord_Howe", "2027-10-03", 2.5)]
    [InlineData("Australia/Lord_Howe", "2027-04-04", 3.5)]
    public void A_span_across_a_clock_change_holds_the_time_there_is(string zone, string sunday, double hours)
    {
        var calendar = In(zone);
        var now = calendar.At(World.Date(sunday).PlusDays(-1) + new LocalTime(9, 0));
        var starts = OpenTimes
            .Of(Rule, [new(IsoDayOfWeek.Sunday, new(0, 0), new(3, 0))], calendar, [], [], now)
            .Where(start => calendar.DateOf(start) == World.Date(sunday))
            .ToList();
        Assert.Equal((int)(hours * 2), starts.Count);
        Assert.All(
            starts.Zip(starts.Skip(1)),
            pair => Assert.Equal(Duration.FromMinutes(30), pair.Second - pair.First)
        );
    }

    [Theory]
    [InlineData("Europe/Dublin", "2027-03-29")]
    [InlineData("America/New_York", "2027-03-15")]
    [InlineData("Australia/Lord_Howe", "2027-10-04")]
    public void The_day_after_a_change_opens_at_its_local_time(string zone, string monday)
    {
        var calendar = In(zone);
        var starts = OpenTimes.Of(
            Rule,
            [Open(IsoDayOfWeek.Monday, 10, 12)],
            calendar,
            [],
            [],
            calendar.At(World.Date(monday).PlusDays(-3) + new LocalTime(9, 0))
        );
        Assert.Equal(["10:00", "10:30", "11:00", "11:30"], Times(calendar, starts, monday));
    }

    [Fact]
    public void Whatever_is_taken_an_offered_time_never_touches_it_nor_its_buffer()
    {
        var zone = Any.Of("Europe/Dublin", "America/New_York", "Australia/Lord_Howe");
        var start = World.At("2027-03-08 00:00");
        var taken = Gen.Select(Gen.Int[0, 40 * 48], Gen.Int[1, 8], Gen.Int[0, 60])
            .Select(
                (at, quarters, buffer) =>
                    new Taken(
                        start + Duration.FromMinutes(at * 30),
                        start + Duration.FromMinutes(at * 30 + quarters * 15),
                        buffer
                    )
            );
        Gen.Select(zone, taken.Array[0, 12], taken.Array[0, 6], Gen.Int[1, 12], Gen.Int[0, 45])
            .Sample(
                (name, meetings, elsewhere, quarters, buffer) =>
                {
                    var calendar = In(name);
                    var rule = new MeetingRule(quarters * 15, 15, buffer, 12, 40, 3);
                    var busy = elsewhere.Select(t => new Busy(t.Start, t.End)).ToArray();
                    var hours = Enum.GetValues<IsoDayOfWeek>()
                        .Where(day => day != IsoDayOfWeek.None)
                        .Select(day => new OpenSpan(day, new(0, 0), new(20, 0)))
                        .ToArray();
                    foreach (var offered in OpenTimes.Of(rule, hours, calendar, meetings, busy, start))
                    {
                        var end = offered + Duration.FromMinutes(rule.Minutes);
                        Assert.True(offered >= start + Duration.FromHours(12));
                        Assert.All(busy, b => Assert.True(end <= b.Start || offered >= b.End));
                        Assert.All(
                            meetings,
                            m =>
                                Assert.True(
                                    end + Duration.FromMinutes(Math.Max(buffer, m.Buffer)) <= m.Start
                                        || offered >= m.End + Duration.FromMinutes(Math.Max(buffer, m.Buffer))
                                )
                        );
                        Assert.True(meetings.Count(m => calendar.DateOf(m.Start) == calendar.DateOf(offered)) < 3);
                    }
                },
                iter: 40
            );
    }
}
