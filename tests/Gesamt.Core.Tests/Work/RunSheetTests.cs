using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

/// <summary>Run sheets: their days, each reader's copy, what changed.</summary>
public sealed class RunSheetTests
{
    private static RunItem Item(
        string what,
        int day = 0,
        int hour = 9,
        int minute = 0,
        RunFor whom = RunFor.Everybody,
        int minutes = 0,
        int? earlier = null
    ) => new(what, day, new LocalTime(hour, minute), minutes, what, "", "", whom, earlier);

    private static RunSheet Sheet(int earlier, params RunItem[] items) => new(Date("2027-09-10"), earlier, [.. items]);

    private static string[] Told(RunSheet sheet, RunReader reader) =>
        [
            .. RunSheetRule
                .Copy(sheet, reader)
                .SelectMany(day => day.Lines.Select(line => $"{day.Day} {line.Told:HH:mm} {line.Item.What}")),
        ];

    /// <summary>Common practice: an event on a Friday, prepared from two days before, cleared the day after.</summary>
    [Fact]
    public void From_two_days_before_to_one_day_after_there_are_four_days_with_their_weekdays()
    {
        var days = RunSheetRule.Copy(Sheet(0, Item("Van", -2), Item("Doors", 0, 18), Item("Clear", 1)), RunReader.Me);
        Assert.Equal(
            [Date("2027-09-08"), Date("2027-09-09"), Date("2027-09-10"), Date("2027-09-11")],
            days.Select(day => day.Date!.Value)
        );
        Assert.Equal(["Wed", "Thu", "Fri", "Sat"], days.Select(day => day.Date!.Value.DayOfWeek.ToString()[..3]));
        Assert.Empty(days[1].Lines);
    }

    /// <summary>Common practice: guests come late, so they are told half an hour early; who supplies is told the truth.</summary>
    [Fact]
    public void Guests_are_told_half_an_hour_earlier_and_suppliers_the_true_start()
    {
        var sheet = Sheet(30, Item("Doors", 0, 18));
        Assert.Equal(["0 17:30 Doors"], Told(sheet, RunReader.Guests));
        Assert.Equal(["0 18:00 Doors"], Told(sheet, RunReader.Suppliers));
        var mine = RunSheetRule.Copy(sheet, RunReader.Me)[0].Lines[0];
        Assert.Equal((new LocalTime(18, 0), new LocalTime(17, 30)), (mine.Told, mine.GuestsTold!.Value));
        Assert.Null(RunSheetRule.Copy(sheet, RunReader.Guests)[0].Lines[0].GuestsTold);
    }

    [Fact]
    public void What_guests_are_told_shortly_after_midnight_may_be_the_evening_before() =>
        Assert.Equal(["0 23:45 Fireworks"], Told(Sheet(30, Item("Fireworks", 1, 0, 15)), RunReader.Guests));

    [Fact]
    public void An_item_can_have_its_own_earlier_time_or_none() =>
        Assert.Equal(
            ["0 17:45 Doors", "0 19:00 Supper"],
            Told(Sheet(30, Item("Supper", 0, 19, earlier: 0), Item("Doors", 0, 18, earlier: 15)), RunReader.Guests)
        );

    [Fact]
    public void Within_an_hour_the_order_is_as_written_and_an_end_past_midnight_is_told() =>
        Assert.Equal(
            ["Band", "Bar"],
            RunSheetRule
                .Copy(Sheet(0, Item("Band", 0, 22, minutes: 180), Item("Bar", 0, 22)), RunReader.Suppliers)[0]
                .Lines.Select(line =>
                {
                    Assert.Equal(line.Item.What == "Band" ? new LocalTime(1, 0) : null, line.Until);
                    return line.Item.What;
                })
        );

    /// <summary>Each copy holds its own readers' items and those for everybody; what is the owner's alone is in no other copy, nor in what is agreed.</summary>
    [Fact]
    public void No_copy_shows_what_is_for_others() =>
        (
            from items in (
                from whom in Gen.Enum<RunFor>()
                from day in Gen.Int[-3, 3]
                from minute in Gen.Int[0, 1439]
                from length in Gen.Int[0, 600]
                select (whom, day, minute, length)
            ).Array[0, 12]
            from earlier in Gen.Int[0, 240]
            select (items, earlier)
        ).Sample(one =>
        {
            var sheet = Sheet(
                one.earlier,
                [
                    .. one.items.Select(
                        (item, i) => Item($"{i}", item.day, item.minute / 60, item.minute % 60, item.whom, item.length)
                    ),
                ]
            );
            int Count(params RunFor[] of) => sheet.Items.Count(item => of.Contains(item.For));
            Assert.Equal(sheet.Items.Length, Told(sheet, RunReader.Me).Length);
            Assert.Equal(sheet.Items.Length - Count(RunFor.Me), Told(sheet, RunReader.Client).Length);
            Assert.Equal(Count(RunFor.Everybody, RunFor.Suppliers), Told(sheet, RunReader.Suppliers).Length);
            Assert.Equal(Count(RunFor.Everybody, RunFor.Guests), Told(sheet, RunReader.Guests).Length);
            Assert.DoesNotContain(RunSheetRule.Shared(sheet).Items, item => item.For == RunFor.Me);
            Assert.Empty(RunSheetRule.Changes(sheet, sheet));
        });

    [Fact]
    public void What_changed_since_it_was_agreed_is_said()
    {
        var agreed = Sheet(30, Item("Doors", 0, 18), Item("Van", -1), Item("Speech", 0, 19));
        var now = agreed with
        {
            MainDay = Date("2027-09-17"),
            Items = [Item("Doors", 0, 18, 30), agreed.Items[1], Item("Supper", 0, 20)],
        };
        Assert.Equal(
            [
                "The day is Friday 17 September 2027 instead of Friday 10 September 2027",
                "Doors: 18:30 instead of 18:00",
                "New: Supper, 20:00",
                "Taken out: Speech, 19:00",
            ],
            RunSheetRule.Changes(agreed, now)
        );
    }
}
