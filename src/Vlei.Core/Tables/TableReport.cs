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
    private readonly IReadOnlyList<IReadOnlyList<DateRange>> _periods;
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly TableColumns _columns;
    private readonly TableRows _rows;

    private TableReport(string key, string title, TableDefinition table, ReportContext context, ReportRequest request)
    {
        (_key, _title, _table, _context, _request) = (key, title, table, context, request);
        _tableContext = ContextOf(table, context, request);
        _period = table.IsOfMoment
            ? new Period((request.Period ?? new OpenPeriod(context.Today.Date, context.Today.Date)).Within(context.Records).Range)
            : table.Extent is { } extent ? (request.Period ?? new OpenPeriod(null, null)).Within(extent(_tableContext)) : context.PeriodOf(request);
        _plan = new TablePlan(table, _tableContext, request);
        _periods = Periods();
        _scan = new TableScan(table, _tableContext, _plan, _periods);
        _columns = new TableColumns(_plan, _scan, request, [.. _periods.Select(pieces => NameOf(new DateRange(pieces[0].From, pieces[^1].To)))]);
        _rows = new TableRows(table, _plan, _scan, _columns, request);
    }

    /// <summary>The options that a table takes.</summary>
    public static IReadOnlyList<ReportOption> OptionsOf(TableDefinition table) =>
    [
        table.IsOfMoment ? ReportOptions.AsOf : ReportOptions.Period, .. table.HasBasis ? new[] { ReportOptions.Basis } : [],
        ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Where, ReportOptions.Columns, ReportOptions.GroupBy, ReportOptions.Total,
        ReportOptions.Rows, ReportOptions.Across, ReportOptions.Measure, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Percent,
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
        table.HasBasis ? request.Basis ?? context.Basis : AccountingBasis.Accrual);

    private Report Framed() => new()
    {
        Key = _key,
        Title = _request.Title ?? _title,
        Book = _context.Name,
        Currency = _context.Currency,
        Basis = _tableContext.Basis,
        Period = _table.IsOfMoment ? null : _period.Range,
        AsOf = _table.IsOfMoment ? _period.Range.To : null,
        PeriodInWords = _table.IsOfMoment ? $"As of {PeriodText.Words(_period.Range.To)}" : PeriodText.Words(_period.Range, _context.Calendar),
        InWhat = _table.HasBasis ? null : $"In {_context.Currency.Code}",
        Columns = _columns.Columns,
        Rows = _rows.Rows,
        Checks = [],
        Narrowed = _plan.Selection.InWords,
        Notes =
        [
            .. _tableContext.Basis == AccountingBasis.Cash || _table.RestsOnSettlements ? _context.NotesOnSettlements : [],
            .. _scan.IsEmpty ? new[] { "Nothing fits what is asked." } : [],
        ],
        OriginOf = OriginOf,
        Revision = _context.Ledger.Revision,
    };

    // A moment is everything up to it.
    private List<IReadOnlyList<DateRange>> Periods()
    {
        if (_table.Date is null && (_request.Compare.Count > 0 && !_table.IsOfMoment))
        {
            throw new ProblemException(ProblemKind.Usage, $"{_table.Name} have no time to be compared by.", "Leave out --compare.");
        }

        if (_request.Compare.Any(comparison => comparison.Kind == ComparisonKind.Budget))
        {
            throw new ProblemException(ProblemKind.Usage, $"{_table.Name} have no budget.", "Compare with prior-period, prior-year or a period.");
        }

        var unit = _plan.Across?.Bound.Field is { Unit: { } own } across && across.Name.StartsWith($"{_table.Date}.", StringComparison.Ordinal) && !_table.IsOfMoment
            ? own : default(TimeUnit?);
        IReadOnlyList<DateRange> pieces = unit is { } by ? _context.Calendar.Split(_period.Range, by) : [_period.Range];
        var all = new List<IReadOnlyList<DateRange>> { pieces };
        all.AddRange(_request.Compare.SelectMany(comparison => comparison.Earlier(_period, pieces, unit, _context.Calendar, _context.Records)));
        return _table.IsOfMoment
            ? [.. all.Select(range => new[] { new DateRange(_context.Records.From < range[^1].To ? _context.Records.From : range[^1].To, range[^1].To) })]
            : all;
    }

    private (string Key, string Heading) NameOf(DateRange range) => _table.IsOfMoment
        ? (PeriodText.Iso(range.To), PeriodText.Heading(range.To))
        : (PeriodText.Key(range, _context.Calendar), PeriodText.Heading(range, _context.Calendar));

    private CellOrigin? OriginOf(int row, int column)
    {
        if (_rows.Rows[row].Cells[column].Units is not { } units || _columns.Cells[column] is TableCell.Fact)
        {
            return null;
        }

        return _columns.Cells[column] switch
        {
            TableCell.Value { Function: Function.Sum or Function.Own } value => Behind(row, new Amount(units), [(value, 1)], null),
            TableCell.Change change => Behind(
                row, new Amount(units), [((TableCell.Value)_columns.Cells[change.Current], 1), ((TableCell.Value)_columns.Cells[change.Earlier], -1)], null),
            TableCell.PercentChange change when UnitsOf(row, change.Current) - UnitsOf(row, change.Earlier) is var difference => Behind(
                row, new Amount(difference), [((TableCell.Value)_columns.Cells[change.Current], 1), ((TableCell.Value)_columns.Cells[change.Earlier], -1)],
                $"The figure is the change as a percentage of {_columns.Columns[change.Earlier].Heading}."),
            TableCell.Percent percent => Behind(
                row, new Amount(UnitsOf(row, percent.Column)), [((TableCell.Value)_columns.Cells[percent.Column], 1)],
                $"The figure is a percentage of {_columns.Columns[percent.Column].Heading}'s {ReportOptions.NameOf(percent.Of)}."),
            _ => throw new ProblemException(
                ProblemKind.Usage, $"{_columns.Columns[column].Heading} is worked out from several records.", "Trace a column that adds money up."),
        };
    }

    private long UnitsOf(int row, int column) => _rows.Rows[row].Cells[column].Units ?? 0;

    private CellOrigin Behind(int row, Amount figure, IReadOnlyList<(TableCell.Value Value, int Sign)> terms, string? note)
    {
        var measure = _plan.Measures[terms[0].Value.Measure];
        if (measure.Type != FieldType.Money || measure.Quotient is not null)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{measure.Heading} is {(measure.Quotient is null ? "no money" : "a quotient")}, so no postings add up to it.",
                $"Trace a column of money; vlei show {_key} with --only lists the records.");
        }

        var (postings, items) = (new List<PostingEntry>(), new List<OriginItem>());
        foreach (var (value, sign) in terms)
        {
            foreach (var (rows, taken) in RowsBehind(row, value))
            {
                var numbers = measure.Read(rows);
                for (var place = 0; place < numbers.Length; place++)
                {
                    if (taken(place) && numbers[place] is not (FieldCells.Nothing or 0))
                    {
                        Add(rows, place, new Amount(checked(sign * numbers[place])));
                    }
                }
            }
        }

        return new CellOrigin(figure, [], note) { Postings = postings, Items = items };

        void Add(RowSet rows, int place, Amount amount)
        {
            long Of(string name) => rows.Block[name][rows.PlaceOf(place)];
            if (_table.IsOfLines)
            {
                var source = _tableContext.Basis == AccountingBasis.Cash ? PostingSource.Cash : PostingSource.Accrual;
                postings.Add(new PostingEntry(
                    source, new PostingPlace(DateOnly.FromDayNumber((int)Of("date")), (int)Of("document"), (int)Of("settlement"), (int)Of("line")),
                    (int)Of("account"), (int)Of("contact"), amount));
            }
            else
            {
                items.Add(_table.IsOfDocuments
                    ? new OriginItem((int)Of("document"), (int)Of("contact"), DateOnly.FromDayNumber((int)Of("date")), amount, [])
                    : throw new ProblemException(
                        ProblemKind.Usage, $"Figures of {_table.Name} lead to no postings of their own.", "Trace balances in trial-balance, customer-balances or supplier-balances; a finding names the command that shows its records."));
            }
        }
    }

    private IEnumerable<(RowSet Rows, Func<int, bool> Taken)> RowsBehind(int row, TableCell.Value value)
    {
        var (group, record) = _rows.BehindOf(row);
        if (record is { } single)
        {
            return [(_scan.SetOf(single.Block, [single.Place]), _ => true)];
        }

        if (group >= _scan.Groups.Count)
        {
            throw new ProblemException(ProblemKind.Usage, "The rest stands for many rows.", "Leave out --top, and trace one of them.");
        }

        return _scan.RowsAgain(value.Period).Select(found => (found.Rows, new Func<int, bool>(place =>
            _scan.Groups.IsWithin(found.Groups[place], group!.Value) && (value.Across is null || found.Across![place] == value.Across))));
    }
}
