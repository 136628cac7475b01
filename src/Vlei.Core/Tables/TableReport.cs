using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// Any table as a report: a list of its records, grouped, totalled and sorted, a summary of groups, or a cross-table.
/// </summary>
public sealed class TableReport
{
    private readonly string _key;
    private readonly string _title;
    private readonly TableDefinition _table;
    private readonly ReportContext _context;
    private readonly ReportRequest _request;
    private readonly TableContext _tableContext;
    private readonly Period _period;
    private readonly List<TableSpan> _periods;
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly ReportTable<TableRow, TableFigure> _rows;
    private IReadOnlyList<string> _notes = [];

    private TableReport(string key, string title, TableDefinition table, ReportContext context, ReportRequest request)
    {
        (_key, _title, _table, _context, _request) = (key, request.Title ?? title, table, context, request);
        _tableContext = ContextOf(table, context, request);
        _period = table.IsOfMoment
            ? new Period((request.Period ?? new OpenPeriod(context.Today.Date, context.Today.Date)).Within(context.Records).Range)
            : table.Extent is { } extent ? (request.Period ?? new OpenPeriod(null, null)).Within(extent(_tableContext))
            : context.PeriodOf(request);
        _plan = new TablePlan(table, _tableContext, request);
        _periods = Periods();
        _scan = new TableScan(_title, table, _tableContext, _plan, _periods);
        var columns = new TableColumns(_plan, _scan, request, _periods);
        var records = new RecordWindow(table, _plan, _scan, columns.Columns);
        var figures = new TableFigures(table, _periods, _plan, _scan, records);
        var rows = TableRows.Of(_title, table, _plan, _scan, columns, figures, records, request);
        _rows = new ReportTable<TableRow, TableFigure>(_title, columns.Columns, rows, figures);
    }

    /// <summary>The options that a table takes.</summary>
    public static IReadOnlyList<ReportOption> OptionsOf(TableDefinition table) =>
    [
        table.IsOfMoment ? ReportOptions.AsOf : ReportOptions.Period, .. table.HasBasis ? new[] { ReportOptions.Basis } : [],
        ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Where, ReportOptions.Having, ReportOptions.Columns,
        ReportOptions.GroupBy, ReportOptions.Total,
        ReportOptions.By, ReportOptions.Measure, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Explain, ReportOptions.Share,
        ReportOptions.Summary, ReportOptions.Depth, ReportOptions.Sort, ReportOptions.Top, ReportOptions.Title,
    ];

    /// <summary>A table as it is, as a report of its own name.</summary>
    public static ReportDefinition Of(TableDefinition table) => new()
    {
        Key = table.Name,
        Title = TableField.HeadingOf(table.Name),
        Subject = "Tables",
        Question = table.Meaning,
        Words = ["list", "records", "table", .. table.Fields.Select(field => field.Name)],
        Options = OptionsOf(table),
        Examples = table.Examples,
        Table = table,
        Build = (context, request) => Build(table.Name, TableField.HeadingOf(table.Name), table, context, request),
    };

    /// <summary>Builds it. Throws a <see cref="ProblemException"/> where the request makes no sense.</summary>
    /// <param name="key">The key of the report.</param>
    /// <param name="title">Its usual title.</param>
    /// <param name="table">The table.</param>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    public static Report Build(string key, string title, TableDefinition table, ReportContext context, ReportRequest request) =>
        new TableReport(key, title, table, context, request).Framed();

    /// <summary>What a table of a book is read from.</summary>
    public static TableContext ContextOf(TableDefinition table, ReportContext context, ReportRequest request) => new(
        context.Ledger, context.Calendar, context.Currency, context.Today,
        table.HasBasis ? request.Basis ?? context.Basis : AccountingBasis.Accrual)
    {
        DaysOpen = context.DaysOpenOn is { } on ? DaysOpenIn(context, request, on) : null,
        Known = context.Known,
    };

    // What is settled is only looked up where somebody asks.
    private static Func<long[], long[]> DaysOpenIn(
        ReportContext context, ReportRequest request, Func<ILedger, DateOnly, Func<long[], long[]>> on)
    {
        var days = new Lazy<Func<long[], long[]>>(() => on(
            context.Ledger, request.Period is { } period ? period.Within(context.Records).Range.To : context.Today.Date));
        return keys => days.Value(keys);
    }

