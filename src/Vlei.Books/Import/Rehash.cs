using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>A version of a record that does not have the hash of what it says.</summary>
internal readonly record struct DifferingHash(RecordTable Table, int Key, long Added, ulong Hash);

/// <summary>Hashes the records of a store anew, from what is in it.</summary>
internal static class Rehash
{
    private const int Known = 3;

    /// <summary>Gives every version the hash of what it says.</summary>
    public static void Run(IStoreWriting store)
    {
        foreach (var (table, key, added, hash) in Differing(store).ToList())
        {
            store.SetHash(table, key, added, hash);
        }
    }

    /// <summary>The versions that have another hash than that of what they say, and which they should have.</summary>
    public static IEnumerable<DifferingHash> Differing(IStoreReading store) =>
        RecordTables.All.Where(table => table != RecordTables.Lines).SelectMany(table => Differing(store, table));

    private static IEnumerable<DifferingHash> Differing(IStoreReading store, RecordTable table)
    {
        var (hash, row, line) = (new RecordHash(), new RecordRow(table), new RecordRow(RecordTables.Lines));
        using var rows = store.Rows(RecordRows.AllOf(table, RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash));
        using var lines = store.Rows(RecordRows.AllOf(RecordTables.Lines, "document", RecordQuery.Added, "line"));
        var hasLine = table == RecordTables.Documents && lines.Next();
        while (rows.Next())
        {
            var (key, added) = (rows.Int(0), rows.Number(1));
            RecordRows.Fill(row, rows, Known);
            hash.Begin(row);
            for (; hasLine && lines.Int(0) == key && lines.Number(1) == added; hasLine = lines.Next())
            {
                RecordRows.Fill(line, lines, Known);
                hash.Add(line, lines.Number(2));
            }

            if ((ulong)rows.Number(2) != hash.End())
            {
                yield return new DifferingHash(table, key, added, hash.End());
            }
        }
    }
}
