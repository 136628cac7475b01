namespace Vlei.Output.Workbook.Template;

/// <summary>
/// Where the cells of a sheet go when the table on it gets other rows and columns: rows and columns of the table by what they
/// say, what is below or beside it by as much as it grows or shrinks.
/// </summary>
internal sealed class TableShift
{
    private readonly Axis _rows;
    private readonly Axis _columns;

    /// <summary>Holds an old table against a new one.</summary>
    /// <param name="table">The cells of the old table, with its headings.</param>
    /// <param name="oldLabels">What stands before the figures of its rows.</param>
    /// <param name="oldHeadings">What stands above its columns of figures.</param>
    /// <param name="newLabels">What will stand before the figures.</param>
    /// <param name="newHeadings">What will stand above the columns.</param>
    public TableShift(
        SheetRange table, IReadOnlyList<string> oldLabels, IReadOnlyList<string> oldHeadings, IReadOnlyList<string> newLabels,
        IReadOnlyList<string> newHeadings)
    {
        _rows = new Axis(table.First.Row, oldLabels, newLabels, byPlaceWhereEqual: false);
        _columns = new Axis(table.First.Column, oldHeadings, newHeadings, byPlaceWhereEqual: true);
    }

    /// <summary>The old row of the table that a new one was, by their places from 0; nothing for one that is new.</summary>
    public int? OldRow(int row) => _rows.OldOf(row);

    /// <summary>The same for columns.</summary>
    public int? OldColumn(int column) => _columns.OldOf(column);

    /// <summary>Where a row of the sheet goes; nothing where it is no longer there.</summary>
    public int? RowOf(int row) => _rows.Of(row);

    /// <summary>Where a column of the sheet goes; nothing where it is no longer there.</summary>
    public int? ColumnOf(int column) => _columns.Of(column);

    /// <summary>Where cells go; nothing where none of them is left.</summary>
    public SheetRange? Of(SheetRange range)
    {
        if (range.Last is not { } last)
        {
            return _rows.Of(range.First.Row) is { } row && _columns.Of(range.First.Column) is { } column
                ? new SheetRange(range.First with { Row = row, Column = column }, null) : null;
        }

        var rows = range.First.Row == 0 ? (0, 0) : _rows.Of(range.First.Row, last.Row);
        var columns = range.First.Column == 0 ? (0, 0) : _columns.Of(range.First.Column, last.Column);
        return rows is var (top, bottom) && columns is var (left, right)
            ? new SheetRange(range.First with { Row = top, Column = left }, last with { Row = bottom, Column = right }) : null;
    }

    // Rows, or columns: the first belongs to headings or labels, then come those that may change.
    private sealed class Axis
    {
        private readonly int _first;
        private readonly int _oldCount;
        private readonly int _newCount;
        private readonly int?[] _newOf;
        private readonly int?[] _oldOf;

        public Axis(int first, IReadOnlyList<string> old, IReadOnlyList<string> @new, bool byPlaceWhereEqual)
        {
            (_first, _oldCount, _newCount) = (first, old.Count, @new.Count);
            (_newOf, _oldOf) = (new int?[old.Count], new int?[@new.Count]);
            var places = Named(@new).Select((name, place) => (name, place)).ToDictionary(one => one.name, one => one.place);
            var names = Named(old).ToList();
            for (var place = 0; place < old.Count; place++)
            {
                int? at = byPlaceWhereEqual && old.Count == @new.Count ? place : places.TryGetValue(names[place], out var found) ? found
                    : null;
                _newOf[place] = at;
                if (at is { } there)
                {
                    _oldOf[there] = place;
                }
            }
        }

        public int? OldOf(int place) => _oldOf[place];

        public int? Of(int number) => number <= _first ? number : number > _first + _oldCount ? number + _newCount - _oldCount
            : _newOf[number - _first - 1] is { } place ? _first + 1 + place : null;

        // A stretch begins and ends where its neighbours do, so that what comes between them belongs to it too.
        public (int, int)? Of(int first, int last)
        {
            var (from, to) = (Start(first), End(last));
            if (from <= to)
            {
                return (from, to);
            }

            var left = Enumerable.Range(first, Math.Max(0, last - first + 1)).Select(number => Of(number)).OfType<int>().ToList();
            return left.Count > 0 ? (left.Min(), left.Max()) : null;
        }

        private int Start(int first) => first <= _first + 1 ? first : first > _first + _oldCount ? Of(first)!.Value
            : Of(first - 1) + 1 ?? Of(first) ?? Next(first);

        private int End(int last) => last <= _first ? last : last >= _first + _oldCount ? last + _newCount - _oldCount
            : Of(last + 1) - 1 ?? Of(last) ?? Previous(last);

        private int Next(int number) => Enumerable.Range(number, _first + _oldCount - number + 1).Select(at => Of(at))
            .FirstOrDefault(known => known is not null) ?? Previous(number) + 1;

        private int Previous(int number) =>
            Enumerable.Range(_first, number - _first).Reverse().Select(at => Of(at)).FirstOrDefault(known => known is not null) ?? _first;

        // What is there several times is told apart by how often it was there before.
        private static IEnumerable<(string, int)> Named(IReadOnlyList<string> texts)
        {
            var times = new Dictionary<string, int>();
            foreach (var text in texts)
            {
                times[text] = times.GetValueOrDefault(text) + 1;
                yield return (text, times[text]);
            }
        }
    }
}
