using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>
/// The rows of a sheet, packed, so that they can be gone through again: the library that unpacks a workbook goes twice through all its
/// sheets whenever it is opened.
/// </summary>
internal sealed class KeptRows
{
    private const int ChunkBytes = 1 << 20;
    private const int DayFlag = 1;
    private const int NumberFlag = 2;
    private const int FlagBits = 2;

    private readonly List<(byte[] Bytes, int Used)> _chunks = [];
    private byte[] _chunk = [];
    private int _used;

    /// <summary>Keeps all rows that hold anything.</summary>
    public KeptRows(IFileRows rows)
    {
        while (rows.Read())
        {
            if (rows.Cells.Exists(cell => cell.Text.Length > 0))
            {
                Keep(rows.Row, rows.Cells);
            }
        }

        _chunks.Add((_chunk, _used));
    }

    /// <summary>Begins at the first row.</summary>
    public IFileRows Open() => new Rows(_chunks);

    private void Keep(long row, List<FileCell> cells)
    {
        var most = 2 * PackedNumber.Longest;
        foreach (var cell in cells)
        {
            most += PackedNumber.Longest + Encoding.UTF8.GetMaxByteCount(cell.Text.Length);
        }

        if (_used + most > _chunk.Length)
        {
            _chunks.Add((_chunk, _used));
            (_chunk, _used) = (new byte[Math.Max(ChunkBytes, most)], 0);
        }

        var bytes = _chunk.AsSpan(_used);
        PackedNumber.Put(ref bytes, row);
        PackedNumber.Put(ref bytes, cells.Count);
        foreach (var cell in cells)
        {
            PackedNumber.Put(
                ref bytes, ((long)Encoding.UTF8.GetByteCount(cell.Text) << FlagBits) | (cell.IsDay ? DayFlag : 0L)
                    | (cell.IsNumber ? NumberFlag : 0L));
            bytes = bytes[Encoding.UTF8.GetBytes(cell.Text, bytes)..];
        }

        _used = _chunk.Length - bytes.Length;
    }

    private sealed class Rows(List<(byte[] Bytes, int Used)> chunks) : IFileRows
    {
        private int _number;
        private int _at;

        public long Row { get; private set; }

        public List<FileCell> Cells { get; } = [];

        public bool Read()
        {
            while (_at == chunks[_number].Used)
            {
                if (++_number == chunks.Count)
                {
                    _number--;
                    return false;
                }

                _at = 0;
            }

            ReadOnlySpan<byte> bytes = chunks[_number].Bytes.AsSpan(_at);
            Row = PackedNumber.Take(ref bytes);
            Cells.Clear();
            for (var count = PackedNumber.Take(ref bytes); count > 0; count--)
            {
                var cell = PackedNumber.Take(ref bytes);
                var length = (int)(cell >> FlagBits);
                Cells.Add(new FileCell(
                    Encoding.UTF8.GetString(bytes[..length]), (cell & DayFlag) != 0, (cell & NumberFlag) != 0));
                bytes = bytes[length..];
            }

            _at = chunks[_number].Bytes.Length - bytes.Length;
            return true;
        }

        public void Dispose()
        {
        }
    }
}
