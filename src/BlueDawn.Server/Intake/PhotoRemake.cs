using System.Diagnostics.CodeAnalysis;
using SkiaSharp;

namespace BlueDawn.Server.Intake;

/// <summary>A photo made anew.</summary>
/// <param name="Jpeg">The picture as JPEG.</param>
/// <param name="Width">Width in pixels.</param>
/// <param name="Height">Height in pixels.</param>
internal sealed record RemadePhoto(byte[] Jpeg, int Width, int Height);

/// <summary>
/// Decodes what was sent by its content, whatever it calls itself, turns it upright, makes it no larger than a screen
/// needs and encodes it again: place, time and device that were written into the file stay behind.
/// </summary>
internal static class PhotoRemake
{
    private const int LongestSide = 2048;
    private const long MostPixels = 60_000_000;

    /// <summary>Most pixels that are in memory at once, before the picture is made small: 64 MB of them.</summary>
    private const long MostInMemory = 16_000_000;
    private const int Quality = 84;
    private const int Eighths = 8;

    /// <summary>Makes a photo anew.</summary>
    /// <param name="file">What was sent.</param>
    /// <param name="made">The photo.</param>
    /// <param name="problem">What is wrong with it.</param>
    public static bool TryMake(byte[] file, [NotNullWhen(true)] out RemadePhoto? made, [NotNullWhen(false)] out string? problem)
    {
        made = null;
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data);
        if (
            codec is null
            || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png or SKEncodedImageFormat.Webp)
        )
        {
            problem = "That is not a JPEG, PNG or WebP picture. Take the photo again, or save it as one of these.";
            return false;
        }

        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
        {
            problem = "That picture has too many pixels. Make it smaller and send it again.";
            return false;
        }

        // JPEG and WebP are read at as many eighths of their size as are needed: what is thrown away is never in memory.
        var wanted = Math.Min(1, LongestSide / (double)Math.Max(codec.Info.Width, codec.Info.Height));
        var read = codec.GetScaledDimensions((float)(Math.Ceiling(wanted * Eighths) / Eighths));
        if ((long)read.Width * read.Height > MostInMemory)
        {
            problem = "That picture has too many pixels. Save it as JPEG, or make it smaller, and send it again.";
            return false;
        }

        using var bitmap = new SKBitmap(read.Width, read.Height, SKColorType.Rgba8888, SKAlphaType.Premul);
        if (codec.GetPixels(bitmap.Info, bitmap.GetPixels()) != SKCodecResult.Success)
        {
            problem = "That picture is damaged: only part of it can be read. Take the photo again.";
            return false;
        }

        using var upright = Upright(bitmap, codec.EncodedOrigin);
        var scale = Math.Min(1, LongestSide / (double)Math.Max(upright.Width, upright.Height));
        var size = new SKSizeI(Math.Max(1, (int)Math.Round(upright.Width * scale)), Math.Max(1, (int)Math.Round(upright.Height * scale)));
        using var small = upright.Resize(
            new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul),
            new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)
        );
        using var flat = new SKBitmap(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Opaque);
        using (var canvas = new SKCanvas(flat))
        {
            canvas.Clear(SKColors.White);
            canvas.DrawBitmap(small, 0, 0);
        }

        using var jpeg = flat.Encode(SKEncodedImageFormat.Jpeg, Quality);
        made = new RemadePhoto(jpeg.ToArray(), size.Width, size.Height);
        problem = null;
        return true;
    }

    /// <summary>Turned the way the camera was held.</summary>
    private static SKBitmap Upright(SKBitmap bitmap, SKEncodedOrigin origin)
    {
        var turned =
            origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var upright = turned ? new SKBitmap(bitmap.Height, bitmap.Width) : new SKBitmap(bitmap.Width, bitmap.Height);
        using var canvas = new SKCanvas(upright);
        var (w, h) = (bitmap.Width, bitmap.Height);
        var matrix = origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, h, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, h, -1, 0, w, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, w, 0, 0, 1),
            _ => SKMatrix.Identity,
        };
        canvas.SetMatrix(matrix);
        canvas.DrawBitmap(bitmap, 0, 0);
        return upright;
    }
}
