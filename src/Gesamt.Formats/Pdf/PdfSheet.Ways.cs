using System.Collections.Immutable;
using Gesamt.Formats.Invoices;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <inheritdoc cref="PdfSheet"/>
internal sealed partial class PdfSheet
{
    private const float CodeSize = 89,
        WaysHeight = 122;

    /// <summary>Ways to pay beside each other along the foot of the page, the code for a bank's app before them.</summary>
    /// <param name="code">What the code holds; null for none.</param>
    public void Ways(string? code, ImmutableArray<PaperWay> ways)
    {
        var left = Left + (code is null ? 0 : CodeSize + 16);
        var each = (Right - left) / Math.Max(ways.Length, 2);
        var height = Math.Max(WaysHeight, ways.Max(way => HeightOf(way, each)) + 18);
        Room(height);
        Y = Math.Max(Y, Bottom - height);
        Rule(heavy: true);
        if (code is not null)
            Code(EpcCode.Modules(code), Left, Y);
        foreach (var (way, i) in ways.Select((way, i) => (way, i)))
            Draw(way, left + i * each, Y + 8, each - Gutter);
        Y += height - 18;
    }

    private static float HeightOf(PaperWay way, float each) =>
        15
        + way.Lines.Sum(line => PdfFonts.Text.Wrap(line, each - Gutter).Count()) * 14.5f
        + Smalls(way, each - Gutter).Count() * 12;

    private void Draw(PaperWay way, float x, float y, float width)
    {
        foreach (var line in PdfFonts.Heading.Wrap(way.Heading, width))
        {
            PdfFonts.Heading.Draw(canvas, line, x, y, ink);
            y += 15;
        }
        foreach (var line in way.Lines.SelectMany(line => PdfFonts.Text.Wrap(line, width)))
        {
            PdfFonts.Text.Draw(canvas, line, x, y, ink);
            y += 14.5f;
        }
        foreach (var line in Smalls(way, width))
        {
            PdfFonts.Small.Draw(canvas, line, x, y, soft);
            y += 12;
        }
    }

    private static IEnumerable<string> Smalls(PaperWay way, float width) =>
        way.Small.Length == 0 ? [] : PdfFonts.Small.Wrap(way.Small, width);

    /// <summary>Dark modules as squares, in their quiet zone of four modules.</summary>
    private void Code(bool[][] modules, float x, float y)
    {
        const int quiet = EpcCode.Quiet;
        var each = CodeSize / (modules.Length + 2 * quiet);
        using var dark = new SKPaint { Color = SKColors.Black };
        for (var row = 0; row < modules.Length; row++)
        for (var column = 0; column < modules.Length; column++)
        {
            // dark modules beside each other are one bar, so that no seam shows between them
            var from = column;
            while (column < modules.Length && modules[row][column])
                column++;
            if (column > from)
                canvas.DrawRect(
                    x + (from + quiet) * each,
                    y + (row + quiet) * each,
                    (column - from) * each,
                    each,
                    dark
                );
        }
        using var frame = new SKPaint
        {
            Color = hair.Color,
            IsStroke = true,
            StrokeWidth = 0.6f,
        };
        canvas.DrawRect(SKRect.Create(x, y, CodeSize, CodeSize), frame);
    }
}
