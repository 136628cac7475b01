using Vlei.Core.Ledger;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// The rows of a file as its map has them: titles, headings that are repeated, page ends and blank rows are passed over, and totals are
/// held against the rows before them.
/// </summary>
internal sealed class SourceRows : IDisposable
{
    private readonly SourceFile _file;
    private readonly SourceMap _map;
    private readonly MapWords _words;
    private readonly RecordErrors _errors;
    private readonly IFileRows _rows;
    private readonly SourceColumns _columns;
    private readonly RowSorter _sorter;
    private readonly RowTotals _totals;
    private readonly Dictionary<(string Text, bool IsDay), DateOnly?> _days = [];
    private (long Line, bool IsOne, SourceNumber Number)[] _numbers = [];
    private List<FileCell> _cells = [];

    /// <summary>Begins behind the headings. Throws a problem where the file does not have those of the map.</summary>
    public SourceRows(SourceFile file, SourceMap map, MapWords words, RecordErrors errors, SourceProof proof)
    {
        (_file, _map, _words, _errors) = (file.As(map), map, words, errors);
        _rows = _file.Rows();
        _columns = new SourceColumns(_file, _rows, map);
        (_sorter, _totals) = (new RowSorter(this, _columns, map, words), new RowTotals(this, _columns, proof));
    }

    /// <summary>What messages call the file.</summary>
    public string Name => _file.Name;

    /// <summary>Where the row at hand stands, from 1.</summary>
    public long Line { get; private set; }

    /// <summary>What the row at hand is.</summary>
    public SourceRowKind Kind { get; private set; }

    /// <summary>What stood above the headings, and the name of the file.</summary>
    public string Title => string.Join(" / ", _columns.Titles.Append(Path.GetFileNameWithoutExtension(_file.Path)));

    /// <summary>The headings, from the first column on; their numbers where the file has none.</summary>
    public IReadOnlyList<string> Headings => _columns.Headings;

    /// <summary>The values of the tags of the row at hand.</summary>
    public IEnumerable<(string Tag, string Value)> Tags => _columns.Tags.Count == 0 ? [] :
        _columns.Tags.Select(tag => (tag.Tag, TextAt(tag.Column))).Where(tag => tag.Item2.Length > 0);

    /// <summary>The texts of the row at hand, without those that are empty.</summary>
    public IEnumerable<string> Cells => _cells.Select(cell => cell.Text).Where(text => text.Length > 0);

    /// <summary>Whether there is a column for something.</summary>
    public bool Has(ColumnRole role) => _columns.Of(role) >= 0;

    /// <summary>The column of the file for something, from 1.</summary>
    public int PlaceOf(ColumnRole role) => Math.Max(0, _columns.Of(role)) + 1;

    /// <summary>What the file calls the column for something.</summary>
    public string HeadingOf(ColumnRole role) => Headings.ElementAtOrDefault(PlaceOf(role) - 1) ?? role.Name;

    /// <summary>The text of a column of the row at hand; empty where there is none.</summary>
    public string Text(ColumnRole role) => _columns.Of(role) is >= 0 and var column ? TextAt(column) : "";

    /// <summary>The text of a column, from 0.</summary>
    public string TextAt(int column) => CellAt(column).Text;

    /// <summary>The day in a column; nothing where it is empty, or, with an error, where there is no day.</summary>
    public DateOnly? Day(ColumnRole role)
    {
        if (Text(role) is not { Length: > 0 } text)
        {
            return null;
        }

        if (TryDay(role, out var day))
        {
            return day;
        }

        Complain(role, $"\"{text}\" is no day; {_map.PlaceOf("dates")} says {SourceDates.NameOf(OrderOf())}.");
        return null;
    }

    /// <summary>The day in a column; false where there is none.</summary>
    public bool TryDay(ColumnRole role, out DateOnly day)
    {
        // The same days stand in row after row.
        var cell = CellAt(_columns.Of(role));
        if (!_days.TryGetValue((cell.Text, cell.IsDay), out var known))
        {
            _days[(cell.Text, cell.IsDay)] = known = ReadDay(cell);
        }

        day = known ?? default;
        return known is not null;
    }

    /// <summary>The number in a column; nothing where it is empty, or, with an error, where there is no number.</summary>
    public SourceNumber? Number(ColumnRole role)
    {
        if (Text(role) is not { Length: > 0 } text)
        {
            return null;
        }

        if (TryNumber(_columns.Of(role), out var number))
        {
            return number;
        }

        Complain(
            role, $"\"{text}\" is no number; {_map.PlaceOf("decimal-mark")} says that the decimal mark is \"{_map.DecimalMark ?? '.'}\".");
        return null;
    }

    /// <summary>The number of a column, from 0; false where there is none.</summary>
    public bool TryNumber(int column, out SourceNumber number)
    {
        if (column >= _numbers.Length)
        {
            Array.Resize(ref _numbers, column + 1);
        }

        ref var known = ref _numbers[column];
        if (known.Line != Line)
        {
            var cell = CellAt(column);
            var isOne = SourceNumbers.TryRead(cell.Text, cell.IsNumber ? '.' : _map.DecimalMark ?? '.', out number);
            known = (Line, isOne, number);
        }

        number = known.Number;
        return known.IsOne;
    }

    /// <summary>Adds an error at a column of the row at hand.</summary>
    public void Complain(ColumnRole role, string message) =>
        _errors.Add(Name, Line, PlaceOf(role), $"{HeadingOf(role)}: {message}");

    /// <summary>Goes to the next row that says anything; false at the end.</summary>
    public bool Read()
    {
        while (_rows.Read())
        {
            (_cells, Line) = (_rows.Cells, _rows.Row);
            if (_sorter.KindOf(_cells) is not { } kind)
            {
                continue;
            }

            Kind = kind;
            if (kind == SourceRowKind.Data)
            {
                _totals.Add();
            }
            else if (kind == SourceRowKind.Total)
            {
                _totals.Prove();
            }

            return true;
        }

        return false;
    }

    /// <summary>Begins to add up anew, as behind the heading of an account.</summary>
    public void BeginPart() => _totals.BeginPart();

    /// <summary>What a column adds up to so far.</summary>
    public decimal SumOf(ColumnRole role) => _totals.Of(role);

    /// <inheritdoc/>
    public void Dispose() => _rows.Dispose();

    private FileCell CellAt(int column)
    {
        if (column >= _cells.Count)
        {
            return new FileCell("");
        }

        var cell = _cells[column];
        return cell.Text.Length > 0 && (char.IsWhiteSpace(cell.Text[^1]) || cell.Text[0] <= ' ' || char.IsWhiteSpace(cell.Text[0]))
            ? cell with { Text = cell.Text.Trim().TrimStart('\u0001') } : cell;
    }

    private DateOrder OrderOf() => _map.Dates ?? DateOrder.YearMonthDay;

    private DateOnly? ReadDay(FileCell cell) =>
        SourceDates.TryRead(cell.Text, cell.IsDay ? DateOrder.YearMonthDay : OrderOf(), _words, out var day)
        || (cell.Text.Length > 4 && cell.Text[4] == '-' && SourceDates.TryRead(cell.Text, DateOrder.YearMonthDay, _words, out day))
            ? day : null;
}
