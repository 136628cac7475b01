using System.Buffers;
using System.Buffers.Binary;
using System.Text;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// Rows on their way into a table, in the binary form of <c>COPY</c>. They go through a table of the connection's own, since
/// policies on rows hold for rows that are inserted and not for those that are copied.
/// </summary>
/// <param name="table">The table.</param>
/// <param name="columns">Its columns, in the order in which each row is given.</param>
internal sealed class CopyBuffer(string table, IReadOnlyList<string> columns)
{
    private const int MostBytes = 1 << 23;
    private const int Nothing = -1;

    private ArrayBufferWriter<byte> _bytes = new();
    private ArrayBufferWriter<byte> _sent = new();
    private bool _isStaged;

    /// <summary>Whether so much is waiting that it should be sent.</summary>
    public bool IsFull => _bytes.WrittenCount > MostBytes;

    private string Columns => string.Join(", ", columns.Select(PostgresText.Quoted));

    /// <summary>Begins a row.</summary>
    public CopyBuffer Row()
    {
        if (_bytes.WrittenCount == 0)
        {
            // The signature, no flags, no extension.
            _bytes.Write("PGCOPY\n"u8);
            _bytes.Write<byte>([0xFF, (byte)'\r', (byte)'\n', 0, 0, 0, 0, 0, 0, 0, 0, 0]);
        }

        Span<byte> count = stackalloc byte[sizeof(short)];
        BinaryPrimitives.WriteInt16BigEndian(count, (short)columns.Count);
        _bytes.Write(count);
        return this;
    }

    /// <summary>A number of eight bytes.</summary>
    public CopyBuffer Number(long number)
    {
        Span<byte> bytes = stackalloc byte[sizeof(int) + sizeof(long)];
        BinaryPrimitives.WriteInt32BigEndian(bytes, sizeof(long));
        BinaryPrimitives.WriteInt64BigEndian(bytes[sizeof(int)..], number);
        _bytes.Write(bytes);
        return this;
    }

    /// <summary>A number of four bytes.</summary>
    public CopyBuffer Short(int number)
    {
        Span<byte> bytes = stackalloc byte[2 * sizeof(int)];
        BinaryPrimitives.WriteInt32BigEndian(bytes, sizeof(int));
        BinaryPrimitives.WriteInt32BigEndian(bytes[sizeof(int)..], number);
        _bytes.Write(bytes);
        return this;
    }

    /// <summary>A text in UTF-8, or bytes.</summary>
    public CopyBuffer Bytes(ReadOnlySpan<byte> bytes)
    {
        Length(bytes.Length);
        _bytes.Write(bytes);
        return this;
    }

    /// <summary>A text.</summary>
    public CopyBuffer Text(string text) => Bytes(Encoding.UTF8.GetBytes(text));

    /// <summary>Nothing.</summary>
    public CopyBuffer Null()
    {
        Length(Nothing);
        return this;
    }

    /// <summary>Begins to send what is waiting.</summary>
    public void Flush(PostgresSession session)
    {
        if (_bytes.WrittenCount == 0)
        {
            return;
        }

        _bytes.Write<byte>([0xFF, 0xFF]);
        var full = _bytes;
        session.SendMeanwhile(() => Send(session, full));
        (_bytes, _sent) = (_sent, _bytes);
        _bytes.ResetWrittenCount();
    }

    private void Send(PostgresSession session, ArrayBufferWriter<byte> bytes)
    {
        var staging = $"staging_{table}";
        if (!_isStaged)
        {
            session.Execute($"CREATE TEMPORARY TABLE {staging} (LIKE {table}) ON COMMIT DROP");
            _isStaged = true;
        }

        session.Copy($"COPY {staging} ({Columns}) FROM STDIN (FORMAT binary)", bytes.WrittenMemory);
        _ = session.Queries(
            ($"INSERT INTO {table} ({Columns}) SELECT {Columns} FROM {staging}", []), ($"TRUNCATE {staging}", []));
    }

    private void Length(int length)
    {
        Span<byte> bytes = stackalloc byte[sizeof(int)];
        BinaryPrimitives.WriteInt32BigEndian(bytes, length);
        _bytes.Write(bytes);
    }
}
