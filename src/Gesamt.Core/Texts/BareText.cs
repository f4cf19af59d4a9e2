using System.Globalization;

namespace Gesamt.Core.Texts;

/// <summary>Text without case and accents, to compare what is meant to be the same.</summary>
public static class BareText
{
    /// <summary>Small letters without their accents, be they written as one character or as two; everything else stays.</summary>
    public static string Of(string text)
    {
        var bare = new char[text.Length];
        var length = 0;
        foreach (var c in text)
            if (c < 128 || CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                bare[length++] = Bare(char.ToLowerInvariant(c));
        return new(bare, 0, length);
    }

    // written out, since a program without ICU takes no letters apart (Unicode Latin-1 Supplement and Latin Extended-A)
    private static readonly (char Bare, string Accented)[] Accents =
    [
        ('a', "àáâãäåāăą"),
        ('c', "çćĉċč"),
        ('d', "ďđ"),
        ('e', "èéêëēĕėęě"),
        ('g', "ĝğġģ"),
        ('h', "ĥħ"),
        ('i', "ìíîïĩīĭįı"),
        ('j', "ĵ"),
        ('k', "ķ"),
        ('l', "ĺļľŀł"),
        ('n', "ñńņňŉ"),
        ('o', "òóôõöøōŏő"),
        ('r', "ŕŗř"),
        ('s', "śŝşšș"),
        ('t', "ţťŧț"),
        ('u', "ùúûüũūŭůűų"),
        ('w', "ŵ"),
        ('y', "ýÿŷ"),
        ('z', "źżž"),
    ];

    private static char Bare(char c) =>
        c < 128 ? c
        : Accents.FirstOrDefault(accent => accent.Accented.Contains(c)) is { Bare: not '\0' and var bare } ? bare
        : c;
}
