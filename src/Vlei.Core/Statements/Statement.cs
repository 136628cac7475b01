using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>Fills a layout with the sums of a ledger: the engine behind every statement.</summary>
internal sealed class Statement
{
    private readonly ReportContext _context;
    private readonly ReportRequest _request;
    private readonly StatementLayout _layout;
    private readonly StatementFigures _figures;
    private readonly StatementRows _rows;

    private Statement(
        ReportContext context, ReportRequest request, StatementLayout layout, StatementFigures figures, StatementRows rows) =>
        (_context, _request, _layout, _figures, _rows) = (context, request, layout, figures, rows);

    /// <summary>
    /// Builds the statement. Throws a <see cref="ProblemException"/> where options contradict each other, where a layout
    /// makes no sense, or where a sum does not fit in 64 bits.
    /// </summary>
    /// <param name="definition">The report.</param>
    /// <param name="kind">The kind of statement, whose name is also that of the standard layout.</param>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    public static Report Build(ReportDefinition definition, StatementKind kind, ReportContext context, ReportRequest request)
    {
        var text = context.Layouts(request.Statement.Layout ?? kind.Name);
        RefusePercentages(definition, kind, request);
        var layout = StatementLayout.Of(text, context.Ledger, new PostingFields(context, request));
        if (layout.Kind != kind)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"The layout {text.Name} is for a {layout.Kind.Name}, not for a {kind.Name}.",
                "Take a layout of the same kind.");
        }

        var source = kind == StatementKind.CashFlowDirect
            ? PostingSource.Money
            : Postings.Of(request.Basis ?? context.Basis);
        var shape = StatementShape.Single(kind.IsOfMoment, source);
        return SumsThatFit(definition, context, request, shape, () =>
        {
            var figures = StatementFigures.Of(context, request, shape, kind.RestsOn, kind.IsOfMoment
                ? [Span.Days, Span.EarlierYears] : [Span.Days, Span.Before]);
            var rows = new StatementRows(layout, request, figures, context.Ledger.Accounts);
            return new Statement(context, request, layout, figures, rows).Finish(definition, text);
        });
    }

    /// <summary>What is built, unless a sum does not fit: then the column is named.</summary>
    public static Report SumsThatFit(
        ReportDefinition definition, ReportContext context, ReportRequest request, StatementShape shape, Func<Report> build)
    {
        try
        {
            return build();
        }
        catch (OverflowException tooLarge)
        {
            var columns = StatementColumns.Of(context, request with { By = request.By?.Unit is null ? null : request.By }, shape, null, []);
            var column = columns.Posted.Where(column => Overflows(context.Ledger, column.Figure.Of.Days))
                .Select(column => column.Place).FirstOrDefault(columns.Columns.Count - 1);
            throw SumTooLarge.In(definition.Title, columns.Columns[column].Shown.Heading, tooLarge);
        }
    }

    /// <summary>The report without its rows and checks.</summary>
    public static Report Frame(
        ReportDefinition definition, ReportContext context, ReportRequest request, bool isOfMoment, StatementFigures figures)
    {
        var (range, basis) = (context.PeriodOf(request).Range, request.Basis ?? context.Basis);
        var frame = ReportFrame.Of(definition.Key, definition.Title, context, request, range, isOfMoment, basis);
        return frame with
        {
            PeriodInWords = isOfMoment && request.By?.Unit is { } unit
                ? $"As of the end of each {FiscalCalendar.NameOf(unit)}: {PeriodText.Words(range, context.Calendar)}" : frame.PeriodInWords,
            Narrowed = [.. figures.Filter.InWords, .. request.Having.Select(predicate => $"Having {predicate.Text}")],
            Notes = [.. figures.Columns.Notes,
                .. request.Having.Count > 0 ? new[] { "Accounts that do not fit are left out; totals have them." } : [],
                .. basis == AccountingBasis.Cash || request.HasBothBases ? context.NotesOnSettlements : []],
        };
    }

    /// <summary>The rows as a table, without accounts whose figures are not asked for.</summary>
    public static ReportTable<TermSums, PostedFigure> Table(
        ReportDefinition definition, ReportContext context, ReportRequest request, StatementFigures figures,
        IReadOnlyList<FigureRow<TermSums>> rows)
    {
        var own = TableReport.ContextOf(PostingTables.Postings, context, request);
        if (RowCondition.Of(request.Having, figures.Columns.Columns.Shown, own) is { } having)
        {
            var whole = TableOf(definition, figures, rows);
            var taken = having.Taken([.. rows.Where(row => row.Kind == RowKind.Account)], (row, column) => whole.CellAt(row, column))
                .Select(row => row.Key).ToHashSet();
            rows = [.. rows.Where(row => row.Kind != RowKind.Account || taken.Contains(row.Key))];
        }

        var empty = TableOf(definition, figures, []);
        var order = new AccountOrder(
            request, figures.Columns.Columns.Shown, figures.Columns.Whole, (row, column) => empty.CellAt(row, column));
        return TableOf(definition, figures, order.Of(rows, context.Ledger.Accounts));
    }

    private static ReportTable<TermSums, PostedFigure> TableOf(
        ReportDefinition definition, StatementFigures figures, IReadOnlyList<FigureRow<TermSums>> rows)
    {
        var table = new FigureRows<TermSums>();
        foreach (var row in rows)
        {
            table.Add(row);
        }

        return new ReportTable<TermSums, PostedFigure>(definition.Title, figures.Columns.Columns, table, figures)
        {
            MinorUnitsInOne = figures.MinorUnitsInOne,
        };
    }

    /// <summary>The same report, marked where it would look whole and is not.</summary>
    public static Report MarkedInPart(Report report, StatementFigures figures) => figures.Filter.IsEverything ? report : report.InPart();

    private Report Finish(ReportDefinition definition, LayoutText text)
    {
        var content = new StatementContent(_context.Ledger.Accounts, _rows.Lines, [.. _layout.AllParts.OfType<StatementComputed>()]);
        _figures.Wholes[ShareOf.Income] = content.OfBook(account => account.Type == AccountType.Income, -1);
        _figures.Wholes[ShareOf.Assets] = content.OfBook(account => AccountTypes.IsAsset(account.Type), 1);
        _figures.Wholes[ShareOf.Column] = _rows.Rows.Where(row => row.Formula is null && row.Kind != RowKind.Heading)
            .Select(row => row.Of).LastOrDefault(TermSums.Of());
        var frame = Frame(definition, _context, _request, _layout.Kind.IsOfMoment, _figures);
        var report = Table(definition, _context, _request, _figures, _rows.Rows).In(frame) with
        {
            Title = _request.Title ?? text.Title ?? definition.Title,
            Checks = [.. Checks(content, _figures.Wholes[ShareOf.Column])],
        };
        return _layout.Kind.MustBalance ? MarkedInPart(report, _figures) : report;
    }

    private static void RefusePercentages(ReportDefinition definition, StatementKind kind, ReportRequest request)
    {
        foreach (var percent in request.Shares.Where(percent => !kind.Shares.Contains(percent)))
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"--share {ReportOptions.NameOf(percent)} does not apply to {definition.Key}, which has no such total.",
                $"It takes {Suggestion.Listed([.. kind.Shares.Select(ReportOptions.NameOf)], "or")}.");
        }
    }

    private static bool Overflows(ILedger ledger, Figure figure)
    {
        try
        {
            var sums = FigureSums.Of(ledger, [figure], Selection.Everything, null);
            foreach (var type in ledger.Accounts.GroupBy(account => account.Type))
            {
                _ = type.Aggregate(Amount.Zero, (total, account) => total + sums.Net(figure, account.Key));
            }

            return false;
        }
        catch (OverflowException)
        {
            return true;
        }
    }

    // What the lines come to, against the accounts on the other side, in every column that has all postings.
    private IEnumerable<ReportCheck> Checks(StatementContent content, TermSums last)
    {
        var check = _layout.Kind.Check;
        if (_layout.Missing.Count > 0)
        {
            var missing = _layout.Missing.Select(account => $"{account.Code} {account.Name}").ToList();
            yield return new ReportCheck(_layout.Kind.Whole, Amount.Zero, Amount.Zero, "")
            {
                Fault = $"{Suggestion.Listed(missing, "and")} {(missing.Count == 1 ? "stands" : "stand")} in none",
            };
        }

        var (expected, actual) = (check.Expected(content), check.Actual(content));
        foreach (var column in _figures.Filter.IsEverything ? _figures.WholeColumns : [])
        {
            var against = check.IsAgainstAccrual ? _figures.AccrualFigures(column) : _figures.Columns.Columns.FigureAt(column).Of;
            yield return new ReportCheck(
                check.Name, _figures.Of(expected.Only, against), _figures.Of(actual, column),
                _figures.Columns.Columns[column].Shown.Heading);
        }

        if (_figures.IsSliced)
        {
            var slices = _figures.Columns.Posted.Where(column => column.Figure.Of.Days.Slice is not null
                && _figures.Columns.Columns[column.Place].Shown.Tie == ColumnTie.None).Select(column => column.Place);
            yield return new ReportCheck(
                "Columns add up to the total", _figures.Of(last, _figures.Columns.Whole),
                slices.Aggregate(Amount.Zero, (sum, column) => sum + _figures.Of(last, column)), "Total");
        }
    }
}
