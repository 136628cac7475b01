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
        Subject = "Who owes, who is owed",
        Question = "What money will come and go in the next three months, and when is there least of it?",
        Words = ["forecast", "expected", "receipts", "payments", "cash", "low", "lowest", "liquidity", "due", "weeks"],
        Options =
        [
            ReportOptions.AsOf, ReportOptions.By, ReportOptions.Money, ReportOptions.AsUsual, ReportOptions.Detail,
            ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Title,
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
            context, request, day, ExpectedMoney.Of(context.Ledger, receivable, day, request.AsUsual),
            ExpectedMoney.Of(context.Ledger, payable, day, request.AsUsual), receivable.History, payable.History);
        foreach (var piece in context.Calendar.Split(new DateRange(day.AddDays(1), day.AddMonths(Months)), unit))
        {
            forecast.AddPeriod(PeriodText.Key(piece, context.Calendar), PeriodText.Heading(piece, context.Calendar), piece);
        }

        forecast.Complete();
        return receivable.Frame(
            $"From {PeriodText.Words(day)} to {PeriodText.Words(day.AddMonths(Months))}, "
            + (request.AsUsual ? "as late as usual" : "when due") + ", or as promised") with
        {
            Columns = Forecast.Columns,
            Rows = forecast.Rows,
            OriginOf = forecast.OriginOf,
        };

        ItemReport Read(AccountType type) => new(Definition, context, request, type, day, []);
    }

    // The rows, each with what is expected in it and the balance after it.
    private sealed class Forecast
    {
        public static readonly IReadOnlyList<ReportColumn> Columns =
        [
            new("receipts", "Receipts", ColumnKind.Money), new("payments", "Payments", ColumnKind.Money),
            new("net", "Net", ColumnKind.Money), new("balance", "Balance", ColumnKind.Money),
            new("low-point", "Low point", ColumnKind.Text),
        ];

        private readonly ReportRequest _request;
        private readonly (ExpectedMoney Expected, ControlHistory History)[] _sides;
        private readonly StartingMoney _start;
        private readonly DocumentRows _documents;
        private readonly List<Row> _rows = [];
        private DateOnly _last;
        private Row? _lowest;

        public Forecast(
            ReportContext context, ReportRequest request, DateOnly day, ExpectedMoney receipts, ExpectedMoney payments,
            ControlHistory receivable, ControlHistory payable)
        {
            (_request, _last) = (request, day);
            _sides = [(receipts, receivable), (payments, payable)];
            _start = new StartingMoney(context, request, day);
            _documents = new DocumentRows(context.Ledger);
            _rows.Add(new Row("opening", $"Money on {PeriodText.Heading(day)}", RowKind.Record, 0, [[], []], _start.Amount));
            AddPeriod("overdue", "Late already", new DateRange(DateOnly.MinValue, day));
        }

        public IReadOnlyList<ReportRow> Rows => new RowList(_rows.Count, place => RowOf(_rows[place]));

        private Amount Balance => _rows.Last(row => row.Balance is not null).Balance!.Value;

        public void AddPeriod(string key, string label, DateRange range)
        {
            Expectation[][] expected = [.. _sides.Select(side => side.Expected.All.Where(one => range.Contains(one.Day)).ToArray())];
            if (key != "overdue" || expected.Any(side => side.Length > 0))
            {
                Add(key, label, RowKind.Account, expected, Balance + Sum(expected[0]) - Sum(expected[1]));
            }

            _last = range.To;
        }

        // What comes later, and what is disputed, is told but not counted on.
        public void Complete()
        {
            Expectation[][] all = [.. _sides.Select(side => side.Expected.All.Where(one => one.Day <= _last).ToArray())];
            _lowest = _rows.Where(row => row.Balance is not null).MinBy(row => row.Balance!.Value);
            _rows.Add(new Row("total", "Total", RowKind.GrandTotal, 0, all, Balance));
            AddBeside("later", "Later", [.. _sides.Select(side => side.Expected.All.Where(one => one.Day > _last).ToArray())]);
            AddBeside("disputed", "Disputed, not counted", [.. _sides.Select(side => side.Expected.Disputed.ToArray())]);
        }

        public CellOrigin? OriginOf(int place, int column)
        {
            var row = _rows[place];
            return RowOf(row).Cells[column].Units is not { } units ? null : Columns[column].Key switch
            {
                "balance" => _start.OriginOf(
                    Behind([.. _sides.Select((_, side) => Before(place, side))], 0, 1).Concat(Behind([.. _sides.Select((_, side) => Before(place, side))], 1, -1)),
                    new Amount(units)),
                "receipts" => Origin(Behind(row.Expected, 0, 1)),
                "payments" => Origin(Behind(row.Expected, 1, 1)),
                _ => Origin(Behind(row.Expected, 0, 1).Concat(Behind(row.Expected, 1, -1))),
            };

            CellOrigin Origin(IEnumerable<OriginItem> items) => new(
                new Amount(units), [], "What is disputed, and what a contact has in credit, is taken off already.")
            { Items = [.. items] };
        }

        private IEnumerable<OriginItem> Behind(Expectation[][] expected, int side, int sign) => _sides[side].Expected.Behind(expected[side], sign);

        // Everything up to a row, each document once.
        private Expectation[] Before(int place, int side) => _rows[place].Kind == RowKind.GrandTotal ? _rows[place].Expected[side]
            : [.. _rows.Take(place + 1).Where(row => row.Kind != RowKind.Record || row.Key == "opening").SelectMany(row => row.Expected[side])];

        private void Add(string key, string label, RowKind kind, Expectation[][] expected, Amount? balance)
        {
            _rows.Add(new Row(key, label, kind, 0, expected, balance));
            for (var side = 0; side < _sides.Length && _request.Detail; side++)
            {
                // A document that is promised in part may come in two parts, and is one row all the same.
                foreach (var own in expected[side].GroupBy(one => one.Item))
                {
                    Expectation[][] alone = side == 0 ? [[.. own], []] : [[], [.. own]];
                    var item = _sides[side].History[own.Key];
                    var (id, number) = _documents.Named(item);
                    _rows.Add(new Row($"{key}/{id}", $"{number} {_documents.ContactName(item)}", RowKind.Record, 1, alone, null));
                }
            }
        }

        private void AddBeside(string key, string label, Expectation[][] expected)
        {
            if (expected.Any(side => side.Length > 0))
            {
                Add(key, label, RowKind.Account, expected, null);
            }
        }

        private ReportRow RowOf(Row row)
        {
            var (receipts, payments) = (Sum(row.Expected[0]), Sum(row.Expected[1]));
            var isOpening = row.Key == "opening";
            return new ReportRow(row.Key, row.Label, row.Kind, row.Level,
            [
                isOpening || (row.Level > 0 && receipts.IsZero) ? Cell.Empty : Cell.Of(receipts),
                isOpening || (row.Level > 0 && payments.IsZero) ? Cell.Empty : Cell.Of(payments),
                isOpening ? Cell.Empty : Cell.Of(receipts - payments),
                row.Balance is { } balance ? Cell.Of(balance) : Cell.Empty,
                ReferenceEquals(row, _lowest) ? Cell.Of("lowest") : Cell.Empty,
            ]);
        }

        private static Amount Sum(IEnumerable<Expectation> expected) =>
            expected.Aggregate(Amount.Zero, (sum, one) => sum + one.Amount);

        private sealed record Row(string Key, string Label, RowKind Kind, int Level, Expectation[][] Expected, Amount? Balance);
    }
}
