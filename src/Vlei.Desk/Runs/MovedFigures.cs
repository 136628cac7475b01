using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Desk.Runs;

/// <summary>A figure that is not what it was.</summary>
/// <param name="Row">The row.</param>
/// <param name="Column">The column, where there are several; else nothing.</param>
/// <param name="Before">What it was.</param>
/// <param name="After">What it is.</param>
/// <param name="IsOfAll">Whether it is a result or a total, rather than one account or contact.</param>
public sealed record MovedFigure(string Row, string Column, Amount Before, Amount After, bool IsOfAll);

/// <summary>Reads the figures out of a report of what moved.</summary>
public static class MovedFigures
{
    private const int Columns = 3;

    /// <summary>
    /// The figures, results and totals first, the largest change first among those, and of equal ones the largest figure.
    /// </summary>
    public static IReadOnlyList<MovedFigure> Of(Report moved) =>
    [
        .. moved.Rows.SelectMany(row => Enumerable.Range(0, moved.Columns.Count / Columns).Select(column => column * Columns)
            .Where(column => row.Cells[column + 2].Units is not (null or 0))
            .Select(column => new MovedFigure(
                row.Label, moved.Columns.Count == Columns ? "" : moved.Columns[column].Heading["Before ".Length..],
                new Amount(row.Cells[column].Units ?? 0), new Amount(row.Cells[column + 1].Units ?? 0),
                row.Kind is RowKind.Result or RowKind.GrandTotal)))
            .OrderByDescending(figure => figure.IsOfAll).ThenByDescending(
                figure => Math.Abs(figure.After.MinorUnits - figure.Before.MinorUnits))
            .ThenByDescending(figure => Math.Abs(figure.After.MinorUnits)),
    ];
}
