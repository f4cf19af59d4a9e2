using System.Buffers;
using System.Globalization;
using System.Text;

namespace Gesamt.Core.People;

/// <summary>The one reading of a mail address, for forms, letters, tables and what is stored already.</summary>
/// <remarks>
/// A mailbox of RFC 5321, 4.1.2: a dot-string before the “@” and a domain of at least two labels after it, without quoted strings and address literals, which no form of a person needs;
/// letters beyond ASCII as RFC 6531, 3.3 allows. Whatever is valid here the mail library reads as the same address, which the tests hold over random ones.
/// </remarks>
public static class MailAddress
{
    private const int LongestLocal = 64,
        LongestLabel = 63,
        Longest = 254;

    // RFC 5322, 3.2.3, atext
    private static readonly SearchValues<char> Atext = SearchValues.Create(
        "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789!#$%&'*+-/=?^_`{|}~"
    );

    /// <summary>Said of an address that is none.</summary>
    public const string Allowed = "A mail address, such as name@place.example.";

    /// <summary>Whether a letter can be written to it. Lengths are octets of UTF-8 (RFC 5321, 4.5.3.1).</summary>
    public static bool IsValid(string? text)
    {
        if (
            text is null
            || Encoding.UTF8.GetByteCount(text) > Longest
            || text.IndexOf('@') is var at && (at < 1 || at != text.LastIndexOf('@'))
        )
            return false;
        var (local, domain) = (text[..at], text[(at + 1)..]);
        var labels = domain.Split('.');
        return Encoding.UTF8.GetByteCount(local) <= LongestLocal
            && local.Split('.').All(IsAtom)
            && labels.Length >= 2
            && labels.All(IsLabel);
    }

    /// <summary>The address as it is kept and compared: trimmed, in lower case; null for nothing.</summary>
    public static string? Plain(string? text) =>
        string.IsNullOrWhiteSpace(text) ? null : text.Trim().ToLowerInvariant();

    private static bool IsAtom(string atom) =>
        atom.Length > 0
        && atom.EnumerateRunes().All(rune => rune.IsAscii ? Atext.Contains((char)rune.Value) : IsLetter(rune));

    private static bool IsLabel(string label) =>
        label.Length > 0
        && Encoding.UTF8.GetByteCount(label) <= LongestLabel
        && label[0] != '-'
        && label[^1] != '-'
        && label
            .EnumerateRunes()
            .All(rune =>
                rune.IsAscii ? char.IsAsciiLetterOrDigit((char)rune.Value) || rune.Value == '-' : IsLetter(rune)
            );

    private static bool IsLetter(Rune rune) =>
        Rune.IsLetterOrDigit(rune)
        || Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark;
}
