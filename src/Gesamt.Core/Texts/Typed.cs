using System.Text;
using System.Text.RegularExpressions;

namespace Gesamt.Core.Texts;

/// <summary>What somebody else typed, made fit to stand in the studio's own words.</summary>
public static partial class Typed
{
    /// <summary>Most text elements of something typed that stands in a sentence of a letter.</summary>
    public const int Most = 120;

    // WORD JOINER: takes no room, and no mail program sees a link through it
    private const string Joiner = "\u2060";

    /// <summary>Whatever it was, one line of it: line breaks and control characters are blanks, and blanks beside each other are one.</summary>
    public static string OneLine(string text) => Blank().Replace(text, " ").Trim();

    /// <summary>Several lines without control characters; no more than two line ends together.</summary>
    public static string Lines(string text) =>
        Gap().Replace(Control().Replace(text.ReplaceLineEndings("\n"), " "), "\n\n").Trim();

    /// <summary>One bounded line in which nothing is taken for a link: a stranger's name that reads like an address never arrives as one to press.</summary>
    public static string Unlinked(string text) =>
        Linkish().Replace(ShortText.Of(text, Most), match => string.Join(Joiner, Parts(match.Value)));

    private static IEnumerable<string> Parts(string link)
    {
        var part = new StringBuilder();
        foreach (var c in link)
        {
            part.Append(c);
            if (c is not ('.' or ':' or '/' or '@'))
                continue;
            yield return part.ToString();
            part.Clear();
        }
        if (part.Length > 0)
            yield return part.ToString();
    }

    [GeneratedRegex(@"[\s\p{C}]+")]
    private static partial Regex Blank();

    [GeneratedRegex(@"[\p{Cc}-[\n]]+")]
    private static partial Regex Control();

    [GeneratedRegex(@"\n[\n ]*\n[\n ]*\n")]
    private static partial Regex Gap();

    // a scheme, an address, or words parted by dots without a blank after them
    [GeneratedRegex(@"\S*(?:[\p{L}\p{N}]\.\p{L}|:/|@)\S*")]
    private static partial Regex Linkish();
}
