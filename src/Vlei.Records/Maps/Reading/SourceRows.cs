using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>What a row of a file is.</summary>
internal enum SourceRowKind
{
    /// <summary>A record.</summary>
    Data,

    /// <summary>A text alone, such as the heading of an account or of a section.</summary>
    Heading,

    /// <summary>What rows before it add up to.</summary>
    Total,

    /// <summary>What was there before the first row of an account.</summary>
    Opening,

    /// <summary>What is there behind the last row of an account.</summary>
    Closing,
}

/// <summary>
/// The rows of a file as its map has them: titles, headings that are repeated, page ends and blank rows are passed over, and totals are
/// held against the rows before them.
/// </summary>
internal sealed class SourceRows : IDisposable
{
    /// <summary>How many rows may stand above the headings.</summary>
    public const int MostTitleRows = 200;

    private static readonly ColumnRole[] Summed =
    [
        ColumnRole.Debit, ColumnRole.Credit, ColumnRole.Amount, ColumnRole.Net, ColumnRole.Tax, ColumnRole.Total, ColumnRole.Open,
        ColumnRole.MoneyIn, ColumnRole.MoneyOut,
    ];

    private static readonly ColumnRole[] Figures = [.. Summed, ColumnRole.Balance];
    private static readonly ColumnRole[] Texts =
        [ColumnRole.Memo, ColumnRole.Account, ColumnRole.AccountName, ColumnRole.Contact, ColumnRole.Document, ColumnRole.Date];

    private readonly SourceFile _file;
    private readonly SourceMap _map;
    private readonly MapWords _words;
    private readonly RecordErrors _errors;
    private readonly SourceProof _proof;
    private readonly IFileRows _rows;
    private readonly int[] _columns = [.. ColumnRole.All.Select(_ => -1)];
    private readonly List<(string Tag, int Column)> _tags = [];
    private readonly List<string> _titles = [];
    private readonly (decimal All, decimal Part)[] _sums = new (decimal, decimal)[ColumnRole.All.Count];
    private readonly int[] _figures;
    private readonly int[] _taken;
    private (long Line, bool IsOne, SourceNumber Number)[] _numbers = [];
    private readonly Dictionary<(string Text, bool IsDay), DateOnly?> _days = [];
    private string[] _headings = [];
    private int _rowsOfPart;
    private List<FileCell> _cells = [];
    private long _line;

    /// <summary>Begins behind the headings. Throws a problem where the file does not have those of the map.</summary>
    public SourceRows(SourceFile file, SourceMap map, MapWords words, RecordErrors errors, SourceProof proof)
    {
        (_file, _map, _words, _errors, _proof) = (file.As(map), map, words, errors, proof);
        _rows = _file.Rows();
        FindHeadings();
        _figures = [.. Figures.Where(Has).Select(role => _columns[role.Place])];
        _taken = [.. _columns.Where(column => column >= 0)];
    }

    /// <summary>What messages call the file.</summary>
    public string Name => _file.Name;

    /// <summary>Where the row at hand stands, from 1.</summary>
    public long Line => _line;

    /// <summary>What the row at hand is.</summary>
    public SourceRowKind Kind { get; private set; }

    /// <summary>What stood above the headings, and the name of the file.</summary>
    public string Title => string.Join(" / ", _titles.Append(Path.GetFileNameWithoutExtension(_file.Path)));

    /// <summary>The headings, from the first column on; none where the file has none.</summary>
    public IReadOnlyList<string> Headings => _headings;

    /// <summary>The values of the tags of the row at hand.</summary>
    public IEnumerable<(string Tag, string Value)> Tags => _tags.Count == 0 ? [] :
        _tags.Select(tag => (tag.Tag, CellAt(tag.Column).Text)).Where(tag => tag.Text.Length > 0);

    /// <summary>The texts of the row at hand, without those that are empty.</summary>
    public IEnumerable<string> Cells => _cells.Select(cell => cell.Text).Where(text => text.Length > 0);

    /// <summary>Whether there is a column for something.</summary>
    public bool Has(ColumnRole role) => _columns[role.Place] >= 0;

    /// <summary>The column of the file for something, from 1.</summary>
    public int PlaceOf(ColumnRole role) => Math.Max(0, _columns[role.Place]) + 1;

    /// <summary>The text of a column of the row at hand; empty where there is none.</summary>
    public string Text(ColumnRole role) => _columns[role.Place] is >= 0 and var column ? CellAt(column).Text : "";

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

