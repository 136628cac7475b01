using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// What rows must come to so that they are shown: the condition behind HAVING of SQL (ISO/IEC 9075). It is asked of the figures
/// that stand in the columns, after everything is added up.
/// </summary>
internal sealed class RowCondition
{
    // From what a cell of a percentage or a plain number counts, to what a decimal counts.
    private const long DecimalUnits = 100;

    private readonly IReadOnlyList<Func<RowSet, Truth[]>> _tests;

    private RowCondition(IReadOnlyList<Func<RowSet, Truth[]>> tests, IReadOnlyList<string> inWords) => (_tests, InWords) = (tests, inWords);

    /// <summary>What it says, in words, a condition each.</summary>
    public IReadOnlyList<string> InWords { get; }

    /// <summary>
    /// Reads predicates; nothing where there are none. Throws a <see cref="ProblemException"/> where one names no column, or makes
    /// no sense.
    /// </summary>
    /// <param name="having">The predicates; all must hold.</param>
    /// <param name="columns">The columns.</param>
    /// <param name="context">The book.</param>
    public static RowCondition? Of(IReadOnlyList<PredicateText> having, IReadOnlyList<ReportColumn> columns, TableContext context)
    {
        if (having.Count == 0)
        {
            return null;
        }

        var names = having.SelectMany(predicate => Naming.Of(
            predicate.Source, () => Predicate.Parse(predicate.Text, ReportOptions.Having.Name).Names.ToList()))
            .Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        var table = new TableDefinition
        {
            Name = "rows", Meaning = "", Columns = [], Key = [], Read = (_, _) => [],
            Fields = [.. names.Select(name => FieldOf(name, columns[ColumnNames.Named(ReportOptions.Having.Name, name, columns)]))],
        };
        var fields = new TableFields(table, context);
        return new RowCondition(
            [.. having.SelectMany(predicate => Naming.Of(
                predicate.Source, () => PredicateTest.Of(predicate.Text, fields, context, ReportOptions.Having.Name))
                    .Select(test => test.Ask))],
            [.. having.Select(predicate => $"Having {predicate.Text}")])
        {
            Columns = columns,
        };
    }

    /// <summary>Those of the rows that it holds for, in their order.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="cellOf">What a row has in the column at a place.</param>
    public IReadOnlyList<T> Taken<T>(IReadOnlyList<T> rows, Func<T, int, Cell> cellOf)
    {
        var set = new RowSet(new RowBlock(rows.Count, name => [.. rows.Select(row => UnitsOf(cellOf(row, PlaceOf(name)), PlaceOf(name)))])
        {
            TextOf = (name, row) => cellOf(rows[row], PlaceOf(name)).Words ?? "",
        });
        var answers = _tests.Select(test => test(set)).ToList();
        return [.. rows.Where((_, row) => answers.TrueForAll(answer => answer[row] == Truth.True))];
    }

    private IReadOnlyList<ReportColumn> Columns { get; init; } = [];

    private int PlaceOf(string name) => ColumnNames.PlaceOf(name, Columns);

    private long UnitsOf(Cell cell, int place) => cell.Units is not { } units ? FieldCells.Nothing
        : Columns[place].Kind is ColumnKind.Percent or ColumnKind.Ratio ? units * DecimalUnits : units;

    private static TableField FieldOf(string name, ReportColumn column) => new(name, column.Kind switch
    {
        ColumnKind.Money => FieldType.Money,
        ColumnKind.Count => FieldType.Integer,
        ColumnKind.Date => FieldType.Date,
        ColumnKind.Text => FieldType.Text,
        _ => FieldType.Decimal,
    }, column.Heading);
}
