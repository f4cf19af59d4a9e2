using Gesamt.Core.Capture;

namespace Gesamt.Core.Tests.Capture;

public sealed class TableTests
{
    [Theory]
    [InlineData("2027-03-12", DateStyle.YearMonthDay, "2027-03-12")]
    [InlineData("2027-03-12 14:30", DateStyle.YearMonthDay, "2027-03-12")]
    [InlineData("12/03/2027", DateStyle.DayMonthYear, "2027-03-12")]
    [InlineData("12.3.27", DateStyle.DayMonthYear, "2027-03-12")]
    [InlineData("03/12/2027", DateStyle.MonthDayYear, "2027-03-12")]
    [InlineData("12 Mar 2027", DateStyle.DayMonthName, "2027-03-12")]
    [InlineData("12 March 2027", DateStyle.DayMonthName, "2027-03-12")]
    [InlineData("31/02/2027", DateStyle.DayMonthYear, null)]
    [InlineData("03/12/2027", DateStyle.YearMonthDay, null)]
    [InlineData("soon", DateStyle.DayMonthYear, null)]
    public void Dates_are_read_as_they_are_written(string text, DateStyle style, string? date) =>
        Assert.Equal(
            date,
            TableValues.Date(text, style) is { } read ? NodaTime.Text.LocalDatePattern.Iso.Format(read) : null
        );

    [Fact]
    public void Where_days_and_months_could_be_either_both_styles_are_named()
    {
        Assert.Equal(
            [DateStyle.DayMonthYear, DateStyle.MonthDayYear],
            TableValues.StylesOf(["03/04/2027", "", "05/06/2027"])
        );
        Assert.Equal([DateStyle.DayMonthYear], TableValues.StylesOf(["03/04/2027", "25/06/2027"]));
        Assert.Equal([DateStyle.MonthDayYear], TableValues.StylesOf(["03/04/2027", "06/25/2027"]));
        Assert.Empty(TableValues.StylesOf(["soon"]));
    }

    [Theory]
    [InlineData("1,200.50", NumberStyle.Point, "1200.50")]
    [InlineData("€ 1,200", NumberStyle.Point, "1200")]
    [InlineData("1.200,50 EUR", NumberStyle.Comma, "1200.50")]
    [InlineData("1200,5", NumberStyle.Comma, "1200.5")]
    [InlineData("1200,5", NumberStyle.Point, null)]
    [InlineData("1.200,50", NumberStyle.Point, null)]
    [InlineData("ask", NumberStyle.Point, null)]
    public void Numbers_are_read_with_their_thousands(string text, NumberStyle style, string? number) =>
        Assert.Equal(
            number is null ? null : decimal.Parse(number, System.Globalization.CultureInfo.InvariantCulture),
            TableValues.Number(text, style)
        );

    [Fact]
    public void The_style_that_reads_every_number_is_taken()
    {
        Assert.Equal(NumberStyle.Comma, TableValues.NumbersOf(["1.200,50", "30,00"]));
        Assert.Equal(NumberStyle.Point, TableValues.NumbersOf(["1200", "30"]));
        Assert.Null(TableValues.NumbersOf(["ask"]));
        // nobody keeps amounts with three decimals: they are thousands, and it is said
        Assert.Equal(NumberStyle.Comma, TableValues.NumbersOf(["1.500", "12.000"]));
        Assert.True(TableValues.NumbersInDoubt(["1.500", "12.000", ""]));
        Assert.False(TableValues.NumbersInDoubt(["1.500", "12,50"]));
        Assert.False(TableValues.NumbersInDoubt(["1500", "12"]));
    }

    [Fact]
    public void Headings_tell_what_columns_are_each_thing_once() =>
        Assert.Equal(
            [
                ImportColumn.Name,
                ImportColumn.Mail,
                ImportColumn.Inquired,
                ImportColumn.Date,
                ImportColumn.LeaveOut,
                ImportColumn.Amount,
                ImportColumn.Standing,
            ],
            TableValues.Guess([
                "Client name",
                "E-mail",
                "Inquiry received",
                "Event date",
                "Shoe size",
                "Price (EUR)",
                "Status",
            ])
        );

    [Theory]
    [InlineData(
        "From: Mona Delarue <mona@lanternhouse.example>\nHello, could you paint our wall?\nMona",
        "Mona Delarue",
        "mona@lanternhouse.example",
        null
    )]
    [InlineData(
        "Hi! My name is Tilda Crane, we want the stairwell done. You can reach me on +353 87 555 0142.",
        "Tilda Crane",
        null,
        "+353 87 555 0142"
    )]
    [InlineData("Do you do boards?\n\nInes Tolliver", "Ines Tolliver", null, null)]
    [InlineData("how much is a wall of 24 m2, 2 coats?", null, null, null)]
    public void A_pasted_message_is_read_for_name_and_address(string text, string? name, string? mail, string? phone)
    {
        var read = PastedText.Read(text);
        Assert.Equal((name, mail, phone), (read.Name, read.Mail, read.Phone));
    }
}
