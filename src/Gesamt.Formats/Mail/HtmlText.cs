using System.Text;
using System.Text.RegularExpressions;
using MimeKit.Text;

namespace Gesamt.Formats.Mail;

/// <summary>The text of an HTML letter, block by block, as a reader would see it.</summary>
/// <remarks>Read as a stream of tokens and never as a tree: however deeply a stranger nests it, it costs no more than its length.</remarks>
public static partial class HtmlText
{
    private static readonly HashSet<HtmlTagId> Unseen =
    [
        HtmlTagId.Script,
        HtmlTagId.Style,
        HtmlTagId.Head,
        HtmlTagId.Title,
        HtmlTagId.NoScript,
        HtmlTagId.Object,
        HtmlTagId.Select,
    ];

    private static readonly HashSet<HtmlTagId> Paragraphs =
    [
        HtmlTagId.P,
        HtmlTagId.Table,
        HtmlTagId.UL,
        HtmlTagId.OL,
        HtmlTagId.BlockQuote,
        HtmlTagId.Pre,
        HtmlTagId.HR,
        HtmlTagId.H1,
        HtmlTagId.H2,
        HtmlTagId.H3,
        HtmlTagId.H4,
        HtmlTagId.H5,
        HtmlTagId.H6,
        HtmlTagId.Section,
        HtmlTagId.Article,
    ];

    private static readonly HashSet<HtmlTagId> Lines =
    [
        HtmlTagId.Div,
        HtmlTagId.TR,
        HtmlTagId.LI,
        HtmlTagId.Header,
        HtmlTagId.Footer,
        HtmlTagId.Address,
    ];

    /// <summary>At most <paramref name="most"/> characters of it.</summary>
    public static string Of(string html, int most, CancellationToken stop = default)
    {
        var page = new Page();
        var unseen = 0;
        using var reader = new StringReader(html);
        var tokens = new HtmlTokenizer(reader) { DecodeCharacterReferences = true, IgnoreTruncatedTags = true };
        while (page.Length < most && tokens.ReadNextToken(out var token))
        {
            stop.ThrowIfCancellationRequested();
            if (token is HtmlTagToken tag)
            {
                if (Unseen.Contains(tag.Id) && !tag.IsEmptyElement)
                    unseen = Math.Max(0, unseen + (tag.IsEndTag ? -1 : 1));
                else if (tag.Id == HtmlTagId.Body)
                    unseen = 0;
                else if (unseen == 0)
                    Break(page, tag);
            }
            else if (unseen == 0 && token is HtmlDataToken { Kind: HtmlTokenKind.Data } data)
                page.Write(Blank().Replace(data.Data, " "));
        }
        var lines = page.Start(most).Split('\n').Select(line => line.Trim());
        return Empty().Replace(string.Join('\n', lines), "\n\n").Trim();
    }

    /// <summary>A paragraph has a blank line around it, a row or an item is a line, and the cells of a row stand apart.</summary>
    private static void Break(Page page, HtmlTagToken tag)
    {
        if (tag.Id == HtmlTagId.Br)
            page.NewLine();
        else if (tag.Id is HtmlTagId.TD or HtmlTagId.TH && tag.IsEndTag)
            page.Write("\t");
        else if (Lines.Contains(tag.Id) || Paragraphs.Contains(tag.Id))
        {
            if (!page.IsAtStart)
                page.NewLine();
            if (Paragraphs.Contains(tag.Id))
                page.NewLine();
            if (tag is { Id: HtmlTagId.LI, IsEndTag: false })
                page.Write("- ");
        }
    }

    /// <summary>What was written so far, and whether its line is still empty.</summary>
    private sealed class Page
    {
        private readonly StringBuilder text = new();

        public int Length => text.Length;
        public bool IsAtStart { get; private set; } = true;

        public void NewLine()
        {
            text.Append('\n');
            IsAtStart = true;
        }

        public void Write(string part)
        {
            text.Append(part);
            IsAtStart &= string.IsNullOrWhiteSpace(part);
        }

        public string Start(int most) => text.ToString(0, Math.Min(text.Length, most));
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    [GeneratedRegex(@"\n{3,}")]
    private static partial Regex Empty();
}