    private Report Framed() => _rows.In(
        ReportFrame.Of(_key, _title, _context, _request, _period.Range, _table.IsOfMoment, _tableContext.Basis)) with
    {
        InWhat = _table.HasBasis ? null : $"In {_context.Currency.Code}",
        Checks = [.. Checks()],
        Narrowed = [.. _plan.Selection.InWords, .. _request.Having.Select(predicate => $"Having {predicate.Text}")],
        Notes =
        [
            .. _notes,
            .. _tableContext.Basis == AccountingBasis.Cash || _request.HasBothBases || _table.RestsOnSettlements
                ? _context.NotesOnSettlements : [],
            .. OpenEarlier(),
            .. _scan.IsEmpty ? new[] { _table.WhenEmpty } : _table.Note is { } note && _plan.HasRecords ? [note] : [],
        ],
    };

    // Only what is taken whole, and shown whole, must come to anything.
    private IEnumerable<ReportCheck> Checks()
    {
        if (_table.TiesTo is not { } tie || _request.Having.Count > 0
            || _plan.Measures.ToList().FindIndex(measure => measure.Key == tie.Field) is not (>= 0 and var place) || !_plan.IsAdded(place))
        {
            yield break;
        }

        for (var period = 0; period < _periods.Count; period++)
        {
            var range = _periods[period].Whole;
            if (_scan.WholeBlocks(period) is { Count: > 0 } blocks)
            {
                yield return new ReportCheck(
                    tie.Name, blocks.Aggregate(Amount.Zero, (sum, block) => sum + tie.Of(_tableContext, range, block)),
                    new Amount(_scan.SumsOf(place, period, null).SumOf(0) ?? 0), NameOf(range).Heading);
            }
        }
    }

    // What is open of earlier periods is told where what is open is looked at: it is not among the rows, and is open all the same.
    private IEnumerable<string> OpenEarlier()
    {
        if (_table.OpenBefore is not { } openBefore || _period.Range.From <= _context.Records.From
            || !_plan.Columns.Any(column => column.Key.Contains("open", StringComparison.Ordinal)))
        {
            return [];
        }

        var open = openBefore(_tableContext, _period.Range).SelectMany(block => _plan.Selection.Taken(block).Column("open")).ToList();
        var (count, sum) = (open.Count, open.Sum());

        // Credits alone are told as what they come to.
        var units = open.TrueForAll(amount => amount < 0) ? -sum : sum;
        var money = $"{DecimalText.Write(units, _context.Currency.Decimals)} {_context.Currency.Code}";
        return count == 0 ? [] : [count == 1 ? $"1 document from before is open besides, of {money}."
            : $"{count} documents from before are open besides, together {money}."];
    }

    // A moment is everything up to it.
    private List<TableSpan> Periods()
    {
        if (_table.Date is null && (_request.Compare.Count > 0 && !_table.IsOfMoment))
        {
            throw new ProblemException(ProblemKind.Usage, $"{_table.Name} have no time to be compared by.", "Leave out --compare.");
        }

        if (_request.Compare.Any(comparison => comparison.Kind == ComparisonKind.Budget))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{_table.Name} have no budget.", "Compare with prior-period, prior-year or a period.");
        }

        var unit = _plan.Across?.Bound.Field is { Unit: { } own } across
            && across.Name.StartsWith($"{_table.Date}.", StringComparison.Ordinal) && !_table.IsOfMoment
            ? own : default(TimeUnit?);
        IReadOnlyList<DateRange> pieces = unit is { } by ? _context.Calendar.Split(_period.Range, by) : [_period.Range];
        var compared = ComparedPeriods.Of(_context, _request, _period, pieces, unit, _table.IsOfMoment);
        _notes = compared.Notes;
        if (_request.HasBothBases)
        {
            return [.. Enum.GetValues<AccountingBasis>().Select(basis => new TableSpan(
                DaysOf(pieces), _tableContext with { Basis = basis }, AccountingBases.NameOf(basis), AccountingBases.NameOf(basis)))];
        }

        return [.. compared.Earlier.Select(earlier => earlier.Pieces).Prepend(pieces).Select(DaysOf).Select(days =>
        {
            var (key, heading) = NameOf(new DateRange(days[0].From, days[^1].To));
            return new TableSpan(days, _tableContext, key, heading);
        })];
    }

    private IReadOnlyList<DateRange> DaysOf(IReadOnlyList<DateRange> pieces) => !_table.IsOfMoment ? pieces
        : [new DateRange(_context.Records.From < pieces[^1].To ? _context.Records.From : pieces[^1].To, pieces[^1].To)];

    private (string Key, string Heading) NameOf(DateRange range) => _table.IsOfMoment
        ? (PeriodText.Iso(range.To), PeriodText.Heading(range.To))
        : (PeriodText.Key(range, _context.Calendar), PeriodText.Heading(range, _context.Calendar));
}
