using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>A book's records at one moment. What a row or a blob gives is valid until the next is asked for.</summary>
internal interface IStoreReading : IMonths, IDisposable
{
    /// <summary>Where the book stands.</summary>
    StoreState State { get; }

    /// <summary>The rows that a query asks for, in the order of their keys, then of their imports, then of the places of lines.</summary>
    IRows Rows(RecordQuery query);

    /// <summary>All numbers that a table ever gave and their ids, in the order of the numbers: <c>key</c>, <c>id</c>.</summary>
    IRows Ids(RecordTable table);

    /// <summary>The highest key that a table ever gave; 0 where it gave none.</summary>
    int LastKey(RecordTable table);

    /// <summary>The keys of the records that an import after that one added or replaced.</summary>
    HashSet<int> ChangedSince(RecordTable table, long revision);

    /// <summary>Sets of tags by their keys, in the order of these.</summary>
    IReadOnlyList<(int Key, string Tags)> TagSets();

    /// <summary>All imports, the oldest first.</summary>
    IReadOnlyList<StoredImport> Imports();

    /// <summary>The periods that are marked as reported, by their days.</summary>
    IReadOnlyList<ClosedPeriod> ClosedPeriods();

    /// <summary>
    /// What is wrong with the store as such, in words, up to some number of faults: broken pages, rows that refer to nothing.
    /// </summary>
    IReadOnlyList<string> Faults(int most);
}
