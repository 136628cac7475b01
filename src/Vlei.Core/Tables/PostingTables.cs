using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The tables whose rows are postings: all of them, those on stock, those with tax.</summary>
public static class PostingTables
{
    private static readonly WordPool TaxParts = new(["", "base", "tax"]);

    private static readonly WordPool Sides = new(["", "sales", "purchases"]);

    // The one list of what is known of a posting.
    private static readonly FieldList<PostingRows> Own = new()
    {
        {
            new("date", FieldType.Date, "The day that it counts"),
            (rows, _) => Array.ConvertAll(rows.Column(PostingField.Day), day => rows.Month.First.DayNumber + day - 1)
        },
        { TableField.Reference("document", RecordTables.Documents, "The document that it is part of"), Column(PostingField.Document) },
        { new("line", FieldType.Integer, "Its place in the document"), Column(PostingField.Line) },
        { TableField.DocumentKind("The kind of the document"), Column(PostingField.Kind) },
        { TableField.Reference("account", RecordTables.Accounts, "The account that it is posted to"), Column(PostingField.Account) },
        { TableField.Reference("contact", RecordTables.Contacts, "Its contact; the document's where it has none of its own"),
            Column(PostingField.Contact) },
        { TableField.Reference("item", RecordTables.Items, "What was bought or sold"), Column(PostingField.Item) },
        { TableField.Reference("project", RecordTables.Projects, "The job that it is for"), Column(PostingField.Project) },
        { TableField.Reference("department", RecordTables.Departments, "The part of the business that it is for"),
            Column(PostingField.Department) },
        { TableField.Reference("tax-code", RecordTables.TaxCodes, "The tax that it is part of"), Column(PostingField.TaxCode) },
        { new("tax-part", FieldType.Choice, "Whether it is what the tax is counted from, or the tax") { Words = TaxParts },
            Column(PostingField.TaxPart) },
        { new("amount", FieldType.Money, "Debit positive, credit negative"), Column(PostingField.Amount) },
        {
            new("debit", FieldType.Money, "The amount, where it is a debit"),
            (_, block) => Array.ConvertAll(block["amount"], amount => amount > 0 ? amount : FieldCells.Nothing)
        },
        {
            new("credit", FieldType.Money, "The amount, where it is a credit; positive"),
            (_, block) => Array.ConvertAll(block["amount"], amount => amount < 0 ? -amount : FieldCells.Nothing)
        },
        {
            new(
                "natural", FieldType.Money,
                "The amount as statements show it: income, liabilities and equity positive as credits, the rest as debits"),
            (rows, block) => Natural(block["amount"], block["account"], rows.CreditPositive)
        },
        {
            new("quantity", FieldType.Decimal, "How much of the item; into stock positive, out of it negative") { AddsUp = true },
            (rows, _) => Array.ConvertAll(rows.Column(PostingField.Quantity), quantity => quantity == 0 ? FieldCells.Nothing : quantity)
        },
        Text("unit_price", FieldType.Decimal, "The price of one"),
        Text("memo", FieldType.Text, "The note of the line"),
        {
            new("settlement", FieldType.Integer, "On the cash basis, the number of the settlement that released it; 0 for none"),
            Column(PostingField.Settlement)
        },
    };

    private static readonly FieldList<TaxRows> OfTax = new()
    {
        {
            new("side", FieldType.Choice, "Sales or purchases: as the tax code says, else as the document's kind does") { Words = Sides },
            (rows, _) => rows.Each((side, _, _) => side)
        },
        {
            new("base", FieldType.Money, "What the tax is counted from; positive for a sale and for a purchase")
            {
                AddsUpWithin = "side",
            },
            (rows, _) => rows.Each((_, part, amount) => part == TaxPart.Base ? amount : FieldCells.Nothing)
        },
        {
            new("tax", FieldType.Money, "The tax; positive for a sale and for a purchase") { AddsUpWithin = "side" },
            (rows, _) => rows.Each((_, part, amount) => part == TaxPart.Tax ? amount : FieldCells.Nothing)
        },
        { new("gross", FieldType.Money, "Both together") { AddsUpWithin = "side" }, (rows, _) => rows.Each((_, _, amount) => amount) },
        {
            new("payable", FieldType.Money, "What of the tax is payable: that of sales, less that of purchases"),
            (rows, _) => rows.Each((side, part, amount) => part != TaxPart.Tax ? FieldCells.Nothing : side == 1 ? amount : -amount)
        },
    };

