using System.Buffers;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using UglyToad.PdfPig.Graphics;
using UglyToad.PdfPig.Graphics.Operations;

namespace Vlei.Output.Pages;

/// <summary>
/// What is drawn on a page, as the bytes of its content stream (ISO 32000-2, 8 and 9). What is set already is not set again. Places are
/// in points from the lower left corner, and are kept to a thousandth of one.
/// </summary>
internal sealed class PageContent : IGraphicsStateOperation
{
    private const int Parts = 1000;
    private const int MostDigits = 24;

    private ArrayBufferWriter<byte> _bytes = new();
    private byte[] _packed = [];
    private bool _isInText;
    private (string Name, long Size) _font = ("", 0);
    private (long Left, long Bottom) _line;
    private int _fill;
    private int _stroke;
    private long _thickness = Parts;

    /// <inheritdoc/>
    public string Operator => "";

    /// <summary>Writes text.</summary>
    /// <param name="font">The font, as the page names it.</param>
    /// <param name="codes">Its letters, as that font has them.</param>
    /// <param name="size">How large it is.</param>
    /// <param name="left">Where it begins.</param>
    /// <param name="bottom">The line it stands on.</param>
    /// <param name="colour">Red, green and blue, a byte of each.</param>
    public void Text(string font, ReadOnlySpan<byte> codes, double size, double left, double bottom, int colour)
    {
        if (!_isInText)
        {
            _bytes.Write("BT\n"u8);
            (_isInText, _line) = (true, default);
        }

        if (_fill != colour)
        {
            Colour(_fill = colour, "rg\n"u8);
        }

        if (_font != (font, Whole(size)))
        {
            _font = (font, Whole(size));
            _bytes.Write("/"u8);
            Encoding.ASCII.GetBytes(font, _bytes);
            _bytes.Write(" "u8);
            Number(_font.Size);
            _bytes.Write("Tf\n"u8);
        }

        // From the beginning of the text before, which is how places of text are given.
        var line = (Left: Whole(left), Bottom: Whole(bottom));
        Number(line.Left - _line.Left);
        Number(line.Bottom - _line.Bottom);
        _line = line;
        _bytes.Write("Td("u8);
        Letters(codes);
        _bytes.Write(")Tj\n"u8);
    }

    /// <summary>Draws a line from one place to another.</summary>
    public void Line(double left, double bottom, double right, double top, double thickness, int colour)
    {
        if (_isInText)
        {
            _bytes.Write("ET\n"u8);
            _isInText = false;
        }

        if (_stroke != colour)
        {
            Colour(_stroke = colour, "RG\n"u8);
        }

        if (_thickness != Whole(thickness))
        {
            Number(_thickness = Whole(thickness));
            _bytes.Write("w\n"u8);
        }

        Number(Whole(left));
        Number(Whole(bottom));
        _bytes.Write("m "u8);
        Number(Whole(right));
        Number(Whole(top));
        _bytes.Write("l S\n"u8);
    }

    /// <summary>
    /// Packs what is there already, which is done once the page is all but finished: what waits for the last of a few thousand pages is
    /// much.
    /// </summary>
    public void Pack()
    {
        var packed = new MemoryStream();
        using (var packer = new DeflateStream(packed, CompressionLevel.Fastest))
        {
            packer.Write(_bytes.WrittenSpan);
        }

        (_packed, _bytes) = (packed.ToArray(), new());
    }

    /// <inheritdoc/>
    public void Write(Stream stream)
    {
        if (_packed.Length > 0)
        {
            using var unpacker = new DeflateStream(new MemoryStream(_packed), CompressionMode.Decompress);
            unpacker.CopyTo(stream);
        }

        stream.Write(_bytes.WrittenSpan);
        stream.Write(_isInText ? "ET\n"u8 : default);
    }

    /// <summary>Pages are written, and not read: throws <see cref="NotSupportedException"/>.</summary>
    public void Run(IOperationContext operationContext) => throw new NotSupportedException();

    private static long Whole(double number) => (long)Math.Round(number * Parts);

    private void Colour(int colour, ReadOnlySpan<byte> command)
    {
        for (var shift = 16; shift >= 0; shift -= 8)
        {
            Number(((colour >> shift) & byte.MaxValue) * Parts / byte.MaxValue);
        }

        _bytes.Write(command);
    }

    // A number of thousandths, and a blank.
    private void Number(long thousandths)
    {
        var room = _bytes.GetSpan(MostDigits);
        var length = 0;
        if (thousandths < 0)
        {
            room[length++] = (byte)'-';
        }

        var (whole, part) = Math.DivRem(Math.Abs(thousandths), Parts);
        _ = whole.TryFormat(room[length..], out var digits, default, CultureInfo.InvariantCulture);
        length += digits;
        if (part > 0)
        {
            room[length++] = (byte)'.';
            for (var unit = Parts / 10; part > 0; unit /= 10)
            {
                room[length++] = (byte)('0' + (part / unit));
                part %= unit;
            }
        }

        room[length++] = (byte)' ';
        _bytes.Advance(length);
    }

    private void Letters(ReadOnlySpan<byte> codes)
    {
        var room = _bytes.GetSpan(2 * codes.Length);
        var length = 0;
        foreach (var code in codes)
        {
            // Brackets end a string, and the end of a line is read as another.
            if (code is (byte)'(' or (byte)')' or (byte)'\\' or (byte)'\r')
            {
                room[length++] = (byte)'\\';
            }

            room[length++] = code == '\r' ? (byte)'r' : code;
        }

        _bytes.Advance(length);
    }
}
