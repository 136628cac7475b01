using CsCheck;
using Vlei.Core.Basis;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Tests;

/// <summary>A document of a random book.</summary>
public sealed record BookDocument(int Key, DateOnly Date, Line[] Lines);

/// <summary>A settlement of a random book.</summary>
public sealed record BookSettlement(int Key, int From, int To, int Account, long Amount, DateOnly? Date);

/// <summary>
/// A small book with every shape of document that the cash basis tells apart, and settlements that fit what is open.
/// </summary>
public sealed record RandomBook(BookDocument[] Documents, BookSettlement[] Settlements) : ILedger
{
    public const int Bank = 1, Receivable = 2, Payable = 3, Tax = 4, Sales = 5, Fees = 6, Cost = 7, Rent = 8, Interest = 9, Loss =
        10, Fuel = 11, Equity = 12, Loans = 13;

    private static readonly Account[] Chart =
    [
        new(new(Bank), "1000", "Bank", AccountType.Bank, null, true),
        new(new(Receivable), "1100", "Receivables", AccountType.Receivable, null, true),
        new(new(Payable), "2000", "Payables", AccountType.Payable, null, true),
        new(new(Tax), "2200", "Tax", AccountType.Tax, null, true, CashFlowActivity.Investing),
        new(new(Sales), "4000", "Sales", AccountType.Income, null, true),
        new(new(Fees), "900", "Fees", AccountType.Income, null, true),
        new(new(Cost), "5000", "Cost", AccountType.CostOfSales, null, true),
        new(new(Rent), "6000", "Premises", AccountType.Expense, null, true),
        new(new(Fuel), "6010", "Fuel", AccountType.Expense, new(Rent), true),
        new(new(Interest), "7000", "Interest", AccountType.OtherIncome, null, true),
        new(new(Loss), "8000", "Losses", AccountType.OtherExpense, null, true),
        new(new(Equity), "3000", "Capital", AccountType.Equity, null, true),
        new(new(Loans), "1150", "Staff loans", AccountType.Receivable, null, true),
    ];

    private readonly Dictionary<AccountingBasis, List<Posting>> _postings = [];

    public static string CodeOf(int account) => Chart.Single(a => a.Key.Value == account).Code;

    public static bool IsOfProfit(int account) =>
        AccountTypes.IsProfitAndLoss(Chart.Single(a => a.Key.Value == account).Type);

    public static IEnumerable<string> Codes => Chart.Select(a => a.Code);

    public static int KeyOf(string code) => Chart.Single(a => a.Code == code).Key.Value;

    private static readonly Gen<DateOnly> GenDate = Gen.Int[0, 790].Select(
        day => new DateOnly(2024, 1, 1).AddDays(day));

    private static readonly Gen<long> GenAmount = Gen.OneOf(Gen.Long[1, 300], Gen.Long[1, 5_000_000]);

    private static readonly Gen<(int Account, long Amount)[]> GenOther =
        Gen.Select(Choose.One(Tax, Sales, Fees, Cost, Rent, Fuel, Interest, Loss), Gen.Long[-40_000, 900_000]).Array[1, 5];

    /// <summary>Random books.</summary>
    public static readonly Gen<RandomBook> Gen1 =
        from documents in Gen.Select(Gen.Int[0, 10], GenDate, Gen.Int[1, 3], GenAmount, GenOther).Array[1, 14]
        from pairs in Gen.Select(Gen.Int[0, 13], Gen.Int[0, 13], Gen.Int[1, 100], GenDate, Gen.Bool).Array[0, 30]
        select Make(documents, pairs);

    public long Revision => 1;

    public IReadOnlyList<Account> Accounts => Chart;

    /// <summary>Projects, departments, items and contacts that lines refer to by the keys 1 to 3; the first is tagged.</summary>
    public static readonly NamedRecord[] Named =
    [
        new(1, "A-1", "Alder"), new(2, "B-20", "Birch and Co"), new(3, "B-3", "Cedar"),
    ];

    /// <summary>What of these is tagged.</summary>
    public static readonly Dictionary<int, IReadOnlyDictionary<string, string>> TagsOfNamed = new()
    {
        [1] = new Dictionary<string, string> { ["place"] = "north" },
    };

    public static readonly IReadOnlyDictionary<string, string>[] Tagged =
    [
        new Dictionary<string, string>(), new Dictionary<string, string> { ["season"] = "high" },
        new Dictionary<string, string> { ["season"] = "low", ["place"] = "south" },
    ];