    static PostingTables() => Own.AddHidden(PostingColumns.NameOf(PostingField.Tags), Column(PostingField.Tags));

    /// <summary>All postings of either basis.</summary>
    public static TableDefinition Postings { get; } = new()
    {
        Name = "postings",
        Meaning = "Every posting to an account, accrual or cash",
        Fields = [.. Own],
        Columns = ["date", "kind", "document.number", "contact", "account", "memo", "debit", "credit"],
        Key = ["document", "line", "settlement"],
        Examples =
        [
            ("--period last-month --only contact=C0012", "everything that was posted with one customer"),
            ("--where \"amount > 10000 and account.type in ('income', 'expense') and date in 'last-3-months'\"", "what is large"),
            ("--group-by account,month --summary --columns \"natural,average(amount),count\"",
                "sums of accounts, month by month, below each other"),
            ("--only account.type=income --group-by contact --by quarter --share row", "a cross-table"),
        ],
        Date = "date",
        MainFigure = "natural",
        HasBasis = true,
        IsOfLines = true,
        Read = (context, range) => Read(context, range, _ => null),
    };

    /// <summary>The lines of all documents, as they were entered.</summary>
    public static TableDefinition Lines { get; } = Postings with
    {
        Name = "lines",
        Meaning = "Every line of a document, as it was entered",
        Columns = ["date", "kind", "contact", "account", "item", "quantity", "unit-price", "amount"],
        Key = ["document", "line"],
        Examples =
            [
                ("--only account.type=income --group-by item --columns \"quantity,natural:Sales,natural * 0.05:Rebate\"",
                    "a rebate of five percent, by item")],
        HasBasis = false,
    };

    /// <summary>What came into stock and went out of it, up to a day.</summary>
    public static TableDefinition Stock { get; } = Lines with
    {
        Name = "stock",
        Meaning = "What came into stock and went out up to a day",
        Fields = [.. Own.Select(field => field.Name == "amount" ? field with { Meaning = "What it adds to the value of stock" } : field)],
        Columns = ["date", "kind", "contact", "item", "quantity", "amount:Value"],
        MainFigure = "amount",
        Examples = [("--as-of last-month --group-by item --summary", "what there was at the end of last month")],
        IsOfMoment = true,
        IsOfMovements = true,
        Read = (context, range) =>
        {
            var stock = context.Ledger.Accounts.Where(account => account.Type == AccountType.Inventory)
                .Select(account => (long)account.Key.Value).ToHashSet();
            return Read(context, range, block => Places(block["account"], stock.Contains));
        },
    };

    /// <summary>What tax was counted from, and the tax.</summary>
    public static TableDefinition Tax { get; } = Postings with
    {
        Name = "tax",
        Meaning = "Every line with a tax code, its base and its tax",
        Fields = [.. OfTax.Take(1), .. Own, .. OfTax.Skip(1)],
        Examples = [("--period last-month --only side=sales --group-by tax-code", "the sales behind last month's tax")],
        Columns = ["date", "kind", "document.number", "contact", "side", "tax-code", "base", "tax", "gross", "payable"],
        MainFigure = "payable",
        Read = (context, range) =>
        {
            var sides = SidesOf(context.Ledger);
            return Read(context, range, block => Places(block["tax-code"], code => code != 0))
                .Select(block => OfTax.BlockOf(new TaxRows(block, sides), block.Count, block));
        },
    };

    private static TableField Text(string name, FieldType type, string meaning) => new(name.Replace('_', '-'), type, meaning)
    {
        OfLine = RecordTables.Lines.Fields[RecordTables.Lines.IndexOf(name)],
    };

    private static Func<PostingRows, RowBlock, long[]> Column(PostingField field) => (rows, _) => rows.Column(field);

    /// <summary>All postings of a month, of any source, as rows with every field.</summary>
    public static RowBlock MonthOf(ILedger ledger, PostingSource source, YearMonth month)
    {
        var count = Fields.Postings.Read(ledger, source, month, [PostingField.Day]).Count;
        return Own.BlockOf(new PostingRows(ledger, source, month, 0, count, CreditPositive(ledger)), count);
    }

