using System.Text;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// Rows of text, packed: what stood in a column lately is not kept again, but where it was kept. A long list takes a sixth of
/// what it takes when it is written.
/// </summary>
/// <param name="places">In how many places the texts of labels, and then of each column, were kept lately.</param>
/// <param name="most">How many bytes are kept at the most.</param>
internal sealed class KeptText(IReadOnlyList<int> places, long most)
{
    // A chunk is no large object to the collector, which takes much more room for each of those than they are long.
    private const int LeastChunk = 1 << 12, MostChunk = 1 << 16, MostBytesPerLetter = 3;

    private readonly List<(byte[] Bytes, int Used)> _chunks = [];
    private long _kept;

    /// <summary>How many rows are kept: all until there was no room for one.</summary>
    public int Rows { get; private set; }

    /// <summary>Whether there is no room for more.</summary>
    public bool IsFull { get; private set; }

    /// <summary>Keeps a row that comes after those that are kept, where there is room for it.</summary>
    /// <param name="row">The row.</param>
    /// <param name="lately">Where its label and its cells are kept until others come there.</param>
    public void Add(in TextRow row, ReadOnlySpan<int> lately)
    {
        var room = (2 * PackedNumber.Longest) + RoomFor(row.Label);
        foreach (ref readonly var cell in row.Cells.AsSpan())
        {
            room += RoomFor(cell);
        }

        IsFull |= _kept + room > most;
        if (IsFull)
        {
            return;
        }

        var (bytes, used) = _chunks.Count > 0 ? _chunks[^1] : default;
        if (bytes is null || bytes.Length - used < room)
        {
            // What is short takes little, and what is long is not moved.
            (bytes, used) = (new byte[Math.Max(room, (int)Math.Clamp(_kept, LeastChunk, MostChunk))], 0);
            _chunks.Add((bytes, used));
        }

        var rest = bytes.AsSpan(used);
        PackedNumber.Put(ref rest, (int)row.Look.Kind);
        PackedNumber.Put(ref rest, row.Look.Level);
        Put(ref rest, row.Label, lately[0]);
        for (var column = 0; column < row.Cells.Length; column++)
        {
            Put(ref rest, row.Cells[column], lately[column + 1]);
        }

        _chunks[^1] = (bytes, bytes.Length - rest.Length);
        _kept += bytes.Length - rest.Length - used;
        Rows++;
    }

    /// <summary>Gives the rows that are kept, in their order.</summary>
    public RowInRoom<TextRow, TextCell[]> Again()
    {
        var lately = new TextCell[places.Count][];
        for (var column = 0; column < lately.Length; column++)
        {
            lately[column] = new TextCell[places[column]];
        }

        var (chunk, taken) = (0, 0);
        return (ref TextRow row, ref TextCell[]? cells) =>
        {
            if (chunk < _chunks.Count && taken == _chunks[chunk].Used)
            {
                (chunk, taken) = (chunk + 1, 0);
            }

            if (chunk == _chunks.Count)
            {
                return false;
            }

            row = Take(_chunks[chunk].Bytes, ref taken, lately, cells ??= new TextCell[lately.Length - 1]);
            return true;
        };
    }

    private static int RoomFor(in TextCell cell) =>
        PackedNumber.Longest + (cell.IsNew ? PackedNumber.Longest + (cell.Text.Length * MostBytesPerLetter) : 0);

    private static void Put(ref Span<byte> bytes, in TextCell cell, int lately)
    {
        PackedNumber.Put(ref bytes, cell.IsNew ? ~lately : lately);
        if (cell.IsNew)
        {
            PackedNumber.Put(ref bytes, cell.IsBelow ? ~Encoding.UTF8.GetByteCount(cell.Text) : Encoding.UTF8.GetByteCount(cell.Text));
            bytes = bytes[Encoding.UTF8.GetBytes(cell.Text, bytes)..];
        }
    }

    private static TextRow Take(byte[] bytes, ref int taken, TextCell[][] lately, TextCell[] cells)
    {
        ReadOnlySpan<byte> rest = bytes.AsSpan(taken);
        var kind = (RowKind)PackedNumber.Take(ref rest);
        var level = (int)PackedNumber.Take(ref rest);
        var label = Take(ref rest, lately[0]);
        for (var column = 0; column < cells.Length; column++)
        {
            cells[column] = Take(ref rest, lately[column + 1]);
        }

        taken = bytes.Length - rest.Length;
        return new TextRow(new RowLook(kind, level), label, cells);
    }

    private static TextCell Take(ref ReadOnlySpan<byte> bytes, TextCell[] lately)
    {
        var place = (int)PackedNumber.Take(ref bytes);
        if (place >= 0)
        {
            return lately[place];
        }

        var length = (int)PackedNumber.Take(ref bytes);
        var text = Encoding.UTF8.GetString(bytes[..(length < 0 ? ~length : length)]);
        bytes = bytes[(length < 0 ? ~length : length)..];
        lately[~place] = TextCell.Of(text) with { IsBelow = length < 0 };
        return lately[~place] with { IsNew = true };
    }
}
