using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>What the parts of one import share: the store, the record set, the ids that are known, and the errors.</summary>
internal sealed class ImportSession(
    Database database, IRecordSet records, RecordErrors errors, ImportOrder order, long revision, Action<string, long> progress)
{
    private readonly Dictionary<string, RecordKeys> _keys = [];
    private readonly List<(RecordTable Table, RecordCounts Counts)> _counts = [];

    /// <summary>The store, within the import's transaction.</summary>
    public Database Database => database;

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
        using var statement = database.Prepare(
            $"SELECT k.key, k.id, r.hash FROM {table.Name}_keys k "
            + $"LEFT JOIN {table.Name} r ON r.key = k.key AND r.replaced IS NULL ORDER BY k.key");
        while (statement.Step())
        {
            var current = !statement.IsNull(2);
            keys.Restore(statement.Text(1), statement.Int(0), current && !order.Complete);
            while (hashes.Count < statement.Int(0))
            {
                hashes.Add(0);
            }

            hashes.Add(current ? (ulong)statement.Number(2) : 0);
        }

        _keys.Add(table.Name, keys);
        return hashes;
    }
}
