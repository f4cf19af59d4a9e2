namespace Gesamt.Core.Tests.Amounts;

/// <summary>Business identifier codes, ISO 9362:2022.</summary>
public sealed class BicTests
{
    [Theory] // the forms of ISO 9362: party prefix, country, party suffix, and a branch or none
    [InlineData("DEUTDEFF", true), InlineData("DEUTDEFF500", true), InlineData("aibk ie 2d", true)]
    [
        InlineData("DEUTDEF", false),
        InlineData("DEUTDEFF50", false),
        InlineData("DEUT1EFF", false),
        InlineData("", false)
    ]
    public void Its_form_is_checked(string text, bool valid) => Assert.Equal(valid, Bic.IsValid(text));

    [Fact]
    public void It_is_written_in_capitals_without_spaces() => Assert.Equal("AIBKIE2D", Bic.Written(" aibk ie 2d "));
}
