using Gesamt.Core.Forms;
using Gesamt.Core.Texts;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Texts;

/// <summary>One style for everything a studio writes and reads.</summary>
public sealed class HouseStyleTests
{
    private static T In<T>(HouseStyle style, Func<T> work)
    {
        // what is set here ends with this test's own work
        HouseStyle.Current = style;
        return work();
    }

    private static HouseStyle With(NumberLook numbers) => HouseStyle.Plain with { Numbers = numbers };

    private static readonly HouseStyle American = new(NumberLook.CommaPoint, DayOrder.MonthFirst, ClockHours.Twelve);

    [Theory] // CLDR 45, main numbers of en-IE, de-DE, fr-FR, de-CH; the first is ours
    [InlineData(NumberLook.SpacePoint, "€ 1 234.50"), InlineData(NumberLook.CommaPoint, "€ 1,234.50")]
    [InlineData(NumberLook.PointComma, "€ 1.234,50"), InlineData(NumberLook.SpaceComma, "€ 1 234,50")]
    [InlineData(NumberLook.ApostrophePoint, "€ 1’234.50")]
    public void Amounts_are_grouped_and_parted_as_the_house_does(NumberLook numbers, string expected) =>
        Assert.Equal(
            expected,
            In(With(numbers), () => MoneyText.Of(Eur(1234.5m))).Replace('\u00a0', ' ').Replace('\u202f', ' ')
        );

