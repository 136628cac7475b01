using System.Runtime.InteropServices;
using System.Text;
using SQLitePCL;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// A prepared statement over SQLite's own calls: what millions of rows go through. Parameters count from 1.
/// </summary>
internal sealed class Statement : IRows
{
    private readonly sqlite3 _database;
    private readonly sqlite3_stmt _statement;
    private nint _address;

    /// <summary>Prepares the SQL.</summary>
    public Statement(sqlite3 database, string sql)
    {
        _database = database;
        Check(raw.sqlite3_prepare_v3(database, sql, 1, out _statement));
        _address = _statement.DangerousGetHandle();
    }

    /// <summary>Binds a number.</summary>
    public Statement Bind(int parameter, long number)
    {
        Check(SqliteCalls.BindNumber(_address, parameter, number));
        return this;
    }

    /// <summary>Binds UTF-8 text.</summary>
    public Statement Bind(int parameter, ReadOnlySpan<byte> text)
    {
        // A span without an address would bind NULL; an empty text is not the same.
        Check(SqliteCalls.BindText(
            _address, parameter, in MemoryMarshal.GetReference(text.IsEmpty ? "\0"u8 : text), text.Length, SqliteCalls.Copied));
        return this;
    }

    /// <summary>Binds text.</summary>
    public Statement Bind(int parameter, string text)
    {
        Check(raw.sqlite3_bind_text(_statement, parameter, text));
        return this;
    }

    /// <summary>Binds bytes.</summary>
    public Statement BindBlob(int parameter, ReadOnlySpan<byte> bytes)
    {
        Check(bytes.IsEmpty
            ? raw.sqlite3_bind_zeroblob(_statement, parameter, 0)
            : raw.sqlite3_bind_blob(_statement, parameter, bytes));
        return this;
    }

    /// <summary>Binds nothing to all parameters.</summary>
    public void Clear() => _ = SqliteCalls.ClearBindings(_address);

    /// <inheritdoc/>
    /// <remarks>Behind the last row it is ready to run again.</remarks>
    public bool Next()
    {
        var result = SqliteCalls.Step(_address);
        if (result == raw.SQLITE_ROW)
        {
            return true;
        }

        _ = SqliteCalls.Reset(_address);
        Check(result == raw.SQLITE_DONE ? raw.SQLITE_OK : result);
        return false;
    }

    /// <summary>Runs a statement that gives no rows.</summary>
    public void Run()
    {
        while (Next())
        {
        }
    }

    /// <summary>Makes it ready to run again before its last row.</summary>
    public void Reset() => _ = SqliteCalls.Reset(_address);

    /// <inheritdoc/>
    public bool IsNull(int column) => SqliteCalls.ColumnType(_address, column) == raw.SQLITE_NULL;

    /// <inheritdoc/>
    public long Number(int column) => SqliteCalls.ColumnNumber(_address, column);

    /// <inheritdoc/>
    public string Text(int column) => Encoding.UTF8.GetString(Bytes(column));

    /// <inheritdoc/>
    public ReadOnlySpan<byte> Bytes(int column)
    {
        var bytes = SqliteCalls.ColumnBytes(_address, column);
        unsafe
        {
            return new ReadOnlySpan<byte>((void*)bytes, SqliteCalls.ColumnLength(_address, column));
        }
    }

    /// <inheritdoc/>
    /// <remarks>Whoever goes on to read gets a problem from SQLite, not what stands at an address that is free.</remarks>
    public void Dispose()
    {
        _address = 0;
        _statement.Dispose();
    }

    private void Check(int result)
    {
        if (result != raw.SQLITE_OK)
        {
            throw SqliteProblem.From(result, raw.sqlite3_errmsg(_database).utf8_to_string());
        }
    }
}
