using Vlei.Core.Problems;

namespace Vlei.Books.Store.Sqlite;

/// <summary>The records of one book in one file, <c>records.db</c>.</summary>
/// <param name="path">Where the file is.</param>
internal sealed class SqliteStore(string path) : IBookStore
{
    /// <summary>
    /// Makes a new file with all its tables, beside its place and then put there, so that nobody ever finds half of one. It is
    /// its owner's alone.
    /// </summary>
    /// <param name="path">Where it is to be.</param>
    /// <param name="begin">What is written into it first.</param>
    public static void Create(string path, Action<IStoreWriting> begin)
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

            using (var database = Database.Open(unfinished, toWrite: true))
            {
                SqliteSteps.Mark(database);
            }

            using (var writing = OpenToWrite(unfinished))
            {
                begin(writing);
                writing.Commit();
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

    /// <inheritdoc/>
    public IStoreReading Read()
    {
        var found = Found();
        try
        {
            return BeginReading(found);
        }
        catch (ProblemException cannotRead) when (cannotRead.Kind == ProblemKind.CannotWrite)
        {
            if (new FileInfo(found + "-wal") is { Exists: true, Length: > 0 })
            {
                throw new ProblemException(
                    ProblemKind.NotFound, $"{path} has a log beside it that holds its latest records, and cannot be read from here.",
                    "Open the book once where its folder may be written to; that folds the log into the file.", cannotRead);
            }

            // Beside a write-ahead log even a reader needs to write; where the folder forbids it, nobody else writes.
            return BeginReading($"file:{Uri.EscapeDataString(found).Replace("%2F", "/")}?immutable=1");
        }
    }

    /// <inheritdoc/>
    public IStoreWriting Write(Action<string, long>? waiting = null) => OpenToWrite(Found());

    private static SqliteWriting OpenToWrite(string path)
    {
        var database = Database.Open(path, toWrite: true);
        try
        {
            SqliteSteps.BringForward(database);
            database.Begin("BEGIN IMMEDIATE");
            return new SqliteWriting(database);
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    private static SqliteReading BeginReading(string path)
    {
        var database = Database.Open(path, toWrite: false);
        try
        {
            if (!SqliteSteps.IsCurrent(database))
            {
                database.Dispose();
                BringForward(path);
                return BeginReading(path);
            }

            database.Begin("BEGIN");
            return new SqliteReading(database);
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    private static void BringForward(string path)
    {
        using var database = Database.Open(path, toWrite: true);
        SqliteSteps.BringForward(database);
    }

    // In full, since a relative name may look like an address.
    private string Found()
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
}
