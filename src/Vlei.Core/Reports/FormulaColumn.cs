using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// A column that is worked out from other columns of a report, row by row. A quotient is that of what stands in the row, also in a
/// total; anything else adds up.
/// </summary>
internal sealed class FormulaColumn
{
    private readonly ReckonedField _formula;
    private readonly FigureFields _fields;
    private readonly int _decimals;

    private readonly Lazy<FormulaTotals?> _totals;

    private FormulaColumn(ReckonedField formula, FigureFields fields, Currency currency, ReportColumn shown, Report report)
    {
        (_formula, _fields, Shown) = (formula, fields, shown);
        _totals = new Lazy<FormulaTotals?>(() => !shown.AddsUp ? null : new FormulaTotals(
            report.Rows, [.. formula.Fields.Select(field => ColumnNames.PlaceOf(field.Field.Name, report.Columns))], OwnOf));
        _decimals = formula.Type switch
        {
            FieldType.Money => currency.Decimals,
            FieldType.Integer => 0,
            _ => RecordField.DecimalPlaces,
        };
    }

    /// <summary>The column.</summary>
    public ReportColumn Shown { get; }

    /// <summary>
    /// The column that a text stands for; nothing where the text is no formula over columns. Throws a
    /// <see cref="ProblemException"/> where it is one and makes no sense.
    /// </summary>
    /// <param name="entry">The text, with its heading.</param>
    /// <param name="report">The report with the other columns.</param>
    /// <param name="context">The book.</param>
    public static FormulaColumn? Of(ColumnText entry, Report report, TableContext context)
    {
        var (option, columns) = (ReportOptions.Columns.Name, report.Columns);
        if (entry.Function is { } function)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{option}: {function.Name} is a function of lists, and this is none.",
                function.Name == ReportOptions.Share.Name ? "Take --share column, or --share row." : "Take a formula: a - b, or a * 0.05.");
        }

        if (Formula.Parse(entry.Text) is not { } formula || formula is Formula.Named || !formula.Names.Any())
        {
            return null;
        }

        var fields = new FigureFields(option, formula.Keys, columns, context);
        var reckoned = new ReckonedField(formula, fields.Fields);
        return new FormulaColumn(
            reckoned, fields, context.Currency,
            new ReportColumn(entry.Text, entry.Heading ?? entry.Text, FigureFields.KindOf(reckoned.Type))
            {
                AddsUp = reckoned.AddsUp && formula.Keys.All(name => columns[ColumnNames.PlaceOf(name, columns)].AddsUp),
            }, report);
    }

    /// <summary>What a row has in it; nothing for rows that show something else than their columns say.</summary>
    public Cell CellOf(ReportRow row) => row.InsteadOfMoney is not null ? Cell.Empty
        : new Cell(row.Kind is RowKind.Record ? OwnOf(row) : _totals.Value?.Of(row.Key) ?? OwnOf(row));

    /// <summary>Why no records are behind its figures.</summary>
    public CellOrigin Origin()
    {
        var records = new OriginRecords();
        records.Refuse(
            $"{Shown.Heading} is worked out from other columns.",
            $"Trace {Suggestion.Listed([.. _formula.Fields.Select(field => field.Field.Name)], "or")}.");
        return records.Of(0, null);
    }

    private long? OwnOf(ReportRow row) => _formula.Read(_fields.RowsOf(1, (_, column) => row.Cells[column]))(0) is { } value
        ? ReckonedField.UnitsOf(value, _decimals) : null;
}
