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
        using var store = Upkeep.Write(book, progress);
        if (SameAgain.CountsOf(book, store, records, order) is { } unchanged)
        {
            return new ImportOutcome(null, unchanged, [], []);
        }

        var revision = store.State.Revision + 1;
        var session = new ImportSession(store, records, errors, order, revision, progress);
        try
        {
            new Importer(book, session).Take();
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, "The amounts of a document or a month add up to more than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }

        if (errors.Count > 0)
        {
            return new ImportOutcome(null, session.Counts, [], []);
        }

        var differences = BalanceProofs.Differing(session, book.Settings).ToList();
        if (differences.Count > 0 && !order.TakesDifferences)
        {
            foreach (var (file, line, column, message) in differences)
            {
                errors.Add(file, line, column, message);
            }

            return new ImportOutcome(null, session.Counts, [], []);
        }

        var changes = store.ClosedPeriods().Count > 0 ? RecordChanges.Since(store, revision - 1) : [];
        var kept = !order.Trial && session.Counts.Any(counts => counts.Counts.AnyChange);
        if (kept)
        {
            progress("keeping the records", 0);
            store.Commit();
        }

        return new ImportOutcome(kept ? revision : null, session.Counts, changes, differences);
    }

    private void Take()
    {
        _session.Store.AddImport(_session.Revision, _session.Order.At, _session.Order.By, _session.Order.Complete);
        var accountsBefore = AccountRows.Read(_session.Store);
        foreach (var table in RecordTables.Lists)
        {
            Load(table);
        }

        var accounts = AccountRows.Read(_session.Store);
        AccountRules.Check(accounts, AccountPlaces, _session.Errors);
        var documents = new DocumentImport(_session, _book.Settings.Currency);
        var keyed = TakeDocuments(documents);
        var settlements = TakeSettlements(keyed, documents.IsTouched);
        if (IsGiven(RecordTables.Budgets))
        {
            BudgetImport.Run(_session);
        }

        if (_session.Errors.Count > 0)
        {
            return;
        }

        Derive(AccountRows.ClassesDiffer(accountsBefore, accounts), documents, settlements, keyed);
        _session.Store.DescribeImport(
            _session.Revision, _session.Records.Files,
            [.. _session.Counts.Select(one => new StoredCounts(
                one.Table.Name, one.Counts.Added, one.Counts.Changed, one.Counts.Unchanged, one.Counts.Removed))]);
    }

    // Where each account stands, for the rules that look at all of them together.
    private Dictionary<int, RecordPlace> AccountPlaces { get; } = [];

    private bool IsGiven(RecordTable table) => _session.Records.Has(table) || _session.Order.Complete
        || (table == RecordTables.Settlements && _session.Order.CompleteFor is not null);

    private void Load(RecordTable table)
    {
        if (IsGiven(table))
        {
            MasterImport.Run(_session, table, table == RecordTables.Accounts ? AccountPlaces : null);
        }
        else
        {
            _session.LoadKeys(table);
        }
    }

    private KeyedImport TakeDocuments(DocumentImport import)
    {
        var (documents, lines) = (RecordTables.Documents, RecordTables.Lines);
        if (_session.Records.Has(documents) != _session.Records.Has(lines))
        {
            var (there, missing) = _session.Records.Has(documents) ? (documents, lines) : (lines, documents);
            throw new ProblemException(
                ProblemKind.BadData, $"There is a {there.FileName}, but no {missing.FileName}.",
                "Documents come with their lines: give both files.");
        }

        return import.Run();
    }

    private SettlementImport? TakeSettlements(KeyedImport documents, Predicate<int> isTouched)
    {
        if (!IsGiven(RecordTables.Settlements))
        {
            return null;
        }

        var settlements = new SettlementImport(_session, documents, isTouched);
        settlements.Run();
        return settlements;
    }

    private void Derive(bool all, DocumentImport documents, SettlementImport? settlements, KeyedImport keyed)
    {
        var (store, oldestFirst) = (_session.Store, _book.Settings.SettlesOldestFirst);
        var months = new WritableDerivedMonths(store);
        if (documents.TouchedCount == 0 && settlements is not { Touched.Count: > 0 } && !all)
        {
            NameColumns.Write(months, NameColumns.Tables.Where(IsChanged), store);
            return;
        }

        var derivation = new Derivation(store, new TagSets(store, store.AddTagSet), oldestFirst, _session.Tell, atHand: documents);
        if (all || months.IsEmpty || oldestFirst)
        {
            months.Clear();
            derivation.Run(months, null);
            NameColumns.Write(months, NameColumns.Tables, store);
        }
        else
        {
            derivation.Run(months, [.. documents.Touched, .. settlements?.Touched ?? []]);
            NameColumns.Write(months, NameColumns.Tables.Where(IsChanged), store);
        }

        RefuseTooLargeSums(months);
        SettlementRules.Check(derivation, settlements, keyed, keyed.Keys, _book.Settings.Currency, _session.Errors);
    }

    private bool IsChanged(RecordTable table) => _session.Counts.Any(counts => counts.Table == table && counts.Counts.AnyChange);

    // Whatever a report adds up is part of all debits and credits there are: where these can be shown, all of it can.
    private void RefuseTooLargeSums(WritableDerivedMonths months)
    {
        foreach (var kind in new[] { DerivedKind.Accrual, DerivedKind.Cash })
        {
            var (all, accounts) = ((Int128)0, new Dictionary<AccountKey, Int128>());
            foreach (var sum in months.Months(kind).SelectMany(month => months.Sums(kind, month, month)).SelectMany(month => month.Sums))
            {
                var moved = (Int128)sum.Debit.MinorUnits + sum.Credit.MinorUnits;
                all += moved;
                accounts[sum.Account] = accounts.GetValueOrDefault(sum.Account) + moved;
            }

            if (all > long.MaxValue)
            {
                var largest = accounts.MaxBy(account => account.Value).Key;
                var account = AccountRows.Read(_session.Store).First(account => account.Key == largest);
                throw new ProblemException(
                    ProblemKind.BadData,
                    $"All amounts together are more than 64 bits hold; most of it is on account {account.Code} {account.Name}.",
                    "Look there for an amount with too many digits.");
            }
        }
    }
}
