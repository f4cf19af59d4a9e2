using SkiaSharp;

namespace Gesamt.Formats.Files;

/// <summary>Small pictures of pictures.</summary>
public static class Thumbnails
{
    /// <summary>The longer side of a thumbnail, in pixels.</summary>
    public const int Side = 480;

    // a small file can claim to be a huge picture; decoding it would take all memory there is
    private const long MostPixels = 100_000_000;
    private const int Quality = 82;

    /// <summary>A JPEG no larger than <see cref="Side"/> on either side, upright as its EXIF orientation says; null for what is no readable picture.</summary>
    public static byte[]? Of(Stream picture)
    {
        using var codec = SKCodec.Create(picture);
        if (codec is null || (long)codec.Info.Width * codec.Info.Height > MostPixels) return null;
        using var whole = SKBitmap.Decode(codec);
        if (whole is null) return null;
        var scale = Math.Min(1f, (float)Side / Math.Max(whole.Width, whole.Height));
        var turned = codec.EncodedOrigin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var (width, height) = (Math.Max(1, (int)(whole.Width * scale)), Math.Max(1, (int)(whole.Height * scale)));
        using var surface = SKSurface.Create(new SKImageInfo(turned ? height : width, turned ? width : height));
        var canvas = surface.Canvas;
        canvas.Clear(SKColors.White);
        Upright(canvas, codec.EncodedOrigin, width, height);
        using var image = SKImage.FromBitmap(whole);
        canvas.DrawImage(image, new SKRect(0, 0, width, height), new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using var drawn = surface.Snapshot();
        return drawn.Encode(SKEncodedImageFormat.Jpeg, Quality).ToArray();
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
