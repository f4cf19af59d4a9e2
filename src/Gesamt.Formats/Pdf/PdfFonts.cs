using System.Collections.Concurrent;
using System.Globalization;
using System.Text;
using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <summary>The studio's type in PDFs, shipped with the program.</summary>
internal static class PdfFonts
{
    public static readonly PdfFont Title = new("Archivo_700Bold", 22, true);
    public static readonly PdfFont Studio = new("Archivo_700Bold", 14, true);
    public static readonly PdfFont Heading = new("Archivo_600SemiBold", 11, true);
    public static readonly PdfFont Figures = new("Archivo_500Medium", 10, false);
    public static readonly PdfFont StrongFigures = new("Archivo_700Bold", 12, true);
    public static readonly PdfFont Text = new("AtkinsonHyperlegibleNext_400Regular", 10, false);
    public static readonly PdfFont Strong = new("AtkinsonHyperlegibleNext_700Bold", 10, true);
    public static readonly PdfFont Small = new("AtkinsonHyperlegibleNext_400Regular", 8.5f, false);
}

/// <summary>A face in its size. What it has no glyph for, Greek, Cyrillic, Japanese, emoji, is written in faces that stand in for it.</summary>
internal sealed class PdfFont(string name, float size, bool strong)
{
    // a paper carries every face it uses whole, so those that stand in are parted by script, and the large ones once more
    private static readonly string[] Shipped =
    [
        .. typeof(PdfFonts).Assembly.GetManifestResourceNames().Order(StringComparer.Ordinal),
    ];
    private static readonly Dictionary<string, Lazy<SKTypeface>> Faces = Shipped.ToDictionary(
        face => face,
        face => new Lazy<SKTypeface>(() => Load(face))
    );

    private readonly Lazy<SKFont>[] fonts =
    [
        .. Shipped
            .Where(face =>
                face.StartsWith("NotoSans", StringComparison.Ordinal)
                && face.EndsWith(strong ? "700Bold" : "400Regular", StringComparison.Ordinal)
            )
            .Concat(Shipped.Where(face => face.StartsWith("NotoSansJP_", StringComparison.Ordinal)))
            .Concat(Shipped.Where(face => face.StartsWith("NotoEmoji_", StringComparison.Ordinal)))
            .Prepend(name)
            .Select(face => new Lazy<SKFont>(() => Sized(face, size))),
    ];

    private readonly ConcurrentDictionary<string, SKFont> found = new(StringComparer.Ordinal);

    /// <summary>How wide a text is, in points.</summary>
    public float Measure(string text) => Runs(text).Sum(run => run.Font.MeasureText(run.Text));

    /// <summary>Draws a line of text from its left end.</summary>
    public void Draw(SKCanvas canvas, string text, float x, float y, SKPaint paint)
    {
        foreach (var (part, font) in Runs(text))
        {
            canvas.DrawText(part, x, y, SKTextAlign.Left, font, paint);
            x += font.MeasureText(part);
        }
    }

    /// <summary>Draws a line of text that ends at <paramref name="right"/>.</summary>
    public void DrawEnding(SKCanvas canvas, string text, float right, float y, SKPaint paint) =>
        Draw(canvas, text, right - Measure(text), y, paint);

    /// <summary>Draws figures that end at <paramref name="right"/>, every digit in a cell as wide as the widest, since Skia applies no tabular figures.</summary>
    public void DrawFigures(SKCanvas canvas, string text, float right, float y, SKPaint paint)
    {
        var cell = Enumerable.Range('0', 10).Max(digit => Measure(((char)digit).ToString()));
        var parts = Elements(text)
            .Select(part => (Text: part, Width: Measure(part), IsDigit: part.Length == 1 && char.IsAsciiDigit(part[0])))
            .ToList();
        var x = right - parts.Sum(part => part.IsDigit ? cell : part.Width);
        foreach (var part in parts)
        {
            Draw(canvas, part.Text, x + (part.IsDigit ? (cell - part.Width) / 2 : 0), y, paint);
            x += part.IsDigit ? cell : part.Width;
        }
    }

    /// <summary>Lines no wider than <paramref name="width"/>; a word that is wider by itself is parted where it must be.</summary>
    public IEnumerable<string> Wrap(string text, float width)
    {
        var line = "";
        foreach (
            var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries).SelectMany(word => Pieces(word, width))
        )
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && Measure(longer) > width)
            {
                yield return line;
                line = word;
            }
            else
                line = longer;
        }
        yield return line;
    }

    private IEnumerable<string> Pieces(string word, float width)
    {
        if (Measure(word) <= width)
            return [word];
        List<string> pieces = [""];
        foreach (var element in Elements(word))
            if (pieces[^1].Length > 0 && Measure(pieces[^1] + element) > width)
                pieces.Add(element);
            else
                pieces[^1] += element;
        return pieces;
    }

    /// <summary>The text in parts of one face each.</summary>
    private IEnumerable<(string Text, SKFont Font)> Runs(string text)
    {
        var part = new StringBuilder();
        SKFont? font = null;
        foreach (var element in Elements(text))
        {
            var next = FontOf(element);
            if (font is not null && next != font)
            {
                yield return (part.ToString(), font);
                part.Clear();
            }
            font = next;
            part.Append(element);
        }
        if (font is not null)
            yield return (part.ToString(), font);
    }

    /// <summary>What a reader sees as one sign each; what no paper can show, controls and the marks that join signs, is left out.</summary>
    private static IEnumerable<string> Elements(string text)
    {
        var elements = StringInfo.GetTextElementEnumerator(text);
        while (elements.MoveNext())
        {
            // the fonts have no narrow no-break space, with which amounts are grouped on screens
            var shown = string.Concat(
                elements
                    .GetTextElement()
                    .Replace('\u202f', '\u00a0')
                    .EnumerateRunes()
                    .Where(IsShown)
                    .Select(rune => rune.ToString())
            );
            if (shown.Length > 0)
                yield return shown;
        }
    }

    private static bool IsShown(Rune rune) =>
        Rune.GetUnicodeCategory(rune)
            is not (UnicodeCategory.Control or UnicodeCategory.Format or UnicodeCategory.Surrogate)
        && rune.Value is not (>= 0xFE00 and <= 0xFE0F);

    /// <summary>The first face that has all of a sign; what none has is drawn as the box of the first.</summary>
    private SKFont FontOf(string element) =>
        element.Length == 1 && element[0] < 128
            ? fonts[0].Value
            : found.GetOrAdd(
                element,
                sign => fonts.FirstOrDefault(font => font.Value.ContainsGlyphs(sign))?.Value ?? fonts[0].Value
            );

    private static SKFont Sized(string face, float size) =>
        new(Faces[face].Value, size)
        {
            Subpixel = true,
            LinearMetrics = true,
            Hinting = SKFontHinting.None,
        };

    private static SKTypeface Load(string face)
    {
        using var stream =
            typeof(PdfFonts).Assembly.GetManifestResourceStream(face)
            ?? throw new InvalidOperationException($"The font {face} is not in the assembly.");
        return SKTypeface.FromStream(stream);
    }
}
