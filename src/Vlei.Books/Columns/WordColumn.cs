using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// A column of texts, or of numbers of which few differ, as bytes: every value once, in the order in which they come, and for each row
/// the number of its value; 0 stands for nothing. <see cref="WordColumnWriter"/> makes them.
/// </summary>
internal sealed class WordColumn
{
    // So few values are made strings once; of more it is not likely that the same is asked for again soon.
    private const int Few = 64;

    private readonly byte[] _data;
    private readonly int[] _starts;
    private readonly long[] _numbers;
    private readonly string?[] _strings;
    private readonly int _codes;
    private readonly int _width;

    private WordColumn(byte[] data, int[] starts, long[] numbers, int codes, int width)
    {
        (_data, _starts, _numbers, _codes, _width, Count) = (data, starts, numbers, codes, width, (data.Length - codes) / width);
        _strings = new string?[starts.Length - 1 <= Few ? Math.Max(0, starts.Length - 1) : 0];
    }

    /// <summary>How many rows there are.</summary>
    public int Count { get; }

    /// <summary>Reads a column; nothing where the bytes cannot be one.</summary>
    public static WordColumn? TryRead(ReadOnlySpan<byte> bytes)
    {
        try
        {
            var data = bytes.ToArray();
            ReadOnlySpan<byte> rest = data;
            var (count, isOfNumbers) = ((int)PackedNumber.Take(ref rest), PackedNumber.Take(ref rest) == 1);
            var (starts, numbers) = isOfNumbers ? (Array.Empty<int>(), new long[count]) : (new int[count + 1], []);
            for (var word = 0; word < count; word++)
            {
                var number = PackedNumber.Take(ref rest);
                if (isOfNumbers)
                {
                    numbers[word] = number;
                }
                else
                {
                    starts[word + 1] = starts[word] + (int)number;
                }
            }

            if (!isOfNumbers)
            {
                var first = data.Length - rest.Length;
                for (var word = 0; word <= count; word++)
                {
                    starts[word] += first;
                }

                rest = rest[(starts[count] - first)..];
            }

            var width = WidthOf(count);
            return rest.Length % width == 0 ? new WordColumn(data, starts, numbers, data.Length - rest.Length, width) : null;
        }
        catch (Exception cut) when (cut is IndexOutOfRangeException or ArgumentException or OverflowException)
        {
            return null;
        }
    }

    /// <summary>How many bytes the number of a value takes, where there are so many values.</summary>
    public static int WidthOf(int words) => words <= byte.MaxValue ? 1 : words <= ushort.MaxValue ? 2 : 4;

    /// <summary>The value in a row.</summary>
    public RecordValue this[int row] => CodeOf(row) is > 0 and var code
        ? _numbers.Length > 0 ? new RecordValue(_numbers[code - 1]) : new RecordValue(null, StringOf(code - 1))
        : default;

    /// <summary>Whether there is a value in a row.</summary>
    public bool IsSaid(int row) => CodeOf(row) > 0;

    /// <summary>The number in a row; 0 where there is nothing.</summary>
    public long NumberOf(int row) => CodeOf(row) is > 0 and var code ? _numbers[code - 1] : 0;

    /// <summary>Adds the value in a row to another column.</summary>
    public void CopyTo(WordColumnWriter other, int row, int otherRow)
    {
        if (CodeOf(row) is not (> 0 and var code))
        {
            return;
        }

        if (_numbers.Length > 0)
        {
            other.Put(otherRow, _numbers[code - 1]);
        }
        else
        {
            other.Put(otherRow, BytesOf(code - 1));
        }
    }

    private int CodeOf(int row)
    {
        var place = _codes + (row * _width);
        return row >= Count ? 0
            : _width == 1 ? _data[place]
            : _width == 2 ? BitConverter.ToUInt16(_data, place)
            : BitConverter.ToInt32(_data, place);
    }

    private ReadOnlySpan<byte> BytesOf(int word) => _data.AsSpan(_starts[word].._starts[word + 1]);

    private string StringOf(int word) => word < _strings.Length
        ? _strings[word] ??= Encoding.UTF8.GetString(BytesOf(word))
        : Encoding.UTF8.GetString(BytesOf(word));
}
