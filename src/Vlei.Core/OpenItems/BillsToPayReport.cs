using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Which bills the money is enough for, in the order in which they are due, and what is left after each.</summary>
public static class BillsToPayReport
{
    private static readonly IReadOnlyList<ReportColumn> Columns =
    [
        new("contact", "Contact", ColumnKind.Text), new("due", "Due", ColumnKind.Date), new("days-late", "Days late", ColumnKind.Count),
        new("open", "Open", ColumnKind.Money), new("credit", "Credit used", ColumnKind.Money) { IsLeftOutWhenIdle = true },
        new("disputed", "Disputed", ColumnKind.Money) { IsLeftOutWhenIdle = true }, new("to-pay", "To pay", ColumnKind.Money),
        new("left", "Money left", ColumnKind.Money), new("enough", "Enough", ColumnKind.Text),
    ];

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "bills-to-pay",
        Title = "Bills to pay",
        Subject = "Who owes, who is owed",
        Question = "Which bills can we pay with the money that there is, the first due first?",
        Words = ["suppliers", "payables", "creditors", "payments", "cash", "limited", "run", "due", "priority"],
        Options = [ReportOptions.AsOf, ReportOptions.Money, ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Title],
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
        var report = new ItemReport(Definition, context, request, AccountType.Payable, day, []);
        var (history, start) = (report.History, new StartingMoney(context, request, day));
        var expected = ExpectedMoney.Of(context.Ledger, report, day, asUsual: false);
        var open = history.OpenAt(day);
        var bills = report.Taken().Where(item => open[item].Sign > 0)
            .OrderBy(item => history[item].Due).ThenBy(item => history[item].Date).ThenBy(item => item).ToList();
        var toPay = bills.ToDictionary(item => item, _ => Amount.Zero);
        foreach (var one in expected.All)
        {
            toPay[one.Item] += one.Amount;
        }

        var disputed = expected.Disputed.ToDictionary(one => one.Item, one => one.Amount);
        Amount Disputed(int item) => disputed.GetValueOrDefault(item);
        Amount Credit(int item) => open[item] - toPay[item] - Disputed(item);

        var texts = new DocumentRows(context.Ledger);
        var (rows, left) = (new List<ReportRow>(), start.Amount);
        rows.Add(Row("opening", $"Money on {PeriodText.Heading(day)}", RowKind.Record, [
            .. Enumerable.Repeat(Cell.Empty, 7), Cell.Of(start.Amount), Cell.Empty]));
        foreach (var item in bills)
        {
            var before = left;
            left -= toPay[item];
            var (key, label) = texts.Named(history[item]);
            rows.Add(Row(key, label, RowKind.Record,
            [
                Cell.Of(texts.ContactName(history[item])), Cell.Of(history[item].Due),
                new Cell(Math.Max(0, day.DayNumber - history[item].Due.DayNumber)), Cell.Of(open[item]),
                OrNothing(Credit(item)), OrNothing(Disputed(item)), Cell.Of(toPay[item]), Cell.Of(left),
                Cell.Of(toPay[item].IsZero ? "" : left.Sign >= 0 ? "yes" : before.Sign > 0 ? "in part" : "no"),
            ]));
        }

        Amount Sum(Func<int, Amount> of) => bills.Aggregate(Amount.Zero, (sum, item) => sum + of(item));
        rows.Add(Row("total", "Total", RowKind.GrandTotal,
        [
            Cell.Empty, Cell.Empty, Cell.Empty, Cell.Of(Sum(item => open[item])), Cell.Of(Sum(Credit)), OrNothing(Sum(Disputed)),
            Cell.Of(Sum(item => toPay[item])), Cell.Of(left), Cell.Empty,
        ]));
        return report.Frame($"As of {PeriodText.Words(day)}, the first due first") with
        {
            Columns = Columns,
            Rows = rows,
            OriginOf = OriginOf,
        };

        CellOrigin? OriginOf(int row, int column)
        {
            if (Columns[column].Kind != ColumnKind.Money || rows[row].Cells[column].Units is not { } units)
            {
                return null;
            }

            var isTotal = row == rows.Count - 1;
            List<int> behind = isTotal ? bills : [.. bills.Skip(row - 1).Take(Math.Min(row, 1))];
            return Columns[column].Key switch
            {
                "left" => start.OriginOf(bills.Take(row).Select(item => history.OriginOf(item, null) with { Total = -toPay[item] }), new Amount(units)),
                "open" => new CellOrigin(new Amount(units), []) { Items = [.. behind.Select(item => history.OriginOf(item, day))] },
                "credit" => Origin(Credit),
                "disputed" => Origin(Disputed),
                _ => Origin(item => toPay[item]),
            };

            CellOrigin Origin(Func<int, Amount> of) => new(new Amount(units), [], "What we have in credit with a supplier is used for its first bills.")
            {
                Items = [.. behind.Where(item => !of(item).IsZero).Select(item => history.OriginOf(item, null) with { Total = of(item) })],
            };
        }
    }

    private static Cell OrNothing(Amount amount) => amount.IsZero ? Cell.Empty : Cell.Of(amount);

    private static ReportRow Row(string key, string label, RowKind kind, IReadOnlyList<Cell> cells) => new(key, label, kind, 0, cells);
}
