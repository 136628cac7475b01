using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The tables whose rows are postings: all of them, those on stock, those with tax.</summary>
public static class PostingTables
{
    private static readonly WordPool TaxParts = new(["", "base", "tax"]);

    private static readonly WordPool Sides = new(["", "sales", "purchases"]);

    private static readonly IReadOnlyList<TableField> Own =
    [
        new("date", FieldType.Date, "The day that it counts"),
        TableField.Reference("document", RecordTables.Documents, "The document that it is part of"),
        new("line", FieldType.Integer, "Its place in the document"),
        TableField.DocumentKind("The kind of the document"),
        TableField.Reference("account", RecordTables.Accounts, "The account that it is posted to"),
        TableField.Reference("contact", RecordTables.Contacts, "Its contact; the document's where it has none of its own"),
        TableField.Reference("item", RecordTables.Items, "What was bought or sold"),
        TableField.Reference("project", RecordTables.Projects, "The job that it is for"),
        TableField.Reference("department", RecordTables.Departments, "The part of the business that it is for"),
        TableField.Reference("tax-code", RecordTables.TaxCodes, "The tax that it is part of"),
        new("tax-part", FieldType.Choice, "Whether it is what the tax is counted from, or the tax") { Words = TaxParts },
        new("amount", FieldType.Money, "Debit positive, credit negative"),
        new("debit", FieldType.Money, "The amount, where it is a debit"),
        new("credit", FieldType.Money, "The amount, where it is a credit; positive"),
        new("natural", FieldType.Money, "The amount as statements show it: income, liabilities and equity positive as credits, the rest as debits"),
        new("quantity", FieldType.Decimal, "How much of the item; into stock positive, out of it negative") { AddsUp = true },
        Text("unit_price", FieldType.Decimal, "The price of one"),
        Text("memo", FieldType.Text, "The note of the line"),
    ];

    private static readonly TableField Settlement = new(
        "settlement", FieldType.Integer, "On the cash basis, the number of the settlement that released it; 0 for none");

    /// <summary>All postings of either basis.</summary>
    public static TableDefinition Postings { get; } = new()
    {
        Name = "postings",
        Meaning = "Every posting to every account, on the accrual or the cash basis",
        Fields = [.. Own, Settlement],
        Columns = ["date", "kind", "document.number", "contact", "account", "memo", "debit", "credit"],
        Key = ["document", "line", "settlement"],
        Examples =
        [
            ("--period last-month --only contact=C0012", "everything that was posted with one customer"),
            ("--where \"amount > 10000 and account.type in ('income', 'expense') and date in 'last-3-months'\"", "what is large"),
            ("--group-by account,month --summary --columns \"natural,average(amount),count\"", "sums of accounts, month by month, below each other"),
            ("--only account.type=income --rows contact --across quarter --measure natural --percent row", "a cross-table"),
        ],
        Date = "date",
        HasBasis = true,
        IsOfLines = true,
        Read = (context, range) => Read(context, range, _ => null),
    };

    /// <summary>The lines of all documents, as they were entered.</summary>
    public static TableDefinition Lines { get; } = Postings with
    {
        Name = "lines",
        Meaning = "Every line of every document, as it was entered",
        Columns = ["date", "kind", "contact", "account", "item", "quantity", "unit-price", "amount"],
        Key = ["document", "line"],
        Examples = [("--only account.type=income --group-by item --columns \"quantity,natural:Sales,natural * 0.05:Rebate\"", "a rebate of five percent, by item")],
        HasBasis = false,
    };

    /// <summary>What came into stock and went out of it, up to a day.</summary>
    public static TableDefinition Stock { get; } = Lines with
    {
        Name = "stock",
        Meaning = "What came into stock and went out of it up to a day: together, what there is and what it is worth",
        Fields = [.. Own.Select(field => field.Name == "amount" ? field with { Meaning = "What it adds to the value of stock" } : field), Settlement],
        Columns = ["date", "kind", "contact", "item", "quantity", "amount:Value"],
        Examples = [("--as-of last-month --group-by item --summary", "what there was at the end of last month")],
        IsOfMoment = true,
        Read = (context, range) =>
        {
            var stock = context.Ledger.Accounts.Where(account => account.Type == AccountType.Inventory).Select(account => (long)account.Key).ToHashSet();
            return Read(context, range, block => Places(block["account"], stock.Contains));
        },
    };

    /// <summary>What tax was counted from, and the tax.</summary>
    public static TableDefinition Tax { get; } = Postings with
    {
        Name = "tax",
        Meaning = "Every line with a tax code: what the tax is counted from, and the tax",
        Fields =
        [
            new("side", FieldType.Choice, "Sales or purchases: as the tax code says, else as the document's kind does") { Words = Sides },
            .. Own, Settlement,
            new("base", FieldType.Money, "What the tax is counted from; positive for a sale and for a purchase"),
            new("tax", FieldType.Money, "The tax; positive for a sale and for a purchase"),
            new("gross", FieldType.Money, "Both together"),
        ],
        Examples = [("--period last-month --only side=sales --group-by tax-code", "the sales behind last month's tax")],
        Columns = ["date", "kind", "document.number", "contact", "side", "tax-code", "base", "tax", "gross"],
        Read = (context, range) =>
        {
            var sides = SidesOf(context.Ledger);
            return Read(context, range, block => Places(block["tax-code"], code => code != 0), (block, name) => TaxColumn(block, name, sides));
        },
    };

