using System.Globalization;
using Gesamt.Core.Texts;

namespace Gesamt.Core.Tests.Texts;

/// <summary>What people paste, on one line.</summary>
public sealed class ShortTextTests
{
    private const string Family = "👩‍👩‍👧‍👦";

    [Theory]
    [InlineData("", "")]
    [InlineData("  A wall.\r\n\r\nWith a whale. ", "A wall. With a whale.")]
    [InlineData("one\u0085two\u2028three\tfour\u0000five", "one two three four five")]
    public void A_short_text_stands_as_it_is_on_one_line(string text, string line) =>
        Assert.Equal(line, ShortText.Of(text));

    [Fact]
    public void It_is_cut_between_words_where_a_word_ends_near()
    {
        var text = string.Concat(Enumerable.Repeat("mural ", 40));
        Assert.Equal(string.Join(' ', Enumerable.Repeat("mural", 18)) + "…", ShortText.Of(text));
    }

    [Theory] // a long address, Chinese without blanks, a family of emoji, a word of a megabyte
    [InlineData("https://pictures.example/albums/", 200)]
    [InlineData("墙", 150)]
    [InlineData(Family, 150)]
    [InlineData("a", 1_000_000)]
    [InlineData("é", 500_000)]
    public void What_has_no_blanks_is_cut_between_text_elements(string piece, int times)
    {
        var line = ShortText.Of(string.Concat(Enumerable.Repeat(piece, times)));
        Assert.Equal(ShortText.Usual, StringInfo.ParseCombiningCharacters(line).Length);
        Assert.EndsWith("…", line);
        Assert.StartsWith(line[..^1], string.Concat(Enumerable.Repeat(piece, 120)));
    }

    [Fact] // one letter with a million accents is one text element
    public void Marks_without_end_are_cut_too() =>
        Assert.InRange(ShortText.Of("a" + new string('\u0301', 1_000_000)).Length, 1, 2_000);

    [Fact]
    public void No_text_is_ever_longer_than_asked_or_torn_apart() =>
        Gen.Select(
                Gen.OneOf(
                    Gen.String,
                    Any.Of("word", " ", Family, "é", "墙", "\ud83d", "\r\n", "\u0301")
                        .Array[0, 300]
                        .Select(string.Concat)
                ),
                Gen.Int[5, 120]
            )
            .Sample(
                (text, most) =>
                {
                    var line = ShortText.Of(text, most);
                    Assert.True(StringInfo.ParseCombiningCharacters(line).Length <= most);
                    Assert.DoesNotContain(line, char.IsControl);
                    Assert.True(
                        line.EnumerateRunes().All(rune => rune != System.Text.Rune.ReplacementChar)
                            || text.Contains('\ufffd', StringComparison.Ordinal)
                            || text.Any(char.IsSurrogate)
                    );
                }
            );
}