    /// <summary>The number in a column; nothing where it is empty, or, with an error, where there is no number.</summary>
    public SourceNumber? Number(ColumnRole role)
    {
        if (Text(role) is not { Length: > 0 } text)
        {
            return null;
        }

        if (TryNumber(_columns[role.Place], out var number))
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
        if (known.Line == Line)
        {
            number = known.Number;
            return known.IsOne;
        }

        var cell = CellAt(column);
        var isOne = SourceNumbers.TryRead(cell.Text, cell.IsNumber ? '.' : _map.DecimalMark ?? '.', out number);
        known = (Line, isOne, number);
        return isOne;
    }

    /// <summary>Adds an error at a column of the row at hand.</summary>
    public void Complain(ColumnRole role, string message) =>
        _errors.Add(Name, Line, PlaceOf(role), $"{_headings.ElementAtOrDefault(PlaceOf(role) - 1) ?? role.Name}: {message}");

    /// <summary>Goes to the next row that says anything; false at the end.</summary>
    public bool Read()
    {
        while (Next())
        {
            if (!IsBlank() && !IsHeadingAgain() && Classify() is { } kind)
            {
                Kind = kind;
                if (kind == SourceRowKind.Data)
                {
                    AddUp();
                }
                else if (kind == SourceRowKind.Total)
                {
                    ProveTotal();
                }

                return true;
            }
        }

        return false;
    }

    /// <summary>Begins to add up anew, as behind the heading of an account.</summary>
    public void BeginPart()
    {
        _rowsOfPart = 0;
        for (var role = 0; role < _sums.Length; role++)
        {
            _sums[role].Part = 0;
        }
    }

    /// <summary>What a column adds up to so far.</summary>
    public decimal SumOf(ColumnRole role) => _sums[role.Place].All;

    /// <inheritdoc/>
    public void Dispose() => _rows.Dispose();

    private void FindHeadings()
    {
        if (_map.Columns.Values.All(heading => ColumnNumber(heading) is not null))
        {
            foreach (var (role, heading) in _map.Columns)
            {
                _columns[role.Place] = ColumnNumber(heading)!.Value;
            }

            _headings = [.. Enumerable.Range(1, _columns.Max() + 1).Select(number => $"column {number}")];
            return;
        }

        if (PlaceHeadings())
        {
            return;
        }

        throw new ProblemException(
            ProblemKind.BadData,
            $"{Name} has no row with the headings {Suggestion.Listed([.. _map.Columns.Values.Select(Quoted)], "and")}.",
            $"{_map.Path} is for files that do; vlei map {_file.Path} makes a map of this one.");
    }

    private bool PlaceHeadings()
    {
        for (var row = 0; row < MostTitleRows && Next(); row++)
        {
            if (Placed())
            {
                _headings = [.. _cells.Select(cell => cell.Text)];
                return true;
            }

            _titles.AddRange(Cells);
        }

        return false;
    }

    private bool Next()
    {
        if (!_rows.Read())
        {
            return false;
        }

        (_cells, _line) = (_rows.Cells, _rows.Row);
        return true;
    }

    private static string Quoted(string heading) => $"\"{heading}\"";

    private static int? ColumnNumber(string heading)
    {
        const string Word = "column ";
        return heading.StartsWith(Word, StringComparison.Ordinal) && int.TryParse(heading[Word.Length..], out var number) && number > 0
            ? number - 1 : null;
    }

    // Where all the headings of the map stand in the row at hand, says so.
    private bool Placed()
    {
        Array.Fill(_columns, -1);
        _tags.Clear();
        var plain = _cells.Select(cell => MapWords.Plain(cell.Text)).ToList();
        foreach (var (role, heading) in _map.Columns)
        {
            var column = Find(plain, heading);
            if (column < 0)
            {
                return false;
            }

            _columns[role.Place] = column;
        }

        foreach (var (tag, heading) in _map.Tags)
        {
            var column = Find(plain, heading);
            if (column < 0)
            {
                return false;
            }

            _tags.Add((tag, column));
        }

        return true;
    }

    private int Find(List<string> plain, string heading)
    {
        var wanted = MapWords.Plain(heading);
        return plain.FindIndex(text => text == wanted && !_columns.Contains(plain.IndexOf(text)) || text == wanted
            && plain.Count(other => other == wanted) == 1);
    }

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

