using System.Text;
using UglyToad.PdfPig.Fonts.TrueType;
using UglyToad.PdfPig.Fonts.TrueType.Parser;
using UglyToad.PdfPig.Writer;

namespace Vlei.Output.Pages;

/// <summary>
/// A face of the font that pages are set in: how wide its letters are, and in which of the embedded fonts each of them is. An
/// embedded font has room for 255 different letters, so a face is embedded again when it is full.
/// </summary>
internal sealed class PageFace
{
    private const int MostLettersInFont = 255;
    private const char Missing = '?';

    private readonly PdfDocumentBuilder _document;
    private readonly byte[] _file;
    private readonly TrueTypeFont _font;
    private readonly Dictionary<char, double> _widths = [];
    private readonly Dictionary<char, int> _fontOf = [];
    private readonly List<PdfDocumentBuilder.AddedFont> _fonts = [];

    /// <summary>Reads a face.</summary>
    /// <param name="document">The document that it is embedded in.</param>
    /// <param name="name">The name of its file.</param>
    public PageFace(PdfDocumentBuilder document, string name)
    {
        _document = document;
        using var stream = typeof(PageFace).Assembly.GetManifestResourceStream(name)!;
        _file = new byte[stream.Length];
        stream.ReadExactly(_file);
        _font = TrueTypeFontParser.Parse(new TrueTypeDataBytes(_file));
    }

    /// <summary>The letters that it does not have, and that stand as question marks.</summary>
    public SortedSet<string> Unknown { get; } = new(StringComparer.Ordinal);

    /// <summary>Harmless text, with a question mark for what the face has no letter for.</summary>
    public string Shown(string text)
    {
        var harmless = DisplayText.Harmless(text, ascii: false);
        var isKnown = true;
        foreach (var letter in harmless)
        {
            isKnown &= WidthOf(letter) > 0;
        }

        return isKnown ? harmless : WithMissing(ComposedLetters.In(harmless));
    }

    /// <summary>How wide a text is, in points; of text that <see cref="Shown"/> gave.</summary>
    public double Width(string text, double size)
    {
        var width = 0.0;
        foreach (var letter in text)
        {
            width += WidthOf(letter);
        }

        return width * size;
    }

    /// <summary>The text in stretches of letters that are in one embedded font.</summary>
    public IEnumerable<(string Text, PdfDocumentBuilder.AddedFont Font)> Runs(string text)
    {
        var start = 0;
        for (var place = 1; place <= text.Length; place++)
        {
            if (place == text.Length || FontOf(text[place]) != FontOf(text[start]))
            {
                yield return (text[start..place], _fonts[FontOf(text[start])]);
                start = place;
            }
        }
    }

    private string WithMissing(string text)
    {
        var shown = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            var isKnown = rune.IsBmp && WidthOf((char)rune.Value) > 0;
            shown.Append(isKnown ? (char)rune.Value : Missing);
            if (!isKnown)
            {
                Unknown.Add(rune.ToString());
            }
        }

        return shown.ToString();
    }

    private int FontOf(char letter)
    {
        if (!_fontOf.TryGetValue(letter, out var font))
        {
            font = _fontOf.Count / MostLettersInFont;
            if (font == _fonts.Count)
            {
                _fonts.Add(_document.AddTrueTypeFont(_file));
            }

            _fontOf.Add(letter, font);
        }

        return font;
    }

    private double WidthOf(char letter)
    {
        if (!_widths.TryGetValue(letter, out var width))
        {
            width = _font.TableRegister.CMapTable.TryGetGlyphIndex(letter, out var glyph) && glyph > 0
                && _font.TryGetAdvanceWidth(letter, out var units)
                ? units / _font.GetUnitsPerEm() : 0;
            _widths.Add(letter, width);
        }

        return width;
    }
}