    private static readonly Budget[] Planned =
    [
        .. from month in Enumerable.Range(0, 26)
           from account in new[] { Sales, Cost, Rent }
           select new Budget(
               YearMonth.Of(new DateOnly(2024, 1, 1).AddMonths(month)), new(account),
               new Amount((account == Sales ? -1 : 1) * (1001 + (month * 97))), month % 3, month % 2),
    ];

    public IReadOnlyList<Budget> Budgets => Planned;

    public IReadOnlyDictionary<int, DateOnly> DueDays => Documents.Where(d => d.Key % 3 > 0)
        .ToDictionary(d => d.Key, d => d.Date.AddDays(d.Key * 13 % 80));

    /// <summary>What is promised and disputed; nothing unless a test says so.</summary>
    public Promise[] Promised { get; init; } = [];

    IReadOnlyList<Promise> ILedger.Promises => Promised;

    public IReadOnlyList<FindingMark> Marks { get; init; } = [];

    public IEnumerable<DocumentVersion> DocumentVersions() => [];

    public bool HasComputedSettlements => false;

    public ItemColumns ControlItems(DateOnly until, IReadOnlySet<AccountKey>? accounts = null) => ColumnsOf(
    [
        .. from document in Documents.Where(d => d.Date <= until).OrderBy(d => d.Date).ThenBy(d => d.Key)
           from item in document.Lines.Where(line => IsControl(line.Account.Value) && accounts?.Contains(line.Account) != false)
               .GroupBy(line => (line.Account, line.Contact))
           select new ControlItem(
               new(document.Key), item.Key.Account, item.Key.Contact, new Amount(item.Sum(line => line.Amount.MinorUnits)),
               document.Date, DueDays.GetValueOrDefault(document.Key, document.Date), item.First().Kind),
    ]);

    /// <summary>Items as columns.</summary>
    public static ItemColumns ColumnsOf(ControlItem[] items)
    {
        var columns = new ItemColumns(
            items.Length, contacts => Fill(contacts, item => item.Contact.Value), kinds => Fill(kinds, item => item.Kind));
        for (var place = 0; place < items.Length; place++)
        {
            columns.Documents[place] = items[place].Document.Value;
            columns.Accounts[place] = items[place].Account.Value;
            columns.Totals[place] = items[place].Total;
            columns.Dates[place] = items[place].Date.DayNumber;
            columns.Dues[place] = items[place].Due.DayNumber;
        }

        return columns;

        void Fill(Span<int> numbers, Func<ControlItem, int> of) => items.Select(of).ToArray().CopyTo(numbers);
    }

    // In these books a document has one contact.
    public IEnumerable<List<Application>> Applications(DateOnly until, IReadOnlySet<AccountKey>? accounts = null) =>
    [
        [.. from settlement in Settlements
           let day = Effective(settlement)
           where day <= until && accounts?.Contains(new(settlement.Account)) != false
           orderby day, settlement.Key
           select new Application(
               new(settlement.Key), day, new Amount(settlement.Amount), new(settlement.Account),
               new(settlement.From), new(ContactOf(settlement.From)), new(settlement.To), new(ContactOf(settlement.To)))],
    ];

    public (DocumentKey From, DocumentKey To) DocumentsOf(SettlementKey settlement) =>
        Settlements.Single(s => s.Key == settlement.Value) is var s ? (new(s.From), new(s.To)) : default;

    public IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(RecordTable table, IReadOnlyList<RecordField> fields) =>
        from key in table == RecordTables.Accounts ? Chart.Select(a => a.Key.Value) : table == RecordTables.Documents
            ? Documents.Select(d => d.Key).Order() : Named.Select(n => n.Key)
        select (key, fields.Select(field => ValueOf(table, key, field)).ToArray());

    public bool HasRecord(RecordTable table, string id) =>
        ReadRecords(table, [table.Fields[table.IndexOf(table.Id!)]]).Any(record => record.Values[0].Text == id);

    public RecordValue[] OfDocuments(RecordField field, long[] documents) =>
        [.. documents.Select(key => key == 0 ? default : ValueOf(RecordTables.Documents, (int)key, field))];

    public RecordValue[] OfLines(RecordField field, long[] documents, long[] lines) =>
        [.. documents.Zip(lines, (document, line) => field.Name == "memo" && LineMemo(new((int)document), (int)line) is { Length: > 0 } memo
            ? new RecordValue(null, memo) : default)];

