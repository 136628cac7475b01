using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>
/// The columns of a report as fields of a table whose rows are the report's: what is asked of records by fields is asked of
/// figures the same way.
/// </summary>
internal sealed class FigureFields
{
    // From what a cell of a percentage or a plain number counts, to what a decimal counts.
    private const long DecimalUnits = 100;

    private readonly IReadOnlyList<ReportColumn> _columns;

    /// <summary>Those of some names. Throws a <see cref="Problems.ProblemException"/> where there is no such column.</summary>
    /// <param name="option">The option that names them, for the message.</param>
    /// <param name="names">The names.</param>
    /// <param name="columns">The columns.</param>
    /// <param name="context">The book.</param>
    public FigureFields(string option, IEnumerable<string> names, IReadOnlyList<ReportColumn> columns, TableContext context)
    {
        _columns = columns;
        Fields = new TableFields(
            new TableDefinition
            {
                Name = "rows", Meaning = "", Columns = [], Key = [], Read = (_, _) => [],
                Fields = [.. names.Distinct(StringComparer.OrdinalIgnoreCase)
                    .Select(name => FieldOf(name, columns[ColumnNames.Named(option, name, columns)]))],
            }, context);
    }

    /// <summary>The fields.</summary>
    public TableFields Fields { get; }

    /// <summary>Rows to be read.</summary>
    /// <param name="count">How many there are.</param>
    /// <param name="cellOf">What a row has in the column at a place.</param>
    public RowSet RowsOf(int count, Func<int, int, Cell> cellOf) => new(
        new RowBlock(count, name => PlaceOf(name) is var column
            ? [.. Enumerable.Range(0, count).Select(row => UnitsOf(cellOf(row, column), _columns[column].Kind))] : [])
        {
            TextOf = (name, row) => cellOf(row, PlaceOf(name)).Words ?? "",
        });

    /// <summary>The kind of a column of a field.</summary>
    public static ColumnKind KindOf(FieldType type) => type switch
    {
        FieldType.Money => ColumnKind.Money,
        FieldType.Decimal => ColumnKind.Quantity,
        FieldType.Integer => ColumnKind.Count,
        _ => ColumnKind.Text,
    };

    private int PlaceOf(string name) => ColumnNames.PlaceOf(name, _columns);

    private static long UnitsOf(Cell cell, ColumnKind kind) => cell.Units is not { } units ? FieldCells.Nothing
        : kind is ColumnKind.Percent or ColumnKind.Ratio ? units * DecimalUnits : units;

    private static TableField FieldOf(string name, ReportColumn column) => new(name, column.Kind switch
    {
        ColumnKind.Money => FieldType.Money,
        ColumnKind.Count => FieldType.Integer,
        ColumnKind.Date => FieldType.Date,
        ColumnKind.Text => FieldType.Text,
        _ => FieldType.Decimal,
    }, column.Heading);
}
