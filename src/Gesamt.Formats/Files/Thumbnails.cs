using SkiaSharp;

namespace Gesamt.Formats.Files;

/// <summary>Small pictures of pictures.</summary>
/// <remarks>A small file can be a huge picture, so its size is read from its head first and it is never held whole: decoded at the smallest scale its format offers, or strip by strip.</remarks>
public static class Thumbnails
{
    /// <summary>The longer side of a thumbnail, in pixels.</summary>
    public const int Side = 480;

    // beyond this nobody painted or photographed it
    private const long MostPixels = 250_000_000;

    // what is decoded at once, 4 bytes each
    private const long MostAtOnce = 16_000_000;
    private const int MostStrips = 4,
        Quality = 82;

    /// <summary>A JPEG no larger than <see cref="Side"/> on either side, upright as its EXIF orientation says; null for what is no readable picture.</summary>
    /// <param name="open">Opens the picture from its beginning; called again for each strip of a large one.</param>
    public static byte[]? Of(Func<Stream> open)
    {
        // the codec closes its stream
        SKCodec? Codec() => SKCodec.Create(open());
        using var codec = Codec();
        if (
            codec is null
            || codec.Info.Width < 1
            || codec.Info.Height < 1
            || (long)codec.Info.Width * codec.Info.Height > MostPixels
        )
            return null;
        var scale = Math.Min(1f, (float)Side / Math.Max(codec.Info.Width, codec.Info.Height));
        var turned =
            codec.EncodedOrigin
            is SKEncodedOrigin.LeftTop
                or SKEncodedOrigin.RightTop
                or SKEncodedOrigin.RightBottom
                or SKEncodedOrigin.LeftBottom;
        var (width, height) = (
            Math.Max(1, (int)(codec.Info.Width * scale)),
            Math.Max(1, (int)(codec.Info.Height * scale))
        );
        using var surface = SKSurface.Create(new SKImageInfo(turned ? height : width, turned ? width : height));
        surface.Canvas.Clear(SKColors.White);
        Upright(surface.Canvas, codec.EncodedOrigin, width, height);
        if (
            !DrawAtOnce(codec, scale, surface.Canvas, width, height)
            && !DrawInStrips(Codec, surface.Canvas, width, height)
        )
            return null;
        using var drawn = surface.Snapshot();
        return drawn.Encode(SKEncodedImageFormat.Jpeg, Quality).ToArray();
    }

    /// <summary>Decoded as small as the format allows; false if that is still too much, or cannot be read.</summary>
    private static bool DrawAtOnce(SKCodec codec, float scale, SKCanvas canvas, int width, int height)
    {
        var size = codec.GetScaledDimensions(scale);
        if ((long)size.Width * size.Height > MostAtOnce)
            return false;
        using var bitmap = new SKBitmap(Shape(size.Width, size.Height));
        // a picture that breaks off shows what there is of it
        if (
            codec.GetPixels(bitmap.Info, bitmap.GetPixels())
            is not (SKCodecResult.Success or SKCodecResult.IncompleteInput)
        )
            return false;
        Draw(canvas, bitmap, new(0, 0, width, height));
        return true;
    }

    /// <summary>Strip by strip, for formats that cannot be decoded small: each strip is decoded from the beginning again, so there are only a few. False where it would take too many, or the format cannot do it.</summary>
    private static bool DrawInStrips(Func<SKCodec?> open, SKCanvas canvas, int width, int height)
    {
        for (var y = 0; ; )
        {
            using var codec = open();
            if (codec is null)
                return false;
            var whole = Shape(codec.Info.Width, codec.Info.Height);
            var rows = Math.Min((int)(MostAtOnce / whole.Width), whole.Height - y);
            if (rows < 1 || (whole.Height + rows - 1) / rows > MostStrips)
                return false;
            using var strip = new SKBitmap(Shape(whole.Width, rows));
            if (
                codec.StartIncrementalDecode(
                    whole,
                    strip.GetPixels(),
                    strip.RowBytes,
                    new(new SKRectI(0, y, whole.Width, y + rows))
                ) != SKCodecResult.Success
            )
                return false;
            // a picture that breaks off shows what there is of it
            if (codec.IncrementalDecode(out _) is not (SKCodecResult.Success or SKCodecResult.IncompleteInput))
                return y > 0;
            Draw(
                canvas,
                strip,
                new(0, (float)y * height / whole.Height, width, (float)(y + rows) * height / whole.Height)
            );
            if ((y += rows) >= whole.Height)
                return true;
        }
    }

    private static SKImageInfo Shape(int width, int height) =>
        new(width, height, SKImageInfo.PlatformColorType, SKAlphaType.Premul);

    private static void Draw(SKCanvas canvas, SKBitmap bitmap, SKRect place)
    {
        using var image = SKImage.FromBitmap(bitmap);
        canvas.DrawImage(image, place, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
    }

    private static void Upright(SKCanvas canvas, SKEncodedOrigin origin, int width, int height)
    {
        switch (origin)
        {
            case SKEncodedOrigin.BottomRight:
                canvas.RotateDegrees(180, width / 2f, height / 2f);
                break;
            case SKEncodedOrigin.RightTop:
                canvas.Translate(height, 0);
                canvas.RotateDegrees(90);
                break;
            case SKEncodedOrigin.LeftBottom:
                canvas.Translate(0, width);
                canvas.RotateDegrees(-90);
                break;
            default:
                break; // upright already; mirrored pictures come from no camera
        }
    }
}
