using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>
/// The sums behind a statement: what each column adds up, what a row comes to in it, and which postings are behind that.
/// </summary>
internal sealed class StatementFigures : IFigures<TermSums, PostedFigure>
{
    private readonly ReportContext _context;
    private readonly StatementShape _shape;
    private readonly Slicing? _slicedBy;
    private readonly FigureSums _sums;
    private readonly Dictionary<int, (Selection Taken, Selection Carried)> _filters = [];
    private FigureSums _carried;

    private StatementFigures(
        ReportContext context, StatementShape shape, Selection filter, Slicing? slicedBy, FigureSums sums, StatementColumns columns) =>
        (_context, _shape, Filter, _slicedBy, _sums, _carried, Columns) = (context, shape, filter, slicedBy, sums, sums, columns);

    /// <summary>The columns.</summary>
    public StatementColumns Columns { get; }

    /// <summary>Which postings are taken at all.</summary>
    public Selection Filter { get; }

    /// <summary>How many minor units the currency has to one; formulas count in whole ones.</summary>
    public decimal MinorUnitsInOne => Enumerable.Repeat(10m, _context.Currency.Decimals).Aggregate(1m, (product, ten) => product * ten);

    /// <summary>Whether columns are spread over a field.</summary>
    public bool IsSliced => _slicedBy is not null;

    /// <summary>
    /// Lays out the columns and adds up what they need. Throws a <see cref="ProblemException"/> where options contradict
    /// each other, and <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="shape">What the columns of a period are.</param>
    /// <param name="shows">Which accounts are looked at to see if a value of a field has a column.</param>
    /// <param name="spans">The spans that rows rest on.</param>
    public static StatementFigures Of(
        ReportContext context, ReportRequest request, StatementShape shape, Func<Account, bool> shows, IReadOnlyCollection<Span> spans)
    {
        var fields = new PostingFields(context, request);
        var filter = fields.Select(request.Choices, request.Where);
        var slicedBy = request.By?.Field is { } name ? fields.Spread(name) : null;
        RefuseBudget(request, shape, filter, slicedBy);
        IReadOnlyList<int> places = slicedBy is null ? [] : [.. Enumerable.Range(0, slicedBy.Values.Count)];
        var candidates = StatementColumns.Of(context, request, shape, slicedBy, places);
        var needed = candidates.Posted.SelectMany(column => spans.Select(column.Figure.Of.Of))
            .Concat(shape.Source == PostingSource.Money ? CheckedAgainst(context, candidates) : []);
        var sums = FigureSums.Of(context.Ledger, [.. needed], filter, slicedBy);
        var carried = spans.Contains(Span.Carried) && filter.IsEverything ? sums : FigureSums.Of(
            context.Ledger, [.. candidates.Posted.Select(column => column.Figure.Of.Of(Span.Carried))
                .Where(_ => spans.Contains(Span.Carried))], filter.WithoutAccounts(), slicedBy);
        if (slicedBy is null)
        {
            return new StatementFigures(context, shape, filter, slicedBy, sums, candidates) { _carried = carried };
        }

        var accounts = context.Ledger.Accounts.Where(shows).ToList();
        var moved = candidates.Posted.SelectMany(column => spans.Select(column.Figure.Of.Of))
            .Where(figure => figure.Slice is not null && accounts.Any(account =>
                !sums.Debit(figure, account.Key).IsZero || !sums.Credit(figure, account.Key).IsZero))
            .Select(figure => figure.Slice!.Value).ToHashSet();
        var shown = places.Where(moved.Contains).Order(Comparer<int>.Create((left, right) => (left == 0, right == 0) switch
        {
            (false, false) => CodeOrder.Instance.Compare(slicedBy.Values[left].Id, slicedBy.Values[right].Id),
            var (first, second) => first.CompareTo(second),
        }));
        return new StatementFigures(
            context, shape, filter, slicedBy, sums,
            StatementColumns.Of(context, request, shape, slicedBy, [.. shown]))
        { _carried = carried };
    }

    /// <summary>The rows that percentages are taken of.</summary>
    public Dictionary<ShareOf, TermSums> Wholes { get; } = [];

    /// <inheritdoc/>
    public long? At(in TermSums row, PostedFigure figure) => Of(row.ByMeasure[figure.Measure], figure.Of).MinorUnits;

    /// <inheritdoc/>
    public TermSums? WholeOf(ShareOf whole) => Wholes.TryGetValue(whole, out var sums) ? sums : null;

    /// <inheritdoc/>
    public string InWords(FigureColumn<PostedFigure>.Share share) => share.Of switch
    {
        ShareOf.Income => "total income",
        ShareOf.Assets => "total assets",
        ShareOf.Column => "the last row of the column",
        ShareOf.Row => "the row's total",
        _ => "the total of its group",
    };

    /// <inheritdoc/>
    public void AddBehind(TermSums row, PostedFigure figure, int sign, OriginRecords records) =>
        records.Parts.AddRange(PartsOf(row, figure, sign));

    /// <summary>What a row comes to in a column of postings.</summary>
    public Amount Of(TermSums row, int column) =>
        Of(row.ByMeasure[Columns.Columns.FigureAt(column).Measure], Columns.Columns.FigureAt(column).Of);

