using Gesamt.Core.Texts;

namespace Gesamt.Core.Tests.Texts;

/// <summary>Text without case and accents.</summary>
public sealed class BareTextTests
{
    // The Unicode Character Database takes these apart into a letter and its marks; ø, ł, đ, ħ, ŧ and ı are letters of their own there
    [Theory]
    [InlineData("Zoë ÖBERG", "zoe oberg"), InlineData("Dvořák, Łódź", "dvorak, lodz")]
    [InlineData("100 % wool_x", "100 % wool_x"), InlineData("Straße", "straße"), InlineData("Дом", "дом")]
    public void Case_and_accents_are_gone_and_everything_else_stays(string text, string bare)
    {
        Assert.Equal(bare, BareText.Of(text));
        Assert.Equal(bare, BareText.Of(bare));
    }

    [Fact]
    public void A_letter_with_its_mark_behind_it_is_the_same_as_one_character() =>
        Assert.Equal(BareText.Of("Zoë Gröhl"), BareText.Of("Zoe\u0308 Gro\u0308hl"));
}
