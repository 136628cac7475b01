using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Each contact's own habit: what was charged and settled in a period, how long that took, and what is late at its end.</summary>
public static class DaysToPayReport
{
    /// <summary>That of customers.</summary>
    public static ReportDefinition Customers { get; } = new()
    {
        Key = "days-to-pay",
        Title = "Days to pay",
        Subject = "Receivables and payables",
        Question = "How long does each customer take to pay, who owes most, and how much of it is late?",
        Words = ["top", "debtors", "customers", "habits", "average", "late", "overdue", "collection", "slow", "payers"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select,
            ReportOptions.Having, ReportOptions.Columns, ReportOptions.Sort, ReportOptions.Top,
            ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-12-months --top 10", "the ten that owe most"),
            ("--period fy2026 --sort -days-late", "the slowest first"),
        ],
        Build = (context, request) => Build(Customers!, AccountType.Receivable, context, request),
    };

    /// <summary>Our own, with each supplier.</summary>
    public static ReportDefinition Suppliers { get; } = Customers with
    {
        Key = "days-to-pay-suppliers",
        Title = "Days to pay suppliers",
        Question = "How long do we take to pay each supplier, and what are we late with?",
        Words = ["top", "creditors", "suppliers", "habits", "average", "late", "overdue", "slow"],
        Examples = [("--period last-12-months", "over the last year")],
        Build = (context, request) => Build(Suppliers!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(definition, context, request, type, range.To);
        var (history, open) = (report.History, report.History.OpenAt(range.To));
        var habits = new PayingHabits(history, range.From, range.To);
        var table = new ItemTable(
            definition.Title, Columns(history, open, habits, range),
            _ => throw new InvalidOperationException("There are no rows of single documents."));
        var owed = table.Columns.PlaceOf("open");
        var groups = ItemGroup.ByContact(context.Ledger, history, report.Taken())
            .Where(group => Enumerable.Range(0, 4).Any(column => !table.SumOf(group.Items, column).IsZero));
        foreach (var group in report.Ordered(groups, table, owed))
        {
            table.AddGroup(group.Id, group.Name, group.Items);
        }

        table.AddTotal();
        return table.Table.In(report.Frame(range)) with
        {
            Checks = report.TiesToControl([(range.To, table.SumOf([.. report.Taken()], owed))]),
        };
    }

    private static FigureColumns<OwnFigure<ItemRow>> Columns(ControlHistory history, Amount[] open, PayingHabits habits, DateRange range)
    {
        var columns = new FigureColumns<OwnFigure<ItemRow>>();
        bool IsOwed(int item) => history[item].Total.Sign > 0;
        _ = columns.AddSum(
            "charged", "Charged", history, item => IsOwed(item) && range.Contains(history[item].Date) ? history[item].Total : Amount.Zero);
        _ = columns.AddSum("settled", "Settled", history, item => IsOwed(item) ? habits.Settled([item]) : Amount.Zero);
        var owed = columns.FigureAt(columns.AddSum("open", "Open", history, item => open[item]));
        var late = columns.FigureAt(
            columns.AddSum("overdue", "Overdue", history, item => IsOwed(item) && history[item].Due < range.To ? open[item] : Amount.Zero));
        columns.AddShare(new ReportColumn("share-overdue", "Share overdue", ColumnKind.Percent), late, ShareOf.Row, owed);
        columns.AddShare(new ReportColumn("share-of-column(open)", "Share of all open", ColumnKind.Percent), owed, ShareOf.Column, owed);
        _ = columns.Add(
            new ReportColumn("days-to-pay", "Days to pay", ColumnKind.Ratio),
            ItemFigure.Average("Days to pay", items => habits.DaysToPay(items.Where(IsOwed))));
        _ = columns.Add(
            new ReportColumn("days-late", "Days late", ColumnKind.Ratio),
            ItemFigure.Average("Days late", items => habits.DaysLate(items.Where(IsOwed))));
        return columns;
    }
}
