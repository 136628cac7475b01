using System.Numerics;
using System.Runtime.CompilerServices;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// What cells look like for people, and how many places that takes. A list says much again and again, so what was written out
/// lately is kept for each column.
/// </summary>
/// <param name="words">The report.</param>
/// <param name="ascii">Whether nothing but ASCII can be shown.</param>
internal sealed class CellTexts(ReportWords words, bool ascii)
{
    private const int MostWords = 1024, MostFigures = 16;

    private readonly Known[][] _known = [.. words.Report.Columns.Select(column => new Known[KeptOf(column, words.Report.Rows.Count)])];

    /// <summary>How many texts of each column are kept.</summary>
    public IEnumerable<int> Kept => _known.Select(known => known.Length);

    /// <summary>A cell as text.</summary>
    /// <param name="row">The row.</param>
    /// <param name="column">The place of the column.</param>
    /// <param name="place">Where it is kept until another one is kept there.</param>
    public TextCell Of(ReportRow row, int column, out int place)
    {
        var (cell, known) = (row.Cells[column], _known[column]);
        place = PlaceOf(cell) & (known.Length - 1);
        ref var last = ref known[place];
        if (last.Shown.Text is not null && last.Cell.Units == cell.Units && ReferenceEquals(last.Cell.Words, cell.Words)
            && last.InsteadOfMoney == row.InsteadOfMoney)
        {
            return last.Shown;
        }

        last = new Known(cell, row.InsteadOfMoney, TextCell.Of(words.Figure(row, column, ascii)) with { IsBelow = cell.Units < 0 });
        return last.Shown with { IsNew = true };
    }

    // A power of two; a short report needs few.
    private static int KeptOf(ReportColumn column, int rows) => (int)BitOperations.RoundUpToPowerOf2(
        (uint)Math.Clamp(rows, 1, column.Kind == ColumnKind.Text ? MostWords : MostFigures));

    private static int PlaceOf(Cell cell) =>
        cell.Words is { } said ? RuntimeHelpers.GetHashCode(said) : (int)cell.Units.GetValueOrDefault();

    private readonly record struct Known(Cell Cell, ColumnKind? InsteadOfMoney, TextCell Shown);
}
