using Vlei.Books.Store;

namespace Vlei.Books.Columns;

/// <summary>
/// The derived columns as they were at an earlier import. What differs from today is made again from the records of
/// then and kept beside the file for as long as it is open; all other months are those of the file.
/// </summary>
internal static class EarlierPostings
{
    private const string Written = "earlier_";

    /// <summary>Lays the earlier columns over those of today, and gives the store that reads them.</summary>
    public static PostingStore Open(Database database, long revision)
    {
        database.Execute($"""
            CREATE TEMP TABLE tag_sets AS SELECT key, tags FROM main.tag_sets;
            CREATE TEMP TABLE {Written}posting_months AS SELECT * FROM main.posting_months WHERE 0;
            CREATE TEMP TABLE {Written}posting_columns AS SELECT * FROM main.posting_columns WHERE 0;
            CREATE INDEX temp.{Written}months ON {Written}posting_months(basis, month);
            CREATE INDEX temp.{Written}columns ON {Written}posting_columns(basis, month, name);
            {View("posting_months", "basis, month, postings, sums, checksum", "WHERE postings > 0")}
            {View("posting_columns", "basis, month, name, data, checksum")}
            """);
        var store = new PostingStore(database, Written);
        var standing = new Standing(revision);
        var affected = AccountRows.ClassesDiffer(AccountRows.Read(database, standing), AccountRows.Read(database)) ? null : Touched(database, revision);
        new Derivation(database, (_, _) => { }, standing).Run(affected, new MonthBuckets(store, affected ?? All(database)));
        return store;
    }

    // A month that is written again, be it empty now, hides that of the file.
    private static string View(string table, string columns, string condition = "") =>
        $"CREATE TEMP VIEW {table} AS SELECT {columns} FROM temp.{Written}{table} {condition} UNION ALL "
        + $"SELECT {columns} FROM main.{table} m WHERE NOT EXISTS (SELECT 1 FROM temp.{Written}posting_months e "
        + "WHERE e.basis = m.basis AND e.month = m.month);";

    // The documents that were not then as they are now, and those that they are or were settled with.
    private static HashSet<int> Touched(Database database, long revision)
    {
        var touched = new HashSet<int>();
        database.Execute($"""
            CREATE TEMP TABLE touched AS
                SELECT key FROM documents WHERE added > {revision} OR replaced > {revision}
                UNION SELECT "from" FROM settlements WHERE added > {revision} OR replaced > {revision}
                UNION SELECT "to" FROM settlements WHERE added > {revision} OR replaced > {revision};
            CREATE UNIQUE INDEX temp.touched_keys ON touched(key);
            """);
        using var statement = database.Prepare("""
            SELECT key FROM touched
            UNION SELECT s."to" FROM settlements s JOIN touched t ON t.key = s."from"
            UNION SELECT s."from" FROM settlements s JOIN touched t ON t.key = s."to"
            """);
        while (statement.Step())
        {
            touched.Add(statement.Int(0));
        }

        return touched;
    }

    private static HashSet<int> All(Database database)
    {
        var all = new HashSet<int>();
        using var statement = database.Prepare("SELECT key FROM documents_keys");
        while (statement.Step())
        {
            all.Add(statement.Int(0));
        }

        return all;
    }
}
