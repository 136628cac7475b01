using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// The rows of a report as text. They are gone through once for how wide they are and again to be written; what they look like is
/// kept between, as far as there is room for it, so that most need not be made twice.
/// </summary>
internal sealed class TextRows
{
    private const int IndentPerLevel = 2;

    // What is kept is unpacked on another thread, so many rows at a time.
    private const int AtOnce = 128;

    private readonly ReportWords _words;
    private readonly bool _ascii;
    private readonly CellTexts _texts;
    private readonly KeptText _kept;
    private readonly TextCell[] _cells;

    // Where the label and the cells of a row are kept until others come there.
    private readonly int[] _lately;
    private (string Label, int Level) _last;
    private TextCell _label;

    /// <summary>Keeps nothing yet.</summary>
    /// <param name="words">The report.</param>
    /// <param name="ascii">Whether nothing but ASCII can be shown.</param>
    /// <param name="most">How many bytes are kept at the most.</param>
    public TextRows(ReportWords words, bool ascii, long most)
    {
        (_words, _ascii, _texts) = (words, ascii, new CellTexts(words, ascii));
        _kept = new KeptText([1, .. _texts.Kept], most);
        _cells = new TextCell[words.Report.Columns.Count];
        _lately = new int[_cells.Length + 1];
    }

    /// <summary>The blanks before a row of some level.</summary>
    public static string IndentOf(int level) => new(' ', IndentPerLevel * level);

    /// <summary>The rows, gone through for the first time.</summary>
    public IEnumerable<(ReportRow Row, TextRow Text)> Measured()
    {
        foreach (var row in RowsAhead.Of(_words.Report.Rows))
        {
            var text = Of(row);
            _kept.Add(text, _lately);
            yield return (row, text);
        }
    }

    /// <summary>The rows again, after they were gone through for the first time.</summary>
    public IEnumerable<TextRow> All()
    {
        foreach (var row in RowsInRoom.Of<TextRow, TextCell[]>(AtOnce, _kept.Again()))
        {
            yield return row;
        }

        if (_kept.IsFull)
        {
            foreach (var row in RowsAhead.Of(_words.Report.Rows, _kept.Rows))
            {
                yield return Of(row);
            }
        }
    }

    private TextRow Of(ReportRow row)
    {
        for (var column = 0; column < _cells.Length; column++)
        {
            _cells[column] = _texts.Of(row, column, out _lately[column + 1]);
        }

        // The rows of a document often have one label.
        if (ReferenceEquals(row.Label, _last.Label) && row.Level == _last.Level)
        {
            return new TextRow(RowLook.Of(row), _label, _cells);
        }

        _last = (row.Label, row.Level);
        _label = TextCell.Of(IndentOf(row.Level) + DisplayText.Harmless(row.Label, _ascii));
        return new TextRow(RowLook.Of(row), _label with { IsNew = true }, _cells);
    }
}
