using ScottPlot;
using SkiaSharp;

namespace Vlei.Charts;

/// <summary>The font of charts, which is part of the program, so that a chart is the same on every machine.</summary>
internal sealed class EmbeddedFont : IFontResolver
{
    /// <summary>Its name.</summary>
    public const string Name = "IBM Plex Sans";

    private readonly SKTypeface _regular = Read("IBMPlexSans-Regular.ttf");
    private readonly SKTypeface _bold = Read("IBMPlexSans-SemiBold.ttf");

    /// <inheritdoc/>
    public SKTypeface? CreateTypeface(string fontName, FontWeight weight, FontSlant slant, FontSpacing spacing) =>
        weight >= FontWeight.SemiBold ? _bold : _regular;

    /// <inheritdoc/>
    public SKTypeface? CreateTypeface(string fontName, bool bold, bool italic) => bold ? _bold : _regular;

    private static SKTypeface Read(string name)
    {
        using var stream = typeof(EmbeddedFont).Assembly.GetManifestResourceStream(name)!;
        return SKTypeface.FromStream(stream);
    }
}
