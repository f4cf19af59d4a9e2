using System.Globalization;
using System.Text;

namespace Gesamt.Core.Texts;

/// <summary>A text on one line and no longer than asked, cut where a reader would cut it.</summary>
/// <remarks>Counts what a reader counts: text elements (UAX #29, extended grapheme clusters). Whatever was pasted, a word of a megabyte too, it costs no more than its beginning.</remarks>
public static class ShortText
{
    public const int Usual = 110;

    // marks piled upon one letter are one text element; beyond this many characters for each element the cut goes through them
    private const int MostPerElement = 16;

    /// <summary>At most <paramref name="most"/> text elements, the last of them “…” when something is left out: between words when a word ends in the last third, else between text elements.</summary>
    public static string Of(string text, int most = Usual)
    {
        var line = OnOneLine(text, (most + 1) * MostPerElement, out var cut);
        var starts = StringInfo.ParseCombiningCharacters(line);
        if (!cut && starts.Length <= most)
            return line;
        var end = starts.Length < most ? line.Length : starts[most - 1];
        var word = line.LastIndexOf(' ', Math.Max(0, end - 1));
        return $"{line[..(word >= end * 2 / 3 ? word : end)].TrimEnd()}…";
    }

    /// <summary>The beginning with every run of white space and control characters as one blank, up to a number of characters; never half a surrogate pair.</summary>
    private static string OnOneLine(string text, int most, out bool cut)
    {
        var line = new StringBuilder(Math.Min(text.Length, most));
        var gap = false;
        cut = false;
        foreach (var rune in text.EnumerateRunes())
        {
            if (Rune.IsWhiteSpace(rune) || Rune.IsControl(rune))
            {
                gap = line.Length > 0;
                continue;
            }
            if (cut = line.Length + 3 > most)
                break;
            if (gap)
                line.Append(' ');
            gap = false;
            line.Append(rune.ToString());
        }
        return line.ToString();
    }

    public static string Capital(string word) => word.Length == 0 ? word : char.ToUpperInvariant(word[0]) + word[1..];
}
