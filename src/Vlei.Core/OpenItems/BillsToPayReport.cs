using System.Collections.Immutable;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Which bills the money is enough for, in the order in which they are due, and what is left after each.</summary>
public static class BillsToPayReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "bills-to-pay",
        Title = "Bills to pay",
        Subject = "Receivables and payables",
        Question = "Which bills can we pay with the money there is?",
        Words = ["suppliers", "payables", "creditors", "payments", "cash", "limited", "run", "due", "priority"],
        Options = [ReportOptions.AsOf, ReportOptions.Money, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where,
            ReportOptions.Select, ReportOptions.Columns,
            ReportOptions.Title],
        Examples =
        [
            ("--money 60000", "with 60,000 to spend"),
            ("--money 60000 --except contact=S03", "leaving a supplier out"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var day = ItemReport.DayOf(context, request).Range.To;
        var report = new ItemReport(Definition, context, request, AccountType.Payable, day);
        var bills = new Bills(context, report, new StartingMoney(context, request, day), day);
        return new ReportTable<BillRow, OwnFigure<BillRow>>(Definition.Title, bills.Columns(), bills.Rows(), new OwnFigures<BillRow>())
            .In(report.Frame($"As of {PeriodText.Words(day)}, the first due first"));
    }

    /// <summary>A row of it.</summary>
    /// <param name="Of">The bills that it stands for.</param>
    /// <param name="Passed">How many bills have passed when it stands.</param>
    /// <param name="IsTotal">Whether it is the total.</param>
    /// <param name="Left">The money that is left then.</param>
    private readonly record struct BillRow(IReadOnlyList<int> Of, int Passed, bool IsTotal, Amount Left)
    {
        /// <summary>The bill, of a row that is of one.</summary>
        public int? Single => IsTotal || Of.Count == 0 ? null : Of[0];
    }

    // The open bills in the order in which they are due, with what is to be paid of each.
    private sealed class Bills
    {
        private readonly ControlHistory _history;
        private readonly StartingMoney _start;
        private readonly DateOnly _day;
        private readonly DocumentRows _texts;
        private readonly ImmutableArray<Amount> _open;
        private readonly List<int> _bills;
        private readonly Dictionary<int, Amount> _toPay;
        private readonly Dictionary<int, Amount> _disputed;

        public Bills(ReportContext context, ItemReport report, StartingMoney start, DateOnly day)
        {
            (_history, _start, _day, _texts) = (report.History, start, day, new DocumentRows(context.Ledger));
            var expected = ExpectedMoney.Of(context.Ledger, report, day, asUsual: false);
            _open = _history.OpenAt(day);
            _bills = [.. report.Taken().Where(item => _open[item].Sign > 0)
                .OrderBy(item => _history[item].Due).ThenBy(item => _history[item].Date).ThenBy(item => item)];
            _toPay = _bills.ToDictionary(item => item, _ => Amount.Zero);
            foreach (var one in expected.All)
            {
                _toPay[one.Item] += one.Amount;
            }

            _disputed = expected.Disputed.ToDictionary(one => one.Item, one => one.Amount);
        }

        public FigureRows<BillRow> Rows()
        {
            var (rows, left) = (new FigureRows<BillRow>(), _start.Amount);
            Add("opening", Caption.Ours($"Money on {PeriodText.Heading(_day)}"), new BillRow([], 0, IsTotal: false, left));
            for (var place = 0; place < _bills.Count; place++)
            {
                left -= _toPay[_bills[place]];
                var (key, label) = _texts.Named(_history[_bills[place]]);
                Add(key, label, new BillRow([_bills[place]], place + 1, IsTotal: false, left));
            }

            rows.Add(new FigureRow<BillRow>(
                ItemGroup.Total, Caption.Ours("Total"), RowKind.GrandTotal, 0, new BillRow(_bills, _bills.Count, IsTotal: true, left)));
            return rows;

            void Add(string key, Caption label, BillRow row) =>
                rows.Add(new FigureRow<BillRow>(key, label, RowKind.Record, 0, row) { CountsIn = ItemGroup.Total });
        }

        public FigureColumns<OwnFigure<BillRow>> Columns()
        {
            var columns = new FigureColumns<OwnFigure<BillRow>>();
            Say("contact", "Contact", ColumnKind.Text, item => Cell.Of(_texts.ContactName(_history[item])));
            Say("due", "Due", ColumnKind.Date, item => Cell.Of(_history[item].Due));
            Say("days-late", "Days late", ColumnKind.Count, item => new Cell(Math.Max(0, _day.DayNumber - _history[item].Due.DayNumber)));
            _ = columns.Add(ReportColumn.Sum("open", "Open"), OwnFigure<BillRow>.Of(
                row => Sum(row, item => _open[item]),
                (row, _, records) => records.Items.AddRange(row.Of.Select(item => _history.OriginOf(item, _day)))));
            Add("credit", "Credit used", Credit, row => row.IsTotal);
            Add("disputed", "Disputed", Disputed, _ => false);
            Add("to-pay", "To pay", item => _toPay[item], _ => true);
            _ = columns.Add(new ReportColumn("left", "Money left", ColumnKind.Money), OwnFigure<BillRow>.Of(
                row => row.Left.MinorUnits, (row, _, records) => _start.AddBehind(
                    _bills.Take(row.Passed).Select(item => _history.OriginOf(item, null) with { Total = -_toPay[item] }), row.Left,
                    records)));
            _ = columns.Add(new ReportColumn("enough", "Enough", ColumnKind.Text), OwnFigure<BillRow>.Said(Enough));
            return columns;

            void Say(string key, string heading, ColumnKind kind, Func<int, Cell> of) => columns.Add(
                new ReportColumn(key, heading, kind), OwnFigure<BillRow>.Said(row => row.Single is { } item ? of(item) : Cell.Empty));
            void Add(string key, string heading, Func<int, Amount> of, Func<BillRow, bool> showsZero) => columns.Add(
                ReportColumn.Sum(key, heading) with { IsLeftOutWhenIdle = key != "to-pay" }, OwnFigure<BillRow>.Of(
                    row => Sum(row, of) is var sum && sum == 0 && !showsZero(row) ? null : sum,
                    (row, _, records) => AddBehind(row, of, records)));
        }

        private Amount Disputed(int item) => _disputed.GetValueOrDefault(item);

        private Amount Credit(int item) => _open[item] - _toPay[item] - Disputed(item);

        private Cell Enough(BillRow row) => row.Single is not { } item || _toPay[item].IsZero ? Cell.Empty
            : Cell.Of(row.Left.Sign >= 0 ? "yes" : (row.Left + _toPay[item]).Sign > 0 ? "in part" : "no");

        private void AddBehind(BillRow row, Func<int, Amount> of, OriginRecords records)
        {
            records.Items.AddRange(
                row.Of.Where(item => !of(item).IsZero).Select(item => _history.OriginOf(item, null) with { Total = of(item) }));
            records.Note = "What we have in credit with a supplier is used for its first bills.";
        }

        // The opening row has no bills, and nothing but the money that there is.
        private static long? Sum(BillRow row, Func<int, Amount> of) =>
            row.Of.Count == 0 && !row.IsTotal ? null : row.Of.Aggregate(Amount.Zero, (sum, item) => sum + of(item)).MinorUnits;
    }
}
