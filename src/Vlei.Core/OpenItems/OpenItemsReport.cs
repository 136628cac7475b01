using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Every document that is open on a day, as a list: what it came to, what was set against it, what is left.</summary>
public static class OpenItemsReport
{
    /// <summary>What customers have not settled, and what we have not settled with them.</summary>
    public static ReportDefinition Receivables { get; } = new()
    {
        Key = "open-receivables",
        Title = "Open receivables",
        Subject = "Receivables and payables",
        Question = "Which invoices, credits and receipts are open, and what was promised of them?",
        Words = ["customers", "debtors", "overdue", "late", "unpaid", "unapplied", "invoices", "call", "list", "promises", "disputes"],
        Options =
        [
            ReportOptions.AsOf, ReportOptions.AgeBy, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where,
            ReportOptions.Select, ReportOptions.Having, ReportOptions.Columns, ReportOptions.Sort,
            ReportOptions.Top, ReportOptions.Title,
        ],
        Examples =
        [
            ("--only days-late=31/ --sort -open", "whom to call, the largest first"),
            ("--as-of last-month --only kind=receipt", "money that was not applied at the end of last month"),
        ],
        Build = (context, request) => Build(Receivables!, AccountType.Receivable, context, request),
    };

    /// <summary>What we have not settled with suppliers, and they with us.</summary>
    public static ReportDefinition Payables { get; } = Receivables with
    {
        Key = "open-payables",
        Title = "Open payables",
        Question = "Which bills, credits and payments are open?",
        Words = ["suppliers", "creditors", "overdue", "late", "unpaid", "unapplied", "bills", "pay", "list"],
        Examples = [("--as-of today --sort due", "bills in the order in which they are due")],
        Build = (context, request) => Build(Payables!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var day = ItemReport.DayOf(context, request).Range.To;
        var report = new ItemReport(definition, context, request, type, day);
        var (history, aging) = (report.History, new Aging(report.History, day, request));
        var promises = new PromisedItems(context.Ledger, history, day, context.Known);
        var texts = new DocumentRows(context.Ledger);
        var items = report.Taken([aging]);
        var table = new ItemTable(definition.Title, Columns(history, aging, promises, texts), item => texts.Named(history[item]));
        var sorted = report.OrderedItems(items, table, "due");
        table.AddEach([.. sorted.Take(request.Top ?? sorted.Count)], 0);
        if (request.Top < sorted.Count)
        {
            table.AddGroup(RowOrder.Rest, RowOrder.RestLabel(sorted.Count - request.Top.Value), [.. sorted.Skip(request.Top.Value)]);
        }

        table.AddTotal();
        return table.Table.In(report.Frame($"As of {PeriodText.Words(day)}")) with
        {
            Checks = report.TiesToControl([(day, table.SumOf(items, table.Columns.PlaceOf("open")))]),
        };
    }

    private static FigureColumns<OwnFigure<ItemRow>> Columns(
        ControlHistory history, Aging aging, PromisedItems promises, DocumentRows texts)
    {
        var columns = new FigureColumns<OwnFigure<ItemRow>>();
        columns.AddFact("contact", "Contact", ColumnKind.Text, item => Cell.Of(texts.ContactName(history[item])));
        columns.AddFact("kind", "Kind", ColumnKind.Text, item => Cell.Of(DocumentKinds.Names[history[item].Kind - 1]));
        columns.AddDocument(history, aging);
        _ = columns.Add(ReportColumn.Sum("settled", "Settled") with { IsLeftOutWhenIdle = true }, ItemFigure.Sum(
            "Settled", item => history[item].Total - aging.Open(item), (item, sign) => history.AppliedOf(item, aging.Day, sign)));
        _ = columns.Add(ReportColumn.Sum("open", "Open"), ItemFigure.Sum(
            "Open", aging.Open, (item, sign) => history.OriginOf(item, aging.Day, sign)));
        promises.AddColumns(columns);
        if (promises.All.Count > 0)
        {
            columns.AddFact("promise", "Promise", ColumnKind.Text, item => Cell.Of(promises.InWords(item)));
        }

        return columns;
    }
}
