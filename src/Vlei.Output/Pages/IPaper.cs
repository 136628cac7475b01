namespace Vlei.Output.Pages;

/// <summary>What can be written and drawn on: a page of a document, or a picture. Places are in points from its top left corner.</summary>
internal interface IPaper
{
    /// <summary>How wide it is.</summary>
    double Width { get; }

    /// <summary>Writes text that begins there; the height is that of the line it stands on.</summary>
    void Text(PageFace face, string text, double size, double left, double baseline, int? colour = null);

    /// <summary>Draws a line of a colour.</summary>
    void Line(double left, double top, double right, double bottom, double thickness, int colour);
}
