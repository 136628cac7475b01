using System.Globalization;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>The figures of a report as the cells of a sheet hold them: how each follows from others, and what it comes to.</summary>
internal sealed class SheetFigures
{
    private readonly Report _report;
    private readonly ReportWorkings _workings;
    private readonly CellFormula _formula;

    /// <summary>Reads a report.</summary>
    /// <param name="report">The report.</param>
    /// <param name="firstRow">The row of the sheet that the report's first row stands in, from 1.</param>
    /// <param name="columns">The column of the sheet that each column of the report stands in, from 0.</param>
    /// <param name="notation">How its formulas name cells.</param>
    public SheetFigures(Report report, int firstRow, IReadOnlyList<int> columns, FormulaNotation notation) =>
        (_report, _workings, _formula) = (report, ReportWorkings.Of(report), new CellFormula(firstRow, columns, notation));

    /// <summary>Takes the next row; rows come in their order.</summary>
    public void Take(ReportRow row, int place) => _workings.Take(row, place);

    /// <summary>The number that a cell holds, and the formula that it comes from; nothing where it stands for itself.</summary>
    public (string Value, string? Formula) Of(ReportRow row, int place, int column, long units)
    {
        var working = _workings.Of(row, place, column);
        return (working is Working.Share share ? Quotient(share) : CellFormat.Value(_report, row, column, units), working is null ? null
            : _formula.Of(working));
    }

    // A percentage is rounded to four decimals in the report; the formula of the cell is not.
    private string Quotient(Working.Share share)
    {
        var (part, whole) = ((double)UnitsAt(share.Part), (double)UnitsAt(share.Whole));
        return (share.IsChange ? (part - whole) / Math.Abs(whole) : part / whole).ToString("R", CultureInfo.InvariantCulture);
    }

    private long UnitsAt(CellPlace cell) => ReportChart.UnitsAt(_report, cell) ?? 0;
}
