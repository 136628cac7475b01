using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>What each column of a period shows, and of which postings.</summary>
/// <param name="IsOfMoment">Whether columns are balances as of a day.</param>
/// <param name="Source">What kind of postings.</param>
/// <param name="Measures">The columns of one period; the last is the one that changes are told of.</param>
internal sealed record StatementShape(bool IsOfMoment, PostingSource Source, IReadOnlyList<StatementMeasure> Measures)
{
    /// <summary>A statement with one column per period.</summary>
    public static StatementShape Single(bool isOfMoment, PostingSource source) =>
        new(isOfMoment, source, [new StatementMeasure("", "", !isOfMoment, 0)]);
}

/// <summary>One of the columns of a period.</summary>
/// <param name="Key">The name that is typed; empty where there is only one.</param>
/// <param name="Heading">What is read above it.</param>
/// <param name="AddsUpOverTime">Whether those of shorter periods add up to that of the whole.</param>
/// <param name="SignInLast">How often it counts in the last of them, 0 for not.</param>
internal sealed record StatementMeasure(string Key, string Heading, bool AddsUpOverTime, int SignInLast);

/// <summary>What a column adds up, for each span.</summary>
internal sealed record ColumnFigures(Figure Days, Figure Before, Figure EarlierYears)
{
    /// <summary>The figure of a span.</summary>
    public Figure Of(Span span) => span switch
    {
        Span.Days => Days,
        Span.Before => Before,
        _ => EarlierYears,
    };
}

/// <summary>A figure of a statement: some postings, added up as a row says.</summary>
/// <param name="Heading">What the column is called, where what is behind a figure is listed.</param>
/// <param name="Of">The postings.</param>
/// <param name="Measure">Which of a row's sums.</param>
internal sealed record PostedFigure(string Heading, ColumnFigures Of, int Measure);

/// <summary>
/// The columns that a request asks for: each period, its earlier ones each with the change, then its percentages; where
/// time or a field is spread over columns, the total last, with the same behind it.
/// </summary>
internal sealed class StatementColumns
{
    private readonly ReportContext _context;
    private readonly ReportRequest _request;
    private readonly StatementShape _shape;
    private readonly FigureColumns<PostedFigure> _columns = new();

    private readonly List<int> _own = [];
    private PostedFigure? _whole;

    private StatementColumns(ReportContext context, ReportRequest request, StatementShape shape) =>
        (_context, _request, _shape) = (context, request, shape);

    /// <summary>The columns.</summary>
    public FigureColumns<PostedFigure> Columns => _columns;

    /// <summary>The columns that add postings up, with their places.</summary>
    public IEnumerable<(int Place, PostedFigure Figure)> Posted
    {
        get
        {
            for (var place = 0; place < _columns.Count; place++)
            {
                if (_columns[place] is FigureColumn<PostedFigure>.Base)
                {
                    yield return (place, _columns.FigureAt(place));
                }
            }
        }
    }

    /// <summary>The place of the column that covers the whole.</summary>
    public int Whole { get; private set; }

    /// <summary>What readers are told of columns that are left out.</summary>
    public IReadOnlyList<string> Notes { get; private set; } = [];

