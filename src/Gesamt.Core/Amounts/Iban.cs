namespace Gesamt.Core.Amounts;

/// <summary>International bank account numbers (ISO 13616): country, two check digits, and up to 30 letters and digits.</summary>
public static class Iban
{
    public const string Allowed = "An IBAN, such as IE29 AIBK 9311 5212 3456 78; its check digits must fit.";
    private const int Shortest = 15,
        Longest = 34;

    /// <summary>Whether its check digits fit: moved to the end and with letters as numbers it leaves 1 divided by 97 (ISO 7064, MOD 97-10).</summary>
    public static bool IsValid(string text)
    {
        var plain = Plain(text);
        if (
            plain.Length is < Shortest or > Longest
            || !plain.All(char.IsAsciiLetterOrDigit)
            || !plain[..2].All(char.IsAsciiLetterUpper)
            || !plain[2..4].All(char.IsAsciiDigit)
        )
            return false;
        return Mod97.Of(plain[4..] + plain[..4]) == 1;
    }

    /// <summary>In groups of four, as it is printed (ISO 13616, 5.2).</summary>
    public static string Written(string text) =>
        string.Join(' ', Plain(text).Chunk(4).Select(four => new string(four)));

    /// <summary>Without the blanks it is printed with, in capitals.</summary>
    public static string Plain(string text) =>
        new([.. text.Where(c => !char.IsWhiteSpace(c)).Select(char.ToUpperInvariant)]);
}