    private bool TryDay(ColumnRole role, out DateOnly day)
    {
        // The same days stand in row after row.
        var cell = CellAt(_columns[role.Place]);
        if (!_days.TryGetValue((cell.Text, cell.IsDay), out var known))
        {
            _days[(cell.Text, cell.IsDay)] = known = ReadDay(cell);
        }

        day = known ?? default;
        return known is not null;
    }

    private DateOnly? ReadDay(FileCell cell) =>
        SourceDates.TryRead(cell.Text, cell.IsDay ? DateOrder.YearMonthDay : OrderOf(), _words, out var day)
        || (cell.Text.Length > 4 && cell.Text[4] == '-' && SourceDates.TryRead(cell.Text, DateOrder.YearMonthDay, _words, out day))
            ? day : null;

    private bool IsBlank()
    {
        foreach (var cell in _cells)
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
            if (_headings.Length <= column || !CellAt(column).Text.Equals(_headings[column], StringComparison.OrdinalIgnoreCase))
            {
                return false;
            }
        }

        return true;
    }

    // Nothing for what belongs to the page.
    private SourceRowKind? Classify()
    {
        var (hasDate, hasFigure) = (Has(ColumnRole.Date), HasFigure());
        var isDated = hasDate && Text(ColumnRole.Date).Length > 0 && TryDay(ColumnRole.Date, out _);
        if (!isDated && IsOfPage())
        {
            return null;
        }

        var word = WordOfRow(isDated);

        if (word is not (RowWord.None or RowWord.Page) && (!isDated || _map.Shape == Shape.Ledger || _map.Shape == Shape.SingleEntry))
        {
            return word == RowWord.Total ? SourceRowKind.Total
                : hasFigure ? word == RowWord.Opening ? SourceRowKind.Opening : SourceRowKind.Closing : null;
        }

        if (isDated || (!hasDate && (hasFigure || IsList())))
        {
            return hasFigure || isDated || Cells.Skip(1).Any() ? SourceRowKind.Data : SourceRowKind.Heading;
        }

        return !hasFigure ? SourceRowKind.Heading
            : IsFiguresAlone() ? SourceRowKind.Total : SourceRowKind.Data;
    }

    // A title again, or a number of a page.
    private bool IsOfPage()
    {
        var isFirst = true;
        foreach (var cell in _cells)
        {
            var text = cell.Text.Trim();
            if (text.Length > 0 && !cell.IsNumber && (_words.RowOf(text) is RowWord.Page || (isFirst && _titles.Contains(text))))
            {
                return true;
            }

            isFirst &= text.Length == 0;
        }

        return false;
    }

    private bool HasFigure()
    {
        foreach (var column in _figures)
        {
            if (column < _cells.Count && _cells[column].Text.Length > 0)
            {
                return true;
            }
        }

        return false;
    }

    private bool IsList() => _figures.Length == 0;

    private bool IsFiguresAlone()
    {
        for (var column = 0; column < _cells.Count; column++)
        {
            if (_cells[column].Text.Length > 0 && !Array.Exists(_figures, figure => figure == column))
            {
                return false;
            }
        }

        return true;
    }

    // In a row with a day only its note can say that it is no record.
    private RowWord WordOfRow(bool isDated)
    {
        if (isDated)
        {
            return Has(ColumnRole.Memo) ? _words.RowOf(Text(ColumnRole.Memo)) : RowWord.None;
        }

        foreach (var role in Texts)
        {
            if (Text(role) is { Length: > 0 } text
                && _words.RowOf(text) is not RowWord.None and var word)
            {
                return word;
            }
        }

        return _cells.FirstOrDefault(cell => cell.Text.Length > 0).Text is { } first ? _words.RowOf(first) : RowWord.None;
    }

    private void AddUp()
    {
        _rowsOfPart++;
        foreach (var role in Summed)
        {
            if (Text(role).Length > 0 && TryNumber(_columns[role.Place], out var number))
            {
                ref var sum = ref _sums[role.Place];
                var value = number.Side == NumberSide.Credit ? -number.Value : number.Value;
                sum = (sum.All + value, sum.Part + value);
            }
        }
    }

    private void ProveTotal()
    {
        foreach (var role in Summed)
        {
            var column = _columns[role.Place];
            if (Text(role).Length == 0 || !TryNumber(column, out var number))
            {
                continue;
            }

            var (all, part) = _sums[role.Place];
            _proof.Hold(
                Name, Line, column + 1, $"the total of {_headings.ElementAtOrDefault(column) ?? role.Name}", number.Value,
                number.Value == part || (number.Value != all && _rowsOfPart > 0) ? part : all);
        }

        BeginPart();
    }
}
