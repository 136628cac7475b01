using Microsoft.Data.Sqlite;
using SQLitePCL;
using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>
/// <c>records.db</c> of a book: made, opened to read or to write, and brought to the version that this program knows,
/// with what is derived made anew where it changed.
/// </summary>
internal static class RecordsFile
{
    // Each step brings a file from the version that is its place in this list to the next.
    private static readonly Action<Database>[] Steps =
    [
        Schema.AddRecords, Schema.AddKindsTagsAndClosedPeriods, Schema.AddOpenItems,
        // Postings know quantities and tax codes too; all of what is derived is made anew.
        database => Derivation.Rebuild(database, (_, _) => { }),
    ];

    /// <summary>
    /// Makes a new file with all its tables, beside its place and then put there, so that nobody ever finds half of one. It is
    /// its owner's alone.
    /// </summary>
    public static void Create(string path)
    {
        var unfinished = Path.Combine(Path.GetDirectoryName(Path.GetFullPath(path))!, $".vlei-{Guid.NewGuid():N}.tmp");
        try
        {
            using (new FileStream(unfinished, new FileStreamOptions
            {
                Mode = FileMode.CreateNew, Access = FileAccess.Write, UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
            }))
            {
                // SQLite takes an empty file for a new one, and keeps its permissions.
            }

            using (var database = Database.Open(unfinished, SqliteOpenMode.ReadWrite))
            {
                database.Execute($"PRAGMA application_id = {Schema.ApplicationId}");
                Migrate(database);
                database.Execute("PRAGMA wal_checkpoint(TRUNCATE)");
            }

            File.Move(unfinished, path);
        }
        finally
        {
            foreach (var ending in new[] { "", "-wal", "-shm" })
            {
                File.Delete(unfinished + ending);
            }
        }
    }

    /// <summary>Whether a file is one that was made and never imported into, as an interrupted beginning leaves it.</summary>
    public static bool IsUnused(string path)
    {
        StoreFile.RefuseForeign(path);
        using var database = OpenToRead(path);
        return database.Number("SELECT count(*) FROM imports") == 0;
    }

    /// <summary>Opens the file to read it as it stands now.</summary>
    public static Database OpenToRead(string path)
    {
        path = Found(path);
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
        path = Found(path);
        var database = Database.Open(path, SqliteOpenMode.ReadWrite);
        try
        {
            Migrate(database);
            database.Begin("BEGIN IMMEDIATE");
            return database;
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    // In full, since a relative name may look like an address.
    private static string Found(string path)
    {
        if (!File.Exists(path))
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{path} is not there: the book has lost its records.",
                "Put back a copy of it, or make the book anew and import its record sets again.");
        }

        try
        {
            StoreFile.RefuseForeign(path);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{path} cannot be read: {cannot.Message}", "Check who may read it.", cannot);
        }

        return Path.GetFullPath(path);
    }

    private static Database BeginReading(string path)
    {
        var database = Database.Open(path, SqliteOpenMode.ReadOnly);
        try
        {
            if (VersionOf(database) < Steps.Length)
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
        using var database = Database.Open(path, SqliteOpenMode.ReadWrite);
        Migrate(database);
    }

    private static int VersionOf(Database database)
    {
        var version = (int)database.Number("PRAGMA user_version");
        return version > Steps.Length
            ? throw new ProblemException(
                ProblemKind.BadConfiguration,
                $"records.db has version {version}; this vlei knows up to {Steps.Length}.",
                "Use the newer vlei that wrote it.")
            : version;
    }

    private static void Migrate(Database database)
    {
        if (VersionOf(database) == Steps.Length)
        {
            return;
        }

        // Looked up again behind the lock: another writer may have brought it forward meanwhile.
        database.Execute("BEGIN IMMEDIATE");
        for (var version = VersionOf(database); version < Steps.Length; version++)
        {
            Steps[version](database);
            database.Execute($"PRAGMA user_version = {version + 1}");
        }

        database.Execute("COMMIT");
    }
}