    [Theory] // common practice: what could be two numbers is asked about only where the house's own mark stands in it
    [InlineData(NumberLook.CommaPoint, "4,20", "4.2"), InlineData(NumberLook.PointComma, "4,20", "4.2")]
    [InlineData(NumberLook.CommaPoint, "2,000", "2000"), InlineData(NumberLook.PointComma, "2.000", "2000")]
    [InlineData(NumberLook.CommaPoint, "1.500", null), InlineData(NumberLook.PointComma, "1.500", "1500")]
    [InlineData(NumberLook.PointComma, "1,500", null), InlineData(NumberLook.SpaceComma, "1 500", "1500")]
    [InlineData(NumberLook.ApostrophePoint, "1’500.50", "1500.5")]
    public void Amounts_are_read_by_the_marks_of_the_house(NumberLook numbers, string text, string? expected) =>
        Assert.Equal(
            expected,
            In(With(numbers), () => NumberReading.Amount(text))
                ?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)
        );

    [Fact] // what a field shows is read as the same number again, in every style
    public void What_is_written_reads_as_it_was() =>
        Gen.Select(Gen.Enum<NumberLook>(), Gen.Long[0, 10_000_000_000])
            .Sample(
                (numbers, millionths) =>
                    In(
                        With(numbers),
                        () =>
                            NumberText.Exact(NumberText.Number(millionths / 1_000_000m)) == millionths / 1_000_000m
                            && NumberReading.Of(MoneyText.Figures(new(millionths, Currency.Eur))) == millionths / 100m
                    )
            );

    [Theory] // ISO 4217: the dinar of Kuwait has three decimals, which are never taken for thousands
    [InlineData("EUR", NumberLook.SpacePoint, 123450, "1234.50")]
    [InlineData("EUR", NumberLook.PointComma, 123450, "1234,50")]
    [InlineData("JPY", NumberLook.PointComma, 1234, "1234")]
    [InlineData("KWD", NumberLook.CommaPoint, 1234, "1.234")]
    [InlineData("KWD", NumberLook.PointComma, 1234, "1,234")]
    public void A_field_holds_an_amount_with_the_decimals_of_its_currency(
        string currency,
        NumberLook numbers,
        long minor,
        string expected
    ) => Assert.Equal(expected, In(With(numbers), () => MoneyText.Field(new(minor, Currency.Of(currency)))));

    [Fact]
    public void An_amount_of_any_currency_is_read_as_its_field_holds_it() =>
        Gen.Select(
                Gen.Enum<NumberLook>(),
                Gen.Int[0, 2].Select(i => new[] { "EUR", "JPY", "KWD" }[i]),
                Gen.OneOf(Gen.Long[0, 2_000_000], Gen.Long[0, 999_999_999_999])
            )
            .Sample(
                (numbers, code, minor) =>
                    In(
                        With(numbers),
                        () =>
                            new Money(minor, Currency.Of(code)) is var money
                            && NumberReading.Amount(MoneyText.Field(money), currency: money.Currency) == money.Major
                    )
            );

    [Theory]
    [InlineData("3/4", "2027-04-03", "2027-03-04"), InlineData("3/4/2028", "2028-04-03", "2028-03-04")]
    [InlineData("25/12", "2027-12-25", "2027-12-25"), InlineData("12/25", "2027-12-25", "2027-12-25")]
    [InlineData("3.4.", "2027-04-03", "2027-04-03")] // after dots the day comes first everywhere
    public void Slashes_put_the_parts_in_the_order_of_the_house(string text, string dayFirst, string monthFirst)
    {
        LocalDate? Read() => TypedDate.Day(text, Date("2027-01-25"), World.Calendar);
        Assert.Equal(Date(dayFirst), In(HouseStyle.Plain, Read));
        Assert.Equal(Date(monthFirst), In(American, Read));
    }

    [Fact]
    public void Days_and_times_stand_in_the_order_of_the_house()
    {
        var (day, today) = (Date("2027-03-12"), Date("2027-01-25"));
        Assert.Equal(("Fri 12 Mar", "12 March 2027", "Friday 12 March", "14:30"), In(HouseStyle.Plain, Words));
        Assert.Equal(("Fri Mar 12", "March 12, 2027", "Friday, March 12", "2:30 pm"), In(American, Words));

        (string, string, string, string) Words() =>
            (DateWords.Short(day, today), DateWords.Long(day), DateWords.OfToday(day), DateWords.Time(new(14, 30)));
    }

    [Theory]
    [InlineData(0, "12:05 am"), InlineData(11, "11:05 am"), InlineData(12, "12:05 pm"), InlineData(23, "11:05 pm")]
    public void Noon_and_midnight_are_twelve(int hour, string expected) =>
        Assert.Equal(expected, In(American, () => DateWords.Time(new(hour, 5))));

    [Fact] // whoever reads what the page shows reads the same time
    public void Every_time_that_is_shown_is_read_again() =>
        Gen.Select(Gen.Bool, Gen.Int[0, 24 * 60 - 1])
            .Sample(
                (twelve, minute) =>
                    In(
                        twelve ? American : HouseStyle.Plain,
                        () =>
                            TypedDate.Time(DateWords.Time(LocalTime.Midnight.PlusMinutes(minute)))
                            == LocalTime.Midnight.PlusMinutes(minute)
                    )
            );

    [Theory]
    [InlineData(NumberLook.PointComma, "4,2 x 7,5", "31,5 m²")]
    [InlineData(NumberLook.CommaPoint, "4.2 x 7.5", "31.5 m²")]
    public void What_was_understood_of_a_size_is_said_in_the_houses_style(NumberLook numbers, string text, string said)
    {
        var field = new FormField("size", FieldSort.Number, "Size", Unit: "m²");
        In(
            HouseStyle.Plain with
            {
                Numbers = numbers,
            },
            () =>
            {
                Assert.Equal(said, Sizes.Understood(field, text));
                Assert.Equal("31.5", Sizes.Value(field, text));
                Assert.Equal(said.Split(' ')[0], Sizes.InHouse(field, "31.5"));
                return true;
            }
        );
    }

    [Fact]
    public async Task A_style_goes_with_its_own_work_alone()
    {
        HouseStyle.Current = HouseStyle.Plain;
        var other = Task.Run(
            () => In(American, () => DateWords.Time(new(14, 30))),
            TestContext.Current.CancellationToken
        );
        Assert.Equal("2:30 pm", await other);
        Assert.Equal("14:30", DateWords.Time(new(14, 30)));
    }
}
