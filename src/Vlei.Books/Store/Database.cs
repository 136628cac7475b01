using Microsoft.Data.Sqlite;
using SQLitePCL;
using Vlei.Core.Problems;

namespace Vlei.Books.Store;

/// <summary>
/// The SQLite file of a book, opened to read or to write. A reader sees one moment, whatever is written meanwhile; a
/// writer has the file to itself, and what it does is there as a whole or not at all.
/// </summary>
internal sealed class Database : IDisposable
{
    private const int BusyMilliseconds = 2000;
    private const int ConfigMultithread = 2;
    private readonly SqliteConnection _connection;
    private bool _inTransaction;

    // No connection is used by two threads at once, so SQLite need not lock each call.
    static Database()
    {
        SQLitePCL.Batteries_V2.Init();
        _ = raw.sqlite3_config(ConfigMultithread);
    }

    private Database(SqliteConnection connection) => _connection = connection;

    /// <summary>SQLite's own handle.</summary>
    public sqlite3 Handle => _connection.Handle!;

    /// <summary>Makes a new file with all its tables.</summary>
    public static void Create(string path)
    {
        using var database = Open(path, SqliteOpenMode.ReadWriteCreate);
        database.Execute($"PRAGMA application_id = {Schema.ApplicationId}");
        database.Migrate();
    }

    /// <summary>Opens the file to read it as it stands now.</summary>
    public static Database OpenToRead(string path)
    {
        RefuseMissing(path);
        try
        {
            return BeginReading(path);
        }
        catch (Exception cannotRead) when (cannotRead is SqliteException { SqliteErrorCode: raw.SQLITE_CANTOPEN or raw.SQLITE_READONLY }
            or ProblemException { Kind: ProblemKind.CannotWrite })
        {
            // Beside a write-ahead log even a reader needs to write; where the folder forbids it, nobody else writes.
            return BeginReading($"file:{Uri.EscapeDataString(path).Replace("%2F", "/")}?immutable=1");
        }
    }

    /// <summary>
    /// Opens the file to write, and waits a moment for another writer. Throws a <see cref="ProblemException"/> to try
    /// again where that one goes on.
    /// </summary>
    public static Database OpenToWrite(string path)
    {
        RefuseMissing(path);
        var database = Open(path, SqliteOpenMode.ReadWrite);
        try
        {
            database.Migrate();
            database.Begin("BEGIN IMMEDIATE");
            return database;
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    /// <summary>Prepares a statement.</summary>
    public Statement Prepare(string sql) => new(Handle, sql);

    /// <summary>Runs statements that give no rows.</summary>
    public void Execute(string sql)
    {
        var result = raw.sqlite3_exec(Handle, sql);
        if (result != raw.SQLITE_OK)
        {
            throw StoreProblem.From(result, raw.sqlite3_errmsg(Handle).utf8_to_string());
        }
    }

    /// <summary>The number that a query gives.</summary>
    public long Number(string sql)
    {
        using var statement = Prepare(sql);
        return statement.Step() ? statement.Number(0) : 0;
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
        if (_inTransaction)
        {
            _ = raw.sqlite3_exec(Handle, "ROLLBACK");
        }

        _connection.Dispose();
    }

    private static void RefuseMissing(string path)
    {
        if (!File.Exists(path))
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{path} is not there: the book has lost its records.",
                "Put back a copy of it, or make the book anew and import its record sets again.");
        }
    }

    private static Database BeginReading(string path)
    {
        var database = Open(path, SqliteOpenMode.ReadOnly);
        try
        {
            if (database.CheckVersion() < Schema.Steps.Count)
            {
                database.Dispose();
                BringForward(path);
                return BeginReading(path);
            }

            database.Begin("BEGIN");
            return database;
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    private static void BringForward(string path)
    {
        using var database = Open(path, SqliteOpenMode.ReadWrite);
        database.Migrate();
    }

    private static Database Open(string path, SqliteOpenMode mode)
    {
        var connection = new SqliteConnection(new SqliteConnectionStringBuilder
        {
            DataSource = path, Mode = mode, Pooling = false, ForeignKeys = true,
        }.ConnectionString);
        connection.Open();
        var database = new Database(connection);
        _ = raw.sqlite3_busy_timeout(database.Handle, BusyMilliseconds);
        if (mode != SqliteOpenMode.ReadOnly)
        {
            database.Execute("PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL");
        }

        return database;
    }

    private void Begin(string sql)
    {
        Execute(sql);
        _inTransaction = true;
    }

    private int CheckVersion()
    {
        var version = (int)Number("PRAGMA user_version");
        return version > Schema.Steps.Count
            ? throw new ProblemException(
                ProblemKind.BadConfiguration,
                $"records.db has version {version}; this vlei knows up to {Schema.Steps.Count}.",
                "Use the newer vlei that wrote it.")
            : version;
    }

    private void Migrate()
    {
        if (CheckVersion() == Schema.Steps.Count)
        {
            return;
        }

        // Looked up again behind the lock: another writer may have brought it forward meanwhile.
        Execute("BEGIN IMMEDIATE");
        for (var version = CheckVersion(); version < Schema.Steps.Count; version++)
        {
            Schema.Steps[version](this);
            Execute($"PRAGMA user_version = {version + 1}");
        }

        Execute("COMMIT");
    }
}
