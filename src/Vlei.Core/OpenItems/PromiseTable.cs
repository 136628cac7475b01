using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.OpenItems;

/// <summary>The table of what contacts have promised and what they dispute, and what has become of it by a day.</summary>
public static class PromiseTable
{
    private static readonly WordPool Kinds = new(["", "promise", "dispute"]);

    private static readonly WordPool States =
        new(["", .. Enum.GetNames<PromiseState>().Select(name => name.ToLowerInvariant())]);

    private static readonly AccountType[] ControlTypes = [AccountType.Receivable, AccountType.Payable];

    private static readonly RecordFields<Row> Own = new()
    {
        { new("number", FieldType.Integer, "The number that it was noted under"), row => row.Promise.Number },
        { TableField.Reference("document", RecordTables.Documents, "The document that it is about"), row => row.Item.Document.Value },
        { TableField.Reference("contact", RecordTables.Contacts, "Whom it is from"), row => row.Item.Contact.Value },
        { new("noted", FieldType.Date, "The day that it was noted"), row => row.Promise.Noted.DayNumber },
        { new("kind", FieldType.Choice, "Whether it is a promise or a dispute") { Words = Kinds }, row => row.Promise.IsDispute ? 2 : 1 },
        { Amount("amount", "How much is promised, or disputed"), row => row.Promise.Amount.MinorUnits },
        { new("by", FieldType.Date, "The day by which it was promised"), row => row.Promise.By?.DayNumber ?? FieldCells.Nothing },
        {
            new("state", FieldType.Choice, "Whether it is pending, kept, broken, disputed, settled or withdrawn") { Words = States },
            row => (int)row.Promised.State + 1
        },
        {
            Amount("paid", "What was paid on it, by its day and by the day of the report; nothing of a dispute"),
            row => row.Promise.IsDispute ? FieldCells.Nothing : row.Promised.Paid.MinorUnits
        },
        { Amount("standing", "What of it is still expected, or still disputed"), row => row.Promised.Standing.MinorUnits },
        { new("note", FieldType.Text, "What was said"), row => row.Promise.Note },
    };

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "commitments",
        Meaning = "What contacts have promised, and what they dispute",
        Fields = [.. Own],
        Columns = ["number", "contact", "document", "noted", "kind", "amount", "by", "state", "paid", "standing", "note"],
        Key = ["number"],
        MainFigure = "standing",
        IsOfMoment = true,
        IsOfDocuments = true,
        RestsOnSettlements = true,
        WhenEmpty = "Nothing is noted: vlei promise --help says how.",
        Read = Read,
    };

    static PromiseTable() => Own.AddHidden("date", (rows, _) => [.. rows.Select(row => (long)row.Item.Date.DayNumber)]);

    // What is promised and what is disputed are not added up together.
    private static TableField Amount(string name, string meaning) => new(name, FieldType.Money, meaning) { AddsUpWithin = "kind" };

    private static IEnumerable<RowBlock> Read(TableContext context, Calendar.DateRange range)
    {
        List<Row> rows =
        [
            .. ControlTypes.Select(type => ControlHistory.Of(context.Ledger, type, range.To))
                .SelectMany(
                    history => new PromisedItems(context.Ledger, history, range.To).All.Select(promised => new Row(history, promised)))
                .OrderBy(row => row.Promise.Number),
        ];
        return rows.Count == 0 ? [] : [Own.BlockOf(rows)];
    }

    private readonly record struct Row(ControlHistory History, PromisedItem Promised)
    {
        public Promise Promise => Promised.Promise;

        public ItemAt Item => History[Promised.Item];
    }
}
