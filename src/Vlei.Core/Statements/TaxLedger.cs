using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>
/// A ledger as a tax return sees it: only the lines with a tax code, and in the place of accounts what a tax is counted from, and the tax,
/// per code and side. So a return is a statement like any other.
/// </summary>
internal sealed class TaxLedger : ILedger
{
    /// <summary>The tag of such an account that says the code.</summary>
    public const string Code = "tax-code";

    /// <summary>The tag that says the side: sales or purchases.</summary>
    public const string Side = "side";

    /// <summary>The tag that says the part: base or tax.</summary>
    public const string Part = "part";

    /// <summary>The sides.</summary>
    public static readonly IReadOnlyList<string> Sides = ["sales", "purchases"];

    /// <summary>The parts.</summary>
    public static readonly IReadOnlyList<string> Parts = ["base", "tax"];

    private static readonly PostingField[] Needed =
        [PostingField.TaxCode, PostingField.TaxPart, PostingField.Kind, PostingField.Amount, PostingField.Account];

    private static readonly IReadOnlyList<RecordField> Named =
        [.. RecordTables.TaxCodes.Fields.Where(field => field.Name is "code" or "name")];

    private readonly ILedger _ledger;
    private readonly Dictionary<long, int> _sideOf;

    /// <summary>Looks at a ledger.</summary>
    public TaxLedger(ILedger ledger)
    {
        (_ledger, _sideOf) = (ledger, PostingTables.SidesOf(ledger));
        Accounts =
        [
            .. ledger.ReadRecords(RecordTables.TaxCodes, Named).SelectMany(code => SidesOf(code.Key).SelectMany(side =>
                Parts.Select((part, place) => AccountOf(code.Key, code.Values[0].Text!, code.Values[1].Text!, side, place)))),
        ];
    }

    /// <inheritdoc/>
    public long Revision => _ledger.Revision;

    /// <inheritdoc/>
    public IReadOnlyList<Account> Accounts { get; }

    /// <inheritdoc/>
    public DateRange? Extent => _ledger.Extent;

    /// <inheritdoc/>
    public IReadOnlyList<Budget> Budgets => [];

    /// <inheritdoc/>
    public IReadOnlyList<IReadOnlyDictionary<string, string>> TagSets => _ledger.TagSets;

    /// <inheritdoc/>
    public bool HasComputedSettlements => _ledger.HasComputedSettlements;

    /// <inheritdoc/>
    public IReadOnlyList<FindingMark> Marks => _ledger.Marks;

    /// <inheritdoc/>
    public IReadOnlyList<Promise> Promises => _ledger.Promises;

    /// <inheritdoc/>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range)
    {
        foreach (var (month, _) in _ledger.MonthSums(basis, range))
        {
            var postings = ReadMonth(basis, month, [PostingField.Account, PostingField.Amount]);
            var sums = new SortedDictionary<int, (Amount Debit, Amount Credit)>();
            for (var row = 0; row < postings.Count; row++)
            {
                var (account, amount) = ((int)postings[PostingField.Account][row], new Amount(postings[PostingField.Amount][row]));
                var (debit, credit) = sums.GetValueOrDefault(account);
                sums[account] = amount.Sign > 0 ? (debit + amount, credit) : (debit, credit - amount);
            }

            yield return (month, [.. sums.Select(sum => new AccountSum(new AccountKey(sum.Key), sum.Value.Debit, sum.Value.Credit))]);
        }
    }

    /// <inheritdoc/>
    public PostingMonth ReadMonth(
        AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields, PostingArrays? arrays = null)
    {
        var all = _ledger.ReadMonth(basis, month, [.. fields.Union(Needed)]);
        int[] taxed = [.. Enumerable.Range(0, all.Count).Where(row => all[PostingField.TaxCode][row] != 0)];
        return new PostingMonth(taxed.Length, fields.Distinct().Select(field => (field, field == PostingField.Account
            ? [.. taxed.Select(row => KeyOf(all, row))] : taxed.Select(row => all[field][row]).ToArray())));
    }

    /// <inheritdoc/>
    public RecordNames Names(RecordTable table) => _ledger.Names(table);

    /// <inheritdoc/>
    public IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> Tagged(RecordTable table) => _ledger.Tagged(table);

    /// <inheritdoc/>
    public DocumentText Document(DocumentKey key) => _ledger.Document(key);

    /// <inheritdoc/>
    public string LineMemo(DocumentKey document, int line) => _ledger.LineMemo(document, line);

    /// <inheritdoc/>
    public RecordValue[] OfDocuments(RecordField field, long[] documents) => _ledger.OfDocuments(field, documents);

    /// <inheritdoc/>
    public RecordValue[] OfLines(RecordField field, long[] documents, long[] lines) => _ledger.OfLines(field, documents, lines);

    /// <inheritdoc/>
    public IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(RecordTable table, IReadOnlyList<RecordField> fields) =>
        _ledger.ReadRecords(table, fields);

    /// <inheritdoc/>
    public bool HasRecord(RecordTable table, string id) => _ledger.HasRecord(table, id);

    /// <inheritdoc/>
    public string ContactAddress(ContactKey contact) => _ledger.ContactAddress(contact);

    /// <inheritdoc/>
    public ItemColumns ControlItems(DateOnly until, IReadOnlySet<AccountKey>? accounts = null) =>
        _ledger.ControlItems(until, accounts);

    /// <inheritdoc/>
    public IEnumerable<List<Application>> Applications(DateOnly until, IReadOnlySet<AccountKey>? accounts = null) =>
        _ledger.Applications(until, accounts);

    /// <inheritdoc/>
    public (DocumentKey From, DocumentKey To) DocumentsOf(SettlementKey settlement) => _ledger.DocumentsOf(settlement);

    /// <inheritdoc/>
    public IEnumerable<DocumentVersion> DocumentVersions() => _ledger.DocumentVersions();

    private IEnumerable<int> SidesOf(int code) => _sideOf.GetValueOrDefault(code) is > 0 and var said ? [said - 1] : [0, 1];

    // Sales are credits and purchases debits, as they are on income and costs.
    private static Account AccountOf(int key, string code, string name, int side, int part) => new(
        new AccountKey(KeyOf(key, side, part)), $"{code}/{Sides[side]}/{Parts[part]}", name,
        side == 0 ? AccountType.Income : AccountType.Expense, null, true)
    {
        Tags = new Dictionary<string, string> { [Code] = code, [Side] = Sides[side], [Part] = Parts[part] },
    };

    private static int KeyOf(int code, int side, int part) => (((code * Sides.Count) + side) * Parts.Count) + part + 1;

    private long KeyOf(PostingMonth postings, int row)
    {
        var code = postings[PostingField.TaxCode][row];
        var side = _sideOf.GetValueOrDefault(code) is > 0 and var said ? said
            : PostingTables.SideOf(postings[PostingField.Kind][row], postings[PostingField.Amount][row]);
        return KeyOf((int)code, side - 1, postings[PostingField.TaxPart][row] == (long)TaxPart.Tax ? 1 : 0);
    }
}
