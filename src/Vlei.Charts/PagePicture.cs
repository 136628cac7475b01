using System.Text.Json;
using System.Text.Json.Serialization;
using SkiaSharp;

namespace Vlei.Charts;

/// <summary>Text on a page: where its line begins, in points from the top left corner.</summary>
internal sealed record PageWriting(string Text, bool Bold, float Size, float Left, float Baseline, int Colour);

/// <summary>A line on a page.</summary>
internal sealed record PageLine(float Left, float Top, float Right, float Bottom, float Thickness, int Colour);

/// <summary>A page that is drawn as a picture.</summary>
internal sealed record PageRequest(float Width, float Height, IReadOnlyList<PageWriting> Texts, IReadOnlyList<PageLine> Lines);

/// <summary>The JSON of a page.</summary>
[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.SnakeCaseLower,
    UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow)]
[JsonSerializable(typeof(PageRequest))]
internal sealed partial class PageJson : JsonSerializerContext;

/// <summary>Draws a page.</summary>
internal static class PagePicture
{
    // Dots for a point: sharp on a screen of today.
    private const float Sharp = 2;

    /// <summary>The picture.</summary>
    /// <param name="json">What stands on the page.</param>
    /// <param name="isSvg">Whether it is SVG rather than PNG.</param>
    public static byte[] Draw(Stream json, bool isSvg)
    {
        var page = JsonSerializer.Deserialize(json, PageJson.Default.PageRequest)!;
        if (isSvg)
        {
            using var drawn = new MemoryStream();
            using (var canvas = SKSvgCanvas.Create(new SKRect(0, 0, page.Width, page.Height), drawn))
            {
                Draw(canvas, page);
            }

            return drawn.ToArray();
        }

        using var bitmap = new SKBitmap((int)Math.Ceiling(page.Width * Sharp), (int)Math.Ceiling(page.Height * Sharp));
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Scale(Sharp);
            Draw(canvas, page);
        }

        using var picture = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return picture.ToArray();
    }

    private static void Draw(SKCanvas canvas, PageRequest page)
    {
        canvas.Clear(SKColors.White);
        using var paint = new SKPaint { IsAntialias = true };
        foreach (var line in page.Lines)
        {
            (paint.Color, paint.StrokeWidth) = (Colour(line.Colour), line.Thickness);
            canvas.DrawLine(line.Left, line.Top, line.Right, line.Bottom, paint);
        }

        var fonts = new EmbeddedFont();
        foreach (var text in page.Texts)
        {
            using var font = new SKFont(fonts.CreateTypeface(EmbeddedFont.Name, text.Bold, italic: false), text.Size);
            paint.Color = Colour(text.Colour);
            canvas.DrawText(text.Text, text.Left, text.Baseline, font, paint);
        }
    }

    private static SKColor Colour(int colour) => new((byte)(colour >> 16), (byte)(colour >> 8), (byte)colour);
}