    /// <summary>Lays the columns out. Throws a <see cref="ProblemException"/> where options contradict each other.</summary>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="shape">What the columns of a period are.</param>
    /// <param name="slicedBy">The field that columns are spread over.</param>
    /// <param name="places">The places of the values of that field that have columns.</param>
    public static StatementColumns Of(
        ReportContext context, ReportRequest request, StatementShape shape, Slicing? slicedBy, IReadOnlyList<int> places)
    {
        Refuse(request, shape);
        var columns = new StatementColumns(context, request, shape);
        var period = context.PeriodOf(request);
        var unit = request.By?.Unit;
        IReadOnlyList<DateRange> pieces = unit is { } by ? context.Calendar.Split(period.Range, by) : [period.Range];
        columns._whole = new PostedFigure(
            "", FiguresOf(context, shape.IsOfMoment, shape.Source, period.Range, null), shape.Measures.Count - 1);
        var compared = ComparedPeriods.Of(context, request, period, pieces, unit, shape.IsOfMoment);
        columns.Notes = compared.Notes;
        var earlier = compared.Earlier.Select(cut => new Earlier(cut.Pieces, cut.IsBudget)).ToList();
        if (slicedBy is not null)
        {
            foreach (var place in places)
            {
                columns.AddSlice(slicedBy.Field, slicedBy.Values[place], place, period.Range, earlier);
            }
        }
        else
        {
            for (var piece = 0; piece < pieces.Count; piece++)
            {
                columns.AddPeriod(pieces[piece], [.. earlier.Select(cut => cut with { Pieces = [cut.Pieces[piece]] })]);
            }
        }

        if (slicedBy is not null || (unit is not null && !shape.IsOfMoment))
        {
            var own = columns._own.ToList();
            columns.AddTotal(period.Range, earlier);
            foreach (var (measure, known) in shape.Measures.Index())
            {
                var fromLast = shape.Measures.Count - 1 - measure;
                if (slicedBy is not null || known.AddsUpOverTime)
                {
                    columns._columns.AddUp(columns.Whole - fromLast, own.Select(place => place - fromLast));
                }
            }
        }

        return columns;
    }

    /// <summary>What is added up for the days of a range.</summary>
    public static ColumnFigures FiguresOf(
        ReportContext context, bool isOfMoment, PostingSource source, DateRange range, int? slice)
    {
        var first = context.Records.From < range.From ? context.Records.From : range.From;
        var year = context.Calendar.UnitOf(TimeUnit.FiscalYear, isOfMoment ? range.To : range.From).From;
        return new ColumnFigures(
            new Figure(
                source, isOfMoment ? new DateRange(context.Records.From < range.To ? context.Records.From : range.To, range.To) : range,
                slice),
            new Figure(source, new DateRange(first, range.From.AddDays(-1)), slice),
            new Figure(source, new DateRange(first, year.AddDays(-1)), slice));
    }

    private static void Refuse(ReportRequest request, StatementShape shape)
    {
        if (request.HasBothBases && (request.Compare.Count > 0 || shape.Source == PostingSource.Money))
        {
            throw new ProblemException(
                ProblemKind.Usage, shape.Source == PostingSource.Money ? "Movements of money are the same on both bases."
                    : "--basis both has a column beside each already, and so has --compare.",
                shape.Source == PostingSource.Money ? "Leave out --basis both." : "Take one of the two, with --basis accrual or cash.");
        }

        if (request.Change && request.Compare.Count == 0 && !request.HasBothBases)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--change needs something to compare with.", "Add --compare prior-period or --compare prior-year.");
        }

        if (!request.Shares.Contains(ShareOf.Row))
        {
            return;
        }

