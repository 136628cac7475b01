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
    private readonly double _unitsPerSize;

    // By letter. How wide it is, in the font's units, 0 where that was not asked yet; and its font and its code in it, 0 where it was
    // not written yet.
    private readonly short[] _widths = new short[char.MaxValue + 1];
    private readonly ushort[] _codes = new ushort[char.MaxValue + 1];
    private readonly List<PdfDocumentBuilder.AddedFont> _fonts = [];
    private int _letters;

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
        _unitsPerSize = _font.GetUnitsPerEm();
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
    public double Width(ReadOnlySpan<char> text, double size)
    {
        var width = 0;
        foreach (var letter in text)
        {
            width += Math.Max(0, WidthOf(letter));
        }

        return width / _unitsPerSize * size;
    }

    /// <summary>Gives the codes of a text's first letters, as many as are in one embedded font.</summary>
    /// <param name="text">The text, of one letter at least.</param>
    /// <param name="codes">Where the codes are put; there is room for the whole text.</param>
    /// <param name="add">Writes a letter that is new with a font, and says what its code is in it.</param>
    /// <param name="font">The font.</param>
    /// <returns>How many letters that are.</returns>
    public int CodesOf(
        ReadOnlySpan<char> text, Span<byte> codes, Func<PdfDocumentBuilder.AddedFont, char, byte> add,
        out PdfDocumentBuilder.AddedFont font)
    {
        var (length, first) = (0, CodeOf(text[0], add) >> 8);
        font = _fonts[first];
        for (; length < text.Length && CodeOf(text[length], add) is var code && code >> 8 == first; length++)
        {
            codes[length] = (byte)code;
        }

        return length;
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

    private ushort CodeOf(char letter, Func<PdfDocumentBuilder.AddedFont, char, byte> add)
    {
        if (_codes[letter] == 0)
        {
            if (_letters == _fonts.Count * MostLettersInFont)
            {
                _fonts.Add(_document.AddTrueTypeFont(_file));
            }

            _codes[letter] = (ushort)(((_fonts.Count - 1) << 8) | add(_fonts[^1], letter));
            _letters++;
        }

        return _codes[letter];
    }

    // Less than nothing where the font has no such letter.
    private int WidthOf(char letter)
    {
        if (_widths[letter] == 0)
        {
            _widths[letter] = _font.TableRegister.CMapTable.TryGetGlyphIndex(letter, out var glyph) && glyph > 0
                && _font.TryGetAdvanceWidth(letter, out var units) && units > 0 ? (short)units : (short)-1;
        }

        return _widths[letter];
    }
}
