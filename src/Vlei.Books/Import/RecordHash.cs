using System.Buffers.Binary;
using System.IO.Hashing;
using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>
/// A hash of what a record says, by which a changed one is told from an unchanged one. It goes by the names of the fields, and what
/// a record does not say is left out: fields may be added to a table, and change places in it, without any record being another
/// for that.
/// </summary>
internal sealed class RecordHash
{
    /// <summary>
    /// The number of the way in which records are hashed; those of a book that were hashed in another way are hashed anew.
    /// </summary>
    public const int Format = 1;

    private static readonly Dictionary<string, long> Names = RecordTables.All
        .SelectMany(table => table.Fields).Select(field => field.Name).Distinct()
        .ToDictionary(name => name, name => (long)XxHash3.HashToUInt64(Encoding.UTF8.GetBytes(name)));

    private readonly Dictionary<RecordTable, (int Field, long Name, bool IsNumber)[]> _fields = [];
    private byte[] _bytes = new byte[1024];
    private int _used;

    /// <summary>The hash of a record that stands alone.</summary>
    public ulong Of(RecordRow row)
    {
        Begin(row);
        return End();
    }

    /// <summary>Begins the hash of a record that others are part of: a document.</summary>
    public void Begin(RecordRow row)
    {
        _used = 0;
        MakeRoom(row);
        Write(row);
    }

    /// <summary>Adds a line of the document, at its place.</summary>
    public void Add(RecordRow line, long place)
    {
        MakeRoom(line);
        Write(place);
        Write(line);
    }

    /// <summary>The hash of all that was added.</summary>
    public ulong End() => XxHash3.HashToUInt64(_bytes.AsSpan(0, _used));

    // Of each field its name and a number or a length, and the length of the tags and the place.
    private void MakeRoom(RecordRow row)
    {
        var most = (((2 * row.Table.Fields.Count) + 2) * sizeof(long)) + row.TextBytes + row.Tags.Length;
        if (_used + most > _bytes.Length)
        {
            Array.Resize(ref _bytes, Math.Max(2 * _bytes.Length, _used + most));
        }
    }

    private void Write(RecordRow row)
    {
        foreach (var (field, name, isNumber) in FieldsOf(row.Table))
        {
            if (!row.Has(field))
            {
                continue;
            }

            Write(name);
            if (isNumber)
            {
                Write(row.Number(field));
            }
            else
            {
                Write(row.Text(field));
            }
        }

        Write(row.Tags);
    }

    // By their names, and without what the store knows a record by.
    private (int Field, long Name, bool IsNumber)[] FieldsOf(RecordTable table)
    {
        if (!_fields.TryGetValue(table, out var fields))
        {
            _fields[table] = fields = [.. table.Fields
                .Where(field => field.Name != table.Id && (table != RecordTables.Lines || field.Name is not ("document" or "line")))
                .OrderBy(field => field.Name, StringComparer.Ordinal)
                .Select(field => (table.IndexOf(field.Name), Names[field.Name], field.IsNumber))];
        }

        return fields;
    }

    private void Write(ReadOnlySpan<byte> text)
    {
        Write(text.Length);
        text.CopyTo(_bytes.AsSpan(_used));
        _used += text.Length;
    }

    private void Write(long number)
    {
        BinaryPrimitives.WriteInt64LittleEndian(_bytes.AsSpan(_used), number);
        _used += sizeof(long);
    }
}
