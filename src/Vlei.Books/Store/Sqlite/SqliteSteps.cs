using Vlei.Core.Problems;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// Brings a file from whichever version it has to the one that this program knows. Each step is SQL that was written once and is
/// never changed: a file made by an earlier program comes to the same tables as one that is made today.
/// </summary>
internal static class SqliteSteps
{
    /// <summary>Marks the file as ours: "VLEI".</summary>
    public const int ApplicationId = 0x564C4549;

    private const int Last = 5;

    /// <summary>Marks an empty file as ours.</summary>
    public static void Mark(Database database) => database.Execute($"PRAGMA application_id = {ApplicationId}");

    /// <summary>Whether nothing is left to be done. Throws a problem where a newer program made the file.</summary>
    public static bool IsCurrent(Database database) => VersionOf(database) == Last;

    /// <summary>Takes the steps that are missing, all or none. Throws a problem where a newer program made the file.</summary>
    public static void BringForward(Database database)
    {
        if (IsCurrent(database))
        {
            return;
        }

        // Looked up again behind the lock: another writer may have brought it forward meanwhile.
        database.Begin("BEGIN IMMEDIATE");
        for (var version = VersionOf(database); version < Last; version++)
        {
            database.Execute(StepText.Of("sqlite", version + 1));
            database.Execute($"PRAGMA user_version = {version + 1}");
        }

        database.Commit();
    }

    private static int VersionOf(Database database)
    {
        var version = (int)database.Number("PRAGMA user_version");
        return version <= Last ? version : throw new ProblemException(
            ProblemKind.BadConfiguration, $"records.db has version {version}; this vlei knows up to {Last}.",
            "Use the newer vlei that wrote it.");
    }
}
