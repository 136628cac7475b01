using Vlei.Books.Columns;
using Vlei.Books.Import;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books;

/// <summary>One thing that must hold in a book, and whether it does.</summary>
/// <param name="Name">What must hold.</param>
/// <param name="Faults">Where it does not; none where it does.</param>
public sealed record BookCheckResult(string Name, IReadOnlyList<string> Faults)
{
    /// <summary>What is to be known beside that; no fault.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

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
        using var writing = Upkeep.Write(book, progress);
        Upkeep.Rebuild(writing, book.Settings, progress);
        writing.Commit();
    }

    /// <summary>
    /// Runs all checks. It only reads: whoever writes meanwhile is not kept waiting, and what is checked is what was there when it
    /// began.
    /// </summary>
    public static IReadOnlyList<BookCheckResult> Run(Book book, Action<string, long> progress)
    {
        using var store = Upkeep.Read(book);
        var results = new List<BookCheckResult>
        {
            new("The store is whole", store.Faults(MostFaults)),
            new("Every document sums to zero", SumFaults(store, book.Settings.Currency)),
            new("Records are known again by what they say", HashFaults(store)),
        };

        // Made in memory: what is compared is exactly what a rebuild would write.
        var derivation = new Derivation(store, new TagSets(store), book.Settings.SettlesOldestFirst, progress);
        var made = new WritableDerivedMonths(new MonthOverlay());
        derivation.Run(made, null);
        NameColumns.Write(made, NameColumns.Tables, store);
        results.Add(new BookCheckResult("Settlements fit what is open", SettlementFaults(store, derivation, book)));
        results.Add(new BookCheckResult(
            "Derived columns are what the records give", ColumnFaults(Fingerprints(new DerivedMonths(store)), Fingerprints(made))));
        results.Add(new BookCheckResult("Promises and disputes are of documents that are there", PromiseFaults(store, book)));
        results.Add(new BookCheckResult(
            "What imports took in is proved", [.. DifferenceFile.Read(book).Take(MostFaults).Select(difference =>
                $"revision {difference.Revision}: {difference.Message}")]));
        var guessed = AccountRows.Read(store).Where(account => account.Tags.ContainsKey(Account.TypeGuess)).ToList();
        if (guessed.Count > 0)
        {
            results.Add(new BookCheckResult("Types of accounts that were taken by guess, until a map or a chart of accounts says them", [])
            {
                Notes = [.. guessed.Select(account =>
                    $"{account.Code} {account.Name}: {AccountTypes.NameOf(account.Type)}, as {account.Tags[Account.TypeGuess]}")],
            });
        }

        return results;
    }

    /// <summary>
    /// What is wrong with the records themselves, where something that cannot be happened while they were read; nothing where they are
    /// whole, and the fault is the program's.
    /// </summary>
    public static string? Damage(Book book)
    {
        try
        {
            using var store = book.Store.Read();
            return store.Faults(1).Concat(HashFaults(store)).FirstOrDefault();
        }
        catch (Exception unreadable) when (unreadable is not OutOfMemoryException)
        {
            return unreadable.Message.TrimEnd('.');
        }
    }

    private static List<string> PromiseFaults(IStoreReading store, Book book)
    {
        var faults = new List<string>();
        foreach (var record in PromiseFile.Read(book))
        {
            using var found = store.Rows(new RecordQuery(RecordTables.Documents, RecordQuery.Key) { Where = ("id", record.Document) });
            if (!found.Next())
            {
                faults.Add($"what is noted under {record.Number} is about {record.Document}, which is not in the records");
            }
        }

        return faults;
    }

    private static List<string> SumFaults(IStoreReading store, Currency currency)
    {
        var faults = new List<string>();
        using var documents = store.Rows(new RecordQuery(RecordTables.Documents, RecordQuery.Key, "id"));
        using var lines = store.Rows(new RecordQuery(RecordTables.Lines, "document", "amount"));
        var hasLine = lines.Next();
        while (faults.Count < MostFaults && documents.Next())
        {
            var (sum, count) = ((Int128)0, 0);
            for (; hasLine && lines.Int(0) == documents.Int(0); hasLine = lines.Next())
            {
                sum += lines.Number(1);
                count++;
            }

            if (count == 0)
            {
                faults.Add($"document {documents.Text(1)} has no lines");
            }
            else if (sum != 0)
            {
                faults.Add($"document {documents.Text(1)} sums to {DecimalText.Write((long)sum, currency.Decimals)}");
            }
        }

        return faults;
    }

    private static List<string> HashFaults(IStoreReading store) =>
        [.. Rehash.Differing(store).Take(MostFaults).Select(version =>
            $"{version.Table.Singular} {version.Key} of import {version.Added} says something else than when it came in")];

    private static List<string> SettlementFaults(IStoreReading store, Derivation derivation, Book book)
    {
        var ids = new RecordKeys();
        using var rows = store.Ids(RecordTables.Documents);
        while (rows.Next())
        {
            ids.Restore(rows.Text(1), rows.Int(0), known: true);
        }

        var errors = new RecordErrors();
        SettlementRules.Check(derivation, null, null, ids, book.Settings.Currency, errors);
        return [.. errors.First.Select(error => error.Message)];
    }

    // What the months hold, as a fingerprint of each: its columns and its sums.
    private static SortedDictionary<(DerivedKind Kind, int Month), string> Fingerprints(DerivedMonths months)
    {
        var fingerprints = new SortedDictionary<(DerivedKind, int), string>();
        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            foreach (var (month, fingerprint) in months.Fingerprints(kind))
            {
                fingerprints[(kind, month.Number)] = fingerprint;
            }
        }

        return fingerprints;
    }

    private static List<string> ColumnFaults(
        SortedDictionary<(DerivedKind Kind, int Month), string> stored,
        SortedDictionary<(DerivedKind Kind, int Month), string> made)
    {
        var differing = stored.Keys.Union(made.Keys)
            .Where(key => stored.GetValueOrDefault(key) != made.GetValueOrDefault(key))
            .Order()
            .Select(key => DerivedMonths.InWords(key.Kind, YearMonth.FromNumber(key.Month)))
            .ToList();
        return differing.Count == 0 ? [] : [$"{string.Join(", ", differing)}: run vlei check --rebuild"];
    }
}
