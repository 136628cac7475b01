using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>What the parts of one import share: the store, the record set, the ids that are known, and the errors.</summary>
internal sealed class ImportSession(
    IStoreWriting store, IRecordSet records, RecordErrors errors, ImportOrder order, long revision, Action<string, long> progress)
{
    private readonly Dictionary<string, RecordKeys> _keys = [];
    private readonly List<(RecordTable Table, RecordCounts Counts)> _counts = [];

    /// <summary>The store, within the import's transaction.</summary>
    public IStoreWriting Store => store;

    /// <summary>What comes in.</summary>
    public IRecordSet Records => records;

    /// <summary>What is wrong with it.</summary>
    public RecordErrors Errors => errors;

    /// <summary>Whether nothing is wrong so far; once something is, only more errors are looked for.</summary>
    public bool CanWrite => errors.Count == 0;

    /// <summary>How it is to be done.</summary>
    public ImportOrder Order => order;

    /// <summary>The import's number.</summary>
    public long Revision => revision;

    /// <summary>Hashes records.</summary>
    public RecordHash Hash { get; } = new();

    /// <summary>The ids of each table.</summary>
    public IReadOnlyDictionary<string, RecordKeys> Keys => _keys;

    /// <summary>What was done so far.</summary>
    public IReadOnlyList<(RecordTable Table, RecordCounts Counts)> Counts => _counts;

    /// <summary>Tells how far it is, now and then.</summary>
    public void Tell(string what, long done)
    {
        const int Often = 8192;
        if (done % Often == 0)
        {
            progress(what, done);
        }
    }

    /// <summary>Starts the counts of one kind of record.</summary>
    public RecordCounts CountsOf(RecordTable table)
    {
        var counts = new RecordCounts();
        _counts.Add((table, counts));
        return counts;
    }

    /// <summary>
    /// Loads the ids of a table and the hashes of its records as they stand, by key; 0 where there is none. In a
    /// complete set only what the set itself brings is known.
    /// </summary>
    public List<ulong> LoadKeys(RecordTable table)
    {
        var keys = new RecordKeys();
        var hashes = new List<ulong> { 0 };
        using (var standing = store.Rows(new RecordQuery(table, RecordQuery.Key, RecordQuery.Hash)))
        {
            while (standing.Next())
            {
                ExtendTo(standing.Int(0));
                hashes[standing.Int(0)] = (ulong)standing.Number(1);
            }
        }

        using var ids = store.Ids(table);
        while (ids.Next())
        {
            ExtendTo(ids.Int(0));
            keys.Restore(ids.Text(1), ids.Int(0), hashes[ids.Int(0)] != 0 && !order.Complete);
        }

        _keys.Add(table.Name, keys);
        return hashes;

        void ExtendTo(int key)
        {
            while (hashes.Count <= key)
            {
                hashes.Add(0);
            }
        }
    }
}
