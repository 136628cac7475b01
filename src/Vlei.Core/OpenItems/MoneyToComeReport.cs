using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What is expected to come in and to go out in the next three months, and where the money is at its lowest.</summary>
public static class MoneyToComeReport
{
    private const int Months = 3;

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "money-to-come",
        Title = "Money to come",
        Subject = "Receivables and payables",
        Question = "What money will come and go, and when is it least?",
        Words = ["forecast", "expected", "receipts", "payments", "cash", "low", "lowest", "liquidity", "due", "weeks"],
        Options =
        [
            ReportOptions.AsOf, ReportOptions.By, ReportOptions.Money, ReportOptions.AsUsual, ReportOptions.Detail,
            ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Columns, ReportOptions.Title,
        ],
        Examples =
        [
            ("--by week", "week by week, from what is due and what was promised"),
            ("--by month --as-usual", "as late as contacts usually are"),
            ("--money 50000 --detail", "from a balance of one's own, with the documents"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var unit = request.By is null ? TimeUnit.Week : request.By.Unit is TimeUnit.Week or TimeUnit.Month ? request.By.Unit.Value
            : throw new ProblemException(ProblemKind.Usage, "Money to come is by week or by month.", "Take --by week, or --by month.");
        var day = ItemReport.DayOf(context, request).Range.To;
        var (receivable, payable) = (Read(AccountType.Receivable), Read(AccountType.Payable));
        var forecast = new Forecast(
            context, request, day, ExpectedMoney.Of(context.Ledger, receivable, day, request.Items.AsUsual),
            ExpectedMoney.Of(context.Ledger, payable, day, request.Items.AsUsual), receivable.History, payable.History);
        foreach (var piece in context.Calendar.Split(new DateRange(day.AddDays(1), day.AddMonths(Months)), unit))
        {
            forecast.AddPeriod(PeriodText.Key(piece, context.Calendar), PeriodText.Heading(piece, context.Calendar), piece);
        }

        forecast.Complete();
        return forecast.Table.In(receivable.Frame(
            $"From {PeriodText.Words(day)} to {PeriodText.Words(day.AddMonths(Months))}, "
            + (request.Items.AsUsual ? "as late as usual" : "when due") + ", or as promised"));

        ItemReport Read(AccountType type) => new(Definition, context, request, type, day);
    }

    // The rows, each with what is expected in it and the balance after it.
    private sealed class Forecast
    {
        private readonly ReportRequest _request;
        private readonly (ExpectedMoney Expected, ControlHistory History)[] _sides;
        private readonly StartingMoney _start;
        private readonly DocumentRows _documents;
        private readonly List<ForecastRow> _rows = [];
        private DateOnly _last;
        private ForecastRow? _lowest;

        public Forecast(
            ReportContext context, ReportRequest request, DateOnly day, ExpectedMoney receipts, ExpectedMoney payments,
            ControlHistory receivable, ControlHistory payable)
        {
            (_request, _last) = (request, day);
            _sides = [(receipts, receivable), (payments, payable)];
            _start = new StartingMoney(context, request, day);
            _documents = new DocumentRows(context.Ledger);
            Add("opening", Caption.Ours($"Money on {PeriodText.Heading(day)}"), RowKind.Record, 0, [[], []], _start.Amount, null);
            AddPeriod("overdue", "Late already", new DateRange(DateOnly.MinValue, day));
        }

        public ReportTable<ForecastRow, OwnFigure<ForecastRow>> Table
        {
            get
            {
                var (columns, rows) = (new FigureColumns<OwnFigure<ForecastRow>>(), new FigureRows<ForecastRow>());
                Add("receipts", "Receipts", row => Alone(row, Sum(row.Expected[0])), row => Behind(row.Expected, 0, 1));
                Add("payments", "Payments", row => Alone(row, Sum(row.Expected[1])), row => Behind(row.Expected, 1, 1));
                Add(
                    "net", "Net", row => row.IsOpening ? null : Sum(row.Expected[0]) - Sum(row.Expected[1]),
                    row => Behind(row.Expected, 0, 1).Concat(Behind(row.Expected, 1, -1)));
                _ = columns.Add(new ReportColumn("balance", "Balance", ColumnKind.Money), OwnFigure<ForecastRow>.Of(
                    row => row.Balance?.MinorUnits, (row, _, records) => AddBalance(row, records)));
                _ = columns.Add(new ReportColumn("low-point", "Low point", ColumnKind.Text), OwnFigure<ForecastRow>.Said(
                    row => row.Place == _lowest?.Place ? Cell.Of("lowest") : Cell.Empty));
                foreach (var row in _rows)
                {
                    rows.Add(new FigureRow<ForecastRow>(row.Key, row.Label, row.Kind, row.Level, row) { CountsIn = row.CountsIn });
                }

                return new ReportTable<ForecastRow, OwnFigure<ForecastRow>>(Definition.Title, columns, rows, new OwnFigures<ForecastRow>());

                void Add(
                    string key, string heading, Func<ForecastRow, Amount?> of, Func<ForecastRow, IEnumerable<OriginItem>> behind) =>
                        columns.Add(
                    ReportColumn.Sum(key, heading), OwnFigure<ForecastRow>.Of(row => of(row)?.MinorUnits, (row, _, records) =>
                    {
                        records.Items.AddRange(behind(row));
                        records.Note = "What is disputed, and what a contact has in credit, is taken off already.";
                    }));
            }
        }

        private Amount Balance => _rows.Last(row => row.Balance is not null).Balance!.Value;

        public void AddPeriod(string key, string label, DateRange range)
        {
            Expectation[][] expected = [.. _sides.Select(side => side.Expected.All.Where(one => range.Contains(one.Day)).ToArray())];
            if (key != "overdue" || expected.Any(side => side.Length > 0))
            {
                AddExpected(key, label, expected, Balance + Sum(expected[0]) - Sum(expected[1]), ItemGroup.Total);
            }

            _last = range.To;
        }

        // What comes later, and what is disputed, is told but not counted on.
        public void Complete()
        {
            Expectation[][] all = [.. _sides.Select(side => side.Expected.All.Where(one => one.Day <= _last).ToArray())];
            _lowest = _rows.Where(row => row.Balance is not null).MinBy(row => row.Balance!.Value);
            Add(ItemGroup.Total, Caption.Ours("Total"), RowKind.GrandTotal, 0, all, Balance, null);
            AddBeside("later", "Later", [.. _sides.Select(side => side.Expected.All.Where(one => one.Day > _last).ToArray())]);
            AddBeside("disputed", "Disputed, not counted", [.. _sides.Select(side => side.Expected.Disputed.ToArray())]);
        }

        private void AddBalance(ForecastRow row, OriginRecords records)
        {
            Expectation[][] before = [.. _sides.Select((_, side) => Before(row, side))];
            _start.AddBehind(Behind(before, 0, 1).Concat(Behind(before, 1, -1)), row.Balance!.Value, records);
        }

        private IEnumerable<OriginItem> Behind(Expectation[][] expected, int side, int sign) =>
            _sides[side].Expected.Behind(expected[side], sign);

        // Everything up to a row, each document once.
        private Expectation[] Before(ForecastRow row, int side) => row.Kind == RowKind.GrandTotal ? row.Expected[side]
            : [.. _rows.Take(row.Place + 1).Where(row => row.Kind != RowKind.Record || row.IsOpening)
                .SelectMany(row => row.Expected[side])];

        private void AddExpected(string key, string label, Expectation[][] expected, Amount? balance, string? total)
        {
            Add(key, Caption.Ours(label), RowKind.Account, 0, expected, balance, total);
            for (var side = 0; side < _sides.Length && _request.Detail; side++)
            {
                // A document that is promised in part may come in two parts, and is one row all the same.
                foreach (var own in expected[side].GroupBy(one => one.Item))
                {
                    Expectation[][] alone = side == 0 ? [[.. own], []] : [[], [.. own]];
                    var item = _sides[side].History[own.Key];
                    var (id, number) = _documents.Named(item);
                    Add($"{key}/{id}", $"{number} {_documents.ContactName(item)}", RowKind.Record, 1, alone, null, null);
                }
            }
        }

        private void AddBeside(string key, string label, Expectation[][] expected)
        {
            if (expected.Any(side => side.Length > 0))
            {
                AddExpected(key, label, expected, null, null);
            }
        }

        private void Add(string key, Caption label, RowKind kind, int level, Expectation[][] expected, Amount? balance, string? total) =>
            _rows.Add(new ForecastRow(_rows.Count, key, label, kind, level, expected, balance, total));

        private static Amount? Alone(ForecastRow row, Amount sum) => row.IsOpening || (row.Level > 0 && sum.IsZero) ? null : sum;

        private static Amount Sum(IEnumerable<Expectation> expected) =>
            expected.Aggregate(Amount.Zero, (sum, one) => sum + one.Amount);
    }

    /// <summary>A row of it.</summary>
    /// <param name="Place">Its place.</param>
    /// <param name="Key">Its key.</param>
    /// <param name="Label">What stands before its figures.</param>
    /// <param name="Kind">What it is.</param>
    /// <param name="Level">How far it is indented.</param>
    /// <param name="Expected">What is expected in it, on either side.</param>
    /// <param name="Balance">The money after it; nothing where it says none.</param>
    /// <param name="CountsIn">The total that it counts in.</param>
    private readonly record struct ForecastRow(
        int Place, string Key, Caption Label, RowKind Kind, int Level, Expectation[][] Expected, Amount? Balance, string? CountsIn)
    {
        public bool IsOpening => Key == "opening";
    }
}
