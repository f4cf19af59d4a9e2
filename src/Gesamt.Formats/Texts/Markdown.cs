using System.Collections.Immutable;
using Markdig;
using Markdig.Syntax;
using Markdig.Syntax.Inlines;

namespace Gesamt.Formats.Texts;

/// <summary>What a block of a text is.</summary>
public enum BlockSort
{
    Heading,
    Paragraph,
    Item,
    Quote,
    Rule,
}

/// <summary>A run of words in one face.</summary>
/// <param name="Link">Where it leads, http, https or mailto; null for none.</param>
public sealed record TextRun(string Text, bool Strong = false, bool Slanted = false, string? Link = null);

/// <summary>One block, in the order in which it is read: pages and papers lay out the same ones.</summary>
/// <param name="Level">Of a heading, from 1; how deep an item of a list lies, from 1; else 0.</param>
/// <param name="Number">“2.” of an item, “3” or “3.1” of a numbered paragraph; null for none.</param>
public sealed record TextBlock(BlockSort Sort, int Level, string? Number, ImmutableArray<TextRun> Runs)
{
    /// <summary>Its words without their faces.</summary>
    public string Plain => string.Concat(Runs.Select(run => run.Text));
}

/// <summary>Texts in Markdown (CommonMark), read into blocks. A line break is kept as one, for that is what whoever types it means; HTML stands as it was typed.</summary>
public static class MarkdownText
{
    private static readonly MarkdownPipeline Pipeline = new MarkdownPipelineBuilder()
        .UseSoftlineBreakAsHardlineBreak()
        .DisableHtml()
        .Build();

    /// <summary>The blocks of a text; none of an empty one.</summary>
    public static ImmutableArray<TextBlock> Blocks(string text) =>
        [.. Markdown.Parse(text, Pipeline).SelectMany(block => Of(block, depth: 0))];

    /// <summary>A contract's blocks: headings count 1, 2, 3, what stands under one of them 1.1, 1.2; without any heading the paragraphs themselves count. What stands before the first heading introduces, and is not counted.</summary>
    public static ImmutableArray<TextBlock> Numbered(string text)
    {
        var blocks = Blocks(text);
        var headed = blocks.Any(block => block.Sort == BlockSort.Heading);
        var (heading, paragraph) = (0, 0);
        return
        [
            .. blocks.Select(block =>
            {
                if (block.Sort == BlockSort.Heading)
                    (heading, paragraph) = (heading + 1, 0);
                return block.Sort switch
                {
                    BlockSort.Heading => block with { Number = $"{heading}" },
                    BlockSort.Paragraph when !headed => block with { Number = $"{++paragraph}" },
                    BlockSort.Paragraph when heading > 0 => block with { Number = $"{heading}.{++paragraph}" },
                    _ => block,
                };
            }),
        ];
    }

    /// <summary>Words that stand in a text as they are, whatever signs they have: a name or a title that somebody else wrote.</summary>
    public static string Escaped(string words) =>
        string.Concat(
            words.Select(c =>
                char.IsAsciiLetterOrDigit(c) || c > 127 || char.IsWhiteSpace(c) || char.IsControl(c) || c is ',' or '\''
                    ? $"{c}"
                    : $"\\{c}"
            )
        );

    private static IEnumerable<TextBlock> Of(Block block, int depth) =>
        block switch
        {
            HeadingBlock heading => [new(BlockSort.Heading, heading.Level, null, Runs(heading.Inline))],
            ParagraphBlock paragraph => [new(BlockSort.Paragraph, 0, null, Runs(paragraph.Inline))],
            ListBlock list => list.OfType<ListItemBlock>().SelectMany(item => OfItem(list, item, depth + 1)),
            QuoteBlock quote => quote
                .SelectMany(part => Of(part, depth))
                .Select(part => part.Sort == BlockSort.Paragraph ? part with { Sort = BlockSort.Quote } : part),
            ThematicBreakBlock => [new(BlockSort.Rule, 0, null, [])],
            LeafBlock { Lines: var lines } => [new(BlockSort.Paragraph, 0, null, [new(lines.ToString())])],
            _ => [],
        };

    /// <summary>Its first paragraph is the item; what else it holds follows as it is.</summary>
    private static IEnumerable<TextBlock> OfItem(ListBlock list, ListItemBlock item, int depth)
    {
        var number = list.IsOrdered ? $"{item.Order}." : null;
        foreach (var (part, at) in item.Select((part, at) => (part, at)))
            if (at == 0 && part is ParagraphBlock first)
                yield return new(BlockSort.Item, depth, number, Runs(first.Inline));
            else
                foreach (var block in Of(part, depth))
                    yield return block;
    }

    private static ImmutableArray<TextRun> Runs(ContainerInline? inline) =>
        inline is null ? [] : Joined(inline.SelectMany(one => Runs(one, new(""))));

    private static IEnumerable<TextRun> Runs(Inline inline, TextRun face) =>
        inline switch
        {
            LiteralInline literal => [face with { Text = literal.Content.ToString() }],
            CodeInline code => [face with { Text = code.Content }],
            LineBreakInline => [face with { Text = "\n" }],
            HtmlEntityInline entity => [face with { Text = entity.Transcoded.ToString() }],
            AutolinkInline auto =>
            [
                face with
                {
                    Text = auto.Url,
                    Link = Safe(auto.IsEmail ? $"mailto:{auto.Url}" : auto.Url),
                },
            ],
            // a picture from elsewhere is not shown: its words stand
            LinkInline link => link.SelectMany(part =>
                Runs(part, link.IsImage ? face : face with { Link = Safe(link.Url) })
            ),
            EmphasisInline { DelimiterCount: 2 } strong => strong.SelectMany(part =>
                Runs(part, face with { Strong = true })
            ),
            EmphasisInline slanted => slanted.SelectMany(part => Runs(part, face with { Slanted = true })),
            ContainerInline container => container.SelectMany(part => Runs(part, face)),
            _ => [],
        };

    private static string? Safe(string? url) =>
        Uri.TryCreate(url, UriKind.Absolute, out var address) && address.Scheme is "http" or "https" or "mailto"
            ? url
            : null;

    private static ImmutableArray<TextRun> Joined(IEnumerable<TextRun> runs)
    {
        var joined = ImmutableArray.CreateBuilder<TextRun>();
        foreach (var run in runs)
            if (joined.Count > 0 && joined[^1] with { Text = "" } == run with { Text = "" })
                joined[^1] = joined[^1] with { Text = joined[^1].Text + run.Text };
            else
                joined.Add(run);
        return joined.ToImmutable();
    }
}
