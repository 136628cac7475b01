using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>
/// The table of what makes the two bases differ: what each document posts to each account within some days on the one and on the
/// other, where that is not the same.
/// </summary>
public static class DifferenceTable
{
    private static readonly RecordFields<Difference> Own = new()
    {
        { TableField.Reference("account", RecordTables.Accounts, "The account"), row => row.Account },
        { TableField.Reference("document", RecordTables.Documents, "The document"), row => row.Document },
        { TableField.DocumentKind("What the document is"), row => row.Kind },
        { TableField.Reference("contact", RecordTables.Contacts, "Its contact there"), row => row.Contact },
        { new("date", FieldType.Date, "The first day on which it counts within the period, on either basis"), row => row.Day },
        { Amount("accrual", "What it posts on the accrual basis, as statements show the account"), row => row.Accrual },
        { Amount("cash", "What it posts on the cash basis"), row => row.Cash },
        { Amount("difference", "The one less the other"), row => checked(row.Accrual - row.Cash) },
    };

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "differences",
        Meaning = "What documents post on one basis and not the other",
        Fields = [.. Own],
        Columns = ["date", "account", "kind", "contact", "accrual", "cash", "difference"],
        Key = ["document", "account"],
        MainFigure = "difference",
        Date = "date",
        IsOfDocuments = true,
        RestsOnSettlements = true,
        Examples = [("--period last-month --only account.type=income", "what was invoiced and not paid, and paid and not invoiced")],
        Read = Read,
    };

    // What adds up over accounts of one type does not over those of different sides.
    private static TableField Amount(string name, string meaning) => new(name, FieldType.Money, meaning) { AddsUpWithin = "account.type" };

    private static IEnumerable<RowBlock> Read(TableContext context, DateRange range)
    {
        var found = new Dictionary<(long Account, long Document), Difference>();
        Add(AccountingBasis.Accrual, (row, amount) => row with { Accrual = checked(row.Accrual + amount) });
        Add(AccountingBasis.Cash, (row, amount) => row with { Cash = checked(row.Cash + amount) });
        List<Difference> rows = [.. found.Values.Where(row => row.Accrual != row.Cash).OrderBy(row => row.Day).ThenBy(row => row.Document)];
        return rows.Count == 0 ? [] : [Own.BlockOf(rows)];

        void Add(AccountingBasis basis, Func<Difference, long, Difference> with)
        {
            foreach (var block in PostingTables.Postings.Read(context with { Basis = basis }, range))
            {
                var (accounts, documents, contacts) = (block["account"], block["document"], block["contact"]);
                var (days, amounts, kinds) = (block["date"], block["natural"], block["kind"]);
                for (var row = 0; row < block.Count; row++)
                {
                    var key = (accounts[row], documents[row]);
                    var known = found.GetValueOrDefault(
                        key, new Difference(accounts[row], documents[row], kinds[row], contacts[row], days[row], 0, 0));
                    found[key] = with(known with { Day = Math.Min(known.Day, days[row]) }, amounts[row]);
                }
            }
        }
    }

    // What a document posts to an account.
    private readonly record struct Difference(long Account, long Document, long Kind, long Contact, long Day, long Accrual, long Cash);
}
