using Gesamt.Core.Texts;

namespace Gesamt.Core.Tests.Texts;

/// <summary>What strangers typed, in the studio's own letters and calendars.</summary>
public sealed class TypedTests
{
    private const string J = "\u2060";

    [Theory]
    [InlineData("Mona Delarue", "Mona Delarue")]
    [InlineData("Dr. Ada Quill", "Dr. Ada Quill")]
    [InlineData("Fern & Flint, No. 4, 2.50 m", "Fern & Flint, No. 4, 2.50 m")]
    [InlineData(
        "Win at https://evil.example/x now",
        "Win at https:" + J + "/" + J + "/" + J + "evil." + J + "example/" + J + "x now"
    )]
    [InlineData("evil.example", "evil." + J + "example")]
    [InlineData("www.evil.example", "www." + J + "evil." + J + "example")]
    [InlineData("call me@evil.example", "call me@" + J + "evil." + J + "example")]
    [InlineData("one\r\nBcc: two", "one Bcc: two")]
    public void A_name_is_one_line_in_which_nothing_is_a_link(string typed, string line) =>
        Assert.Equal(line, Typed.Unlinked(typed));

    [Fact]
    public void A_name_without_end_is_bounded() =>
        Assert.Equal(
            Typed.Most,
            new System.Globalization.StringInfo(Typed.Unlinked(new string('n', 100_000))).LengthInTextElements
        );

    [Fact] // whatever is typed: no scheme, no host, no address that a mail program could press
    public void Nothing_typed_stays_a_link() =>
        Any.Of("http://", "https://", "evil", ".", "example", "/", "@", " ", "www.", "a", "\n", "é", "mailto:")
            .Array[1, 12]
            .Select(string.Concat)
            .Sample(typed => Assert.DoesNotMatch(@"://|[\p{L}\p{N}]\.[\p{L}]|@[\p{L}\p{N}]|\n", Typed.Unlinked(typed)));

    [Theory]
    [
        InlineData("a\r\nb", "a\nb"),
        InlineData("a\n\n\n\n\nb", "a\n\nb"),
        InlineData("a\u0000\u0007b", "a b"),
        InlineData("  a  ", "a")
    ]
    public void Several_lines_hold_no_control_characters_and_no_gaps(string typed, string text) =>
        Assert.Equal(text, Typed.Lines(typed));
}
