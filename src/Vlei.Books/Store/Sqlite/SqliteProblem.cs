using SQLitePCL;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Turns SQLite's result codes into problems that say what to do.</summary>
internal static class SqliteProblem
{
    /// <summary>The exception for a result code that is not success.</summary>
    public static Exception From(int result, string message) => (result & 0xff) switch
    {
        raw.SQLITE_BUSY or raw.SQLITE_LOCKED => new ProblemException(
            ProblemKind.TryAgain, "Another import is writing to this book.", "Try again when it is done."),
        raw.SQLITE_FULL => new ProblemException(
            ProblemKind.CannotWrite, "The disk is full; the book is as it was.", "Make room, then try again."),
        raw.SQLITE_CANTOPEN => new ProblemException(
            ProblemKind.CannotWrite, "The book's records cannot be opened.", "Check who may read and write in its folder."),
        raw.SQLITE_READONLY or raw.SQLITE_PERM => new ProblemException(
            ProblemKind.CannotWrite, "The book's records cannot be written.", "Check who may write to its folder."),
        raw.SQLITE_IOERR => new ProblemException(
            ProblemKind.CannotWrite, $"The disk does not work as it should: {message}.",
            "See whether there is room on it, and check it; then try again."),
        raw.SQLITE_CORRUPT or raw.SQLITE_NOTADB or raw.SQLITE_ERROR or raw.SQLITE_CONSTRAINT => Damaged(message),
        _ => new InvalidOperationException($"SQLite error {result}: {message}"),
    };

    /// <summary>The file holds what this program never wrote.</summary>
    public static ProblemException Damaged(string message) => new(
        ProblemKind.BadData,
        $"records.db is damaged: {message}.",
        "Put back a copy of it, or make the book anew and import its record sets again.");
}
