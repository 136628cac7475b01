using System.IO.Hashing;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>Makes a <see cref="WordColumn"/>. The same rows come to the same bytes, whichever way they were gathered.</summary>
internal sealed class WordColumnWriter
{
    private readonly Dictionary<ulong, int> _known = [];
    private readonly List<int> _codes = [];
    private readonly List<long> _sizes = [];
    private readonly List<int> _ends = [];
    private byte[] _words = new byte[4096];
    private int _used;
    private bool _isOfNumbers;

    /// <summary>Whether no row has a value.</summary>
    public bool IsEmpty => _sizes.Count == 0;

    /// <summary>Puts a text into a row behind all that have a value.</summary>
    public void Put(int row, ReadOnlySpan<byte> text)
    {
        var hash = XxHash3.HashToUInt64(text);
        if (!_known.TryGetValue(hash, out var word) || !text.SequenceEqual(WordAt(word)))
        {
            _known[hash] = word = _sizes.Count;
            if (_used + text.Length > _words.Length)
            {
                Array.Resize(ref _words, Math.Max(2 * _words.Length, _used + text.Length));
            }

            text.CopyTo(_words.AsSpan(_used));
            _used += text.Length;
            _sizes.Add(text.Length);
            _ends.Add(_used);
        }

        SetCode(row, word + 1);
    }

    /// <summary>Puts a number into a row behind all that have a value.</summary>
    public void Put(int row, long number)
    {
        _isOfNumbers = true;
        if (!_known.TryGetValue((ulong)number, out var word))
        {
            _known[(ulong)number] = word = _sizes.Count;
            _sizes.Add(number);
        }

        SetCode(row, word + 1);
    }

    /// <summary>The column as bytes, and makes ready for another.</summary>
    public byte[] Take()
    {
        var width = WordColumn.WidthOf(_sizes.Count);
        var bytes = new byte[((_sizes.Count + 2) * PackedNumber.Longest) + _used + (_codes.Count * width)];
        Span<byte> rest = bytes;
        PackedNumber.Put(ref rest, _sizes.Count);
        PackedNumber.Put(ref rest, _isOfNumbers ? 1 : 0);
        foreach (var size in _sizes)
        {
            PackedNumber.Put(ref rest, size);
        }

        _words.AsSpan(0, _used).CopyTo(rest);
        rest = rest[_used..];
        foreach (var code in _codes)
        {
            // The lowest byte first, as all packed numbers have it.
            for (var place = 0; place < width; place++)
            {
                rest[place] = (byte)(code >> (8 * place));
            }

            rest = rest[width..];
        }

        var length = bytes.Length - rest.Length;
        _known.Clear();
        _codes.Clear();
        _sizes.Clear();
        _ends.Clear();
        (_used, _isOfNumbers) = (0, false);
        return bytes[..length];
    }

    private ReadOnlySpan<byte> WordAt(int word) => _words.AsSpan((word == 0 ? 0 : _ends[word - 1]).._ends[word]);

    private void SetCode(int row, int code)
    {
        while (_codes.Count < row)
        {
            _codes.Add(0);
        }

        _codes.Add(code);
    }
}
