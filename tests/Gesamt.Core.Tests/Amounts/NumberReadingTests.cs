namespace Gesamt.Core.Tests.Amounts;

public class NumberReadingTests
{
    [Theory] // common practice; every one of them stands on a page of the product or was typed by somebody
    [
        InlineData("2,000", "2000"),
        InlineData("2 000", "2000"),
        InlineData("4,20", "4.20"),
        InlineData("19,99", "19.99"),
        InlineData("1,5", "1.5"),
        InlineData("€ 6 642.00", "6642.00")
    ]
    [
        InlineData("1,234.50", "1234.50"),
        InlineData("1.234,50", "1234.50"),
        InlineData("1 234,50", "1234.50"),
        InlineData("1’234.50", "1234.50"),
        InlineData("1.234.567", "1234567"),
        InlineData("0,500", "0.5")
    ]
    [
        InlineData(".5", "0.5"),
        InlineData("1200,5 EUR", "1200.5"),
        InlineData("EUR 12", "12"),
        InlineData("1234,567", "1234.567"),
        InlineData("−3", "-3")
    ]
    public void Numbers_are_read_as_people_write_them(string text, string number) =>
        Assert.Equal(decimal.Parse(number, System.Globalization.CultureInfo.InvariantCulture), NumberReading.Of(text));

    [Theory]
    [
        InlineData(""),
        InlineData("ask"),
        InlineData("1,2,3"),
        InlineData("12 5"),
        InlineData("1,23,456"),
        InlineData("1.2.3"),
        InlineData("1,234.567,8"),
        InlineData("5-6"),
        InlineData("1e3"),
        InlineData("½"),
        InlineData("1 000 00"),
        InlineData("--3")
    ]
    public void What_is_no_number_is_never_another(string text) => Assert.Null(NumberReading.Of(text));

    [Fact]
    public void The_marks_of_the_place_decide_only_where_both_ways_fit()
    {
        Assert.Equal(
            (1500m, 1.5m),
            (NumberReading.Of("1.500", NumberMarks.Comma)!.Value, NumberReading.Of("1.500")!.Value)
        );
        Assert.Equal(
            (2m, 2000m),
            (NumberReading.Of("2,000", NumberMarks.Comma)!.Value, NumberReading.Of("2,000")!.Value)
        );
        Assert.Equal(NumberReading.Of("1.234,50", NumberMarks.Comma), NumberReading.Of("1.234,50"));
    }

    [Fact] // fifteen hundred or one and a half: asked, never guessed
    public void An_amount_that_could_be_two_is_none()
    {
        Assert.True(NumberReading.IsDoubtful("1.500"));
        Assert.Null(NumberReading.Amount("1.500"));
        Assert.Equal("1 500 or 1.5", NumberReading.Readings("1.500"));
        Assert.Equal(2000, NumberReading.Amount("2,000"));
        Assert.Equal(1.5m, NumberReading.Amount("1.50"));
    }

    [Fact] // whatever is printed is read back as itself
    public void What_the_pages_print_is_read_back() =>
        Gen.Long[-999_999_999_999, 999_999_999_999]
            .Sample(
                minor =>
                    Assert.Equal(
                        new Money(minor, Currency.Eur).Major,
                        NumberReading.Of(MoneyText.Of(new(minor, Currency.Eur)))
                    ),
                iter: 5_000
            );

    [Theory] // the registry of ISO 13616 gives the first four as examples; the others differ from one by a digit, a country, a length
    [
        InlineData("IE29 AIBK 9311 5212 3456 78", true),
        InlineData("DE89370400440532013000", true),
        InlineData("GB29 NWBK 6016 1331 9268 19", true),
        InlineData("fr14 2004 1010 0505 0001 3m02 606", true)
    ]
    [
        InlineData("IE29 AIBK 9311 5212 3456 79", false),
        InlineData("DE89 3704 0044 0532 0130 01", false),
        InlineData("IE00 DEMO 0000 0000 0000 00", false),
        InlineData("1234", false),
        InlineData("", false),
        InlineData("IE29-AIBK-9311-5212-3456-78", false)
    ]
    public void An_IBAN_has_check_digits_that_fit(string text, bool valid) => Assert.Equal(valid, Iban.IsValid(text));

    [Fact]
    public void An_IBAN_is_written_in_groups_of_four() =>
        Assert.Equal("IE29 AIBK 9311 5212 3456 78", Iban.Written("ie29aibk93115212345678"));
}
