using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>
/// The control accounts as a trial balance of contacts: per contact the balance at the start of a period, what was charged
/// and settled within it, and the balance at its end.
/// </summary>
public static class ContactBalancesReport
{
    /// <summary>Those of customers.</summary>
    public static ReportDefinition Customers { get; } = new()
    {
        Key = "customer-balances",
        Title = "Customer balances",
        Subject = "Receivables and payables",
        Question = "What did customers owe, and what came and went?",
        Words = ["debtors", "receivables", "opening", "activity", "closing", "trial", "balance", "control", "reconcile"],
        Options =
        [
            ReportOptions.Period, ReportOptions.By, ReportOptions.Measure, ReportOptions.GroupBy, ReportOptions.Summary, ReportOptions.Only,
            ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Having, ReportOptions.Columns,
            ReportOptions.Sort, ReportOptions.Top, ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month", "opening, activity and closing of every customer"),
            ("--period fiscal-year-to-date --sort -debit --top 10", "whom most was charged to"),
            ("--period 2026 --by month --measure debit,credit", "what was charged and settled, month by month"),
        ],
        Build = (context, request) => Build(Customers!, AccountType.Receivable, context, request),
    };

    /// <summary>Those of suppliers.</summary>
    public static ReportDefinition Suppliers { get; } = Customers with
    {
        Key = "supplier-balances",
        Title = "Supplier balances",
        Question = "What did we owe suppliers, and what came and went?",
        Words = ["creditors", "payables", "opening", "activity", "closing", "trial", "balance", "control", "reconcile"],
        Examples = [("--period last-month", "opening, activity and closing of every supplier")],
        Build = (context, request) => Build(Suppliers!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(definition, context, request, type, range.To);
        var (history, whole) = (report.History, Columns(report.History, range));
        var taken = report.Taken();
        var columns = new ItemSpread(context, request, report, taken).Over(range, "closing", of => Columns(history, of));
        var table = ItemTable.OfGroups(definition.Title, columns.All);
        var all = ItemTable.OfGroups(definition.Title, whole);
        ItemReport.AddRows(
            report.Grouped(taken, table, columns.Total, isShown: group => all.HasAny(group.Items, whole.Count)), table, table.AddGroups);
        table.AddTotal();
        return report.OfBalances(table.Table.In(report.Frame(range)) with
        {
            Checks = report.TiesToControl(
                [(range.From.AddDays(-1), all.SumOf(taken, 0)), (range.To, all.SumOf(taken, whole.PlaceOf("closing")))]),
        });
    }

    // What is owed, to us or by us, is positive at either end; debit and credit are both positive.
    private static FigureColumns<OwnFigure<ItemRow>> Columns(ControlHistory history, DateRange range)
    {
        var columns = new FigureColumns<OwnFigure<ItemRow>>();
        bool IsWithin(int item) => history[item].Date >= range.From;
        var posted = history.PostedIn(range);
        _ = columns.AddSum("opening", "Opening", history, item => IsWithin(item) ? Amount.Zero : history[item].Total);
        _ = columns.AddSum("debit", "Debit", history, item => posted[item].Debit);
        _ = columns.AddSum("credit", "Credit", history, item => posted[item].Credit);
        _ = columns.AddSum("closing", "Closing", history, item => history[item].Date <= range.To ? history[item].Total : Amount.Zero);
        return columns;
    }
}
