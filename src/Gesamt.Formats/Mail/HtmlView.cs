using Ganss.Xss;
using MimeKit.Text;

namespace Gesamt.Formats.Mail;

/// <summary>A letter as it was laid out, without anything that acts or tells: no script, no form, nothing fetched from elsewhere. Shown in a frame that may do nothing.</summary>
public static class HtmlView
{
    private const int Longest = 1_000_000,
        Deepest = 200;

    // what is closed by itself nests nothing
    private static readonly HashSet<HtmlTagId> Flat =
    [
        HtmlTagId.Br,
        HtmlTagId.HR,
        HtmlTagId.Image,
        HtmlTagId.Input,
        HtmlTagId.Meta,
        HtmlTagId.Link,
        HtmlTagId.P,
        HtmlTagId.LI,
        HtmlTagId.TD,
        HtmlTagId.TH,
        HtmlTagId.TR,
        HtmlTagId.Col,
        HtmlTagId.Option,
    ];

    /// <summary>The page to show; null where it is too long, or nested deeper than any letter.</summary>
    public static string? Of(string html)
    {
        if (html.Length > Longest || IsDeep(html))
            return null;
        return $"<!doctype html><html><head><meta charset=\"utf-8\"><style>body{{font:16px/1.5 sans-serif;overflow-wrap:break-word}}</style></head><body>{Quiet().Sanitize(html)}</body></html>";
    }

    /// <summary>Read as tokens, so that nesting costs nothing: the tree is made only of what is flat enough.</summary>
    private static bool IsDeep(string html)
    {
        var depth = 0;
        using var reader = new StringReader(html);
        var tokens = new HtmlTokenizer(reader) { IgnoreTruncatedTags = true };
        while (tokens.ReadNextToken(out var token))
            if (token is HtmlTagToken tag && !tag.IsEmptyElement && !Flat.Contains(tag.Id))
            {
                depth = Math.Max(0, depth + (tag.IsEndTag ? -1 : 1));
                if (depth > Deepest)
                    return true;
            }
        return false;
    }

    private static HtmlSanitizer Quiet()
    {
        var quiet = new HtmlSanitizer();
        quiet.AllowedTags.ExceptWith(["form", "input", "button", "select", "textarea", "fieldset", "option"]);
        quiet.AllowedAttributes.Remove("action");
        quiet.AllowedSchemes.Clear();
        quiet.AllowedSchemes.UnionWith(["http", "https", "mailto"]);
        // a picture that is fetched tells its sender that the letter was read
        quiet.FilterUrl += (_, url) =>
            url.SanitizedUrl = url.Tag.TagName.Equals("A", StringComparison.OrdinalIgnoreCase)
                ? url.SanitizedUrl
                : null;
        return quiet;
    }
}