    /// <summary>What a record has in a field, as the store would give it.</summary>
    public RecordValue ValueOf(RecordTable table, int key, RecordField field)
    {
        var text = table == RecordTables.Accounts && Chart.Single(a => a.Key.Value == key) is var account
            ? field.Name switch { "code" => account.Code, "name" => account.Name, "type" => AccountTypes.NameOf(account.Type), _ => null }
            : table == RecordTables.Documents && Document(new(key)) is var document
            ? field.Name switch
            {
                "id" => document.Id,
                "kind" => document.Kind,
                "number" => document.Number,
                "memo" => document.Memo,
                "due" => DueDays.TryGetValue(key, out var due) ? PeriodText.Iso(due) : null,
                _ => null,
            }
            : Named.Single(n => n.Key == key) is var named
            ? field.Name switch
            {
                "id" or "code" => named.Id,
                "name" => named.Name,
                "email" => key == 2 ? null : $"{named.Id}@example.com",
                "direction" => key == 3 ? null : key == 1 ? "sales" : "purchases",
                "tags" => System.Text.Encoding.UTF8.GetString(
                    TagText.Write(new SortedDictionary<string, string>(
                        TagsOfNamed.TryGetValue(key, out var tags) ? tags.ToDictionary() : []))),
                _ => null,
            }
            : null;
        var contact = table == RecordTables.Documents && field.Name == "contact"
            ? Documents.Single(d => d.Key == key).Lines.Select(line => line.Contact.Value).FirstOrDefault(contact => contact > 0) : 0;
        return contact > 0 ? new RecordValue(contact)
            : table == RecordTables.Accounts && field.Name == "parent"
                ? new RecordValue(Chart.Single(a => a.Key.Value == key).ParentKey?.Value)
            : new RecordValue(null, text);
    }

    public string ContactAddress(ContactKey contact) => $"{contact} Quay\nReedwater";

    public IReadOnlyList<IReadOnlyDictionary<string, string>> TagSets => Tagged;

    public RecordNames Names(RecordTable table) => RecordNames.Of(table, Named);

    IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> ILedger.Tagged(RecordTable table) =>
        TagsOfNamed.Select(tagged => (tagged.Key, tagged.Value));

    public DocumentText Document(DocumentKey key) => Documents.Single(d => d.Key == key.Value) is var document
        ? new DocumentText($"D{key}", DocumentKinds.Names[document.Lines[0].Kind - 1], $"N{key}", $"memo {key}")
        : throw new InvalidOperationException();

    public string LineMemo(DocumentKey document, int line) => line == 1 ? "first" : "";

    public DateRange? Extent => new DateRange(
        Documents.Min(d => d.Date), Documents.Select(d => d.Date).Concat(Postings(AccountingBasis.Cash).Select(p => p.Day)).Max());

