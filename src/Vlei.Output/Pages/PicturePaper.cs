using System.Text.Json;

namespace Vlei.Output.Pages;

/// <summary>
/// What is written on a page, kept until it is known how high that is, to be drawn as a picture: <c>{"width", "height", "texts",
/// "lines"}</c>, in points.
/// </summary>
/// <param name="width">How wide it is.</param>
/// <param name="bold">The face that is bold.</param>
internal sealed class PicturePaper(double width, PageFace bold) : IPaper
{
    private readonly List<(string Text, bool IsBold, double Size, double Left, double Baseline, int Colour)> _texts = [];
    private readonly List<(double Left, double Top, double Right, double Bottom, double Thickness, int Colour)> _lines = [];

    /// <inheritdoc/>
    public double Width => width;

    /// <inheritdoc/>
    public void Text(PageFace face, string text, double size, double left, double baseline, int? colour = null) =>
        _texts.Add((text, face == bold, size, left, baseline, colour ?? 0));

    /// <inheritdoc/>
    public void Line(double left, double top, double right, double bottom, double thickness, int colour) =>
        _lines.Add((left, top, right, bottom, thickness, colour));

    /// <summary>All of it as JSON.</summary>
    /// <param name="height">How high the picture is.</param>
    public byte[] Json(double height)
    {
        using var bytes = new MemoryStream();
        using (var json = new Utf8JsonWriter(bytes))
        {
            json.WriteStartObject();
            json.WriteNumber("width", width);
            json.WriteNumber("height", height);
            json.WriteStartArray("texts");
            foreach (var (text, isBold, size, left, baseline, colour) in _texts)
            {
                json.WriteStartObject();
                json.WriteString("text", text);
                json.WriteBoolean("bold", isBold);
                json.WriteNumber("size", size);
                json.WriteNumber("left", left);
                json.WriteNumber("baseline", baseline);
                json.WriteNumber("colour", colour);
                json.WriteEndObject();
            }

            json.WriteEndArray();
            json.WriteStartArray("lines");
            foreach (var (left, top, right, bottom, thickness, colour) in _lines)
            {
                json.WriteStartObject();
                json.WriteNumber("left", left);
                json.WriteNumber("top", top);
                json.WriteNumber("right", right);
                json.WriteNumber("bottom", bottom);
                json.WriteNumber("thickness", thickness);
                json.WriteNumber("colour", colour);
                json.WriteEndObject();
            }

            json.WriteEndArray();
            json.WriteEndObject();
        }

        return bytes.ToArray();
    }
}
