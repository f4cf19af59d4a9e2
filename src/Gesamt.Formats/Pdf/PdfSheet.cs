using NodaTime;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <summary>A column of a table.</summary>
/// <param name="Width">In points, without the gap before it; 0 for the one that takes what is left.</param>
/// <param name="Begins">Whether its words begin at its left edge; figures end at the right one.</param>
internal sealed record PdfColumn(string Head, float Width, bool Begins = false);

/// <summary>An A4 sheet that text and rows flow down, page after page. Positions in points of 1/72 inch.</summary>
internal sealed partial class PdfSheet : IDisposable
{
    public const float Left = 51,
        Right = 544,
        Width = Right - Left;
    private const float PageWidth = 595,
        PageHeight = 842,
        Top = 58,
        Bottom = 770,
        Foot = 800;
    private const float Gutter = 12,
        LogoHeight = 36,
        LogoWidth = 150,
        BarWidth = 90,
        BarHeight = 7;

    private readonly MemoryStream stream = new();
    private readonly SKDocument document;
    private readonly Letterhead head;
    private readonly string foot;
    private readonly int pages;
    private readonly SKPaint ink = Paint("#17211d");
    private readonly SKPaint soft = Paint("#56625b");
    private readonly SKPaint hair = Paint("#cdd4c8");
    private readonly SKPaint brand;
    private SKCanvas canvas;
    private int page = 1;

    /// <summary>Draws a paper: once to count its pages, and once more with their number on each.</summary>
    /// <param name="logo">The picture at the head, PNG or JPEG; one that cannot be read is left out.</param>
    /// <param name="foot">What stands at the foot of each page; empty for the studio's particulars, which then stand at the head.</param>
    public static byte[] Draw(
        Letterhead head,
        string title,
        Instant at,
        byte[]? logo,
        Action<PdfSheet> draw,
        string foot = ""
    )
    {
        (byte[] File, int Pages) Drawn(int pages)
        {
            using var sheet = new PdfSheet(head, title, at, logo, foot, pages);
            draw(sheet);
            return (sheet.Save(), sheet.page);
        }
        var counted = Drawn(0);
        var update = new PdfUpdate(Drawn(counted.Pages).File);
        update.Add(update.Root, "/Lang(en)");
        return update.Write().File;
    }

    private PdfSheet(Letterhead head, string title, Instant at, byte[]? logo, string foot, int pages)
    {
        (this.head, this.foot, this.pages) = (head, foot, pages);
        brand = new()
        {
            Color = SKColor.TryParse(head.Brand, out var color) ? color : SKColor.Parse("#17211d"),
            IsAntialias = true,
        };
        var time = at.ToDateTimeUtc();
        document = SKDocument.CreatePdf(
            stream,
            new SKDocumentPdfMetadata
            {
                Title = title,
                Author = head.Studio,
                Producer = "Gesamt",
                Creation = time,
                Modified = time,
                RasterDpi = 150,
                EncodingQuality = 101,
            }
        );
        canvas = Begin();
        Head(logo);
    }

    public float Y { get; private set; }

    public void Gap(float points) => Y += points;

    public void Title(string text)
    {
        foreach (var line in PdfFonts.Title.Wrap(text, Width))
            Line(line, PdfFonts.Title, 27);
    }

    public void Heading(string text)
    {
        Room(80); // a heading never stands alone at the foot of a page
        Y += 12;
        foreach (var line in PdfFonts.Heading.Wrap(text, Width))
            Line(line, PdfFonts.Heading, 17);
    }

    /// <summary>A line that begins something, never alone at the foot of a page.</summary>
    public void Strong(string text)
    {
        Room(44);
        foreach (var line in PdfFonts.Strong.Wrap(text, Width))
            Line(line, PdfFonts.Strong, 14.5f);
        Y += 2;
    }

    /// <param name="leads">What follows belongs to it and stands right below.</param>
    public void Paragraph(string text, bool quiet = false, bool leads = false)
    {
        if (leads)
            Room(30);
        foreach (var hard in text.ReplaceLineEndings("\n").Split('\n'))
        foreach (var line in PdfFonts.Text.Wrap(hard, Width))
            Line(line, PdfFonts.Text, 14.5f, quiet);
        Y += leads ? 0 : 5;
    }

    /// <summary>Facts beside each other, each under its name.</summary>
    /// <param name="across">How many have room across the page.</param>
    public void Facts(int across, params IReadOnlyList<(string Name, string Value)> facts)
    {
        Room(44);
        Rule(heavy: true);
        var each = Width / across;
        var top = Y + 4;
        var deepest = top;
        foreach (var ((name, value), i) in facts.Select((fact, i) => (fact, i)))
        {
            PdfFonts.Small.Draw(canvas, name, Left + i * each, top, soft);
            var y = top + 15;
            foreach (var line in PdfFonts.Strong.Wrap(value, each - Gutter))
            {
                PdfFonts.Strong.Draw(canvas, line, Left + i * each, y, ink);
                y += 13;
            }
            deepest = Math.Max(deepest, y);
        }
        Y = deepest + 12;
    }

