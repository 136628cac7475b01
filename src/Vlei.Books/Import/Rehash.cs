using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>A version of a record that does not have the hash of what it says.</summary>
internal readonly record struct DifferingHash(RecordTable Table, int Key, long Added, ulong Hash);

/// <summary>Hashes the records of a store anew, from what is in it.</summary>
internal static class Rehash
{
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
        using var rows = store.Rows(AllOf(table, RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash));
        using var lines = store.Rows(AllOf(RecordTables.Lines, "document", RecordQuery.Added, "line"));
        var hasLine = table == RecordTables.Documents && lines.Next();
        while (rows.Next())
        {
            var (key, added) = (rows.Int(0), rows.Number(1));
            Fill(row, rows);
            hash.Begin(row);
            for (; hasLine && lines.Int(0) == key && lines.Number(1) == added; hasLine = lines.Next())
            {
                Fill(line, lines);
                hash.Add(line, lines.Number(2));
            }

            if ((ulong)rows.Number(2) != hash.End())
            {
                yield return new DifferingHash(table, key, added, hash.End());
            }
        }
    }

    // Three columns by which a version is known, then its fields and its tags.
    private static RecordQuery AllOf(RecordTable table, params ReadOnlySpan<string> known) =>
        new(table, [.. known, .. table.Fields.Select(field => field.Name), RecordQuery.Tags]) { AllVersions = true };

    private static void Fill(RecordRow row, IRows rows)
    {
        const int First = 3;
        row.Clear();
        for (var field = 0; field < row.Table.Fields.Count; field++)
        {
            if (rows.IsNull(First + field))
            {
                continue;
            }

            if (row.Table.Fields[field].IsNumber)
            {
                row.Set(field, rows.Number(First + field));
            }
            else
            {
                row.Set(field, rows.Bytes(First + field));
            }
        }

        if (!rows.IsNull(First + row.Table.Fields.Count))
        {
            row.SetTags(rows.Bytes(First + row.Table.Fields.Count).ToArray());
        }
    }
}
