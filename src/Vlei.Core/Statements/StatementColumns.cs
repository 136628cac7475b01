using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Where the figures of a column come from.</summary>
internal abstract record ColumnSource
{
    /// <summary>The postings of a stretch of time, or all up to a day.</summary>
    /// <param name="Figure">Which of a row's sums.</param>
    public sealed record Postings(int Figure) : ColumnSource;

    /// <summary>One column less another.</summary>
    public sealed record Change(int Current, int Earlier) : ColumnSource;

    /// <summary>The change as a percentage of the earlier column.</summary>
    public sealed record PercentChange(int Current, int Earlier) : ColumnSource;

    /// <summary>A column as a percentage of a total in the same column, or of the column that covers the whole period.</summary>
    public sealed record Percent(int Column, PercentOf Of) : ColumnSource;
}

/// <summary>
/// The columns that a request asks for: each period, its earlier ones each with the change, then its percentages; where
/// time is spread over columns, the total last, with the same behind it.
/// </summary>
internal sealed class StatementColumns
{
    private readonly FiscalCalendar _calendar;
    private readonly ReportRequest _request;
    private readonly DateOnly _firstRecord;
    private readonly StatementLayout _layout;
    private readonly List<DateRange> _ranges = [];
    private readonly List<ReportColumn> _columns = [];
    private readonly List<ColumnSource> _sources = [];

    private StatementColumns(FiscalCalendar calendar, ReportRequest request, DateOnly firstRecord, StatementLayout layout) =>
        (_calendar, _request, _firstRecord, _layout) = (calendar, request, firstRecord, layout);

    /// <summary>How many sums a row has.</summary>
    public int Figures => _sources.Count(source => source is ColumnSource.Postings);

    /// <summary>
    /// The stretches of time whose postings are needed: one for each figure (for a report of a moment, all days up to
    /// it), and behind those, where the layout rests on it, one for each figure again: the days before it, or, for a
    /// report of a moment, those of the fiscal years that ended before it.
    /// </summary>
    public IReadOnlyList<DateRange> Ranges => !_layout.RestsOnEarlier ? _ranges :
    [
        .. _ranges,
        .. _ranges.Select(range => new DateRange(_firstRecord, (_layout.IsOfMoment
            ? _calendar.UnitOf(TimeUnit.FiscalYear, range.To).From
            : range.From).AddDays(-1))),
    ];

    /// <summary>The columns.</summary>
    public IReadOnlyList<ReportColumn> Columns => _columns;

    /// <summary>Where the figures of each come from.</summary>
    public IReadOnlyList<ColumnSource> Sources => _sources;

    /// <summary>The place of the column that covers the whole period.</summary>
    public int Whole { get; private set; }

    /// <summary>Lays the columns out. Throws a <see cref="ProblemException"/> where options contradict each other.</summary>
    /// <param name="period">The period, or the stretch whose end is the moment.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="calendar">The book's calendar.</param>
    /// <param name="records">The first and the last day of the records.</param>
    /// <param name="layout">What the columns are for.</param>
    public static StatementColumns Of(
        Period period, ReportRequest request, FiscalCalendar calendar, DateRange records, StatementLayout layout)
    {
        if (request.Change && request.Compare.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--change needs something to compare with.", "Add --compare prior-period or --compare prior-year.");
        }

        if (request.Percent.Contains(PercentOf.Row) && layout.IsOfMoment)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                "--percent row is a share of the row's total across columns, and balances of different days do not add up.",
                "Take --percent assets.");
        }

        if (request.Percent.Contains(PercentOf.Row) && request.By is null)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                "--percent row is a share of the row's total across columns, and there is only one column.",
                "Add --by month, or another unit.");
        }

        var columns = new StatementColumns(calendar, request, records.From, layout);
        IReadOnlyList<DateRange> pieces = request.By is { } unit ? calendar.Split(period.Range, unit) : [period.Range];
        var earlier = request.Compare
            .SelectMany(comparison => comparison.Earlier(period, pieces, request.By, calendar, records))
            .ToList();
        for (var piece = 0; piece < pieces.Count; piece++)
        {
            columns.Whole = columns.AddGroup(
                columns.TimeColumn(pieces[piece]), pieces[piece],
                [.. earlier.Select(cut => (columns.TimeColumn(cut[piece]), cut[piece]))]);
        }

        if (request.By is not null && !layout.IsOfMoment)
        {
            var total = new ReportColumn("total", "Total", ColumnKind.Money, period.Range);
            columns.Whole = columns.AddGroup(total, period.Range, [.. earlier.Select(columns.EarlierTotal)]);
        }

        return columns;
    }

    private ReportColumn TimeColumn(DateRange range) => !_layout.IsOfMoment
        ? new ReportColumn(PeriodText.Key(range, _calendar), PeriodText.Heading(range, _calendar), ColumnKind.Money, range)
        : new ReportColumn(
            PeriodText.Iso(range.To), PeriodText.Heading(range.To), ColumnKind.Money, new DateRange(range.To, range.To));

    private (ReportColumn, DateRange) EarlierTotal(IReadOnlyList<DateRange> pieces)
    {
        var whole = new DateRange(pieces[0].From, pieces[^1].To);
        return (new ReportColumn(
            $"total({PeriodText.Key(whole, _calendar)})", $"Total {PeriodText.Heading(whole, _calendar)}",
            ColumnKind.Money, whole), whole);
    }

    // A period, and what is said about it. Returns the place of the period's own column.
    private int AddGroup(ReportColumn column, DateRange range, IReadOnlyList<(ReportColumn Column, DateRange Range)> earlier)
    {
        var current = AddPostings(column, range);
        foreach (var (earlierColumn, earlierRange) in earlier)
        {
            var compared = AddPostings(earlierColumn with { Tie = ColumnTie.Compared }, earlierRange);
            if (_request.Change)
            {
                var pair = $"({column.Key},{earlierColumn.Key})";
                Add(
                    new ReportColumn($"change{pair}", "Change", ColumnKind.Money) { IsChange = true, Tie = ColumnTie.About },
                    new ColumnSource.Change(current, compared));
                Add(
                    new ReportColumn($"percent-change{pair}", "%", ColumnKind.Percent) { IsChange = true, Tie = ColumnTie.About },
                    new ColumnSource.PercentChange(current, compared));
            }
        }

        foreach (var percent in _request.Percent.Distinct())
        {
            var name = ReportOptions.Percent.Words[(int)percent];
            Add(
                new ReportColumn($"percent-{name}({column.Key})", $"% of {name}", ColumnKind.Percent) { Tie = ColumnTie.About },
                new ColumnSource.Percent(current, percent));
        }

        return current;
    }

    private int AddPostings(ReportColumn column, DateRange range)
    {
        _ranges.Add(_layout.IsOfMoment ? new DateRange(_firstRecord < range.To ? _firstRecord : range.To, range.To) : range);
        return Add(column, new ColumnSource.Postings(_ranges.Count - 1));
    }

    private int Add(ReportColumn column, ColumnSource source)
    {
        _columns.Add(column);
        _sources.Add(source);
        return _columns.Count - 1;
    }
}
