using System.Collections.Immutable;
using Gesamt.Formats.Texts;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <inheritdoc cref="PdfSheet"/>
internal sealed partial class PdfSheet
{
    private const float NumberWidth = 30,
        TextLine = 14.5f;

    /// <summary>A word in its face, with where it leads.</summary>
    private sealed record Word(string Text, PdfFont Font, string? Link, bool Breaks);

    /// <summary>A text in its blocks: numbered paragraphs hang beside their numbers, and a heading keeps to what follows it.</summary>
    public void Blocks(ImmutableArray<TextBlock> blocks)
    {
        foreach (var block in blocks)
            switch (block.Sort)
            {
                case BlockSort.Heading:
                    Room(64);
                    Y += 8;
                    Hanging(block, PdfFonts.Heading, PdfFonts.Heading, NumberWidth, 17);
                    break;
                case BlockSort.Item:
                    Hanging(
                        block with
                        {
                            Number = block.Number ?? "–",
                        },
                        PdfFonts.Text,
                        PdfFonts.Strong,
                        18,
                        TextLine,
                        NumberWidth + (block.Level - 1) * 18
                    );
                    Y += 1;
                    break;
                case BlockSort.Quote:
                    Hanging(block, PdfFonts.Text, PdfFonts.Strong, 0, TextLine, NumberWidth);
                    Y += 5;
                    break;
                case BlockSort.Rule:
                    Y += 8;
                    Rule();
                    break;
                default:
                    Hanging(block, PdfFonts.Text, PdfFonts.Strong, block.Number is null ? 0 : NumberWidth, TextLine);
                    Y += 5;
                    break;
            }
    }

    /// <summary>A block whose number stands in a margin of its own.</summary>
    private void Hanging(TextBlock block, PdfFont plain, PdfFont strong, float margin, float height, float indent = 0)
    {
        var left = Left + indent + margin;
        var first = true;
        foreach (var line in Lines(Words(block.Runs, plain, strong), Right - left))
        {
            Room(height);
            if (first && block.Number is { } number)
                plain.Draw(canvas, number, Left + indent, Y, block.Sort == BlockSort.Heading ? ink : soft);
            first = false;
            var x = left;
            foreach (var word in line)
            {
                var width = word.Font.Measure(word.Text);
                word.Font.Draw(canvas, word.Text, x, Y, ink);
                if (word.Link is { } link)
                {
                    canvas.DrawRect(x, Y + 2, width, 0.5f, ink);
                    canvas.DrawUrlAnnotation(SKRect.Create(x, Y - height + 3, width, height), link);
                }
                x += width;
            }
            Y += height;
        }
    }

    private static IEnumerable<Word> Words(IEnumerable<TextRun> runs, PdfFont plain, PdfFont strong)
    {
        foreach (var run in runs)
        {
            var font = run.Strong ? strong : plain;
            foreach (var (hard, i) in run.Text.Split('\n').Select((hard, i) => (hard, i)))
            {
                if (i > 0)
                    yield return new("", font, null, Breaks: true);
                var from = 0;
                for (var at = 1; at <= hard.Length; at++)
                    // a word keeps the space after it, so that a link and its end are told apart
                    if (at == hard.Length || hard[at - 1] == ' ' && hard[at] != ' ')
                    {
                        yield return new(hard[from..at], font, run.Link, Breaks: false);
                        from = at;
                    }
            }
        }
    }

    /// <summary>Words in lines no wider than a width; a word that is wider by itself is parted where it must be.</summary>
    private static IEnumerable<IReadOnlyList<Word>> Lines(IEnumerable<Word> words, float width)
    {
        List<Word> line = [];
        var used = 0f;
        foreach (var word in words.SelectMany(word => Parted(word, width)))
        {
            var needs = word.Font.Measure(word.Text.TrimEnd(' '));
            if (word.Breaks || line.Count > 0 && used + needs > width)
            {
                yield return line;
                (line, used) = ([], 0);
            }
            if (word.Breaks)
                continue;
            line.Add(word);
            used += word.Font.Measure(word.Text);
        }
        yield return line;
    }

    private static IEnumerable<Word> Parted(Word word, float width) =>
        word.Breaks || word.Font.Measure(word.Text) <= width
            ? [word]
            : word.Font.Wrap(word.Text, width).Select(part => word with { Text = part });
}
