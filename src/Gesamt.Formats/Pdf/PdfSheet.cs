using NodaTime;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <summary>Who a paper is from, on its head and foot, as it was when the paper was made.</summary>
/// <param name="Address">Lines of the postal address.</param>
/// <param name="Logo">SHA-256 of the picture at its head; null for none.</param>
public sealed record Letterhead(
    string Studio,
    string Address,
    string Mail,
    string TaxNumber,
    string Brand,
    string? Logo = null,
    string Phone = "",
    string Site = "",
    string Bank = "",
    string Bic = ""
);

/// <summary>An A4 sheet that text and rows flow down, page after page. Positions in points of 1/72 inch.</summary>
internal sealed class PdfSheet : IDisposable
{
    public const float Left = 64,
        Right = 531,
        Width = Right - Left;
    private const float PageWidth = 595,
        PageHeight = 842,
        Top = 64,
        Bottom = 770;
    private const float Gutter = 14,
        AmountWidth = 82,
        PriceWidth = 74,
        QuantityWidth = 84,
        LogoHeight = 36,
        LogoWidth = 150;

    private readonly MemoryStream stream = new();
    private readonly SKDocument document;
    private readonly Letterhead head;
    private readonly SKPaint ink = new() { Color = SKColor.Parse("#17211d"), IsAntialias = true };
    private readonly SKPaint soft = new() { Color = SKColor.Parse("#56625b"), IsAntialias = true };
    private readonly SKPaint brand;
    private SKCanvas canvas;
    private int page = 1;

    /// <param name="logo">The picture at the head, PNG or JPEG; one that cannot be read is left out.</param>
    public PdfSheet(Letterhead head, string title, Instant at, byte[]? logo)
    {
        this.head = head;
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
            Line(line, PdfFonts.Title, 28);
    }

    public void Heading(string text)
    {
        Room(80); // a heading never stands alone at the foot of a page
        Y += 12;
        foreach (var line in PdfFonts.Heading.Wrap(text, Width))
            Line(line, PdfFonts.Heading, 17);
    }

    public void Paragraph(string text, bool quiet = false)
    {
        foreach (var hard in text.ReplaceLineEndings("\n").Split('\n'))
        foreach (var line in PdfFonts.Text.Wrap(hard, Width))
            Line(line, PdfFonts.Text, 14.5f, quiet);
        Y += 5;
    }

    /// <summary>What the columns of <see cref="Priced"/> rows are called.</summary>
    public void Columns(string quantity, string price, string amount)
    {
        Room(48);
        PdfFonts.Small.DrawEnding(canvas, quantity, Right - AmountWidth - PriceWidth - 2 * Gutter, Y, soft);
        PdfFonts.Small.DrawEnding(canvas, price, Right - AmountWidth - Gutter, Y, soft);
        PdfFonts.Small.DrawEnding(canvas, amount, Right, Y, soft);
        Y += 15;
    }

    /// <summary>A label on the left and figures ending at the right edge.</summary>
    public void Row(string label, string figures, bool strong = false, string? detail = null)
    {
        Room(34);
        var font = strong ? PdfFonts.StrongFigures : PdfFonts.Figures;
        font.DrawFigures(canvas, figures, Right, Y, ink);
        Label(label, detail, Width - Math.Max(AmountWidth, font.Measure(figures)) - Gutter, strong);
    }

    /// <summary>A row of a table with how much at which price.</summary>
    public void Priced(string label, string detail, string quantity, string price, string figures)
    {
        Room(34);
        var top = Y;
        PdfFonts.Figures.DrawFigures(canvas, figures, Right, Y, ink);
        PdfFonts.Figures.DrawFigures(canvas, price, Right - AmountWidth - Gutter, Y, ink);
        var end = Right - AmountWidth - PriceWidth - 2 * Gutter;
        var lines = PdfFonts.Text.Wrap(quantity, QuantityWidth).ToList();
        foreach (var (line, at) in lines.Select((line, at) => (line, at)))
            PdfFonts.Text.DrawEnding(canvas, line, end, top + 14 * at, ink);
        var onPage = page;
        Label(label, detail, end - QuantityWidth - Gutter - Left, strong: false);
        if (page == onPage)
            Y = Math.Max(Y, top + 14 * lines.Count + 4);
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

    /// <summary>The studio on the left, where it is reached on the right, neither over the other however long they are.</summary>
    private void Head(byte[]? logo)
    {
        const float half = Width / 2 - Gutter;
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
            Y += picture.Height * scale + 6;
        }
        else
            canvas.DrawRect(Left, Y - 10, 10, 10, brand);
        var indent = picture is null ? 17 : 0;
        foreach (var line in PdfFonts.Heading.Wrap(head.Studio, half - indent))
        {
            PdfFonts.Heading.Draw(canvas, line, Left + indent, Y, ink);
            Y += 15;
        }
        var left = Y;
        Y = top;
        foreach (
            var line in head
                .Address.ReplaceLineEndings("\n")
                .Split('\n')
                .Concat([head.Phone, head.Mail, head.Site])
                .Where(line => line.Length > 0)
                .SelectMany(line => PdfFonts.Small.Wrap(line, half))
        )
        {
            PdfFonts.Small.DrawEnding(canvas, line, Right, Y, soft);
            Y += 11.5f;
        }
        Y = Math.Max(left, Y) + 31;
    }

    private void Label(string label, string? detail, float width, bool strong)
    {
        var font = strong ? PdfFonts.Strong : PdfFonts.Text;
        foreach (var line in font.Wrap(label, width))
            Line(line, font, 14);
        foreach (
            var line in detail is { Length: > 0 }
                ? detail.ReplaceLineEndings("\n").Split('\n').SelectMany(hard => PdfFonts.Small.Wrap(hard, width))
                : []
        )
            Line(line, PdfFonts.Small, 12, quiet: true);
        Y += 4;
    }

    private SKCanvas Begin()
    {
        Y = Top;
        return document.BeginPage(PageWidth, PageHeight);
    }

    private void End()
    {
        var foot = string.Join(
            ", ",
            new[]
            {
                head.Studio,
                head.TaxNumber.Length > 0 ? $"tax number {head.TaxNumber}" : "",
                head.Bank,
                head.Bic.Length > 0 ? $"BIC {head.Bic}" : "",
            }.Where(part => part.Length > 0)
        );
        PdfFonts.Small.Draw(canvas, PdfFonts.Small.Wrap(foot, Width - 60).First(), Left, 806, soft);
        PdfFonts.Small.DrawEnding(canvas, $"Page {page}", Right, 806, soft);
        document.EndPage();
    }

    private void Room(float height)
    {
        if (Y + height <= Bottom)
            return;
        End();
        page++;
        canvas = Begin();
    }

    private void Line(string text, PdfFont font, float height, bool quiet = false)
    {
        Room(height);
        font.Draw(canvas, text, Left, Y, quiet ? soft : ink);
        Y += height;
    }
}
