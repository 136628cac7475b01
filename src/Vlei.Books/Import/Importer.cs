using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Import;

/// <summary>
/// Takes a record set into a book: one transaction with the records, their history and the derived columns, all of it
/// or nothing.
/// </summary>
public sealed class Importer
{
    private readonly Book _book;
    private readonly ImportSession _session;

    private Importer(Book book, ImportSession session) => (_book, _session) = (book, session);

    /// <summary>
    /// Imports the record set. Where anything is wrong with it, the errors say so and the book is as it was.
    /// Throws a <see cref="ProblemException"/> where the book cannot be written.
    /// </summary>
    /// <param name="book">The book.</param>
    /// <param name="records">What comes in.</param>
    /// <param name="errors">Where errors go.</param>
    /// <param name="order">How it is to be done.</param>
    /// <param name="progress">Is told now and then what is going on and how many records are through.</param>
    public static ImportOutcome Run(
        Book book, IRecordSet records, RecordErrors errors, ImportOrder order, Action<string, long> progress)
    {
        using var database = RecordsFile.OpenToWrite(book.RecordsPath);

        Derivation.Adopt(database, book.Settings.SettlesOldestFirst, progress);

        // Rows may stand before those that they refer to; the commit looks at all of them.
        database.Execute("PRAGMA defer_foreign_keys = ON");
        var revision = database.Number("SELECT coalesce(max(revision), 0) FROM imports") + 1;
        var session = new ImportSession(database, records, errors, order, revision, progress);
        try
        {
            new Importer(book, session).Take();
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, "The amounts of an account add up to more than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }

        if (errors.Count > 0)
        {
            return new ImportOutcome(null, session.Counts, []);
        }

        var changes = database.Number("SELECT count(*) FROM closed_periods") > 0 ? RecordChanges.Since(database, revision - 1) : [];
        var kept = !order.Trial && session.Counts.Any(counts => counts.Counts.AnyChange);
        if (kept)
        {
            progress("keeping the records", 0);
            database.Commit();
        }

        return new ImportOutcome(kept ? revision : null, session.Counts, changes);
    }

    private void Take()
    {
        WriteImport();
        var accountsBefore = AccountRows.Read(_session.Database);
        foreach (var table in RecordTables.All)
        {
            if (table.Id is not null && table != RecordTables.Documents)
            {
                Load(table);
            }
        }

        var accounts = AccountRows.Read(_session.Database);
        AccountRules.Check(accounts, AccountLines, _session.Errors);
        var (taken, touchedDocuments) = TakeDocuments();
        using var documents = taken;
        var settlements = TakeSettlements(documents);
        if (IsGiven(RecordTables.Budgets))
        {
            BudgetImport.Run(_session);
        }

        if (_session.Errors.Count > 0)
        {
            return;
        }

        Derive(
            AccountRows.ClassesDiffer(accountsBefore, accounts), touchedDocuments, settlements, documents);
        WriteCounts();
    }

    // Where accounts.csv has each account, for the rules that look at all of them together.
    private Dictionary<int, long> AccountLines { get; } = [];

    private bool IsGiven(RecordTable table) => _session.Records.Has(table) || _session.Order.Complete;

    private void Load(RecordTable table)
    {
        if (IsGiven(table))
        {
            MasterImport.Run(_session, table, table == RecordTables.Accounts ? AccountLines : null);
        }
        else
        {
            _session.LoadKeys(table);
        }
    }

    private (KeyedImport Documents, HashSet<int> Touched) TakeDocuments()
    {
        var (documents, lines) = (RecordTables.Documents, RecordTables.Lines);
        if (_session.Records.Has(documents) != _session.Records.Has(lines))
        {
            var (there, missing) = _session.Records.Has(documents) ? (documents, lines) : (lines, documents);
            throw new ProblemException(
                ProblemKind.BadData, $"There is a {there.FileName}, but no {missing.FileName}.",
                "Documents come with their lines: give both files.");
        }

        var import = new DocumentImport(_session, _book.Settings.Currency);
        return (import.Run(), import.Touched);
    }

    private SettlementImport? TakeSettlements(KeyedImport documents)
    {
        if (!IsGiven(RecordTables.Settlements))
        {
            return null;
        }

        var settlements = new SettlementImport(_session, documents);
        settlements.Run();
        return settlements;
    }

    private void Derive(bool all, HashSet<int> touchedDocuments, SettlementImport? settlements, KeyedImport documents)
    {
        var touched = new HashSet<int>(touchedDocuments);
        touched.UnionWith(settlements?.Touched ?? []);
        if (touched.Count == 0 && !all)
        {
            return;
        }

        using var store = new DerivedStore(_session.Database);
        var derivation = new Derivation(_session.Database, _session.Tell);
        if (all || store.IsEmpty || Derivation.IsOldestFirst(_session.Database))
        {
            store.Clear();
            derivation.Run(store, null, null);
        }
        else
        {
            derivation.Run(store, touched, null);
        }

        SettlementRules.Check(
            derivation, settlements, documents, documents.Keys, _book.Settings.Currency, _session.Errors);
    }

    private void WriteImport()
    {
        var (order, database) = (_session.Order, _session.Database);
        using var insert = database.Prepare("INSERT INTO imports(revision, at, by, complete) VALUES (?, ?, ?, ?)");
        insert.Bind(1, _session.Revision)
            .Bind(2, Revisions.MomentText(order.At))
            .Bind(3, order.By)
            .Bind(4, order.Complete ? 1 : 0)
            .Run();
        using var insertFile = database.Prepare(
            "INSERT INTO import_files(revision, place, path, sha256, bytes) VALUES (?, ?, ?, ?, ?)");
        for (var place = 0; place < _session.Records.Files.Count; place++)
        {
            var file = _session.Records.Files[place];
            insertFile.Bind(1, _session.Revision).Bind(2, place + 1).Bind(3, file.Path).Bind(4, file.Sha256)
                .Bind(5, file.Bytes).Run();
        }
    }

    private void WriteCounts()
    {
        using var insert = _session.Database.Prepare(
            "INSERT INTO import_counts(revision, kind, added, changed, unchanged, removed) VALUES (?, ?, ?, ?, ?, ?)");
        foreach (var (table, counts) in _session.Counts)
        {
            insert.Bind(1, _session.Revision).Bind(2, table.Name).Bind(3, counts.Added).Bind(4, counts.Changed)
                .Bind(5, counts.Unchanged).Bind(6, counts.Removed).Run();
        }
    }
}
