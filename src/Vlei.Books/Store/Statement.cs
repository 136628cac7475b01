using SQLitePCL;

namespace Vlei.Books.Store;

/// <summary>
/// A prepared statement over SQLite's own calls: what millions of rows go through. Parameters count from 1, columns
/// from 0.
/// </summary>
internal sealed class Statement : IDisposable
{
    private readonly sqlite3 _database;
    private readonly sqlite3_stmt _statement;

    /// <summary>Prepares the SQL.</summary>
    public Statement(sqlite3 database, string sql)
    {
        _database = database;
        Check(raw.sqlite3_prepare_v3(database, sql, 1, out _statement));
    }

    /// <summary>Binds a number.</summary>
    public Statement Bind(int parameter, long number)
    {
        Check(raw.sqlite3_bind_int64(_statement, parameter, number));
        return this;
    }

    /// <summary>Binds UTF-8 text.</summary>
    public Statement Bind(int parameter, ReadOnlySpan<byte> text)
    {
        // A span without an address would bind NULL; an empty text is not the same.
        Check(raw.sqlite3_bind_text(_statement, parameter, text.IsEmpty ? "\0"u8[..0] : text));
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
    public void Clear() => _ = raw.sqlite3_clear_bindings(_statement);

    /// <summary>Goes to the next row; false behind the last, and the statement is ready to run again.</summary>
    public bool Step()
    {
        var result = raw.sqlite3_step(_statement);
        if (result == raw.SQLITE_ROW)
        {
            return true;
        }

        _ = raw.sqlite3_reset(_statement);
        Check(result == raw.SQLITE_DONE ? raw.SQLITE_OK : result);
        return false;
    }

    /// <summary>Runs a statement that gives no rows.</summary>
    public void Run()
    {
        while (Step())
        {
        }
    }

    /// <summary>Makes it ready to run again before its last row.</summary>
    public void Reset() => _ = raw.sqlite3_reset(_statement);

    /// <summary>Whether the column has nothing in it.</summary>
    public bool IsNull(int column) => raw.sqlite3_column_type(_statement, column) == raw.SQLITE_NULL;

    /// <summary>The number in the column; 0 where there is nothing.</summary>
    public long Number(int column) => raw.sqlite3_column_int64(_statement, column);

    /// <summary>The number in the column, as a key or a count.</summary>
    public int Int(int column) => raw.sqlite3_column_int64(_statement, column) is >= 0 and <= int.MaxValue and var number
        ? (int)number
        : throw StoreProblem.Damaged("a key or a count is out of reach");

    /// <summary>The text in the column; empty where there is nothing.</summary>
    public string Text(int column) => raw.sqlite3_column_text(_statement, column).utf8_to_string() ?? "";

    /// <summary>The bytes of a text or a blob; valid until the next step.</summary>
    public ReadOnlySpan<byte> Bytes(int column) => raw.sqlite3_column_blob(_statement, column);

    /// <inheritdoc/>
    public void Dispose() => _statement.Dispose();

    private void Check(int result)
    {
        if (result != raw.SQLITE_OK)
        {
            throw StoreProblem.From(result, raw.sqlite3_errmsg(_database).utf8_to_string());
        }
    }
}
