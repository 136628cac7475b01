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
    PostingMonth ReadMonth(AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields);

    /// <summary>
    /// All records that postings refer to by <see cref="PostingField.Contact"/>, <see cref="PostingField.Item"/>,
    /// <see cref="PostingField.Project"/> or <see cref="PostingField.Department"/>.
    /// </summary>
    IReadOnlyList<NamedRecord> Records(PostingField field);

    /// <summary>What is shown of a document.</summary>
    DocumentText Document(DocumentKey key);

    /// <summary>The note of a line; empty for none.</summary>
    string LineMemo(DocumentKey document, int line);

    /// <summary>Some fields of the records of a table, by key; a record that is not there any more is left out.</summary>
    /// <param name="table">A table whose records have ids.</param>
    /// <param name="fields">Its fields that are wanted.</param>
    /// <param name="keys">The keys of the records, ascending; all records where it is nothing.</param>
    IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(
        RecordTable table, IReadOnlyList<RecordField> fields, IReadOnlyList<int>? keys = null);

    /// <summary>Whether there is a record of that id, in these very letters.</summary>
    /// <param name="table">A table whose records have ids.</param>
    /// <param name="id">The id.</param>
    bool HasRecord(RecordTable table, string id);

    /// <summary>Some fields of the lines of documents, by document.</summary>
    /// <param name="fields">The fields of <see cref="RecordTables.Lines"/> that are wanted.</param>
    /// <param name="documents">The keys of the documents, ascending.</param>
    IEnumerable<(DocumentKey Document, int Line, RecordValue[] Values)> ReadLines(
        IReadOnlyList<RecordField> fields, IReadOnlyList<DocumentKey> documents);

    /// <summary>Where a contact is, in one or several lines; empty where it is not known.</summary>
    string ContactAddress(ContactKey contact);

    /// <summary>What documents dated up to a day put on control accounts, by date and document.</summary>
    IReadOnlyList<ControlItem> ControlItems(DateOnly until);

    /// <summary>What was set against what up to a day, in the order in which it took effect.</summary>
    IReadOnlyList<Application> Applications(DateOnly until);

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
