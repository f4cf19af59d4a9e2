using Gesamt.Core.Texts;

namespace Gesamt.Core.Tests.Texts;

/// <summary>Which passwords hold: NIST SP 800-63B, 5.1.1.2.</summary>
public sealed class PasswordTests
{
    private static readonly string[] Own = ["Inkwell & Daughter", "Mara Quince", "mara@inkwell.example"];

    [Theory]
    [InlineData("", false), InlineData("short", false), InlineData("aaaaaaaaaaaaaaaa", false)]
    [InlineData("abababababab", false), InlineData("password12", false), InlineData("qwertyuiop1", false)]
    [InlineData("1234567890", false), InlineData("abcdefghijkl", false), InlineData("0987654321x", false)]
    [InlineData("maraquince1", false), InlineData("Inkwell-2027", false), InlineData("mara inkwell", false)]
    [InlineData("harbour light", true), InlineData("paper boats at noon", true), InlineData("Zürich im März", true)]
    [InlineData("墨の匂いがする小さな部屋", true)]
    public void What_is_guessed_first_is_refused(string password, bool allowed) =>
        Assert.Equal(allowed, Password.Read(password, Own).Allowed);

    [Theory]
    [InlineData("nine sign", "Too short: 1 more character.")]
    [InlineData("seven!!", "Too short: 3 more characters.")]
    public void What_is_too_short_says_by_how_much(string password, string words) =>
        Assert.Equal(words, Password.Read(password, Own).Words);

    [Fact] // characters as people count them: an emoji is one
    public void Characters_are_counted_as_they_are_seen() =>
        Assert.Equal("Too short: 1 more character.", Password.Read("🖋️ ink bot", Own).Words);

    [Fact] // nobody is made to take signs or capitals
    public void Length_alone_makes_it_strong() =>
        Assert.Equal(
            ("Enough. One more word makes it strong.", "Strong."),
            (Words("harbour light"), Words("harbour light boats"))
        );

    private static string Words(string password) => Password.Read(password, Own).Words;

    [Fact]
    public void Nothing_typed_stops_it() =>
        Gen.String[0, 300].Sample(text => Assert.NotEmpty(Password.Read(text, [text, "x"]).Words));
}
