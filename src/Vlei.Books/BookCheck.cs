using Vlei.Books.Columns;
using Vlei.Books.Import;
using Vlei.Books.Store;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>One thing that must hold in a book, and whether it does.</summary>
/// <param name="Name">What must hold.</param>
/// <param name="Faults">Where it does not; none where it does.</param>
public sealed record BookCheckResult(string Name, IReadOnlyList<string> Faults)
{
    /// <summary>Whether it holds.</summary>
    public bool Ok => Faults.Count == 0;
}

/// <summary>
/// Holds a book against its own rules: the file is whole, every document sums to zero, settlements fit what is open, and
/// the derived columns are what the records give.
/// </summary>
public static class BookCheck
{
    private const int MostFaults = 20;

    /// <summary>Makes the derived columns anew from the records.</summary>
    public static void Rebuild(Book book, Action<string, long> progress)
    {
        using var database = RecordsFile.OpenToWrite(book.RecordsPath);
        Derivation.Adopt(database, book.Settings.SettlesOldestFirst, progress);
        Derivation.Rebuild(database, progress);
        database.Commit();
    }

    /// <summary>
    /// Runs all checks. It only reads: whoever writes meanwhile is not kept waiting, and what is checked is what was there when it
    /// began.
    /// </summary>
    public static IReadOnlyList<BookCheckResult> Run(Book book, Action<string, long> progress)
    {
        using var database = LedgerReader.OpenDerived(book);
        var results = new List<BookCheckResult>
        {
            new("The file is whole", FileFaults(database)),
            new("Every document sums to zero", SumFaults(database, book.Settings.Currency)),
        };

        var stored = StoredMonths(database);
        var (derivation, made) = MakeAnew(database, progress);
        results.Add(new BookCheckResult("Settlements fit what is open", SettlementFaults(database, derivation, book)));
        results.Add(new BookCheckResult("Derived columns are what the records give", ColumnFaults(stored, made)));
        results.Add(new BookCheckResult("Promises and disputes are of documents that are there", PromiseFaults(database, book)));
        return results;
    }

    private static List<string> PromiseFaults(Database database, Book book)
    {
        var faults = new List<string>();
        using var find = database.Prepare(
            "SELECT 1 FROM documents_keys k JOIN documents d ON d.key = k.key AND d.replaced IS NULL WHERE k.id = ?");
        foreach (var record in PromiseFile.Read(book))
        {
            find.Bind(1, record.Document);
            if (!find.Step())
            {
                faults.Add($"what is noted under {record.Number} is about {record.Document}, which is not in the records");
            }

            find.Reset();
        }

        return faults;
    }

    private static List<string> FileFaults(Database database)
    {
        var faults = new List<string>();
        try
        {
            using var integrity = database.Prepare($"PRAGMA integrity_check({MostFaults})");
            while (integrity.Step())
            {
                if (integrity.Text(0) != "ok")
                {
                    faults.Add(integrity.Text(0));
                }
            }

            using var references = database.Prepare("PRAGMA foreign_key_check");
            while (references.Step() && faults.Count < MostFaults)
            {
                faults.Add($"a row of {references.Text(0)} refers to one that is not in {references.Text(2)}");
            }
        }
        catch (ProblemException damaged)
        {
            faults.Add(damaged.Message);
        }

        return faults;
    }

    private static List<string> SumFaults(Database database, Currency currency)
    {
        var faults = new List<string>();
        using var statement = database.Prepare(
            "SELECT k.id, sum(l.amount) FROM documents d JOIN documents_keys k ON k.key = d.key "
            + "LEFT JOIN lines l ON l.document = d.key AND l.added = d.added "
            + $"WHERE d.replaced IS NULL GROUP BY d.key HAVING sum(l.amount) IS NOT 0 LIMIT {MostFaults}");
        while (statement.Step())
        {
            faults.Add(statement.IsNull(1)
                ? $"document {statement.Text(0)} has no lines"
                : $"document {statement.Text(0)} sums to {DecimalText.Write(statement.Number(1), currency.Decimals)}");
        }

        return faults;
    }

    private static List<string> SettlementFaults(Database database, Derivation derivation, Book book)
    {
        var ids = new RecordKeys();
        using var statement = database.Prepare("SELECT key, id FROM documents_keys ORDER BY key");
        while (statement.Step())
        {
            ids.Restore(statement.Text(1), statement.Int(0), known: true);
        }

        var errors = new RecordErrors();
        SettlementRules.Check(derivation, null, null, ids, book.Settings.Currency, errors);
        return [.. errors.First.Select(error => error.Message)];
    }

    // What the store says of each month, as a fingerprint: its columns and its sums; or that it is damaged.
    private static SortedDictionary<(DerivedKind Kind, int Month), string> StoredMonths(Database database)
    {
        var months = new SortedDictionary<(DerivedKind, int), string>();
        using var store = new DerivedStore(database);
        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            foreach (var month in store.AllMonths(kind))
            {
                months[(kind, month.Number)] = store.Fingerprint(kind, month);
            }
        }

        return months;
    }

    // Made into tables of this connection alone, which stand before those of the file: what is compared is exactly what a rebuild
    // would write.
    private static (Derivation Derivation, SortedDictionary<(DerivedKind Kind, int Month), string> Months) MakeAnew(
        Database database, Action<string, long> progress)
    {
        foreach (var (table, key) in new[] { ("derived_months", "kind, month"), ("derived_columns", "kind, month, name") })
        {
            database.Execute(
                $"CREATE TEMP TABLE {table} AS SELECT * FROM main.{table} WHERE 0; CREATE INDEX temp.made_{table} ON {table}({key})");
        }

        var derivation = new Derivation(database, progress);
        using (var store = new DerivedStore(database))
        {
            store.Clear();
            derivation.Run(store, null, null);
        }

        return (derivation, StoredMonths(database));
    }

    private static List<string> ColumnFaults(
        SortedDictionary<(DerivedKind Kind, int Month), string> stored,
        SortedDictionary<(DerivedKind Kind, int Month), string> made)
    {
        var differing = stored.Keys.Union(made.Keys)
            .Where(key => stored.GetValueOrDefault(key) != made.GetValueOrDefault(key))
            .Order()
            .Select(key => $"{key.Month / 100}-{key.Month % 100:D2} ({DerivedStore.NameOf(key.Kind)})")
            .ToList();
        return differing.Count == 0 ? [] : [$"{string.Join(", ", differing)}: run vlei check --rebuild"];
    }
}
