using System.IO.Hashing;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>
/// Keeps records that were read, packed, to be taken out again in another order: so that a file is read once, however its records
/// stand in it.
/// </summary>
internal sealed class RecordSpool(RecordTable table)
{
    private const int ChunkBits = 20;
    private const int ChunkBytes = 1 << ChunkBits;

    // By field.
    private readonly bool[] _isNumber = [.. table.Fields.Select(field => field.IsNumber)];
    // What all but texts take at the most: what comes before the fields, and of each field its place and a number.
    private readonly int _mostNumbers = (4 + (2 * table.Fields.Count)) * PackedNumber.Longest;
    private readonly List<byte[]> _chunks = [];

    // How many records each chunk has that were not taken out for the last time.
    private readonly List<int> _left = [];
    private readonly List<RecordRow> _files = [];
    private readonly List<byte[]> _tags = [[]];
    private readonly Dictionary<ulong, int> _tagPlaces = [];
    private int _used = ChunkBytes;

    /// <summary>Keeps a record, and says where.</summary>
    public long Add(RecordRow row)
    {
        if (_files.Count == 0 || _files[^1].File != row.File)
        {
            var file = new RecordRow(table) { File = row.File };
            file.PlaceFieldsAs(row);
            _files.Add(file);
        }

        var most = _mostNumbers + row.TextBytes;
        if (_used + most > ChunkBytes)
        {
            // One that is longer than a chunk has one of its own, and the next begins another.
            _chunks.Add(GC.AllocateUninitializedArray<byte>(Math.Max(ChunkBytes, most)));
            _left.Add(0);
            _used = 0;
        }

        var place = ((long)(_chunks.Count - 1) << ChunkBits) | (uint)_used;
        _used += Write(_chunks[^1].AsSpan(_used), row);
        _left[^1]++;
        return place;
    }

    /// <summary>Fills a row with what is kept somewhere; the last time it is kept no longer.</summary>
    public void Read(long place, RecordRow row, bool isLast)
    {
        var chunk = (int)(place >> ChunkBits);
        ReadOnlySpan<byte> bytes = _chunks[chunk].AsSpan((int)(place & (ChunkBytes - 1)));
        row.Clear();
        var file = _files[(int)PackedNumber.Take(ref bytes)];
        row.File = file.File;
        row.PlaceFieldsAs(file);
        row.FileLine = PackedNumber.Take(ref bytes);
        row.SetTags(_tags[(int)PackedNumber.Take(ref bytes)]);
        for (var count = PackedNumber.Take(ref bytes); count > 0; count--)
        {
            var field = (int)PackedNumber.Take(ref bytes);
            var number = PackedNumber.Take(ref bytes);
            if (_isNumber[field])
            {
                row.Set(field, number);
            }
            else
            {
                row.Set(field, bytes[..(int)number]);
                bytes = bytes[(int)number..];
            }
        }

        if (isLast && --_left[chunk] == 0)
        {
            _chunks[chunk] = [];
        }
    }

    private int Write(Span<byte> all, RecordRow row)
    {
        var bytes = all;
        PackedNumber.Put(ref bytes, _files.Count - 1);
        PackedNumber.Put(ref bytes, row.FileLine);
        PackedNumber.Put(ref bytes, PlaceOf(row.Tags));
        var count = 0;
        for (var field = 0; field < _isNumber.Length; field++)
        {
            count += row.Has(field) ? 1 : 0;
        }

        PackedNumber.Put(ref bytes, count);
        for (var field = 0; field < _isNumber.Length; field++)
        {
            if (!row.Has(field))
            {
                continue;
            }

            PackedNumber.Put(ref bytes, field);
            if (_isNumber[field])
            {
                PackedNumber.Put(ref bytes, row.Number(field));
            }
            else
            {
                var text = row.Text(field);
                PackedNumber.Put(ref bytes, text.Length);
                text.CopyTo(bytes);
                bytes = bytes[text.Length..];
            }
        }

        return all.Length - bytes.Length;
    }

    // Most records are tagged as others are.
    private int PlaceOf(ReadOnlySpan<byte> tags)
    {
        if (tags.IsEmpty)
        {
            return 0;
        }

        var hash = XxHash3.HashToUInt64(tags);
        if (!_tagPlaces.TryGetValue(hash, out var place) || !tags.SequenceEqual(_tags[place]))
        {
            _tagPlaces[hash] = place = _tags.Count;
            _tags.Add(tags.ToArray());
        }

        return place;
    }
}
