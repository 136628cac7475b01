using System.Collections.Immutable;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>
/// How well customers pay, over time: what was charged, what was settled and how long that took, what is open and late at
/// each period's end, and how many days of charges that is.
/// </summary>
public static class CollectionReport
{
    private const int TenThousandths = 10_000;

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "collection",
        Title = "Collection",
        Subject = "Receivables and payables",
        Question = "How fast do customers pay, and is it better now?",
        Words = ["days sales outstanding", "dso", "days to pay", "overdue", "late", "measures", "trend", "receivables", "debtors"],
        Options = [ReportOptions.Period, ReportOptions.By, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where,
            ReportOptions.Select, ReportOptions.Columns,
            ReportOptions.Title],
        Examples =
        [
            ("--period fiscal-year-to-date --by month", "month by month"),
            ("--period fy2026 --by quarter --only \"contact.name=L*\"", "some customers, quarter by quarter"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        if (request.By is { Field: not null })
        {
            throw new ProblemException(
                ProblemKind.Usage, "Collection has columns of time.",
                "Take --by month, or another unit; vlei show days-to-pay has a row per customer.");
        }

        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(Definition, context, request, AccountType.Receivable, range.To);
        IReadOnlyList<DateRange> pieces = request.By?.Unit is { } unit ? context.Calendar.Split(range, unit) : [range];
        var taken = report.Taken();
        var periods = pieces.Select(piece => new CollectionPeriod(report.History, taken, piece)).ToList();
        var (columns, rows) = (new FigureColumns<OwnFigure<CollectionRow>>(), new FigureRows<CollectionRow>());
        foreach (var period in periods)
        {
            _ = columns.Add(
                new ReportColumn(
                    PeriodText.Key(period.Range, context.Calendar), PeriodText.Heading(period.Range, context.Calendar),
                    ColumnKind.Money, period.Range),
                OwnFigure<CollectionRow>.Of(
                    row => row.Measure.Of(period).Units, (row, _, records) => period.AddBehind(row.Measure, records)));
        }

        foreach (var measure in CollectionPeriod.Measures)
        {
            rows.Add(
                new FigureRow<CollectionRow>(
                    measure.Key, Caption.Ours(measure.Label), RowKind.Account, 0, new CollectionRow(measure))
                { Shows = measure.Shows });
        }

        return new ReportTable<CollectionRow, OwnFigure<CollectionRow>>(
            Definition.Title, columns, rows, new OwnFigures<CollectionRow>()).In(report.Frame(range)) with
        {
            Checks = report.TiesToControl(periods.Select(period => (period.Range.To, period.Receivables))),
        };
    }

    /// <summary>Something that is measured of a period.</summary>
    /// <param name="Key">Its key.</param>
    /// <param name="Label">What it is called.</param>
    /// <param name="Shows">What its figures are.</param>
    /// <param name="Of">What it comes to.</param>
    /// <param name="Behind">What each document adds to it; nothing where it is worked out from others.</param>
    private sealed record Measure(
        string Key, string Label, ColumnKind Shows, Func<CollectionPeriod, Cell> Of, Func<CollectionPeriod, int, Amount>? Behind);

    private readonly record struct CollectionRow(Measure Measure);

    // What is measured of one period.
    private sealed class CollectionPeriod
    {
        private readonly ControlHistory _history;
        private readonly int[] _items;
        private readonly ImmutableArray<Amount> _open;
        private readonly PayingHabits _habits;
        private readonly Lazy<Sums> _sums;

        public CollectionPeriod(ControlHistory history, int[] items, DateRange range)
        {
            (_history, _items, Range, _open) = (history, items, range, history.OpenAt(range.To));
            (_habits, _sums) = (new PayingHabits(history, range.From, range.To), new Lazy<Sums>(Summed));
        }

        public static IReadOnlyList<Measure> Measures { get; } =
        [
            new(
                "charged", "Charged on account", ColumnKind.Money, period => Cell.Of(period._sums.Value.Charged),
                (period, item) => period.Charged(item)),
            new(
                "settled", "Settled", ColumnKind.Money, period => Cell.Of(period._sums.Value.Paid.Settled),
                (period, item) => period.Settled(item)),
            new(
                "receivables", "Receivables at the end", ColumnKind.Money, period => Cell.Of(period.Receivables),
                (period, item) => period._open[item]),
            new(
                "overdue", "Of which overdue", ColumnKind.Money, period => Cell.Of(period._sums.Value.Overdue),
                (period, item) => period.Overdue(item)),
            new(
                "share-overdue", "Share overdue", ColumnKind.Percent,
                period => Cell.Of(Percentage.Of(period._sums.Value.Overdue, period.Receivables)), null),
            new("days-sales-outstanding", "Days sales outstanding", ColumnKind.Ratio, period => period.DaysOutstanding, null),
            new("days-to-pay", "Average days to pay", ColumnKind.Ratio, period => new Cell(period._sums.Value.Paid.DaysToPay), null),
            new("days-late", "Average days late", ColumnKind.Ratio, period => new Cell(period._sums.Value.Paid.DaysLate), null),
        ];

        public DateRange Range { get; }

        public Amount Receivables => _sums.Value.Open;

        // Receivables at the end, over what was charged in the period, times its days.
        private Cell DaysOutstanding => _sums.Value.Charged is var charged && charged.Sign <= 0 ? Cell.Empty
            : new Cell(Rounding.Divide((Int128)Receivables.MinorUnits * Range.Days * TenThousandths, charged.MinorUnits));

        public void AddBehind(Measure measure, OriginRecords records)
        {
            if (measure.Behind is not { } behind)
            {
                records.Refuse($"{measure.Label} is worked out from other rows.", "Trace charged, settled, receivables or overdue.");
                return;
            }

            records.Items.AddRange(_items.Where(item => !behind(this, item).IsZero)
                .Select(item => _history.OriginOf(item, null) with { Total = behind(this, item) }));
        }

        private Amount Charged(int item) => Range.Contains(_history[item].Date) && _history[item].Total.Sign > 0 ? _history[item].Total
            : Amount.Zero;

        private Amount Settled(int item) => _history[item].Total.Sign > 0 ? _habits.Settled(item) : Amount.Zero;

        private Amount Overdue(int item) => _history[item].Total.Sign > 0 && _history[item].Due < Range.To ? _open[item] : Amount.Zero;

        private Sums Summed()
        {
            var (charged, paid, open, overdue) = (Amount.Zero, default(PaidTime), Amount.Zero, Amount.Zero);
            foreach (var item in _items)
            {
                // They are in the order of dates.
                if (_history[item].Date > Range.To)
                {
                    break;
                }

                (charged, open, overdue) = (charged + Charged(item), open + _open[item], overdue + Overdue(item));
                if (_history[item].Total.Sign > 0)
                {
                    _habits.AddTo(ref paid, item);
                }
            }

            return new Sums(charged, paid, open, overdue);
        }
    }

    // What all documents together come to in one period: every measure of it is asked for, and some of them twice.
    private sealed record Sums(Amount Charged, PaidTime Paid, Amount Open, Amount Overdue);
}
