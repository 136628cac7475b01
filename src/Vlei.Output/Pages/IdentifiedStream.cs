using System.IO.Hashing;
using System.Text;

namespace Vlei.Output.Pages;

/// <summary>
/// What a PDF is written to. Its trailer names it by a number (ISO 32000-2, 14.4) that is drawn by lot; one that follows from what is
/// in it says the same, and is the same tomorrow.
/// </summary>
/// <param name="target">Where it goes.</param>
internal sealed class IdentifiedStream(Stream target) : Stream
{
    private const int MostKept = 1 << 16;
    private const int LongestTrailer = 1 << 12;

    private readonly XxHash128 _hash = new();
    private readonly MemoryStream _end = new();
    private bool _isReleased;
    private long _gone;

    /// <inheritdoc/>
    public override bool CanRead => false;

    /// <inheritdoc/>
    public override bool CanSeek => false;

    /// <inheritdoc/>
    public override bool CanWrite => true;

    /// <inheritdoc/>
    public override long Length => _gone + _end.Length;

    /// <summary>How much was written; it cannot be set: throws <see cref="NotSupportedException"/>.</summary>
    public override long Position
    {
        get => Length;
        set => throw new NotSupportedException();
    }

    /// <inheritdoc/>
    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    /// <inheritdoc/>
    public override void Write(ReadOnlySpan<byte> buffer)
    {
        _end.Write(buffer);
        if (_isReleased && _end.Length >= MostKept)
        {
            Pass((int)_end.Length - LongestTrailer);
        }
    }

    /// <inheritdoc/>
    public override void WriteByte(byte value) => Write([value]);

    /// <summary>Has what is written go out from now on: there is nothing left in the document that could not be written.</summary>
    public void Release() => _isReleased = true;

    /// <summary>Names the document by what is in it, and writes the rest of it.</summary>
    public void Finish()
    {
        var place = Kept.LastIndexOf("/ID"u8);
        if (place >= 0)
        {
            Pass(place);
            Name(Convert.ToHexString(_hash.GetCurrentHash()));
        }

        Pass((int)_end.Length);
        target.Flush();
    }

    /// <summary>What is kept for the trailer stays until the end: does nothing.</summary>
    public override void Flush()
    {
    }

    /// <summary>Throws <see cref="NotSupportedException"/>.</summary>
    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    /// <summary>Throws <see cref="NotSupportedException"/>.</summary>
    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    /// <summary>Throws <see cref="NotSupportedException"/>.</summary>
    public override void SetLength(long value) => throw new NotSupportedException();

    private Span<byte> Kept => _end.GetBuffer().AsSpan(0, (int)_end.Length);

    private void Pass(int count)
    {
        var gone = Kept[..count];
        var kept = Kept[count..].ToArray();
        _hash.Append(gone);
        target.Write(gone);
        _gone += count;
        _end.SetLength(0);
        _end.Write(kept);
    }

    // Both numbers of the trailer, each between angle brackets.
    private void Name(string name)
    {
        var rest = Kept;
        while (rest.IndexOf((byte)'<') is var start and >= 0)
        {
            rest = rest[(start + 1)..];
            if (rest.IndexOf((byte)'>') is var length and > 0 && rest[0] != (byte)'<')
            {
                Encoding.ASCII.GetBytes($"{name}{name}".AsSpan(0, Math.Min(length, 2 * name.Length)), rest);
                rest = rest[length..];
            }
        }
    }
}
