using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>Tells the rows of a file apart: records, headings, totals, balances, and what belongs to the page.</summary>
internal sealed class RowSorter(SourceRows rows, SourceColumns columns, SourceMap map, MapWords words)
{
    private static readonly ColumnRole[] Texts =
        [ColumnRole.Memo, ColumnRole.Account, ColumnRole.AccountName, ColumnRole.Contact, ColumnRole.Document, ColumnRole.Date];

    private readonly int[] _figures = [.. RowTotals.Summed.Append(ColumnRole.Balance).Where(rows.Has).Select(columns.Of)];
    private readonly int[] _taken = [.. columns.Taken];

    /// <summary>What the row at hand is; nothing for a blank one, the headings again, and what belongs to the page.</summary>
    public SourceRowKind? KindOf(List<FileCell> cells)
    {
        if (IsBlank(cells) || IsHeadingAgain())
        {
            return null;
        }

        var (hasDate, hasFigure) = (rows.Has(ColumnRole.Date), HasFigure(cells));
        var isDated = hasDate && rows.Text(ColumnRole.Date).Length > 0 && rows.TryDay(ColumnRole.Date, out _);
        if (!isDated && IsOfPage(cells))
        {
            return null;
        }

        var word = WordOfRow(cells, isDated);
        if (word is not (RowWord.None or RowWord.Page) && (!isDated || map.Shape == Shape.Ledger || map.Shape == Shape.SingleEntry))
        {
            return word == RowWord.Total ? SourceRowKind.Total
                : hasFigure ? word == RowWord.Opening ? SourceRowKind.Opening : SourceRowKind.Closing : null;
        }

        var isList = _figures.Length == 0;
        if (isDated || (!hasDate && (hasFigure || isList)))
        {
            return hasFigure || isDated || rows.Cells.Skip(1).Any() ? SourceRowKind.Data : SourceRowKind.Heading;
        }

        return !hasFigure ? SourceRowKind.Heading
            : IsFiguresAlone(cells) ? SourceRowKind.Total : SourceRowKind.Data;
    }

    private static bool IsBlank(List<FileCell> cells)
    {
        foreach (var cell in cells)
        {
            if (cell.Text.Length > 0)
            {
                return false;
            }
        }

        return true;
    }

    private bool IsHeadingAgain()
    {
        foreach (var column in _taken)
        {
            if (columns.Headings.Length <= column
                || !rows.TextAt(column).Equals(columns.Headings[column], StringComparison.OrdinalIgnoreCase))
            {
                return false;
            }
        }

        return true;
    }

    // A title again, or a number of a page.
    private bool IsOfPage(List<FileCell> cells)
    {
        var isFirst = true;
        foreach (var cell in cells)
        {
            var text = cell.Text.Trim();
            if (text.Length > 0 && !cell.IsNumber && (words.RowOf(text) is RowWord.Page || (isFirst && columns.Titles.Contains(text))))
            {
                return true;
            }

            isFirst &= text.Length == 0;
        }

        return false;
    }

    private bool HasFigure(List<FileCell> cells)
    {
        foreach (var column in _figures)
        {
            if (column < cells.Count && cells[column].Text.Length > 0)
            {
                return true;
            }
        }

        return false;
    }

    private bool IsFiguresAlone(List<FileCell> cells)
    {
        for (var column = 0; column < cells.Count; column++)
        {
            if (cells[column].Text.Length > 0 && !_figures.Contains(column))
            {
                return false;
            }
        }

        return true;
    }

    // In a row with a day only its note can say that it is no record.
    private RowWord WordOfRow(List<FileCell> cells, bool isDated)
    {
        if (isDated)
        {
            return rows.Has(ColumnRole.Memo) ? words.RowOf(rows.Text(ColumnRole.Memo)) : RowWord.None;
        }

        foreach (var role in Texts)
        {
            if (rows.Text(role) is { Length: > 0 } text && words.RowOf(text) is not RowWord.None and var word)
            {
                return word;
            }
        }

        return cells.FirstOrDefault(cell => cell.Text.Length > 0).Text is { } first ? words.RowOf(first) : RowWord.None;
    }
}
