using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What contacts have committed to and what they dispute, and what has become of it by a day.</summary>
public static class PromisesReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "promises",
        Title = "Promises and disputes",
        Subject = "Who owes, who is owed",
        Question = "Who promised to pay what by when, was it kept, and what is disputed?",
        Words = ["collect", "call", "committed", "kept", "broken", "disputed", "customers", "suppliers", "pay"],
        Options = [ReportOptions.AsOf, ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Title],
        Examples = [("--as-of today", "every promise, kept, broken or pending"), ("--only \"contact.name=Hester*\"", "those of one customer")],
        Build = Build,
    };

    private static readonly IReadOnlyList<ReportColumn> Columns =
    [
        new("contact", "Contact", ColumnKind.Text), new("document", "Document", ColumnKind.Text),
        new("noted", "Noted", ColumnKind.Date), new("kind", "Kind", ColumnKind.Text),
        new("amount", "Amount", ColumnKind.Money), new("by", "By", ColumnKind.Date),
        new("state", "State", ColumnKind.Text), new("paid", "Paid", ColumnKind.Money),
        new("standing", "Standing", ColumnKind.Money), new("note", "Note", ColumnKind.Text),
    ];

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var day = ItemReport.DayOf(context, request).Range.To;
        var rows = new List<(ReportRow Row, ControlHistory History, PromisedItem Promised)>();
        var reports = new[] { AccountType.Receivable, AccountType.Payable }
            .Select(type => new ItemReport(Definition, context, request, type, day, [])).ToList();
        foreach (var report in reports)
        {
            var texts = new DocumentRows(context.Ledger);
            var taken = report.Taken().ToHashSet();
            rows.AddRange(new PromisedItems(context.Ledger, report.History, day).All
                .Where(promised => taken.Contains(promised.Item))
                .Select(promised => (RowOf(promised, report.History[promised.Item], texts), report.History, promised)));
        }

        var sorted = rows.OrderBy(row => row.Promised.Promise.Number).ToList();
        return reports[0].Frame($"As of {PeriodText.Words(day)}") with
        {
            Columns = Columns,
            Rows = [.. sorted.Select(row => row.Row)],
            Notes = [.. context.NotesOnSettlements, .. sorted.Count == 0 ? ["Nothing is noted: vlei promise --help says how."] : Array.Empty<string>()],
            OriginOf = (row, column) => sorted[row].Row.Cells[column].Units is null || Columns[column].Kind != ColumnKind.Money ? null
                : OriginOf(Columns[column].Key, sorted[row].History, sorted[row].Promised, day),
        };
    }

    private static ReportRow RowOf(PromisedItem promised, ControlItem item, DocumentRows texts)
    {
        var promise = promised.Promise;
        return new ReportRow($"{promise.Number}", $"{promise.Number}", RowKind.Record, 0,
        [
            Cell.Of(texts.ContactName(item)), Cell.Of(texts.Named(item).Label), Cell.Of(promise.Noted),
            Cell.Of(promise.IsDispute ? "dispute" : "promise"), Cell.Of(promise.Amount),
            promise.By is { } by ? Cell.Of(by) : Cell.Empty, Cell.Of(Enum.GetName(promised.State)!.ToLowerInvariant()),
            promise.IsDispute ? Cell.Empty : Cell.Of(promised.Paid), Cell.Of(promised.Standing), Cell.Of(promise.Note),
        ]);
    }

    // What was paid traces to what was set against the document, less what had been before; what was said is of the item alone.
    private static CellOrigin OriginOf(string column, ControlHistory history, PromisedItem promised, DateOnly day)
    {
        if (column != "paid")
        {
            return new CellOrigin(column == "amount" ? promised.Promise.Amount : promised.Standing, [])
            {
                Items = [history.OriginOf(promised.Item, null) with { Total = column == "amount" ? promised.Promise.Amount : promised.Standing }],
            };
        }

        var last = promised.Promise.By < day ? promised.Promise.By.Value : day;
        var before = promised.Promise.Open - history[promised.Item].Total;
        var items = history.AppliedOf(promised.Item, last, 1) with { Total = before };
        var sum = items.Settlements.Aggregate(before, (paid, settlement) => paid + settlement.Amount);
        return new CellOrigin(sum, [], "Of this, what was promised counts; the first row is what had been settled before.") { Items = [items] };
    }
}
