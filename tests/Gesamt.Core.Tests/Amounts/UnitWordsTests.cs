namespace Gesamt.Core.Tests.Amounts;

public sealed class UnitWordsTests
{
    [Theory]
    [InlineData("days", "day"), InlineData("day", "day"), InlineData("People", "person"), InlineData("copies", "copy")]
    [InlineData("m²", "m²"), InlineData("canvas", "canvas"), InlineData("glass", "glass"), InlineData("", "")]
    public void A_price_is_for_one(string typed, string one) => Assert.Equal(one, UnitWords.One(typed));

    [Theory]
    [InlineData(1, "days", "1 day"), InlineData(2, "day", "2 days"), InlineData(0, "hour", "0 hours")]
    [InlineData(1, "person", "1 person"), InlineData(40, "person", "40 people"), InlineData(24, "m²", "24 m²")]
    [InlineData(3, "canvas", "3 canvas"), InlineData(3, "", "3"), InlineData(1, "", "1")]
    public void So_many_of_it_are_counted(int quantity, string unit, string words) =>
        Assert.Equal(words, UnitWords.Counted(quantity, unit));

    [Fact]
    public void A_part_of_one_is_counted_like_several() => Assert.Equal("1.5 hours", UnitWords.Counted(1.5m, "hour"));
}
