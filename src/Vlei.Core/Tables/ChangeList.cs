using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>What imports have changed, as a list: what touches a closed period first, then by day.</summary>
public static class ChangeList
{
    private static readonly string[] Names = ["added", "changed", "removed", "settled", "unsettled"];

    /// <summary>Lists them.</summary>
    /// <param name="context">The book.</param>
    /// <param name="changes">What has changed.</param>
    /// <param name="closed">The periods that were reported.</param>
    /// <param name="since">The import that it is compared with.</param>
    public static Report Of(
        ReportContext context, IReadOnlyList<RecordChange> changes, IReadOnlyList<ClosedPeriod> closed, long since) => new()
        {
            Key = "changes",
            Title = $"What has changed since revision {since}",
            Book = context.Name,
            Currency = context.Currency,
            Basis = context.Basis,
            Period = context.Ledger.Extent,
            AsOf = null,
            PeriodInWords = $"Revision {since} to {context.Ledger.Revision}",
            Columns =
            [
                new("change", "Change", ColumnKind.Text), new("date", "Date", ColumnKind.Date),
                new("was-date", "Was", ColumnKind.Date), new("kind", "Kind", ColumnKind.Text),
                new("number", "Number", ColumnKind.Text), new("closed", "Closed", ColumnKind.Text),
                new("before", "Before", ColumnKind.Money), new("after", "After", ColumnKind.Money),
            ],
            Rows = [.. Ordered(changes, closed).Select(change => RowOf(context, change, closed))],
            Checks = [],
            Notes = changes.Count == 0 ? ["Nothing has changed."] : [],
            OriginOf = (_, _) => null,
            Revision = context.Ledger.Revision,
        };

    /// <summary>What a change is called.</summary>
    public static string NameOf(ChangeKind kind) => Names[(int)kind];

    /// <summary>The closed periods that any of the changes touches, oldest first.</summary>
    public static IEnumerable<ClosedPeriod> Touched(IReadOnlyList<RecordChange> changes, IReadOnlyList<ClosedPeriod> closed) =>
        closed.Where(period => changes.Any(change => change.Touches(period.Days))).OrderBy(period => period.Days.From);

    private static IEnumerable<RecordChange> Ordered(IReadOnlyList<RecordChange> changes, IReadOnlyList<ClosedPeriod> closed) => changes
        .OrderBy(change => closed.Any(period => change.Touches(period.Days)) ? 0 : 1)
        .ThenBy(change => change.Is ?? change.Was)
        .ThenBy(change => change.Id, CodeOrder.Instance);

    private static ReportRow RowOf(ReportContext context, RecordChange change, IReadOnlyList<ClosedPeriod> closed) => new(
        change.Id, change.Id, RowKind.Record, 0,
        [
            Cell.Of(NameOf(change.Kind)),
            (change.Is ?? change.Was) is { } day ? Cell.Of(day) : Cell.Empty,
            change.Was is { } was && change.Is is { } now && was != now ? Cell.Of(was) : Cell.Empty,
            Cell.Of(change.DocumentKind), Cell.Of(change.Number),
            Cell.Of(closed.FirstOrDefault(period => change.Touches(period.Days)) is { } period
                ? PeriodText.Key(period.Days, context.Calendar) : ""),
            change.Was is null ? Cell.Empty : Cell.Of(change.Before), change.Is is null ? Cell.Empty : Cell.Of(change.After),
        ]);
}
