using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// What was seen in each column of a long report already: what is not larger than that, or the same as in the row before, takes no
/// more room, and need not be written out to be measured.
/// </summary>
/// <param name="report">The report.</param>
internal sealed class SeenFigures(Report report)
{
    // Figures of one kind that have as many decimals as each other, so that the larger ones are the wider ones.
    private readonly bool[] _growWithSize =
        [.. report.Columns.Select(column => column is { Kind: ColumnKind.Money or ColumnKind.Count, IsChange: false })];

    private readonly long[] _least = new long[report.Columns.Count];
    private readonly long[] _most = new long[report.Columns.Count];
    private readonly Cell[] _last = new Cell[report.Columns.Count];

    /// <summary>Whether what a row has in a column may be wider than all that was seen in it.</summary>
    public bool IsNew(ReportRow row, int column)
    {
        var cell = row.Cells[column];
        if (row.InsteadOfMoney is not null)
        {
            return true;
        }

        var isLast = cell.Units == _last[column].Units && ReferenceEquals(cell.Words, _last[column].Words);
        _last[column] = cell;
        if (isLast || cell.Units is not { } units || units == 0 || !_growWithSize[column])
        {
            return !isLast;
        }

        var isNew = units > _most[column] || units < _least[column];
        (_most[column], _least[column]) = (Math.Max(_most[column], units), Math.Min(_least[column], units));
        return isNew;
    }
}
