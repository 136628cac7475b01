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
    public static DerivedStore Open(Database database, long revision)
    {
        database.Execute($"""
            CREATE TEMP TABLE tag_sets AS SELECT key, tags FROM main.tag_sets;
            CREATE TEMP TABLE {Written}derived_months AS SELECT * FROM main.derived_months WHERE 0;
            CREATE TEMP TABLE {Written}derived_columns AS SELECT * FROM main.derived_columns WHERE 0;
            CREATE INDEX temp.{Written}months ON {Written}derived_months(kind, month);
            CREATE INDEX temp.{Written}columns ON {Written}derived_columns(kind, month, name);
            {View("derived_months", "kind, month, rows, sums, checksum", "WHERE rows > 0")}
            {View("derived_columns", "kind, month, name, data, checksum")}
            """);
        var store = new DerivedStore(database, Written);
        var standing = new Standing(revision);
        var touched = Derivation.IsOldestFirst(database)
            || AccountRows.ClassesDiffer(AccountRows.Read(database, standing), AccountRows.Read(database)) ? null
                : Touched(database, revision);
        new Derivation(database, (_, _) => { }, standing).Run(store, touched, All(database));
        return store;
    }

    // A month that is written again, be it empty now, hides that of the file.
    private static string View(string table, string columns, string condition = "") =>
        $"CREATE TEMP VIEW {table} AS SELECT {columns} FROM temp.{Written}{table} {condition} UNION ALL "
        + $"SELECT {columns} FROM main.{table} m WHERE NOT EXISTS (SELECT 1 FROM temp.{Written}derived_months e "
        + "WHERE e.kind = m.kind AND e.month = m.month);";

    // The documents that were not then as they are now, or whose settlements were not.
    private static HashSet<int> Touched(Database database, long revision) => Keys(database, $"""
        SELECT key FROM documents WHERE added > {revision} OR replaced > {revision}
        UNION SELECT "from" FROM settlements WHERE added > {revision} OR replaced > {revision}
        UNION SELECT "to" FROM settlements WHERE added > {revision} OR replaced > {revision}
        """);

    private static HashSet<int> All(Database database) => Keys(database, "SELECT key FROM documents_keys");

    private static HashSet<int> Keys(Database database, string sql)
    {
        var keys = new HashSet<int>();
        using var statement = database.Prepare(sql);
        while (statement.Step())
        {
            keys.Add(statement.Int(0));
        }

        return keys;
    }
}
