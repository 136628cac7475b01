using System.Globalization;
using System.Text;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records;

/// <summary>
/// Reads one table of cells as records of one kind. A broken value is told to the errors and its record marked, so that
/// everything that is wrong with a file comes out in one go.
/// </summary>
internal sealed class RecordReader : IDisposable
{
    private const string TagPrefix = "tag.";
    private const int LongestShown = 60;
    private const int MonthLength = 7;
    private static readonly string[] DebitAndCredit = ["debit", "credit"];

    private readonly ICellReader _cells;
    private readonly RecordTable _table;
    private readonly string _name;
    private readonly RecordErrors _errors;
    private readonly FieldReader _fields;
    private readonly RecordField[] _described;
    private readonly RecordKeys?[] _keys;
    private readonly int[] _columns;
    private readonly int[] _sides = [-1, -1];
    private readonly List<(string Tag, int Column)> _tags = [];
    private long _headingLine = 1;
    private int[]? _places;

    /// <summary>Begins to read a table with its headings; columns that are unknown or missing go to the errors.</summary>
    public RecordReader(
        RecordTable table, ICellSource source, Currency currency, IReadOnlyDictionary<string, RecordKeys> keys, RecordErrors errors)
    {
        (_table, _name, _errors, _described) = (table, source.Name, errors, [.. table.Fields]);
        _keys =
            [.. _described.Select(field => field.Type == FieldType.Reference ? keys.GetValueOrDefault(field.Target!) : null)];
        _fields = new FieldReader(currency);
        _columns = new int[table.Fields.Count];
        Array.Fill(_columns, -1);
        _cells = source.Open();
        Readable = ReadHeadings();
        if (!Readable && keys.TryGetValue(table.Name, out var own))
        {
            own.IsIncomplete = true;
        }
    }

    private bool Readable { get; }

    /// <summary>Goes to the next record, which may be broken, and fills the row with it; false at the end of the file.</summary>
    public bool Read(RecordRow row)
    {
        if (!Next())
        {
            return false;
        }

        var before = _errors.Count;
        row.Clear();
        _places ??= [.. _columns.Select(column => column < 0 ? 0 : _cells.PlaceOf(column))];
        row.PlaceFields(_places);
        (row.File, row.FileLine) = (_name, _cells.Line);
        Fill(row);
        row.IsBroken |= _errors.Count > before;
        return true;
    }

    /// <summary>Goes to the next row without looking into it; false at the end.</summary>
    public bool Next() => Readable && _cells.Read();

    /// <summary>What stands in a field of the current line, empty where the file does not have it.</summary>
    public ReadOnlySpan<byte> Value(int field) => _columns[field] < 0 ? default : _cells.Cell(_columns[field]);

    /// <inheritdoc/>
    public void Dispose() => _cells.Dispose();

    private bool ReadHeadings()
    {
        if (_cells.Headings.Count == 0)
        {
            _errors.Add(_name, 1, 1, _cells.Fault?.Message ?? $"the file is empty; expected a header row with {Columns()}.");
            return false;
        }

        var before = _errors.Count;
        _headingLine = Math.Max(1, _cells.Line);
        for (var column = 0; column < _cells.Headings.Count; column++)
        {
            Place(_cells.Headings[column], column);
        }

        var hasSides = _sides[0] >= 0 && _sides[1] >= 0;
        for (var field = 0; field < _columns.Length; field++)
        {
            var described = _table.Fields[field];
            if (described.Required && _columns[field] < 0 && !(hasSides && IsLineAmount(described)))
            {
                var or = IsLineAmount(described) ? ", or debit and credit" : "";
                _errors.Add(_name, _headingLine, 1, $"the column {described.Name}{or} is missing; expected {Columns()}.");
            }
        }

        if ((_sides[0] >= 0 || _sides[1] >= 0) && (!hasSides || _columns[_table.IndexOf("amount")] >= 0))
        {
            _errors.Add(_name, _headingLine, Math.Max(_sides[0], _sides[1]) + 1, "expected either amount, or both debit and credit.");
        }

        _tags.Sort((left, right) => string.CompareOrdinal(left.Tag, right.Tag));
        return _errors.Count == before;
    }

    private void Place(string header, int column)
    {
        var name = header.Trim();
        if (name.StartsWith(TagPrefix, StringComparison.OrdinalIgnoreCase) && name.Length > TagPrefix.Length)
        {
            if (_tags.Any(tag => tag.Tag == name[TagPrefix.Length..]))
            {
                _errors.Add(_name, _headingLine, column + 1, $"the column {name} is there twice.");
            }

            _tags.Add((name[TagPrefix.Length..], column));
            return;
        }

        var field = -1;
        for (var index = 0; index < _table.Fields.Count && field < 0; index++)
        {
            field = _table.Fields[index].Name.Equals(name, StringComparison.OrdinalIgnoreCase) ? index : -1;
        }

        var side = _table == RecordTables.Lines ? Array.IndexOf(DebitAndCredit, name.ToLowerInvariant()) : -1;
        if (field < 0 && side < 0)
        {
            var nearest = Suggestion.DidYouMean(name, _table.Fields.Select(known => known.Name));
            _errors.Add(_name, _headingLine, column + 1, $"the column \"{name}\" is unknown. {nearest ?? $"Expected {Columns()}."}");
            return;
        }

        ref var place = ref field >= 0 ? ref _columns[field] : ref _sides[side];
        if (place >= 0)
        {
            _errors.Add(_name, _headingLine, column + 1, $"the column {name} is there twice.");
        }

        place = column;
    }

