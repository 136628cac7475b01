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
        var (rows, left) = (new FigureRows<BillRow>(), start.Amount);
        rows.Add(new FigureRow<BillRow>("opening", Caption.Ours($"Money on {PeriodText.Heading(day)}"), RowKind.Record, 0, new BillRow([], 0, IsTotal: false, left)) { CountsIn = ItemGroup.Total });
        for (var place = 0; place < bills.Count; place++)
        {
            left -= toPay[bills[place]];
            var (key, label) = texts.Named(history[bills[place]]);
            rows.Add(new FigureRow<BillRow>(key, label, RowKind.Record, 0, new BillRow([bills[place]], place + 1, IsTotal: false, left)) { CountsIn = ItemGroup.Total });
        }

        rows.Add(new FigureRow<BillRow>(ItemGroup.Total, Caption.Ours("Total"), RowKind.GrandTotal, 0, new BillRow(bills, bills.Count, IsTotal: true, left)));
        return new ReportTable<BillRow, OwnFigure<BillRow>>(Definition.Title, Columns(), rows, new OwnFigures<BillRow>())
            .In(report.Frame($"As of {PeriodText.Words(day)}, the first due first"));

        FigureColumns<OwnFigure<BillRow>> Columns()
        {
            var columns = new FigureColumns<OwnFigure<BillRow>>();
            Say("contact", "Contact", ColumnKind.Text, item => Cell.Of(texts.ContactName(history[item])));
            Say("due", "Due", ColumnKind.Date, item => Cell.Of(history[item].Due));
            Say("days-late", "Days late", ColumnKind.Count, item => new Cell(Math.Max(0, day.DayNumber - history[item].Due.DayNumber)));
            _ = columns.Add(ReportColumn.Sum("open", "Open"), OwnFigure<BillRow>.Of(
                row => Sum(row, item => open[item]), (row, _, records) => records.Items.AddRange(row.Bills.Select(item => history.OriginOf(item, day)))));
            Add("credit", "Credit used", Credit, row => row.IsTotal);
            Add("disputed", "Disputed", Disputed, _ => false);
            Add("to-pay", "To pay", item => toPay[item], _ => true);
            _ = columns.Add(new ReportColumn("left", "Money left", ColumnKind.Money), OwnFigure<BillRow>.Of(
                row => row.Left.MinorUnits, (row, _, records) => start.AddBehind(
                    bills.Take(row.Passed).Select(item => history.OriginOf(item, null) with { Total = -toPay[item] }), row.Left, records)));
            _ = columns.Add(new ReportColumn("enough", "Enough", ColumnKind.Text), OwnFigure<BillRow>.Said(row => row is { IsTotal: false, Bills: [var item] }
                ? Cell.Of(toPay[item].IsZero ? "" : row.Left.Sign >= 0 ? "yes" : (row.Left + toPay[item]).Sign > 0 ? "in part" : "no") : Cell.Empty));
            return columns;

            void Say(string key, string heading, ColumnKind kind, Func<int, Cell> of) => columns.Add(
                new ReportColumn(key, heading, kind), OwnFigure<BillRow>.Said(row => row is { IsTotal: false, Bills: [var item] } ? of(item) : Cell.Empty));
            void Add(string key, string heading, Func<int, Amount> of, Func<BillRow, bool> showsZero) => columns.Add(
                ReportColumn.Sum(key, heading) with { IsLeftOutWhenIdle = key != "to-pay" }, OwnFigure<BillRow>.Of(
                    row => Sum(row, of) is var sum && sum == 0 && !showsZero(row) ? null : sum,
                    (row, _, records) =>
                    {
                        records.Items.AddRange(row.Bills.Where(item => !of(item).IsZero).Select(item => history.OriginOf(item, null) with { Total = of(item) }));
                        records.Note = "What we have in credit with a supplier is used for its first bills.";
                    }));
        }
    }

    // The opening row has no bills, and nothing but the money that there is.
    private static long? Sum(BillRow row, Func<int, Amount> of) =>
        row.Bills.Count == 0 && !row.IsTotal ? null : row.Bills.Aggregate(Amount.Zero, (sum, item) => sum + of(item)).MinorUnits;

    /// <summary>A row of it.</summary>
    /// <param name="Bills">The bills that it stands for.</param>
    /// <param name="Passed">How many bills have passed when it stands.</param>
    /// <param name="IsTotal">Whether it is the total.</param>
    /// <param name="Left">The money that is left then.</param>
    private readonly record struct BillRow(IReadOnlyList<int> Bills, int Passed, bool IsTotal, Amount Left);
}
