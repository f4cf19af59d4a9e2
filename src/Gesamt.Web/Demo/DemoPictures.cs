using SkiaSharp;

namespace Gesamt.Web.Demo;

/// <summary>Small made-up pictures for the demo's files: a wall with shapes on it, different for each name and the same every time.</summary>
public static class DemoPictures
{
    private const int Width = 960,
        Height = 640;

    private static readonly string[] Colours =
    [
        "#0f4c46",
        "#c8643c",
        "#e2b44d",
        "#3a6ea5",
        "#7a3b4e",
        "#d9d2bf",
        "#4f7f56",
    ];

    public static byte[] Draw(string name)
    {
        var random = new Random(name.Aggregate(17, (sum, letter) => unchecked(sum * 31 + letter)));
        using var surface = SKSurface.Create(new SKImageInfo(Width, Height));
        var canvas = surface.Canvas;
        canvas.Clear(SKColor.Parse("#d7cfc0"));
        Bricks(canvas);
        for (var i = 0; i < 9; i++)
            Shape(canvas, random);
        using var image = surface.Snapshot();
        return image.Encode(SKEncodedImageFormat.Png, 90).ToArray();
    }

    private static void Bricks(SKCanvas canvas)
    {
        using var joint = new SKPaint { Color = SKColor.Parse("#c6bca9"), StrokeWidth = 2 };
        for (var y = 0; y < Height; y += 32)
        {
            canvas.DrawLine(0, y, Width, y, joint);
            for (var x = y / 32 % 2 * 40; x < Width; x += 80)
                canvas.DrawLine(x, y, x, y + 32, joint);
        }
    }

    private static void Shape(SKCanvas canvas, Random random)
    {
        using var paint = new SKPaint
        {
            Color = SKColor.Parse(Colours[random.Next(Colours.Length)]).WithAlpha(225),
            IsAntialias = true,
        };
        var (x, y, size) = (random.Next(120, Width - 120), random.Next(120, Height - 100), random.Next(40, 150));
        switch (random.Next(3))
        {
            case 0:
                canvas.DrawCircle(x, y, size, paint);
                break;
            case 1:
                canvas.DrawRect(x - size, y - size / 2f, size * 2, size, paint);
                break;
            default:
                using (var wave = new SKPathBuilder())
                {
                    wave.MoveTo(x - size * 2, y);
                    wave.CubicTo(x - size, y - size, x + size, y + size, x + size * 2, y);
                    wave.LineTo(x + size * 2, y + size / 2f);
                    wave.CubicTo(x + size, y + size * 1.5f, x - size, y - size / 2f, x - size * 2, y + size / 2f);
                    using var path = wave.Detach();
                    canvas.DrawPath(path, paint);
                }
                break;
        }
    }
}
