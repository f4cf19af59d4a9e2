namespace Gesamt.Formats.Pdf;

/// <summary>A row of a table: what it is, a word on it, and its other columns.</summary>
internal sealed record PdfRow(string Label, string Detail, IReadOnlyList<string> Cells);

/// <inheritdoc cref="PdfSheet"/>
internal sealed partial class PdfSheet
{
    private const float LabelLine = 14,
        DetailLine = 12;

    /// <summary>A table whose head is repeated on every page. Its last row keeps to what follows, so that no total stands alone.</summary>
    /// <param name="columns">The first takes what the others leave.</param>
    /// <param name="after">How much room what follows needs, in points.</param>
    public void Table(IReadOnlyList<PdfColumn> columns, IReadOnlyList<PdfRow> rows, float after)
    {
        var cells = columns.Skip(1).ToList();
        var label = Width - cells.Sum(column => column.Width + Gutter);
        TableHead(columns, cells);
        foreach (var (row, i) in rows.Select((row, i) => (row, i)))
        {
            var height = HeightOf(row, cells, label);
            if (Room(height + (i == rows.Count - 1 ? after : 0)))
                TableHead(columns, cells);
            Row(row, cells, label);
        }
    }

    private void TableHead(IReadOnlyList<PdfColumn> columns, IReadOnlyList<PdfColumn> cells)
    {
        Room(60);
        PdfFonts.Small.Draw(canvas, columns[0].Head, Left, Y, soft);
        foreach (var (column, right) in Ends(cells))
            PdfFonts.Small.DrawEnding(canvas, column.Head, right, Y, soft);
        Y += 16;
        Rule(heavy: true);
        Y += 4;
    }

    private void Row(PdfRow row, IReadOnlyList<PdfColumn> cells, float label)
    {
        var top = Y;
        foreach (var ((column, right), cell) in Ends(cells).Zip(row.Cells))
        {
            var y = top;
            foreach (var line in (column.Begins ? PdfFonts.Text : PdfFonts.Figures).Wrap(cell, column.Width))
            {
                if (column.Begins)
                    PdfFonts.Text.Draw(canvas, line, right - column.Width - Gutter / 2, y, soft);
                else
                    PdfFonts.Figures.DrawFigures(canvas, line, right, y, ink);
                y += LabelLine;
            }
        }
        foreach (var line in PdfFonts.Text.Wrap(row.Label, label))
        {
            PdfFonts.Text.Draw(canvas, line, Left, Y, ink);
            Y += LabelLine;
        }
        foreach (var line in DetailLines(row.Detail, label))
        {
            PdfFonts.Small.Draw(canvas, line, Left, Y, soft);
            Y += DetailLine;
        }
        Y = Math.Max(Y, top + CellLines(row, cells) * LabelLine) + 4;
        canvas.DrawRect(Left, Y - 9, Width, 0.6f, hair);
        Y += 8;
    }

    /// <summary>Each column with where its figures end.</summary>
    private static IEnumerable<(PdfColumn Column, float Right)> Ends(IReadOnlyList<PdfColumn> cells)
    {
        var right = Right - cells.Sum(column => column.Width + Gutter);
        foreach (var column in cells)
        {
            right += column.Width + Gutter;
            yield return (column, right);
        }
    }

    private static float HeightOf(PdfRow row, IReadOnlyList<PdfColumn> cells, float label) =>
        Math.Max(
            PdfFonts.Text.Wrap(row.Label, label).Count() * LabelLine
                + DetailLines(row.Detail, label).Count() * DetailLine,
            CellLines(row, cells) * LabelLine
        ) + 12;

    private static int CellLines(PdfRow row, IReadOnlyList<PdfColumn> cells) =>
        Ends(cells)
            .Zip(row.Cells)
            .Select(pair => PdfFonts.Figures.Wrap(pair.Second, pair.First.Column.Width).Count())
            .DefaultIfEmpty(0)
            .Max();

    private static IEnumerable<string> DetailLines(string detail, float width) =>
        detail.Length == 0
            ? []
            : detail.ReplaceLineEndings("\n").Split('\n').SelectMany(hard => PdfFonts.Small.Wrap(hard, width));
}
