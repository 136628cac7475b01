using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// The derived months as they were at an earlier import. What differs from today is made again from the records of
/// then and kept in memory; all other months are those of the store.
/// </summary>
internal static class EarlierMonths
{
    /// <summary>The months of then.</summary>
    public static IMonths Of(IStoreReading store, TagSets tags, long revision)
    {
        var standing = new Standing(revision);
        var oldestFirst = store.State.Made.OldestFirst;
        var touched = oldestFirst || AccountRows.ClassesDiffer(AccountRows.Read(store, standing), AccountRows.Read(store))
            ? null : Touched(store, revision);
        var overlay = new MonthOverlay(touched is null ? null : store);
        var months = new WritableDerivedMonths(overlay);
        new Derivation(store, tags, oldestFirst, (_, _) => { }, standing).Run(months, touched);
        NameColumns.Write(months, NameColumns.Tables, store, standing);
        return overlay;
    }

    // The documents that were not then as they are now, or whose settlements were not.
    private static HashSet<int> Touched(IStoreReading store, long revision)
    {
        var touched = store.ChangedSince(RecordTables.Documents, revision);
        using var rows = store.Rows(new RecordQuery(RecordTables.Settlements, "from", "to")
        {
            AllVersions = true, Keys = [.. store.ChangedSince(RecordTables.Settlements, revision).Order()],
        });
        while (rows.Next())
        {
            touched.Add(rows.Int(0));
            touched.Add(rows.Int(1));
        }

        return touched;
    }
}
