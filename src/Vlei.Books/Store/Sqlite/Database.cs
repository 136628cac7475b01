using System.Reflection;
using System.Runtime.InteropServices;
using SQLitePCL;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// The SQLite file of a book, opened to read or to write. A reader sees one moment, whatever is written meanwhile; a
/// writer has the file to itself, and what it does is there as a whole or not at all.
/// </summary>
internal sealed class Database : IDisposable
{
    private const int BusyMilliseconds = 2000;
    private const int ConfigMultithread = 2;
    private bool _inTransaction;

    // No connection is used by two threads at once (WritesBehind), so SQLite need not lock each call.
    static Database()
    {
        NativeLibrary.SetDllImportResolver(typeof(SQLite3Provider_e_sqlite3).Assembly, BesideTheProgram);
        NativeLibrary.SetDllImportResolver(typeof(Database).Assembly, BesideTheProgram);
        Batteries_V2.Init();
        _ = raw.sqlite3_config(ConfigMultithread);
    }

    private Database(sqlite3 handle) => Handle = handle;

    /// <summary>SQLite's own handle.</summary>
    public sqlite3 Handle { get; }

    /// <summary>Writes behind whoever makes what is written; everything else that is asked of the file waits for it.</summary>
    public WritesBehind Behind { get; } = new();

    /// <summary>
    /// Opens a file that is there; one that is written keeps a write-ahead log and waits a moment for another writer. Throws a
    /// <see cref="Core.Problems.ProblemException"/> where it cannot be opened.
    /// </summary>
    /// <param name="path">Where it is, in full; or its address (RFC 8089), with parameters.</param>
    /// <param name="toWrite">Whether it is to be written.</param>
    public static Database Open(string path, bool toWrite)
    {
        var result = raw.sqlite3_open_v2(
            path, out var handle, (toWrite ? raw.SQLITE_OPEN_READWRITE : raw.SQLITE_OPEN_READONLY) | raw.SQLITE_OPEN_URI, null);
        if (result != raw.SQLITE_OK)
        {
            using (handle)
            {
                throw SqliteProblem.From(result, raw.sqlite3_errmsg(handle).utf8_to_string());
            }
        }

        var database = new Database(handle);
        _ = raw.sqlite3_busy_timeout(handle, BusyMilliseconds);
        if (toWrite)
        {
            // What refers to what is looked at once, before it is kept, rather than with each record (References). With the usual 2 MB,
            // pages of ids that come in no order are written to the log and read back again and again.
            database.Execute(
                "PRAGMA foreign_keys = OFF; PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA cache_size = -6000");
        }

        return database;
    }

    // By its name alone SQLite would be looked for in some forty places first, and that for the library's calls and ours. Where it does
    // not lie there, it is looked for all the same.
    private static IntPtr BesideTheProgram(string name, Assembly caller, DllImportSearchPath? where) =>
        name == SqliteCalls.Library
        && NativeLibrary.TryLoad(Path.Combine(AppContext.BaseDirectory, $"lib{name}.so"), out var library) ? library : IntPtr.Zero;

    /// <summary>Begins what <see cref="Commit"/> makes stay.</summary>
    public void Begin(string sql)
    {
        Execute(sql);
        _inTransaction = true;
    }

    /// <summary>Prepares a statement.</summary>
    public Statement Prepare(string sql) => new(this, sql);

    /// <summary>Runs statements that give no rows.</summary>
    public void Execute(string sql)
    {
        Behind.Settle();
        var result = raw.sqlite3_exec(Handle, sql);
        if (result != raw.SQLITE_OK)
        {
            throw SqliteProblem.From(result, raw.sqlite3_errmsg(Handle).utf8_to_string());
        }
    }

    /// <summary>The number that a query gives.</summary>
    public long Number(string sql)
    {
        using var statement = Prepare(sql);
        return statement.Next() ? statement.Number(0) : 0;
    }

    /// <summary>Makes everything that was written stay, and folds the write-ahead log into the file.</summary>
    public void Commit()
    {
        Execute("COMMIT");
        _inTransaction = false;
        Execute("PRAGMA wal_checkpoint(TRUNCATE)");
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        Behind.Dispose();
        if (_inTransaction)
        {
            _ = raw.sqlite3_exec(Handle, "ROLLBACK");
        }

        Handle.Dispose();
    }
}
