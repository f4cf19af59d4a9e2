using System.Globalization;

namespace Gesamt.Core.Amounts;

/// <summary>Structured creditor references (ISO 11649): RF, two check digits, and up to 21 letters and digits, by which a bank knows what a transfer pays.</summary>
public static class CreditorReference
{
    private const int Longest = 21;

    /// <summary>The reference of an invoice's number: its letters and digits, with their check digits (ISO 7064, MOD 97-10).</summary>
    /// <remarks>Of a number longer than 21 letters and digits the last ones count, since they are what tells invoices apart.</remarks>
    /// <exception cref="ArgumentException">The number has no letter and no digit.</exception>
    public static string Of(string number)
    {
        var plain = Plain(number);
        if (plain.Length == 0)
            throw new ArgumentException("A reference needs a letter or a digit.", nameof(number));
        var body = plain.Length <= Longest ? plain : plain[^Longest..];
        return $"RF{(98 - Mod97.Of(body + "RF00")).ToString("00", CultureInfo.InvariantCulture)}{body}";
    }

    /// <summary>Whether its check digits fit; blanks between do not matter.</summary>
    public static bool IsValid(string text) =>
        Plain(text) is { Length: > 4 and <= Longest + 4 } plain
        && plain.StartsWith("RF", StringComparison.Ordinal)
        && char.IsAsciiDigit(plain[2])
        && char.IsAsciiDigit(plain[3])
        && Mod97.Of(plain[4..] + plain[..4]) == 1;

    /// <summary>In groups of four, as it is printed (ISO 11649, 4.4).</summary>
    public static string Written(string text) =>
        string.Join(' ', Plain(text).Chunk(4).Select(four => new string(four)));

    /// <summary>Its letters and digits alone, in capitals: as it is sent, and compared.</summary>
    public static string Plain(string text) => new([.. text.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit)]);
}

/// <summary>The remainder by 97 of letters and digits read as one number, A as 10 to Z as 35 (ISO 7064, MOD 97-10).</summary>
internal static class Mod97
{
    public static int Of(string plain) =>
        plain.Aggregate(
            0,
            (rest, c) => char.IsAsciiDigit(c) ? (rest * 10 + (c - '0')) % 97 : (rest * 100 + (c - 'A' + 10)) % 97
        );
}
