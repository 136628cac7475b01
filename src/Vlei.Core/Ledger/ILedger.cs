using Vlei.Core.Calendar;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>What is posted to one account in one month.</summary>
/// <param name="Account">The key of the account.</param>
/// <param name="Debit">The sum of its debits; positive.</param>
/// <param name="Credit">The sum of its credits; positive.</param>
public readonly record struct AccountSum(AccountKey Account, Amount Debit, Amount Credit);

/// <summary>
/// The records of a book as the computation reads them, all as of one moment: what an import changes meanwhile is not
/// seen. The store stands behind it.
/// </summary>
public interface ILedger
{
    /// <summary>The number of the last import that is seen; 0 before the first.</summary>
    long Revision { get; }

    /// <summary>All accounts.</summary>
    IReadOnlyList<Account> Accounts { get; }

    /// <summary>The first and the last day that anything counts on either basis, or nothing where there is nothing.</summary>
    DateRange? Extent { get; }

    /// <summary>All budgets.</summary>
    IReadOnlyList<Budget> Budgets { get; }

    /// <summary>The tags of lines and their documents, by the key that postings refer to them by; the first is none.</summary>
    IReadOnlyList<IReadOnlyDictionary<string, string>> TagSets { get; }

    /// <summary>The sums per account of each month that has postings and touches the range, oldest first.</summary>
    IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range);

    /// <summary>Some columns of the postings of one month.</summary>
    /// <param name="basis">The basis.</param>
    /// <param name="month">The month.</param>
    /// <param name="fields">The columns.</param>
    /// <param name="arrays">What they may be read into, where the month that was read into it before is done with.</param>
    PostingMonth ReadMonth(
        AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields, PostingArrays? arrays = null);

    /// <summary>One column of some postings of a month.</summary>
    /// <param name="basis">The basis.</param>
    /// <param name="month">The month.</param>
    /// <param name="field">The column.</param>
    /// <param name="places">Where the postings stand in the month.</param>
    long[] ReadSome(AccountingBasis basis, YearMonth month, PostingField field, int[] places)
    {
        var column = ReadMonth(basis, month, [field])[field];
        return [.. places.Select(place => column[place])];
    }

    /// <summary>What all records of a table are called, by key.</summary>
    /// <param name="table">A table whose records have ids and names: contacts, items, projects, departments or tax codes.</param>
    RecordNames Names(RecordTable table);

    /// <summary>The records of a table that are tagged, by key: what each is tagged with, by the name of the tag.</summary>
    /// <param name="table">A table whose records have ids.</param>
    IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> Tagged(RecordTable table);

    /// <summary>What is shown of a document.</summary>
    DocumentText Document(DocumentKey key);

    /// <summary>The note of a line; empty for none.</summary>
    string LineMemo(DocumentKey document, int line);

    /// <summary>What documents say in a field, a value for each key; nothing for a document that does not, and for key 0.</summary>
    /// <param name="field">A field of <see cref="RecordTables.Documents"/>, or their tags.</param>
    /// <param name="documents">The keys, in any order, each as often as need be.</param>
    RecordValue[] OfDocuments(RecordField field, long[] documents);

    /// <summary>What lines say in a field, a value for each; nothing for a line that does not.</summary>
    /// <param name="field">The price of one or the note: what postings do not say themselves.</param>
    /// <param name="documents">The keys of their documents, in any order.</param>
    /// <param name="lines">Their places in these.</param>
    RecordValue[] OfLines(RecordField field, long[] documents, long[] lines);

    /// <summary>Some fields of the records of a table, by key.</summary>
    /// <param name="table">A table whose records have ids.</param>
    /// <param name="fields">Its fields that are wanted.</param>
    IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(RecordTable table, IReadOnlyList<RecordField> fields);

    /// <summary>Whether there is a record of that id, in these very letters.</summary>
    /// <param name="table">A table whose records have ids.</param>
    /// <param name="id">The id.</param>
    bool HasRecord(RecordTable table, string id);

    /// <summary>Where a contact is, in one or several lines; empty where it is not known.</summary>
    string ContactAddress(ContactKey contact);

    /// <summary>What documents dated up to a day put on control accounts, by date and document: columns of the caller's own.</summary>
    /// <param name="until">The day.</param>
    /// <param name="accounts">The accounts that are wanted; nothing for all of them.</param>
    ItemColumns ControlItems(DateOnly until, IReadOnlySet<AccountKey>? accounts = null);

    /// <summary>
    /// What was set against what up to a day, in the order in which it took effect, a part after the other: each may be the same
    /// list, filled again.
    /// </summary>
    /// <param name="until">The day.</param>
    /// <param name="accounts">The control accounts that are wanted; nothing for all of them.</param>
    IEnumerable<List<Application>> Applications(DateOnly until, IReadOnlySet<AccountKey>? accounts = null);

    /// <summary>The two documents that a settlement joins.</summary>
    (DocumentKey From, DocumentKey To) DocumentsOf(SettlementKey settlement);

    /// <summary>Whether the records have no settlements, and those that there are were computed.</summary>
    bool HasComputedSettlements { get; }

    /// <summary>What each import so far did to documents, in the order of the imports.</summary>
    IEnumerable<DocumentVersion> DocumentVersions();

    /// <summary>What was said about findings of the review.</summary>
    IReadOnlyList<FindingMark> Marks { get; }

    /// <summary>What contacts have committed to or dispute, by number; only what is about documents that there are.</summary>
    IReadOnlyList<Promise> Promises { get; }
}
