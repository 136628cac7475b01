using System.Buffers;
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

    private readonly ArrayBufferWriter<byte> _buffer = new();
    private readonly Dictionary<RecordTable, (int Field, long Name, bool IsNumber)[]> _fields = [];

    /// <summary>The hash of a record that stands alone.</summary>
    public ulong Of(RecordRow row)
    {
        Begin(row);
        return End();
    }

    /// <summary>Begins the hash of a record that others are part of: a document.</summary>
    public void Begin(RecordRow row)
    {
        _buffer.ResetWrittenCount();
        Write(row);
    }

    /// <summary>Adds a line of the document, at its place.</summary>
    public void Add(RecordRow line, long place)
    {
        Write(place);
        Write(line);
    }

    /// <summary>The hash of all that was added.</summary>
    public ulong End() => XxHash3.HashToUInt64(_buffer.WrittenSpan);

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
                Write(row.Text(field).Length);
                _buffer.Write(row.Text(field));
            }
        }

        Write(row.Tags.Length);
        _buffer.Write(row.Tags);
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

    private void Write(long number)
    {
        BinaryPrimitives.WriteInt64LittleEndian(_buffer.GetSpan(sizeof(long)), number);
        _buffer.Advance(sizeof(long));
    }
}