    private void Fill(RecordRow row)
    {
        if (_cells.Fault is var (column, message))
        {
            _errors.Add(_name, _cells.Line, column, message);
            return;
        }

        for (var field = 0; field < _columns.Length; field++)
        {
            FillField(row, field);
        }

        if (_sides[0] >= 0)
        {
            FillAmount(row);
        }

        if (_tags.Count > 0)
        {
            FillTags(row);
        }
    }

    private void FillField(RecordRow row, int field)
    {
        var described = _described[field];
        var value = Value(field);
        if (described.Type == FieldType.Month && _columns[field] >= 0 && _cells.IsDay(_columns[field]))
        {
            // A spreadsheet makes a day of what is typed as a month.
            value = value[..Math.Min(MonthLength, value.Length)];
        }

        if (value.IsEmpty)
        {
            if (described.Default is { } byDefault)
            {
                _fields.TryRead(described, Encoding.UTF8.GetBytes(byDefault), row, field, out _);
            }
            else if (described.Required && !(_sides[0] >= 0 && IsLineAmount(described)))
            {
                Complain(_columns[field], described.Name, "", "is empty; a value is required.");
            }

            return;
        }

        if (_keys[field] is { } keys)
        {
            var key = keys.Find(value);
            if (key == 0 && keys.IsIncomplete)
            {
                row.IsBroken = true;
                return;
            }

            if (key == 0)
            {
                var text = Encoding.UTF8.GetString(value);
                var target = RecordTables.Named(described.Target!);
                var nearest = _errors.Count < RecordErrors.Shown ? Suggestion.DidYouMean(text, keys.Known) : null;
                Complain(_columns[field], described.Name, text, $"is no {target.Singular} of this book. {nearest}".TrimEnd());
                return;
            }

            row.Set(field, key);
        }
        else if (!_fields.TryRead(described, value, row, field, out var expected))
        {
            Complain(_columns[field], described.Name, Encoding.UTF8.GetString(value), expected);
        }
    }

    private void FillAmount(RecordRow row)
    {
        var field = _table.IndexOf("amount");
        var filled = false;
        var amount = 0L;
        for (var side = 0; side < _sides.Length; side++)
        {
            var value = _cells.Cell(_sides[side]);
            if (value.IsEmpty)
            {
                continue;
            }

            if (!_fields.TryRead(_table.Fields[field], value, row, field, out var expected))
            {
                Complain(_sides[side], DebitAndCredit[side], Encoding.UTF8.GetString(value), expected);
                return;
            }

            filled = true;
            if (!TryAdd(ref amount, row.Number(field), side == 0 ? 1 : -1))
            {
                Complain(_sides[side], DebitAndCredit[side], Encoding.UTF8.GetString(value), "is too large together with the other side.");
                return;
            }
        }

        if (filled)
        {
            row.Set(field, amount);
        }
        else
        {
            Complain(_sides[0], "debit", "", "and credit are both empty; one of them is required.");
        }
    }

    private static bool TryAdd(ref long amount, long side, int sign)
    {
        var sum = amount + ((Int128)sign * side);
        amount = (long)sum;
        return amount == sum && sum != long.MinValue;
    }

    private void FillTags(RecordRow row)
    {
        var tags = new SortedDictionary<string, string>(StringComparer.Ordinal);
        foreach (var (tag, column) in _tags)
        {
            if (!_cells.Cell(column).IsEmpty)
            {
                tags[tag] = Encoding.UTF8.GetString(_cells.Cell(column));
            }
        }

        if (tags.Count > 0)
        {
            row.SetTags(TagText.Write(tags));
        }
    }

    private void Complain(int column, string field, string value, string expected)
    {
        var shown = value.Length > LongestShown ? $"{value[..LongestShown]}…" : value;
        var quoted = value.Length == 0 ? "" : $"\"{shown}\" ";
        _errors.Add(_name, _cells.Line, _cells.PlaceOf(Math.Max(0, column)), string.Create(
            CultureInfo.InvariantCulture, $"{field} {quoted}{expected}"));
    }

    private bool IsLineAmount(RecordField field) => _table == RecordTables.Lines && field.Name == "amount";

    private string Columns() => string.Join(", ", _table.Fields.Select(field => field.Required ? $"{field.Name}*" : field.Name));
}
