using Vlei.Output;

namespace Vlei.Browse;

/// <summary>A report on the screen: its head, as many rows and columns as there is room for, and what stands in the chosen cell.</summary>
internal sealed class StepDrawing
{
    private const int Gap = 2;
    private const int MostCommandLines = 3;
    private const int LeastTextWidth = 12;
    private const int PartOfWords = 5;

    private readonly Step _step;
    private readonly ScreenTable _table;
    private readonly int _width;
    private readonly bool _colour;
    private readonly int _labelWidth;
    private readonly Dictionary<int, int> _given = [];
    private readonly List<string> _lines = [];

    private StepDrawing(Step step, int width, bool colour)
    {
        (_step, _table, _width, _colour) = (step, step.Table, width, colour);
        _labelWidth = Math.Min(_table.LabelWidth, Math.Max(width / 3, width - Gap - _table.Columns.Select(WidthOf).DefaultIfEmpty().Max()));
    }

    /// <summary>Draws it.</summary>
    /// <param name="step">The report, whose corner is moved so that the chosen cell can be seen.</param>
    /// <param name="size">How many columns and lines there are.</param>
    /// <param name="colour">Whether there is colour.</param>
    /// <param name="foot">The last line.</param>
    /// <returns>As many lines as there are, and how many of them are rows.</returns>
    public static (IReadOnlyList<string> Lines, int Rows) Of(Step step, (int Columns, int Lines) size, bool colour, string foot)
    {
        var drawing = new StepDrawing(step, size.Columns, colour);
        drawing.AddHead();
        var columns = drawing.ColumnsInSight();
        drawing.GiveRest(columns);
        drawing.AddHeadings(columns);
        List<string> below = [.. drawing.Status(), .. drawing.Command(), foot];
        var rows = Math.Max(1, size.Lines - drawing._lines.Count - below.Count - 1);
        drawing.AddRows(columns, rows);
        return ([.. drawing._lines.Take(size.Lines - below.Count), .. below], rows);
    }

    private void AddHead()
    {
        var space = _width - DisplayText.Width(_table.Title) - DisplayText.Width(_table.Book);
        _lines.Add(space < Gap ? DisplayText.Cut(_table.Title, _width).In(TextStyle.Strong, _colour)
            : _table.Title.In(TextStyle.Strong, _colour) + new string(' ', space) + _table.Book);
        _lines.AddRange(_table.Head.Select(line => DisplayText.Cut(line, _width)));
        _lines.AddRange(_table.Failed.Select(line => DisplayText.Cut(line, _width).In(TextStyle.Failed, _colour)));
        _lines.Add("");
    }

    // From the corner on, moved until the chosen column is among them.
    private List<int> ColumnsInSight()
    {
        var first = Math.Min(_step.Corner.Column, Math.Max(0, _step.Column - 1));
        while (true)
        {
            var (shown, used) = (new List<int>(), _labelWidth);
            foreach (var column in _table.Columns.Skip(first))
            {
                used += Gap + WidthOf(column);
                if (used > _width && shown.Count > 0)
                {
                    break;
                }

                shown.Add(column);
            }

            if (_step.Column == 0 || first + shown.Count >= _step.Column)
            {
                _step.Corner = (_step.Corner.Row, first);
                return shown;
            }

            first++;
        }
    }

    private void AddHeadings(List<int> columns)
    {
        var headings = columns.ToDictionary(
            column => column, column => DisplayText.Wrap(_table.HeadingOf(column), WidthOf(column)).ToList());
        var height = headings.Values.Select(lines => lines.Count).DefaultIfEmpty().Max();
        for (var line = 0; line < height; line++)
        {
            _lines.Add((new string(' ', _labelWidth) + string.Concat(columns.Select(column =>
                Padded(headings[column].ElementAtOrDefault(line - height + headings[column].Count) ?? "", column))))
                .TrimEnd().In(TextStyle.Heading, _colour));
        }
    }

