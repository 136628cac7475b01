using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
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
        Subject = "Receivables and payables",
        Question = "Who promised to pay what by when, was it kept, and what is disputed?",
        Words = ["collect", "call", "committed", "kept", "broken", "disputed", "customers", "suppliers", "pay"],
        Options = [ReportOptions.AsOf, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select,
            ReportOptions.Columns, ReportOptions.Title],
        Examples = [("--as-of today", "every promise, kept, broken or pending"),
            ("--only \"contact.name=Hester*\"", "those of one customer")],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var day = ItemReport.DayOf(context, request).Range.To;
        var reports = new[] { AccountType.Receivable, AccountType.Payable }
            .Select(type => new ItemReport(Definition, context, request, type, day)).ToList();
        var promises = reports.SelectMany(report => Taken(context, report, day)).OrderBy(row => row.Promised.Promise.Number).ToList();
        var rows = new FigureRows<PromiseRow>();
        rows.AddMany(promises.Count, place => promises[place].Promised.Promise.Number is var number
            ? new FigureRow<PromiseRow>($"{number}", $"{number}", RowKind.Record, 0, promises[place]) : default);
        var columns = Columns(new DocumentRows(context.Ledger), day);
        return new ReportTable<PromiseRow, OwnFigure<PromiseRow>>(Definition.Title, columns, rows, new OwnFigures<PromiseRow>())
            .In(reports[0].Frame($"As of {PeriodText.Words(day)}")) with
        {
            Notes = [.. context.NotesOnSettlements, .. promises.Count == 0 ? ["Nothing is noted: vlei promise --help says how."]
                : Array.Empty<string>()],
        };
    }

    private static IEnumerable<PromiseRow> Taken(ReportContext context, ItemReport report, DateOnly day)
    {
        var taken = report.Taken().ToHashSet();
        return new PromisedItems(context.Ledger, report.History, day).All.Where(promised => taken.Contains(promised.Item))
            .Select(promised => new PromiseRow(report.History, promised));
    }

    private static FigureColumns<OwnFigure<PromiseRow>> Columns(DocumentRows texts, DateOnly day)
    {
        var columns = new FigureColumns<OwnFigure<PromiseRow>>();
        Say("contact", "Contact", ColumnKind.Text, row => Cell.Of(texts.ContactName(row.Item)));
        Say("document", "Document", ColumnKind.Text, row => Cell.Of(texts.Named(row.Item).Label));
        Say("noted", "Noted", ColumnKind.Date, row => Cell.Of(row.Promise.Noted));
        Say("kind", "Kind", ColumnKind.Text, row => Cell.Of(row.Promise.IsDispute ? "dispute" : "promise"));
        Add("amount", "Amount", row => row.Promise.Amount.MinorUnits, AddWhole(row => row.Promise.Amount));
        Say("by", "By", ColumnKind.Date, row => row.Promise.By is { } by ? Cell.Of(by) : Cell.Empty);
        Say("state", "State", ColumnKind.Text, row => Cell.Of(Enum.GetName(row.Promised.State)!.ToLowerInvariant()));
        Add(
            "paid", "Paid", row => row.Promise.IsDispute ? null : row.Promised.Paid.MinorUnits,
            (row, _, records) => AddPaid(row, day, records));
        Add("standing", "Standing", row => row.Promised.Standing.MinorUnits, AddWhole(row => row.Promised.Standing));
        Say("note", "Note", ColumnKind.Text, row => Cell.Of(row.Promise.Note));
        return columns;

        void Say(string key, string heading, ColumnKind kind, Func<PromiseRow, Cell> of) =>
            columns.Add(new ReportColumn(key, heading, kind), OwnFigure<PromiseRow>.Said(of));
        void Add(string key, string heading, Func<PromiseRow, long?> of, Action<PromiseRow, int, OriginRecords> behind) =>
            columns.Add(new ReportColumn(key, heading, ColumnKind.Money), OwnFigure<PromiseRow>.Of(of, behind));
    }

    // What was said is of the item alone.
    private static Action<PromiseRow, int, OriginRecords> AddWhole(Func<PromiseRow, Amount> of) =>
        (row, _, records) => records.Items.Add(row.History.OriginOf(row.Promised.Item, null) with { Total = of(row) });

    // What was paid traces to what was set against the document, less what had been before.
    private static void AddPaid(PromiseRow row, DateOnly day, OriginRecords records)
    {
        var last = row.Promise.By < day ? row.Promise.By.Value : day;
        var before = row.Promise.Open - row.Item.Total;
        var items = row.History.AppliedOf(row.Promised.Item, last, 1) with { Total = before };
        records.Items.Add(items);
        records.Note = "Of this, what was promised counts; the first row is what had been settled before.";
        records.Figure = items.Settlements.Aggregate(before, (paid, settlement) => paid + settlement.Amount);
    }

    private readonly record struct PromiseRow(ControlHistory History, PromisedItem Promised)
    {
        public Promise Promise => Promised.Promise;

        public ControlItem Item => History[Promised.Item];
    }
}
