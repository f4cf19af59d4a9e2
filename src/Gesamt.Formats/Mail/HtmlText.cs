using System.Text;
using System.Text.RegularExpressions;
using MimeKit.Text;

namespace Gesamt.Formats.Mail;

/// <summary>The text of an HTML letter, block by block, as a reader would see it.</summary>
/// <remarks>Read as a stream of tokens and never as a tree: however deeply a stranger nests it, it costs no more than its length.</remarks>
public static partial class HtmlText
{
    private static readonly HashSet<HtmlTagId> Unseen = [HtmlTagId.Script, HtmlTagId.Style, HtmlTagId.Head, HtmlTagId.Title, HtmlTagId.NoScript, HtmlTagId.Object, HtmlTagId.Select];

    private static readonly HashSet<HtmlTagId> Blocks =
    [
        HtmlTagId.P, HtmlTagId.Div, HtmlTagId.TR, HtmlTagId.Table, HtmlTagId.LI, HtmlTagId.UL, HtmlTagId.OL, HtmlTagId.BlockQuote, HtmlTagId.Pre, HtmlTagId.HR,
        HtmlTagId.H1, HtmlTagId.H2, HtmlTagId.H3, HtmlTagId.H4, HtmlTagId.H5, HtmlTagId.H6, HtmlTagId.Section, HtmlTagId.Article, HtmlTagId.Header, HtmlTagId.Footer, HtmlTagId.Address,
    ];

    /// <summary>At most <paramref name="most"/> characters of it.</summary>
    public static string Of(string html, int most, CancellationToken stop = default)
    {
        var text = new StringBuilder();
        var unseen = 0;
        using var reader = new StringReader(html);
        var tokens = new HtmlTokenizer(reader) { DecodeCharacterReferences = true, IgnoreTruncatedTags = true };
        while (text.Length < most && tokens.ReadNextToken(out var token))
        {
            stop.ThrowIfCancellationRequested();
            if (token is HtmlTagToken tag)
            {
                if (Unseen.Contains(tag.Id) && !tag.IsEmptyElement) unseen = Math.Max(0, unseen + (tag.IsEndTag ? -1 : 1));
                else if (tag.Id == HtmlTagId.Body) unseen = 0;
                else if (tag.Id == HtmlTagId.Br || Blocks.Contains(tag.Id)) text.Append('\n');
            }
            else if (unseen == 0 && token is HtmlDataToken { Kind: HtmlTokenKind.Data } data) text.Append(Blank().Replace(data.Data, " "));
        }
        var lines = text.ToString(0, Math.Min(text.Length, most)).Split('\n').Select(line => line.Trim());
        return Empty().Replace(string.Join('\n', lines), "\n\n").Trim();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    [GeneratedRegex(@"\n{3,}")]
    private static partial Regex Empty();
}