    private void AddRows(List<int> columns, int count)
    {
        var first = Math.Clamp(_step.Corner.Row, Math.Max(0, _step.Row - count + 1), _step.Row);
        first = Math.Min(first, Math.Max(0, _step.Folds.Count - count));
        _step.Corner = (first, _step.Corner.Column);
        for (var shown = first; shown < first + count; shown++)
        {
            _lines.Add(shown < _step.Folds.Count ? RowAt(shown, columns) : "");
        }

        _lines.Add("");
    }

    private string RowAt(int shown, List<int> columns)
    {
        var row = _table.RowAt(_step.Folds.PlaceOf(shown));
        _table.Measure(row);
        var isHere = shown == _step.Row;
        var label = _table.LabelOf(row) + (_step.Folds.Folded.Contains(row.Key) ? " …" : "");
        var alone = columns.TrueForAll(column => _table.FigureOf(row, column).Length == 0);
        var line = Filled(DisplayText.Cut(label, alone && !isHere ? _width : _labelWidth), _labelWidth)
            .In(isHere && _step.Column == 0 ? TextStyle.Chosen : ScreenTable.StyleOf(row, null), _colour || isHere);
        foreach (var column in alone && !isHere ? [] : columns)
        {
            var isChosen = isHere && _step.ColumnPlace == column;
            var text = Padded(_table.FigureOf(row, column), column);
            line += isChosen ? new string(' ', Gap) + text[Gap..].In(TextStyle.Chosen, colour: true)
                : text.In(ScreenTable.StyleOf(row, _table.IsText(column) ? null : column), _colour);
        }

        return line;
    }

    // What stands in the chosen cell, whole where it does not fit its column.
    private IEnumerable<string> Status()
    {
        var place = _step.Folds.Count == 0 ? "no rows" : $"{_step.Row + 1} of {_step.Folds.Count}";
        var said = _step.Current is not { } row ? ""
            : _step.ColumnPlace is { } column
                ? $"{_table.LabelOf(row).TrimStart()}, {_table.HeadingOf(column)}: {_table.FigureOf(row, column)}"
                : _table.LabelOf(row).TrimStart();
        var lines = DisplayText.Wrap(said, Math.Max(1, _width - place.Length - Gap)).Take(2).ToList();
        return [Filled(lines[0], _width - place.Length) + place, .. lines.Skip(1)];
    }

    private IEnumerable<string> Command()
    {
        var lines = DisplayText.Wrap(_step.Command, _width).ToList();
        return lines.Take(MostCommandLines)
            .Select((line, place) => place + 1 == MostCommandLines && lines.Count > MostCommandLines
                ? $"{DisplayText.Cut(line, _width - 2)} …" : line)
            .Select(line => line.In(TextStyle.Heading, _colour));
    }

    // Words give way to figures and get what is left, from the right; where they are chosen, they are whole below.
    private void GiveRest(List<int> columns)
    {
        var rest = _width - _labelWidth - columns.Sum(column => Gap + WidthOf(column));
        foreach (var column in Enumerable.Reverse(columns).Where(_table.IsText))
        {
            var more = Math.Clamp(_table.WidthOf(column) - WidthOf(column), 0, Math.Max(0, rest));
            _given[column] = WidthOf(column) + more;
            rest -= more;
        }
    }

    private int WidthOf(int column) => _given.TryGetValue(column, out var given) ? given : Math.Min(
        _table.WidthOf(column), _table.IsText(column) ? Math.Max(LeastTextWidth, _width / PartOfWords) : _width / 2);

    private string Padded(string text, int column)
    {
        var cut = DisplayText.Cut(text, WidthOf(column));
        var blanks = new string(' ', Math.Max(0, WidthOf(column) - DisplayText.Width(cut)));
        return new string(' ', Gap) + (_table.IsText(column) ? cut + blanks : blanks + cut);
    }

    private static string Filled(string text, int width) => text + new string(' ', Math.Max(0, width - DisplayText.Width(text)));
}
