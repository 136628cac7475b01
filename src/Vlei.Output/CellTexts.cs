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

    /// <summary>A cell as text, with its width.</summary>
    /// <param name="row">The row.</param>
    /// <param name="column">The place of the column.</param>
    /// <param name="isKnown">Whether the same stood in the column before; not always where that is long ago.</param>
    public (string Text, int Width) Of(ReportRow row, int column, out bool isKnown)
    {
        var (cell, known) = (row.Cells[column], _known[column]);
        ref var last = ref known[PlaceOf(cell) & (known.Length - 1)];
        isKnown = last.Text is not null && last.Cell.Units == cell.Units && ReferenceEquals(last.Cell.Words, cell.Words)
            && last.InsteadOfMoney == row.InsteadOfMoney;
        if (!isKnown)
        {
            var text = words.Figure(row, column, ascii);
            last = new Known(cell, row.InsteadOfMoney, text, DisplayText.Width(text));
        }

        return (last.Text!, last.Width);
    }

    // A power of two; a short report needs few.
    private static int KeptOf(ReportColumn column, int rows) => (int)BitOperations.RoundUpToPowerOf2(
        (uint)Math.Clamp(rows, 1, column.Kind == ColumnKind.Text ? MostWords : MostFigures));

    private static int PlaceOf(Cell cell) =>
        cell.Words is { } said ? RuntimeHelpers.GetHashCode(said) : (int)cell.Units.GetValueOrDefault();

    private readonly record struct Known(Cell Cell, ColumnKind? InsteadOfMoney, string? Text, int Width);
}
