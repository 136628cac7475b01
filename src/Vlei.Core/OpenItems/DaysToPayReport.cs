using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Each contact's own habit: what was charged and settled in a period, how long that took, and what is late at its end.</summary>
public static class DaysToPayReport
{
    private const string Open = "open";
    private const string DaysToPay = "days-to-pay";

    /// <summary>That of customers.</summary>
    public static ReportDefinition Customers { get; } = new()
    {
        Key = "days-to-pay",
        Title = "Days to pay",
        Subject = "Receivables and payables",
        Question = "How long does each customer take, and who is late?",
        Words = ["top", "debtors", "customers", "habits", "average", "late", "overdue", "collection", "slow", "payers"],
        Options =
        [
            ReportOptions.Period, ReportOptions.By, ReportOptions.Measure, ReportOptions.GroupBy, ReportOptions.Summary, ReportOptions.Only,
            ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Having, ReportOptions.Columns,
            ReportOptions.Sort, ReportOptions.Top, ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-12-months --top 10", "the ten that owe most"),
            ("--period fy2026 --sort -days-late", "the slowest first"),
            ("--period fy2026 --group-by contact.terms-days --by quarter", "by terms of payment, quarter by quarter"),
        ],
        Build = (context, request) => Build(Customers!, AccountType.Receivable, context, request),
    };

    /// <summary>Our own, with each supplier.</summary>
    public static ReportDefinition Suppliers { get; } = Customers with
    {
        Key = "days-to-pay-suppliers",
        Title = "Days to pay suppliers",
        Question = "How long do we take to pay each supplier?",
        Words = ["top", "creditors", "suppliers", "habits", "average", "late", "overdue", "slow"],
        Examples = [("--period last-12-months", "over the last year")],
        Build = (context, request) => Build(Suppliers!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(definition, context, request, type, range.To);
        var whole = Columns(report.History, range);
        var taken = report.Taken();
        var columns = new ItemSpread(context, request, report, taken).Over(range, DaysToPay, of => Columns(report.History, of));
        var (table, all) = (ItemTable.OfGroups(definition.Title, columns.All), ItemTable.OfGroups(definition.Title, whole));
        var largest = request.By is null && request.List.Measures.Count == 0 ? columns.All.PlaceOf(Open) : columns.Total;
        ItemReport.AddRows(report.Grouped(taken, table, largest, isShown: group => all.HasAny(group.Items, 4)), table, table.AddGroups);
        table.AddTotal();
        return table.Table.In(report.Frame(range)) with
        {
            Checks = report.TiesToControl([(range.To, all.SumOf(taken, whole.PlaceOf(Open)))]),
        };
    }

    private static FigureColumns<OwnFigure<ItemRow>> Columns(ControlHistory history, DateRange range)
    {
        var (columns, open) = (new FigureColumns<OwnFigure<ItemRow>>(), history.OpenAt(range.To));
        var habits = new PayingHabits(history, range.From, range.To);
        bool IsOwed(int item) => history[item].Total.Sign > 0;
        _ = columns.AddSum(
            "charged", "Charged", history, item => IsOwed(item) && range.Contains(history[item].Date) ? history[item].Total : Amount.Zero);
        _ = columns.AddSum("settled", "Settled", history, item => IsOwed(item) ? habits.Settled(item) : Amount.Zero);
        var owed = columns.FigureAt(columns.AddSum(Open, "Open", history, item => open[item]));
        var late = columns.FigureAt(
            columns.AddSum("overdue", "Overdue", history, item => IsOwed(item) && history[item].Due < range.To ? open[item] : Amount.Zero));
        columns.AddShare(new ReportColumn("share-overdue", "Share overdue", ColumnKind.Percent), late, ShareOf.Row, owed);
        columns.AddShare(new ReportColumn("share-of-column(open)", "Share of all open", ColumnKind.Percent), owed, ShareOf.Column, owed);
        _ = columns.Add(
            new ReportColumn(DaysToPay, "Days to pay", ColumnKind.Ratio),
            ItemFigure.Average("Days to pay", items => habits.Of(items.Where(IsOwed)).DaysToPay));
        _ = columns.Add(
            new ReportColumn("days-late", "Days late", ColumnKind.Ratio),
            ItemFigure.Average("Days late", items => habits.Of(items.Where(IsOwed)).DaysLate));
        return columns;
    }
}