    // By the keys of accounts.
    private static bool[] CreditPositive(ILedger ledger)
    {
        var credits = new bool[ledger.Accounts.Select(account => account.Key.Value).DefaultIfEmpty(0).Max() + 1];
        foreach (var account in ledger.Accounts)
        {
            credits[account.Key.Value] = AccountTypes.IsCreditPositive(account.Type);
        }

        return credits;
    }

    private static long[] Natural(long[] amounts, long[] accounts, bool[] creditPositive)
    {
        var natural = GC.AllocateUninitializedArray<long>(amounts.Length);
        for (var row = 0; row < natural.Length; row++)
        {
            natural[row] = creditPositive[accounts[row]] ? -amounts[row] : amounts[row];
        }

        return natural;
    }

    private static IEnumerable<RowBlock> Read(TableContext context, DateRange range, Func<RowBlock, int[]?> taken)
    {
        var creditPositive = CreditPositive(context.Ledger);
        foreach (var (month, _) in context.Ledger.MonthSums(context.Basis, range))
        {
            var days = range.Intersect(month.Range);
            var postings = context.Ledger.ReadMonth(context.Basis, month, days == month.Range ? [] : [PostingField.Day]);
            var (first, end) = days == month.Range ? (0, postings.Count)
                : (postings.FirstFrom(days.From.Day), postings.FirstFrom(days.To.Day + 1));
            var rows = new PostingRows(context.Ledger, Fields.Postings.Of(context.Basis), month, first, end, creditPositive);
            var own = Own.BlockOf(
                rows, end - first, some: places => rows with { Places = first == 0 ? places : [.. places.Select(place => first + place)] },
                dates: days);

            // Each block reads from the one that it is made from, which therefore must stay what it is.
            var block = taken(own) is { } places
                ? new RowBlock(places.Length, name => [.. places.Select(place => own[name][place])], own) : own;
            if (block.Count > 0)
            {
                yield return block;
            }
        }
    }

    private static int[] Places(long[] column, Func<long, bool> takes) =>
        [.. Enumerable.Range(0, column.Length).Where(row => takes(column[row]))];

    /// <summary>The side of each tax code by its key: 1 sales, 2 purchases, 0 where it is for both.</summary>
    internal static Dictionary<long, int> SidesOf(ILedger ledger) => ledger
        .ReadRecords(RecordTables.TaxCodes, [RecordTables.TaxCodes.Fields[RecordTables.TaxCodes.IndexOf("direction")]])
        .ToDictionary(
            code => (long)code.Key, code => code.Values[0].Text is { } word ? Math.Max(0, Sides.Words.ToList().IndexOf(word)) : 0);

    /// <summary>
    /// The side of a line whose code does not say it: as the document's kind does; of a journal, where what is owed to the tax office is
    /// a sale's, as the sign does.
    /// </summary>
    internal static int SideOf(long kind, long amount) => DocumentKinds.Names[(int)kind - 1] switch
    {
        "invoice" or "credit-note" or "receipt" or "refund" or "cash-sale" or "deposit" => 1,
        "bill" or "supplier-credit" or "purchase-return" or "payment" or "expense" => 2,
        _ => amount < 0 ? 1 : 2,
    };

    // Some postings of a month.
    private sealed record PostingRows(
        ILedger Ledger, PostingSource Source, YearMonth Month, int First, int End, bool[] CreditPositive)
    {
        // Where in the month they stand, if they do not stand one after the other.
        public int[]? Places { get; init; }

        public long[] Column(PostingField field)
        {
            if (Places is not null)
            {
                return Ledger.ReadSome(Fields.Postings.BasisOf(Source), Month, field, Places);
            }

            var column = Fields.Postings.Read(Ledger, Source, Month, [field])[field];
            return First == 0 && End == column.Length ? column : column[First..End];
        }
    }

    // Lines with tax, and the side that each code says.
    private sealed record TaxRows(RowBlock Lines, Dictionary<long, int> Sides)
    {
        public long[] Each(Func<int, TaxPart, long, long> of)
        {
            var (codes, parts, amounts, kinds) = (Lines["tax-code"], Lines["tax-part"], Lines["amount"], Lines["kind"]);
            var column = new long[Lines.Count];
            for (var row = 0; row < column.Length; row++)
            {
                var side = Sides.GetValueOrDefault(codes[row]) is > 0 and var said ? said : SideOf(kinds[row], amounts[row]);
                column[row] = of(side, (TaxPart)parts[row], side == 1 ? -amounts[row] : amounts[row]);
            }

            return column;
        }
    }
}