    /// <summary>What terms come to in some days.</summary>
    public Amount Of(Term[] terms, ColumnFigures figures)
    {
        var total = Amount.Zero;
        foreach (var term in terms)
        {
            var figure = figures.Of(term.Span);
            var sums = term.Span == Span.Carried ? _carried : _sums;
            var amount = term.Side switch
            {
                PostingSide.Debit => sums.Debit(figure, term.Account),
                PostingSide.Credit => sums.Credit(figure, term.Account),
                _ => sums.Net(figure, term.Account),
            };
            total = term.Sign switch
            {
                1 => total + amount,
                -1 => total - amount,
                _ => total + new Amount(checked(term.Sign * amount.MinorUnits)),
            };
        }

        return total;
    }

    /// <summary>Whether a row comes to anything in any column.</summary>
    public bool Has(TermSums row) => Columns.Posted.Any(column => At(row, column.Figure) != 0);

    /// <summary>The columns that add up postings of the ledger, all of them: what checks are about.</summary>
    public IEnumerable<int> WholeColumns => Columns.Posted
        .Where(column => column.Figure.Of.Days is { Slice: null, Source: not PostingSource.Budget }).Select(column => column.Place);

    /// <summary>The days of a column, with the postings of the accrual basis.</summary>
    public ColumnFigures AccrualFigures(int column) => AccrualOf(_context, Columns.Columns.FigureAt(column).Of);

    /// <summary>The postings behind a row in a column, in pieces that do not overlap, oldest first.</summary>
    public IEnumerable<OriginPart> PartsOf(TermSums row, PostedFigure figure, int sign)
    {
        var figures = figure.Of;
        var terms = row.ByMeasure[figure.Measure];
        var (filter, carried) = FiltersOf(figures.Days.Slice);
        var yearStart = figures.EarlierYears.Range.To.AddDays(1);
        var to = figures.Days.Range.To;
        var from = _shape.IsOfMoment ? yearStart : figures.Days.Range.From;
        var first = figures.Before.Range.From < figures.Days.Range.From ? figures.Before.Range.From : figures.Days.Range.From;
        (DateRange Days, Span[] Spans, bool IsForward, Selection Filter)[] pieces =
        [
            (new DateRange(first, yearStart.AddDays(-1)), _shape.IsOfMoment
                ? [Span.Days, Span.EarlierYears] : [Span.Before, Span.EarlierYears], true, filter),
            (new DateRange(first, yearStart.AddDays(-1)), [Span.Carried], true, carried),
            (new DateRange(yearStart, from.AddDays(-1)), [Span.Before], false, filter),
            (new DateRange(from > first ? from : first, to), [Span.Days], false, filter),
        ];
        foreach (var (days, spans, isForward, taken) in pieces)
        {
            var counted = terms.Where(term => spans.Contains(term.Span))
                .GroupBy(term => (term.Account, term.Side))
                .Select(same => new OriginTerm(same.Key.Account, same.Key.Side, sign * same.Sum(term => term.Sign)))
                .Where(term => term.Sign != 0).ToList();
            if (!days.IsEmpty && counted.Count > 0)
            {
                yield return new OriginPart(figure.Heading, figures.Days.Source, days, counted, taken)
                {
                    IsBroughtForward = isForward,
                };
            }
        }
    }

    // What is taken for a column, and what of it is carried forward: one of each, so that it is seen where figures take the same.
    private (Selection Taken, Selection Carried) FiltersOf(int? slice)
    {
        if (!_filters.TryGetValue(slice ?? -1, out var filters))
        {
            var taken = _slicedBy is not null && slice is { } place ? Filter.And(_slicedBy, place) : Filter;
            _filters[slice ?? -1] = filters = (taken, taken.WithoutAccounts());
        }

        return filters;
    }

    private static void RefuseBudget(ReportRequest request, StatementShape shape, Selection filter, Slicing? slicedBy)
    {
        if (request.Compare.All(comparison => comparison.Kind != ComparisonKind.Budget))
        {
            return;
        }

        if (shape.IsOfMoment || shape.Source == PostingSource.Money || shape.Measures.Count > 1)
        {
            throw new ProblemException(
                ProblemKind.Usage, "A budget plans income and costs month by month, so only a profit and loss compares with it.",
                "Leave out --compare budget, or show profit-loss.");
        }

        PostingField[] known = [PostingField.Account, PostingField.Project, PostingField.Department];
        if (filter.Columns is not { } columns || (slicedBy is not null && slicedBy.Columns is null)
            || columns.Concat(slicedBy?.Columns ?? []).Any(column => !known.Contains(column)))
        {
            throw new ProblemException(
                ProblemKind.Usage, "A budget is by account, project and department; of other fields it says nothing.",
                "Narrow and spread by those, or leave out --compare budget.");
        }
    }

    private static IEnumerable<Figure> CheckedAgainst(ReportContext context, StatementColumns columns) =>
        columns.Posted.Select(column => AccrualOf(context, column.Figure.Of))
            .SelectMany(figures => new[] { figures.Days, figures.Before });

    private static ColumnFigures AccrualOf(ReportContext context, ColumnFigures figures) => StatementColumns.FiguresOf(
        context, isOfMoment: false, PostingSource.Accrual, figures.Days.Range, figures.Days.Slice);
}