    /// <summary>A label on the left and figures ending at the right edge.</summary>
    public void Row(string label, string figures, bool strong = false, bool quiet = false, float from = Left)
    {
        Room(20);
        var font = strong ? PdfFonts.StrongFigures : PdfFonts.Figures;
        var paint = quiet ? soft : ink;
        font.DrawFigures(canvas, figures, Right, Y, paint);
        var words = strong ? PdfFonts.Strong : PdfFonts.Text;
        foreach (var line in words.Wrap(label, Right - from - font.Measure(figures) - 2 * Gutter))
        {
            words.Draw(canvas, line, from, Y, paint);
            Y += 14;
        }
        Y += 2.5f;
    }

    /// <summary>A line across the page, or its right half.</summary>
    public void Rule(bool heavy = false, float from = Left)
    {
        canvas.DrawRect(from, Y - 8, Right - from, heavy ? 1.2f : 0.6f, heavy ? ink : hair);
        Y += heavy ? 10 : 8;
    }

    /// <summary>What follows begins on a page of its own, unless this one is still empty.</summary>
    public void NewPage()
    {
        if (Y > Top)
            Turn();
    }

    public void Dispose()
    {
        document.Dispose();
        stream.Dispose();
        foreach (var paint in new[] { ink, soft, hair, brand })
            paint.Dispose();
    }

    private static SKPaint Paint(string color) => new() { Color = SKColor.Parse(color), IsAntialias = true };

    private byte[] Save()
    {
        End();
        document.Close();
        return stream.ToArray();
    }

    /// <summary>The studio on the left, where it is reached on the right, neither over the other however long they are.</summary>
    private void Head(byte[]? logo)
    {
        const float half = Width / 2 - Gutter;
        canvas.DrawRect(Left, 0, BarWidth, BarHeight, brand);
        var top = Y;
        using var picture = logo is null ? null : SKImage.FromEncodedData(logo);
        if (picture is { Width: > 0, Height: > 0 })
        {
            var scale = Math.Min(LogoHeight / picture.Height, LogoWidth / picture.Width);
            canvas.DrawImage(
                picture,
                SKRect.Create(Left, Y - 12, picture.Width * scale, picture.Height * scale),
                new SKSamplingOptions(SKCubicResampler.Mitchell)
            );
            Y += picture.Height * scale + 8;
        }
        foreach (var line in PdfFonts.Studio.Wrap(head.Studio, half))
        {
            PdfFonts.Studio.Draw(canvas, line, Left, Y, ink);
            Y += 18;
        }
        var left = Y;
        Y = top;
        foreach (
            var line in head
                .Address.ReplaceLineEndings("\n")
                .Split('\n')
                .Concat([head.Phone, head.Mail, head.Site, foot.Length > 0 ? TaxNumber : ""])
                .Where(line => line.Length > 0)
                .SelectMany(line => PdfFonts.Small.Wrap(line, half))
        )
        {
            PdfFonts.Small.DrawEnding(canvas, line, Right, Y, soft);
            Y += 12.5f;
        }
        Y = Math.Max(left, Y) + 32;
    }

    private SKCanvas Begin()
    {
        Y = Top;
        return document.BeginPage(PageWidth, PageHeight);
    }

    private void End()
    {
        var words =
            foot.Length > 0
                ? foot
                : string.Join(
                    ", ",
                    new[] { head.Studio, TaxNumber, head.Bank, head.Bic.Length > 0 ? $"BIC {head.Bic}" : "" }.Where(
                        part => part.Length > 0
                    )
                );
        PdfFonts.Small.Draw(canvas, PdfFonts.Small.Wrap(words, Width - 90).First(), Left, Foot, soft);
        PdfFonts.Small.DrawEnding(canvas, $"page {page} of {pages}", Right, Foot, soft);
        document.EndPage();
    }

    private string TaxNumber => head.TaxNumber.Length > 0 ? $"tax number {head.TaxNumber}" : "";

    private void Turn()
    {
        End();
        page++;
        canvas = Begin();
    }

    private bool Room(float height)
    {
        if (Y + height <= Bottom)
            return false;
        Turn();
        return true;
    }

    private void Line(string text, PdfFont font, float height, bool quiet = false)
    {
        Room(height);
        font.Draw(canvas, text, Left, Y, quiet ? soft : ink);
        Y += height;
    }
}