    /// <summary>All postings of one basis.</summary>
    public List<Posting> Postings(AccountingBasis basis)
    {
        if (!_postings.TryGetValue(basis, out var postings))
        {
            _postings[basis] = postings = [];
            var cash = new CashPostings(Chart.ToDictionary(a => a.Key, a => AccountTypes.ClassOf(a.Type)));
            foreach (var document in Documents)
            {
                if (basis == AccountingBasis.Accrual)
                {
                    postings.AddRange(document.Lines.Select(line => new Posting(document.Date, new(document.Key), line)));
                }
                else
                {
                    var releases = Settlements.Where(s => s.From == document.Key || s.To == document.Key)
                        .Select(s => new Release(new(s.Key), Effective(s), new Amount(s.Amount))).ToArray();
                    cash.Add(new(document.Key), document.Date, document.Lines, releases, postings);
                }
            }
        }

        return postings;
    }

    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range) =>
        Postings(basis).GroupBy(p => YearMonth.Of(p.Day)).Where(month => !month.Key.Range.Intersect(range).IsEmpty).OrderBy(
            month => month.Key)
            .Select(month => (month.Key, month.GroupBy(p => p.Line.Account)
                .Select(account => new AccountSum(
                    account.Key,
                    new Amount(account.Sum(p => Math.Max(0, p.Line.Amount.MinorUnits))),
                    new Amount(-account.Sum(p => Math.Min(0, p.Line.Amount.MinorUnits))))).ToArray()));

    public PostingMonth ReadMonth(
        AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields, PostingArrays? arrays = null)
    {
        var postings = Postings(basis).Where(p => YearMonth.Of(p.Day) == month)
            .OrderBy(p => p.Day).ThenBy(p => p.Document).ThenBy(p => p.Settlement).ThenBy(p => p.Line.Number).ToList();
        return new PostingMonth(postings.Count, fields.Distinct().Select(field =>
        {
            // What lies behind the postings of an array that is used again would show wherever it were looked at.
            var column = arrays?.For(field, postings.Count + 1) ?? new long[postings.Count];
            Array.Fill(column, long.MinValue);
            for (var row = 0; row < postings.Count; row++)
            {
                column[row] = Of(postings[row], field);
            }

            return (field, column);
        }));
    }

    /// <summary>What a posting has in a column.</summary>
    public static long Of(Posting posting, PostingField field) => field switch
    {
        PostingField.Day => posting.Day.Day,
        PostingField.Account => posting.Line.Account.Value,
        PostingField.Amount => posting.Line.Amount.MinorUnits,
        PostingField.Document => posting.Document.Value,
        PostingField.Settlement => posting.Settlement.Value,
        PostingField.Line => posting.Line.Number,
        PostingField.Contact => posting.Line.Contact.Value,
        PostingField.Item => posting.Line.Item,
        PostingField.Project => posting.Line.Project,
        PostingField.Department => posting.Line.Department,
        PostingField.Kind => posting.Line.Kind,
        PostingField.Quantity => posting.Line.Quantity,
        PostingField.TaxCode => posting.Line.TaxCode,
        PostingField.TaxPart => (long)posting.Line.TaxPart,
        _ => posting.Line.Tags,
    };

    /// <summary>The balance of an account at the end of a day.</summary>
    public long Balance(AccountingBasis basis, DateOnly day, Func<int, bool> account) =>
        Postings(basis).Where(p => p.Day <= day && account(p.Line.Account.Value)).Sum(p => p.Line.Amount.MinorUnits);

    public static bool IsControl(int account) => account is Receivable or Payable or Loans;

    /// <summary>What a document puts on a control account, and what is settled of it by the end of a day.</summary>
    public (long Total, long Settled) Control(BookDocument document, int account, DateOnly? day = null) => (
        document.Lines.Where(line => line.Account.Value == account).Sum(line => line.Amount.MinorUnits),
        Settlements.Where(s => (s.From == document.Key || s.To == document.Key) && s.Account == account
            && (day is null || Effective(s) <= day)).Sum(s => s.Amount));

    /// <summary>The control accounts that a document stands on.</summary>
    public static IEnumerable<int> ControlAccounts(BookDocument document) =>
        document.Lines.Select(line => line.Account.Value).Where(IsControl).Distinct();

    public int ContactOf(int document) =>
        Documents.First(d => d.Key == document).Lines.First(line => IsControl(line.Account.Value)).Contact.Value;

    public DateOnly Effective(BookSettlement settlement)
    {
        var dates = new[] { settlement.Date ?? default, DateOf(settlement.From), DateOf(settlement.To) };
        return dates.Max();
    }

    /// <summary>The same records in another order.</summary>
    public RandomBook Shuffled(int seed)
    {
        var random = new Random(seed);
        var (documents, settlements) = ((BookDocument[])[.. Documents], (BookSettlement[])[.. Settlements]);
        random.Shuffle(documents);
        random.Shuffle(settlements);
        return new RandomBook(documents, [.. settlements.Select((s, index) => s with { Key = index + 1 })]);
    }

    /// <summary>The same book with every open item settled by money, in parts.</summary>
    public RandomBook FullySettled()
    {
        var (documents, settlements) = (Documents.ToList(), Settlements.ToList());
        foreach (var (document, account) in Documents.SelectMany(d => ControlAccounts(d).Select(account => (d, account))))
        {
            var (total, settled) = Control(document, account);
            var open = Math.Abs(total) - settled;
            foreach (var part in new[] { open / 3, open - (open / 3) }.Where(part => part > 0))
            {
                var amount = new Amount(total > 0 ? part : -part);
                var key = documents.Max(d => d.Key) + 1;
                documents.Add(new BookDocument(key, document.Date.AddDays(40), [
                    new Line(1, new(Bank), amount, Kind: 3), new Line(2, new(account), -amount, new(ContactOf(document.Key)), Kind: 3)]));
                settlements.Add(new BookSettlement(settlements.Count + 1000, document.Key, key, account, part, null));
            }
        }

        return new RandomBook([.. documents], [.. settlements]);
    }

    private DateOnly DateOf(int key) => Documents.First(d => d.Key == key).Date;

    private static RandomBook Make(
        (int Shape, DateOnly Date, int Contact, long Amount, (int Account, long Amount)[] Other)[] drawn,
        (int From, int To, int Percent, DateOnly Date, bool Dated)[] pairs)
    {
        var documents = drawn.Select((d, index) => new BookDocument(index + 1, d.Date, Lines(d.Shape, d.Contact, d.Amount, d.Other)))
            .ToArray();
        var book = new RandomBook(documents, []);
        var open = documents.SelectMany(d => ControlAccounts(d).Select(account => (d.Key, account)))
            .ToDictionary(item => item, item => Math.Abs(book.Control(documents[item.Key - 1], item.account).Total));
        var settlements = new List<BookSettlement>();
        foreach (var pair in pairs.Where(p => p.From < documents.Length && p.To < documents.Length))
        {
            var (from, to) = (documents[pair.From], documents[pair.To]);
            var common = ControlAccounts(from).Intersect(ControlAccounts(to))
                .Where(a => Math.Sign(book.Control(from, a).Total) == -Math.Sign(book.Control(to, a).Total)).ToList();
            var most = common.Count == 1 ? Math.Min(open[(from.Key, common[0])], open[(to.Key, common[0])]) : 0;
            if (most == 0)
            {
                continue;
            }

            var amount = Math.Max(1, most * pair.Percent / 100);
            open[(from.Key, common[0])] -= amount;
            open[(to.Key, common[0])] -= amount;
            settlements.Add(new BookSettlement(
                settlements.Count + 1, from.Key, to.Key, common[0], amount, pair.Dated ? pair.Date : null));
        }

        return new RandomBook(documents, [.. settlements]);
    }

    private static Line[] Lines(int shape, int contact, long amount, (int Account, long Amount)[] other)
    {
        var lines = new List<(int Account, long Amount)>();
        var total = other.Sum(o => o.Amount);
        switch (shape)
        {
            case 0 or 1: // a sale on account; a bill
                lines.AddRange(other.Select(o => (o.Account, shape == 0 ? -o.Amount : o.Amount)));
                lines.Insert(0, (shape == 0 ? Receivable : Payable, shape == 0 ? total : -total));
                break;
            case 2: // a credit note
                lines.AddRange(other.Select(o => (o.Account, o.Amount)));
                lines.Add((Receivable, -total));
                break;
            case 3: // a sale, part-paid on the spot
                lines.AddRange(other.Select(o => (o.Account, -o.Amount)));
                lines.Add((Bank, total / 4));
                lines.Add((Receivable, total - (total / 4)));
                break;
            case 4: // a receipt with a discount on it
                lines.Add((Bank, amount));
                lines.Add((Loss, amount / 50));
                lines.Add((Receivable, -amount - (amount / 50)));
                break;
            case 5: // a payment
                lines.Add((Payable, amount));
                lines.Add((Bank, -amount));
                break;
            case 6: // a cash sale
                lines.Add((Bank, amount));
                lines.Add((Sales, -amount));
                break;
            case 7: // a contra between the two control accounts
                lines.Add((Payable, amount));
                lines.Add((Receivable, -amount));
                break;
            case 8: // money lent
                lines.Add((Loans, amount));
                lines.Add((Bank, -amount));
                break;
            case 9: // paid back, a part of it waived
                lines.Add((Bank, amount - (amount / 7)));
                lines.Add((Loss, amount / 7));
                lines.Add((Loans, -amount));
                break;
            default: // an opening journal over several accounts
                lines.Add((Bank, amount));
                lines.Add((Receivable, 70));
                lines.Add((Equity, -amount - 70));
                break;
        }

        return [.. lines.Select((line, index) => new Line(
            index + 1, new(line.Account), new Amount(line.Amount), new(IsControl(line.Account) ? contact : 0),
            (int)(amount + index) % 4, (int)(amount / 5) % 4, (int)((amount / 3) + index) % 3, (shape % 8) + 1, (int)(amount + contact) % 3,
            IsControl(line.Account) ? 0 : ((index % 3) - 1) * 1_250_000, (int)(amount + index) % 3,
            (TaxPart)((int)(amount + index) % 3 == 0 ? 0 : 1 + (index % 2))))];
    }
}
