using SkiaSharp;

namespace Gesamt.Formats.Pdf;

/// <summary>The studio's type in PDFs, shipped with the program.</summary>
internal static class PdfFonts
{
    public static readonly SKFont Title = Of("Archivo_700Bold", 22);
    public static readonly SKFont Heading = Of("Archivo_600SemiBold", 11);
    public static readonly SKFont Figures = Of("Archivo_500Medium", 10);
    public static readonly SKFont StrongFigures = Of("Archivo_700Bold", 12);
    public static readonly SKFont Text = Of("AtkinsonHyperlegibleNext_400Regular", 10);
    public static readonly SKFont Strong = Of("AtkinsonHyperlegibleNext_700Bold", 10);
    public static readonly SKFont Small = Of("AtkinsonHyperlegibleNext_400Regular", 8.5f);

    private static SKFont Of(string name, float size)
    {
        using var stream = typeof(PdfFonts).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The font {name} is not in the assembly.");
        return new(SKTypeface.FromStream(stream), size) { Subpixel = true, LinearMetrics = true, Hinting = SKFontHinting.None };
    }
}