        if (shape.IsOfMoment && request.By?.Field is null)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                "--share row is a share of the row's total across columns, and balances of different days do not add up.",
                "Take --share assets, or spread the columns over a field: --by project.");
        }

        if (request.By is null)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                "--share row is a share of the row's total across columns, and there is only one column.",
                "Add --by month, or another unit.");
        }
    }

    private void AddPeriod(DateRange range, IReadOnlyList<Earlier> earlier)
    {
        var own = TimeColumn(range);
        Whole = AddGroup(own, range, null, earlier, other => TimeColumn(other.Whole));
    }

    private void AddSlice(TableField field, FieldValue value, int place, DateRange range, IReadOnlyList<Earlier> earlier)
    {
        AddGroup(
            new ReportColumn(
                value.Id, place == 0 ? $"No {field.Heading.ToLowerInvariant()}" : value.Name, ColumnKind.Money, RangeOf(range)),
            range, place, earlier, other => Named(other, value.Id, ""));
    }

    private void AddTotal(DateRange range, IReadOnlyList<Earlier> earlier) => Whole = AddGroup(
        new ReportColumn("total", "Total", ColumnKind.Money, RangeOf(range)), range, null, earlier,
        other => Named(other, "total", "Total "));

    private ReportColumn TimeColumn(DateRange range) =>
        new(KeyOf(range), HeadingOf(range), ColumnKind.Money, RangeOf(range));

    private ReportColumn Named(Earlier other, string id, string prefix) => new(
        $"{id}({KeyOf(other.Whole)})", $"{prefix}{HeadingOf(other.Whole)}", ColumnKind.Money, RangeOf(other.Whole));

    private string KeyOf(DateRange range) =>
        _shape.IsOfMoment ? PeriodText.Iso(range.To) : PeriodText.Key(range, _context.Calendar);

    private string HeadingOf(DateRange range) =>
        _shape.IsOfMoment ? PeriodText.Heading(range.To) : PeriodText.Heading(range, _context.Calendar);

    private DateRange RangeOf(DateRange range) => _shape.IsOfMoment ? new DateRange(range.To, range.To) : range;

    // A period, and what is said about it. Returns the place of the period's own column; of several, of the last.
    private int AddGroup(
        ReportColumn column, DateRange range, int? slice, IReadOnlyList<Earlier> earlier, Func<Earlier, ReportColumn> columnOf)
    {
        if (_request.HasBothBases)
        {
            return AddBases(column, range, slice);
        }

        var current = AddMeasures(column, FiguresOf(_context, _shape.IsOfMoment, _shape.Source, range, slice));
        foreach (var other in earlier)
        {
            var earlierColumn = other.IsBudget
                ? new ReportColumn($"budget({column.Key})", "Budget", ColumnKind.Money, RangeOf(other.Whole))
                : columnOf(other);
            var compared = AddMeasures(
                earlierColumn with { Tie = ColumnTie.Compared },
                FiguresOf(_context, _shape.IsOfMoment, other.IsBudget ? PostingSource.Budget : _shape.Source, other.Whole, slice));
            if (_request.Change)
            {
                _columns.AddChange(current, compared);
            }
        }

        _columns.AddShares(current, _request.Shares, _whole!);
        _own.Add(current);
        return current;
    }

    // What was invoiced beside what was paid; that the one is more than the other is no change, but what makes them differ.
    private int AddBases(ReportColumn column, DateRange range, int? slice)
    {
        int Add(string basis, PostingSource source, ColumnTie tie) => AddMeasures(
            column with { Key = $"{basis}({column.Key})", Heading = $"{column.Heading} {basis}", Tie = tie },
            FiguresOf(_context, _shape.IsOfMoment, source, range, slice));
        var accrual = Add("accrual", PostingSource.Accrual, ColumnTie.None);
        var cash = Add("cash", PostingSource.Cash, ColumnTie.Compared);
        if (_request.Change)
        {
            _columns.AddChange(accrual, cash, isOfBases: true);
        }

        _columns.AddShares(accrual, _request.Shares, _whole!);
        _own.Add(accrual);
        return accrual;
    }

    private int AddMeasures(ReportColumn column, ColumnFigures figures)
    {
        var alone = _request.By is null && _request.Compare.Count == 0 && !_request.HasBothBases;
        for (var measure = 0; measure < _shape.Measures.Count; measure++)
        {
            var (key, heading, _, _) = _shape.Measures[measure];
            var shown = key.Length == 0 ? column
                    : alone ? column with { Key = key, Heading = heading, Range = null }
                    : column with
                    {
                        Key = $"{key}({column.Key})",
                        Heading = $"{column.Heading} {char.ToLowerInvariant(heading[0])}{heading[1..]}",
                        Tie = measure > 0 ? ColumnTie.About : column.Tie,
                    };
            _ = _columns.Add(shown with { AddsUp = true }, new PostedFigure(shown.Heading, figures, measure));
        }

        var (last, parts) = (_columns.Count - 1, _shape.Measures.Index().Where(known => known.Item.SignInLast != 0));
        if (_shape.Measures.Count > 1)
        {
            _columns.AddUp(last, parts.Select(known => (last - _shape.Measures.Count + 1 + known.Index, known.Item.SignInLast)));
        }

        return last;
    }

    // What a period is compared with, cut as it is.
    private sealed record Earlier(IReadOnlyList<DateRange> Pieces, bool IsBudget)
    {
        public DateRange Whole => new(Pieces[0].From, Pieces[^1].To);
    }
}
