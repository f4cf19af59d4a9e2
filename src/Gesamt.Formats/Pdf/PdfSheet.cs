using NodaTime;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <summary>Who a paper is from, on its head and foot.</summary>
public sealed record Letterhead(string Studio, string Address, string Mail, string TaxNumber, string Brand);

/// <summary>An A4 sheet that text and rows flow down, page after page. Positions in points of 1/72 inch.</summary>
internal sealed class PdfSheet : IDisposable
{
    public const float Left = 64, Right = 531, Width = Right - Left;
    private const float PageWidth = 595, PageHeight = 842, Top = 64, Bottom = 770;

    private readonly MemoryStream stream = new();
    private readonly SKDocument document;
    private readonly Letterhead head;
    private readonly SKPaint ink = new() { Color = SKColor.Parse("#17211d"), IsAntialias = true };
    private readonly SKPaint soft = new() { Color = SKColor.Parse("#56625b"), IsAntialias = true };
    private readonly SKPaint brand;
    private SKCanvas canvas;
    private int page = 1;

    public PdfSheet(Letterhead head, string title, Instant at)
    {
        this.head = head;
        brand = new() { Color = SKColor.TryParse(head.Brand, out var color) ? color : SKColor.Parse("#17211d"), IsAntialias = true };
        var time = at.ToDateTimeUtc();
        document = SKDocument.CreatePdf(stream, new SKDocumentPdfMetadata { Title = title, Author = head.Studio, Producer = "Gesamt", Creation = time, Modified = time, RasterDpi = 150, EncodingQuality = 101 });
        canvas = Begin();
        canvas.DrawRect(Left, Y - 10, 10, 10, brand);
        canvas.DrawText(head.Studio, Left + 17, Y, SKTextAlign.Left, PdfFonts.Heading, ink);
        canvas.DrawText($"{head.Address}   {head.Mail}", Right, Y, SKTextAlign.Right, PdfFonts.Small, soft);
        Y += 46;
    }

    public float Y { get; private set; }

    public void Gap(float points) => Y += points;

    public void Title(string text)
    {
        foreach (var line in Wrap(text, PdfFonts.Title, Width)) Line(line, PdfFonts.Title, 28);
    }

    public void Heading(string text)
    {
        Room(80); // a heading never stands alone at the foot of a page
        Y += 12;
        Line(text, PdfFonts.Heading, 17);
    }

    public void Paragraph(string text, bool quiet = false)
    {
        foreach (var hard in text.ReplaceLineEndings("\n").Split('\n'))
            foreach (var line in Wrap(hard, PdfFonts.Text, Width))
                Line(line, PdfFonts.Text, 14.5f, quiet);
        Y += 5;
    }

    /// <summary>A label on the left and figures ending at the right edge.</summary>
    public void Row(string label, string figures, bool strong = false, string? detail = null)
    {
        Room(34);
        var font = strong ? PdfFonts.Strong : PdfFonts.Text;
        var lines = Wrap(label, font, Width - 120).ToList();
        RightFigures(figures, strong ? PdfFonts.StrongFigures : PdfFonts.Figures, Right, Y);
        foreach (var line in lines) Line(line, font, 14);
        foreach (var line in detail is { Length: > 0 } ? Wrap(detail, PdfFonts.Small, Width - 120) : []) Line(line, PdfFonts.Small, 12, quiet: true);
        Y += 4;
    }

    public void Rule(bool heavy = false)
    {
        canvas.DrawRect(Left, Y - 8, Width, heavy ? 1.2f : 0.5f, heavy ? ink : soft);
        Y += heavy ? 10 : 8;
    }

    /// <summary>The finished file.</summary>
    public byte[] Save()
    {
        End();
        document.Close();
        return stream.ToArray();
    }

    public void Dispose()
    {
        document.Dispose();
        stream.Dispose();
        ink.Dispose();
        soft.Dispose();
        brand.Dispose();
    }

    private SKCanvas Begin()
    {
        Y = Top;
        return document.BeginPage(PageWidth, PageHeight);
    }

    private void End()
    {
        canvas.DrawText(head.TaxNumber.Length > 0 ? $"{head.Studio}, tax number {head.TaxNumber}" : head.Studio, Left, 806, SKTextAlign.Left, PdfFonts.Small, soft);
        canvas.DrawText($"Page {page}", Right, 806, SKTextAlign.Right, PdfFonts.Small, soft);
        document.EndPage();
    }

    private void Room(float height)
    {
        if (Y + height <= Bottom) return;
        End();
        page++;
        canvas = Begin();
    }

    private void Line(string text, SKFont font, float height, bool quiet = false)
    {
        Room(height);
        canvas.DrawText(Printable(text), Left, Y, SKTextAlign.Left, font, quiet ? soft : ink);
        Y += height;
    }

    /// <summary>Every digit in a cell as wide as the widest, since Skia applies no tabular figures.</summary>
    private void RightFigures(string text, SKFont font, float right, float y)
    {
        text = Printable(text);
        var cell = Enumerable.Range('0', 10).Max(digit => font.MeasureText(((char)digit).ToString()));
        var points = new SKPoint[text.Length];
        var x = 0f;
        for (var i = 0; i < text.Length; i++)
        {
            var width = font.MeasureText(text[i].ToString());
            var isDigit = char.IsAsciiDigit(text[i]);
            points[i] = new(x + (isDigit ? (cell - width) / 2 : 0), 0);
            x += isDigit ? cell : width;
        }
        if (text.Length == 0) return;
        using var blob = SKTextBlob.CreatePositioned(text, font, points);
        canvas.DrawText(blob, right - x, y, ink);
    }

    /// <summary>The fonts have no narrow no-break space, with which amounts are grouped on screens.</summary>
    private static string Printable(string text) => text.Replace('\u202f', '\u00a0');

    private static IEnumerable<string> Wrap(string text, SKFont font, float width)
    {
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && font.MeasureText(longer) > width)
            {
                yield return line;
                line = word;
            }
            else line = longer;
        }
        yield return line;
    }
}
