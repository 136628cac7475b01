using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Who owes us, or whom we owe, and for how long: per contact, or per open document.</summary>
public static class AgingReport
{
    private const string NoContact = "no-contact";

    private static readonly IReadOnlyList<ReportOption> Options =
    [
        ReportOptions.AsOf, ReportOptions.Limits, ReportOptions.AgeBy, ReportOptions.Unapplied, ReportOptions.Detail,
        ReportOptions.Only, ReportOptions.Except, ReportOptions.Title,
    ];

    /// <summary>What customers owe.</summary>
    public static ReportDefinition Receivables { get; } = new()
    {
        Key = "receivables-aging",
        Title = "Receivables aging",
        Subject = "Who owes, who is owed",
        Question = "Who owes us money, how much, and for how long?",
        Words = ["customers", "debtors", "overdue", "late", "unpaid", "invoices", "collect", "outstanding"],
        Options = Options,
        Examples =
        [
            ("--as-of last-month", "at the end of last month"),
            ("--as-of 2026-05-31 --detail --only contact.name=A..M", "per open document, some customers"),
            ("--limits 15,30,45 --age-by document --unapplied", "with limits of one's own, and unapplied money apart"),
        ],
        Build = (context, request) => Build(Receivables!, AccountType.Receivable, context, request),
    };

