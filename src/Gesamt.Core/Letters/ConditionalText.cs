using System.Text.RegularExpressions;

namespace Gesamt.Core.Letters;

/// <summary>Paragraphs that stand only under a condition, written as it is read: “[if there is scaffold] The studio puts it up.”</summary>
/// <remarks>
/// “[if there is …]” and “[if there is no …]” at the beginning of a paragraph, as far as the next empty line. What follows is the name
/// of a blank, which is there when the record knows it, or words of a service, which is there when one whose title has them was chosen.
/// </remarks>
public static partial class ConditionalText
{
    /// <summary>The text with the paragraphs whose condition holds, without their conditions.</summary>
    /// <param name="isThere">Whether something of a name is there; names come in lower case.</param>
    public static string Of(string text, Func<string, bool> isThere) =>
        string.Join(
            "\n\n",
            Empty()
                .Split(text.ReplaceLineEndings("\n"))
                .Select(paragraph =>
                    Mark().Match(paragraph) is { Success: true } mark
                        ? (Holds(mark, isThere), paragraph[mark.Length..].TrimStart())
                        : (true, paragraph)
                )
                .Where(paragraph => paragraph.Item1)
                .Select(paragraph => paragraph.Item2)
        );

    /// <summary>The text as if every condition held, for looking at its blanks.</summary>
    public static string Whole(string text) => Mark().Replace(text.ReplaceLineEndings("\n"), "");

    private static bool Holds(Match mark, Func<string, bool> isThere) =>
        isThere(mark.Groups["what"].Value.Trim().ToLowerInvariant()) != mark.Groups["no"].Success;

    [GeneratedRegex(@"\n[ \t]*\n\s*")]
    private static partial Regex Empty();

    [GeneratedRegex(
        @"^[ \t]*\[if there (?:is|are) (?<no>no )?(?:an? |any )?(?<what>[^\]\n]{1,80})\]",
        RegexOptions.IgnoreCase | RegexOptions.Multiline
    )]
    private static partial Regex Mark();
}