    private static TableField Text(string name, FieldType type, string meaning) => new(name.Replace('_', '-'), type, meaning)
    {
        OfLine = RecordTables.Lines.Fields[RecordTables.Lines.IndexOf(name)],
    };

    private static IEnumerable<RowBlock> Read(
        TableContext context, DateRange range, Func<RowBlock, int[]?> taken, Func<RowBlock, string, long[]?>? more = null)
    {
        var creditPositive = context.Ledger.Accounts.Where(account => AccountTypes.IsCreditPositive(account.Type))
            .Select(account => (long)account.Key).ToHashSet();
        foreach (var (month, _) in context.Ledger.MonthSums(context.Basis, range))
        {
            var (ledger, basis, days) = (context.Ledger, context.Basis, range.Intersect(month.Range));
            var (first, end) = ledger.ReadMonth(basis, month, [PostingField.Day]) is var postings
                ? (postings.FirstFrom(days.From.Day), postings.FirstFrom(days.To.Day + 1)) : default;
            var own = default(RowBlock);
            own = new RowBlock(end - first, name => name switch
            {
                "date" => [.. ledger.ReadMonth(basis, month, [PostingField.Day])[PostingField.Day][first..end].Select(day => month.First.DayNumber + day - 1)],
                "debit" => [.. own!["amount"].Select(amount => amount > 0 ? amount : FieldCells.Nothing)],
                "credit" => [.. own!["amount"].Select(amount => amount < 0 ? -amount : FieldCells.Nothing)],
                "natural" => [.. own!["amount"].Zip(own["account"], (amount, account) => creditPositive.Contains(account) ? -amount : amount)],
                _ => ledger.ReadMonth(basis, month, [FieldOf(name)])[FieldOf(name)][first..end],
            });
            // Each block reads from the one that it is made from, which therefore must stay what it is.
            var block = own;
            if (taken(own) is { } places)
            {
                block = new RowBlock(places.Length, name => [.. places.Select(place => own[name][place])], own);
            }

            if (more is not null)
            {
                var plain = block;
                block = new RowBlock(plain.Count, name => more(plain, name) ?? plain[name], plain);
            }

            if (block.Count > 0)
            {
                yield return block;
            }
        }
    }

    private static PostingField FieldOf(string name) => name switch
    {
        "tax-code" => PostingField.TaxCode,
        "tax-part" => PostingField.TaxPart,
        _ => Enum.Parse<PostingField>(name, ignoreCase: true),
    };

    private static int[] Places(long[] column, Func<long, bool> takes) =>
        [.. Enumerable.Range(0, column.Length).Where(row => takes(column[row]))];

    private static Dictionary<long, int> SidesOf(ILedger ledger) => ledger
        .ReadRecords(RecordTables.TaxCodes, [RecordTables.TaxCodes.Fields[RecordTables.TaxCodes.IndexOf("direction")]])
        .ToDictionary(code => (long)code.Key, code => code.Values[0].Text is { } word ? Math.Max(0, Sides.Words.ToList().IndexOf(word)) : 0);

    private static long[]? TaxColumn(RowBlock block, string name, Dictionary<long, int> sides)
    {
        if (name is not ("side" or "base" or "tax" or "gross"))
        {
            return null;
        }

        var (codes, parts, amounts, kinds) = (block["tax-code"], block["tax-part"], block["amount"], block["kind"]);
        var column = new long[block.Count];
        for (var row = 0; row < column.Length; row++)
        {
            var side = sides.GetValueOrDefault(codes[row]) is > 0 and var said ? said : SideOf(kinds[row], amounts[row]);
            var amount = side == 1 ? -amounts[row] : amounts[row];
            column[row] = name switch
            {
                "side" => side,
                "gross" => amount,
                "base" => parts[row] == (long)TaxPart.Base ? amount : FieldCells.Nothing,
                _ => parts[row] == (long)TaxPart.Tax ? amount : FieldCells.Nothing,
            };
        }

        return column;
    }

    // A code for both sides does not say which; nor does a journal, where what is owed to the tax office is a sale's.
    private static int SideOf(long kind, long amount) => DocumentKinds.Names[(int)kind - 1] switch
    {
        "invoice" or "credit-note" or "receipt" or "refund" or "cash-sale" or "deposit" => 1,
        "bill" or "supplier-credit" or "purchase-return" or "payment" or "expense" => 2,
        _ => amount < 0 ? 1 : 2,
    };
}