    /// <summary>What we owe suppliers.</summary>
    public static ReportDefinition Payables { get; } = Receivables with
    {
        Key = "payables-aging",
        Title = "Payables aging",
        Question = "Whom do we owe money, how much, and for how long?",
        Words = ["suppliers", "creditors", "overdue", "late", "unpaid", "bills", "pay", "outstanding"],
        Examples = [("--as-of last-month --detail", "per open bill, at the end of last month")],
        Build = (context, request) => Build(Payables!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var day = request.Period is { } period ? period.Within(context.Records).Range.To : context.Today;
        var filter = PostingFilter.Of(request.Choices, context.Ledger);
        var items = OpenItemsOf.AsOf(context.Ledger, type, day, filter);
        var table = new AgingTable(context.Ledger, request, items, day, type == AccountType.Payable ? -1 : 1);
        return new Report
        {
            Key = definition.Key,
            Title = request.Title ?? definition.Title,
            Book = context.Name,
            Currency = context.Currency,
            Basis = AccountingBasis.Accrual,
            Period = null,
            AsOf = day,
            PeriodInWords = $"As of {PeriodText.Words(day)}, by {(request.AgesByDocument ? "document" : "due")} date",
            Columns = table.Columns,
            Rows = table.Rows,
            Checks = filter.IsEverything ? [TieToControl(context, type, day, table.Total)] : [],
            Narrowed = filter.InWords,
            OriginOf = table.OriginOf,
            Revision = context.Ledger.Revision,
        };
    }

    private static ReportCheck TieToControl(ReportContext context, AccountType type, DateOnly day, Amount total)
    {
        var figure = new Figure(PostingSource.Accrual, new DateRange(context.Records.From < day ? context.Records.From : day, day));
        var sums = FigureSums.Of(context.Ledger, [figure], PostingFilter.Everything, null);
        var balance = context.Ledger.Accounts.Where(account => account.Type == type)
            .Aggregate(Amount.Zero, (sum, account) => sum + sums.Net(figure, account.Key));
        return new ReportCheck(
            "Open items = balance of the control accounts", type == AccountType.Payable ? -balance : balance, total, "");
    }

    // The rows, each with the items behind it.
    private sealed class AgingTable
    {
        private readonly ILedger _ledger;
        private readonly DateOnly _day;
        private readonly int _sign;
        private readonly bool _byDocument;
        private readonly bool _apart;
        private readonly AgingBuckets _buckets;
        private readonly int _texts;
        private readonly List<ReportRow> _rows = [];
        private readonly List<IReadOnlyList<OpenItem>> _behind = [];

        public AgingTable(ILedger ledger, ReportRequest request, IReadOnlyList<OpenItem> items, DateOnly day, int sign)
        {
            (_ledger, _day, _sign) = (ledger, day, sign);
            (_byDocument, _apart, _buckets) = (request.AgesByDocument, request.KeepsUnappliedApart, request.Limits is { } limits ? AgingBuckets.Of(limits) : AgingBuckets.Usual);
            ReportColumn[] texts = request.Detail
                ? [new("date", "Date", ColumnKind.Date), new("due", "Due", ColumnKind.Date), new("days-late", "Days late", ColumnKind.Count), new("original", "Original", ColumnKind.Money)]
                : [];
            _texts = texts.Length;
            Columns =
            [
                .. texts, .. _buckets.Keys.Select(key => new ReportColumn(key, AgingBuckets.HeadingOf(key), ColumnKind.Money)),
                .. _apart ? new[] { new ReportColumn("unapplied", "Unapplied", ColumnKind.Money) } : [],
                new("total", "Total", ColumnKind.Money),
            ];
            var contacts = ledger.Records(PostingField.Contact).ToDictionary(contact => contact.Key);
            foreach (var group in items.GroupBy(item => item.Contact)
                .OrderBy(group => group.Key == 0 ? 1 : 0)
                .ThenBy(group => contacts.TryGetValue(group.Key, out var contact) ? contact.Name : "", StringComparer.OrdinalIgnoreCase)
                .ThenBy(group => group.Key))
            {
                var (id, name) = contacts.TryGetValue(group.Key, out var contact) ? (contact.Id, contact.Name) : (NoContact, "No contact");
                AddContact(id, name, [.. group], request.Detail);
            }

            Total = Sum(items);
            Add("total", "Total", RowKind.GrandTotal, 0, items);
        }

        public IReadOnlyList<ReportColumn> Columns { get; }

        public IReadOnlyList<ReportRow> Rows => _rows;

        public Amount Total { get; }

        public CellOrigin? OriginOf(int row, int column)
        {
            if (_rows[row].Kind == RowKind.Heading || Columns[column].Kind != ColumnKind.Money || _rows[row].Cells[column].Units is not { } units)
            {
                return null;
            }

            var items = Columns[column].Key is "total" or "original"
                ? _behind[row]
                : [.. _behind[row].Where(item => PlaceOf(item) == column - _texts)];
            var isOriginal = Columns[column].Key == "original";
            return new CellOrigin(new Amount(units), [], null)
            {
                Items = [.. items.Select(item => new OriginItem(
                    item.Document, item.Contact, item.Date, Signed(item.Total),
                    isOriginal ? [] : [.. item.Settlements.Select(settlement => new OriginSettlement(
                        settlement.From == item.Document ? settlement.To : settlement.From, settlement.Effective,
                        Signed(item.Total.Sign < 0 ? settlement.Amount : -settlement.Amount)))]))],
            };
        }

        private void AddContact(string id, string name, IReadOnlyList<OpenItem> items, bool detail)
        {
            if (!detail)
            {
                Add(id, name, RowKind.Account, 0, items);
                return;
            }

            Add(id, name, RowKind.Heading, 0, []);
            foreach (var item in items.OrderBy(item => item.Due).ThenBy(item => item.Date).ThenBy(item => item.Document))
            {
                var document = _ledger.Document(item.Document);
                Add($"{id}/{document.Id}", document.Number.Length > 0 ? document.Number : document.Id, RowKind.Record, 1, [item]);
            }

            Add($"total({id})", $"Total {name}", RowKind.Total, 0, items);
        }

        private void Add(string key, string label, RowKind kind, int level, IReadOnlyList<OpenItem> items)
        {
            var sums = new Amount[Columns.Count - _texts];
            foreach (var item in items)
            {
                sums[PlaceOf(item)] += Signed(item.Open);
                sums[^1] += Signed(item.Open);
            }

            var single = kind == RowKind.Record ? items[0] : null;
            Cell[] texts = _texts == 0 ? [] : single is null ? [.. Enumerable.Repeat(Cell.Empty, _texts)]
                : [Cell.Of(single.Date), Cell.Of(single.Due), new Cell(Math.Max(0, DaysLate(single))), Cell.Of(Signed(single.Total))];
            _rows.Add(new ReportRow(key, label, kind, level, [.. texts, .. sums.Select(sum =>
                kind == RowKind.Heading || (kind == RowKind.Record && sum.IsZero) ? Cell.Empty : Cell.Of(sum))]));
            _behind.Add(items);
        }

        // What is on the other side (money not yet applied, a credit) is aged by its own date, or kept apart.
        private int PlaceOf(OpenItem item) => _apart && Signed(item.Total).Sign < 0
            ? _buckets.Count
            : _buckets.PlaceOf(DaysLate(item));

        private int DaysLate(OpenItem item) => _day.DayNumber
            - (_byDocument || Signed(item.Total).Sign < 0 ? item.Date : item.Due).DayNumber;

        private Amount Signed(Amount amount) => _sign < 0 ? -amount : amount;

        private Amount Sum(IReadOnlyList<OpenItem> items) =>
            items.Aggregate(Amount.Zero, (sum, item) => sum + Signed(item.Open));
    }
}
