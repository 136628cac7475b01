using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>How what is in a store was made, so that it is made anew where this program makes it another way.</summary>
/// <param name="OldestFirst">Whether settlements were computed where the records have none.</param>
/// <param name="DerivedFormat">The number of the way in which months are derived; 0 where they were made by an unknown one.</param>
/// <param name="HashFormat">The number of the way in which records are hashed; 0 where it is unknown.</param>
internal readonly record struct MadeHow(bool OldestFirst, int DerivedFormat, int HashFormat);

/// <summary>Where a book stands.</summary>
/// <param name="Revision">The number of its last import; 0 before the first.</param>
/// <param name="Made">How what is in it was made.</param>
internal readonly record struct StoreState(long Revision, MadeHow Made);

/// <summary>What an import did to one kind of record.</summary>
internal readonly record struct StoredCounts(string Kind, long Added, long Changed, long Unchanged, long Removed);

/// <summary>An import, as a store remembers it.</summary>
internal sealed record StoredImport(
    long Revision, DateTimeOffset At, string By, bool Complete, IReadOnlyList<RecordFile> Files, IReadOnlyList<StoredCounts> Counts)
{
    /// <summary>What it did to the records of a table.</summary>
    public StoredCounts CountsOf(RecordTable table) => Counts.FirstOrDefault(counts => counts.Kind == table.Name);
}
