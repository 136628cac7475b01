using Vlei.Core.Fields;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// A report with the columns that are asked for, in the order and with the headings that are asked for: its own, and formulas over
/// them.
/// </summary>
internal static class ChosenColumns
{
    /// <summary>
    /// The report with those columns; itself where none are asked for. Throws a <see cref="ProblemException"/> where there is no
    /// such column.
    /// </summary>
    public static Report Of(Report report, ReportRequest request, TableContext context)
    {
        if (request.Columns.Count == 0)
        {
            return report;
        }

        var (columns, formulas) = (report.Columns, new Dictionary<string, FormulaColumn>(StringComparer.OrdinalIgnoreCase));
        var typed = request.TypedColumns.Select(name => ColumnNames.PlaceOf(name, columns)).ToHashSet();
        var chosen = ColumnLists.Applied(
            [.. columns.Select(column => new ColumnText(null, column.Key, null))],
            request.Columns.Select(list => (IReadOnlyList<ColumnText>)[.. list.Select(entry => Known(entry, report, formulas, context))]),
            []);
        var keys = chosen.Select(entry => entry.Text).ToHashSet(StringComparer.Ordinal);
        (int Place, FormulaColumn? Formula)[] shown = [.. chosen.Select(entry => formulas.TryGetValue(entry.Text, out var formula)
            ? (-1, formula) : (ColumnNames.PlaceOf(entry.Text, columns), null))];
        return report with
        {
            Columns = [.. shown.Zip(chosen, (column, entry) => column.Formula is { } formula
                ? formula.Shown with { IsAskedFor = true, Heading = entry.Heading ?? formula.Shown.Heading }
                : Shown(columns[column.Place], entry.Heading, keys, typed.Contains(column.Place)))],
            Rows = new RowList(report.Rows.Count, row => report.Rows[row] is { Cells.Length: > 0 } made ? made with
            {
                Cells = [.. shown.Select(column => column.Formula is not { } formula ? made.Cells[column.Place]
                    : made.Kind == RowKind.Heading ? Cell.Empty : formula.CellOf(made))],
            } : report.Rows[row]),
            OriginOf = (row, column) => shown[column].Formula is { } formula ? formula.Origin()
                : report.OriginOf(row, shown[column].Place),
        };
    }

    // A column by its key; what is none may be a formula over some.
    private static ColumnText Known(
        ColumnText entry, Report report, Dictionary<string, FormulaColumn> formulas, TableContext context)
    {
        var columns = report.Columns;
        if (ColumnNames.PlaceOf(entry.Text, columns) is >= 0 and var place)
        {
            return entry with { Text = columns[place].Key };
        }

        if (formulas.ContainsKey(entry.Text))
        {
            return entry;
        }

        formulas[entry.Text] = FormulaColumn.Of(entry, report, context)
            ?? throw ColumnNames.Unknown(ReportOptions.Columns.Name, entry.Text, columns);
        return entry;
    }

    // How a figure follows from others is only said where those are there.
    private static ReportColumn Shown(ReportColumn column, string? heading, HashSet<string> keys, bool isTyped) => column with
    {
        Heading = heading ?? column.Heading,
        IsAskedFor = isTyped,
        Working = column.Working is { } working && keys.Contains(working.Of) && (working.Earlier is null || keys.Contains(working.Earlier))
            ? working : null,
        MadeOf = column.MadeOf?.All(part => keys.Contains(part.Key)) == true ? column.MadeOf : null,
    };
}
