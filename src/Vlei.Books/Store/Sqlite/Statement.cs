using System.Text;
using SQLitePCL;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// A prepared statement over SQLite's own calls: what millions of rows go through. Parameters count from 1.
/// </summary>
internal sealed class Statement : IRows
{
    private readonly Database _database;
    private readonly sqlite3_stmt _statement;
    private nint _address;
    private bool _isBeingRead;

    /// <summary>Prepares the SQL.</summary>
    public Statement(Database database, string sql)
    {
        _database = database;
        _database.Behind.Settle();
        Check(raw.sqlite3_prepare_v3(database.Handle, sql, 1, out _statement));
        _address = _statement.DangerousGetHandle();
    }

    /// <summary>Binds a number.</summary>
    public Statement Bind(int parameter, long number)
    {
        _database.Behind.Settle();
        Check(SqliteCalls.BindNumber(_address, parameter, number));
        return this;
    }

    /// <summary>Binds text.</summary>
    public Statement Bind(int parameter, string text)
    {
        _database.Behind.Settle();
        Check(raw.sqlite3_bind_text(_statement, parameter, text));
        return this;
    }

    /// <summary>Binds bytes.</summary>
    public Statement BindBlob(int parameter, ReadOnlySpan<byte> bytes)
    {
        _database.Behind.Settle();
        Check(bytes.IsEmpty
            ? raw.sqlite3_bind_zeroblob(_statement, parameter, 0)
            : raw.sqlite3_bind_blob(_statement, parameter, bytes));
        return this;
    }

    /// <summary>Binds UTF-8 text that stays where it is until it is bound no longer, so that SQLite need not copy it.</summary>
    public void Bind(int parameter, nint text, int length)
    {
        _database.Behind.Settle();
        Check(SqliteCalls.BindText(_address, parameter, text, length, SqliteCalls.Stays));
    }

    /// <summary>Binds nothing to all parameters.</summary>
    public void Clear() => _ = SqliteCalls.ClearBindings(_address);

    /// <inheritdoc/>
    /// <remarks>Behind the last row it is ready to run again.</remarks>
    public bool Next()
    {
        _database.Behind.Settle();
        var result = SqliteCalls.Step(_address);
        if (result == raw.SQLITE_ROW)
        {
            SetBeingRead(true);
            return true;
        }

        Reset();
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
    public void Reset()
    {
        _database.Behind.Wait();
        _ = SqliteCalls.Reset(_address);
        SetBeingRead(false);
    }

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
        _database.Behind.Wait();
        _address = 0;
        _statement.Dispose();
        SetBeingRead(false);
    }

    private void SetBeingRead(bool isIt)
    {
        if (_isBeingRead != isIt)
        {
            _isBeingRead = isIt;
            _database.Behind.BeingRead += isIt ? 1 : -1;
        }
    }

    private void Check(int result)
    {
        if (result != raw.SQLITE_OK)
        {
            throw SqliteProblem.From(result, raw.sqlite3_errmsg(_database.Handle).utf8_to_string());
        }
    }
}
