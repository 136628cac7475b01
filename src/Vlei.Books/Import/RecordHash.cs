using System.Buffers;
using System.Buffers.Binary;
using System.IO.Hashing;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>A hash of what a record says, by which a changed one is told from an unchanged one.</summary>
internal sealed class RecordHash
{
    private readonly ArrayBufferWriter<byte> _buffer = new();

    /// <summary>The hash of all fields but the one named, and of the tags.</summary>
    /// <param name="row">The record.</param>
    /// <param name="except">A field that is left out; -1 for none.</param>
    /// <param name="place">A number that is part of the hash: a line's place in its document.</param>
    /// <param name="saidByPlace">The field that the place comes from, where it has any; -1 for none.</param>
    public ulong Of(RecordRow row, int except, long place = 0, int saidByPlace = -1)
    {
        _buffer.ResetWrittenCount();
        Write(place);
        for (var field = 0; field < row.Table.Fields.Count; field++)
        {
            if (field == except || field == saidByPlace || !row.Has(field))
            {
                continue;
            }

            Write(field);
            if (row.Table.Fields[field].IsNumber)
            {
                Write(row.Number(field));
            }
            else
            {
                Write(row.Text(field).Length);
                _buffer.Write(row.Text(field));
            }
        }

        _buffer.Write(row.Tags);
        return XxHash3.HashToUInt64(_buffer.WrittenSpan);
    }

    private void Write(long number)
    {
        BinaryPrimitives.WriteInt64LittleEndian(_buffer.GetSpan(sizeof(long)), number);
        _buffer.Advance(sizeof(long));
    }
}
