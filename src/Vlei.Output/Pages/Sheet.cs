using UglyToad.PdfPig.Actions;
using UglyToad.PdfPig.Annotations;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Graphics.Operations;
using UglyToad.PdfPig.Graphics.Operations.TextShowing;
using UglyToad.PdfPig.Graphics.Operations.TextState;
using UglyToad.PdfPig.Outline.Destinations;
using UglyToad.PdfPig.Writer;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>A page to write on. Places are in points from its top left corner.</summary>
internal sealed class Sheet : IPaper
{
    private const int UsualLength = 256;

    private readonly PdfPageBuilder _page;
    private readonly PageContent _content = new();
    private readonly List<(PdfDocumentBuilder.AddedFont Font, string Name)> _fonts = [];
    private readonly Func<PdfDocumentBuilder.AddedFont, char, byte> _learn;

    /// <summary>Adds a page to a document.</summary>
    public Sheet(PdfDocumentBuilder document, double width, double height)
    {
        (_page, Width, Height) = (document.AddPage(width, height), width, height);
        _page.CurrentStream.Operations.Add(_content);
        _learn = Learn;
    }

    /// <inheritdoc/>
    public double Width { get; }

    /// <summary>How high it is.</summary>
    public double Height { get; }

    /// <summary>Its number in the document, from 1.</summary>
    public int Number => _page.PageNumber;

    /// <summary>A place to lead to.</summary>
    /// <param name="page">The number of the page.</param>
    /// <param name="fromBottom">How far above the page's lower edge.</param>
    public static ExplicitDestination PlaceOn(int page, double fromBottom) => new(
        page, ExplicitDestinationType.FitHorizontally, new ExplicitDestinationCoordinates(null, fromBottom));

    /// <inheritdoc/>
    public void Text(PageFace face, string text, double size, double left, double baseline, int? colour = null)
    {
        var codes = text.Length <= UsualLength ? stackalloc byte[text.Length] : new byte[text.Length];
        var rest = text.AsSpan();
        while (!rest.IsEmpty)
        {
            var length = face.CodesOf(rest, codes, _learn, out var font);
            _content.Text(NameOf(font, rest[0]), codes[..length], size, left, Height - baseline, colour ?? 0);
            left += face.Width(rest[..length], size);
            rest = rest[length..];
        }
    }

    /// <summary>Packs what is on it: little more is to come.</summary>
    public void Pack() => _content.Pack();

    /// <summary>Puts a picture on the page.</summary>
    public void Png(byte[] picture, double left, double top, double width, double height) =>
        _page.AddPng(picture, new PdfRectangle(left, Height - top - height, left + width, Height - top));

    /// <summary>
    /// Puts the picture of a report's head on the page, at its right. Gives how much room it takes across. Throws a
    /// <see cref="ProblemException"/> where the picture cannot be read.
    /// </summary>
    public double Logo(ReportLogo logo, double right, double top)
    {
        const double MostHeight = 56;
        const double MostWidth = 180;
        const double Gap = 16;
        var scale = Math.Min(MostHeight / logo.Height, MostWidth / logo.Width);
        var place = new PdfRectangle(right - (logo.Width * scale), Height - top - (logo.Height * scale), right, Height - top);
        try
        {
            _ = logo.IsPng ? _page.AddPng(logo.Bytes.ToArray(), place) : _page.AddJpeg(logo.Bytes.ToArray(), place);
        }
        catch (Exception unreadable) when (unreadable is not OutOfMemoryException)
        {
            // What reads pictures says that it cannot in any way that it happens to.
            throw new ProblemException(
                ProblemKind.BadData, "The logo cannot be put on a page: it is damaged, or of a kind of PNG that is rare.",
                "Save it as PNG with 8 bits for each colour, or as JPEG.", unreadable);
        }

        return (logo.Width * scale) + Gap;
    }

    /// <summary>Writes text that ends there.</summary>
    public void TextEndingAt(PageFace face, string text, double size, double right, double baseline) =>
        Text(face, text, size, right - face.Width(text, size), baseline);

    /// <summary>Draws a rule.</summary>
    public void Rule(double left, double right, double top, double thickness) => Line(left, top, right, top, thickness, colour: 0);

    /// <inheritdoc/>
    public void Line(double left, double top, double right, double bottom, double thickness, int colour) =>
        _content.Line(left, Height - top, right, Height - bottom, thickness, colour);

    /// <summary>Has a part of the page lead to another place in the document.</summary>
    public void Link(double left, double right, double top, double bottom, ExplicitDestination target) => _page.AddLink(new LinkAnnotation(
        new GoToAction(target), new PdfRectangle(left, Height - bottom, right, Height - top), new AnnotationBorder(0, 0, 0, null), null,
        null, null));

    // Gives a font a new letter, and what its code is there: as the library does where it writes one, which is taken away again.
    private byte Learn(PdfDocumentBuilder.AddedFont font, char letter) =>
        Tried(font, letter).OfType<ShowText>().Last().Bytes.Span[0];

    private string NameOf(PdfDocumentBuilder.AddedFont font, char letter)
    {
        foreach (var (known, name) in _fonts)
        {
            if (known == font)
            {
                return name;
            }
        }

        _fonts.Add((font, Tried(font, letter).OfType<SetFontAndSize>().Single().Font.Data));
        return _fonts[^1].Name;
    }

    private List<IGraphicsStateOperation> Tried(PdfDocumentBuilder.AddedFont font, char letter)
    {
        var (operations, count) = (_page.CurrentStream.Operations, _page.CurrentStream.Operations.Count);
        _page.AddText($"{letter}", 1, new PdfPoint(0, 0), font);
        var tried = operations[count..];
        operations.RemoveRange(count, tried.Count);
        return tried;
    }
}
