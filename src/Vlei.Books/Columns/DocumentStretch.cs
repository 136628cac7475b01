using System.Runtime.InteropServices;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// What documents of neighbouring keys and their lines say, a column for each field that anybody says anything in. Columns are read
/// when they are first asked for.
/// </summary>
/// <param name="read">Reads a column by its name; nothing where it is not there.</param>
internal sealed class DocumentStretch(Func<string, WordColumn?> read)
{
    /// <summary>How many keys belong to one.</summary>
    public const int Size = 256;

    /// <summary>The name of the column of how many lines documents have.</summary>
    public const string LineCount = "lines";

    /// <summary>The name of the column of the places of lines in their documents.</summary>
    public const string LineNumber = "lines.line";

    /// <summary>The fields of documents that have columns: all of them.</summary>
    public static readonly IReadOnlyList<RecordField> OfDocuments = [.. RecordTables.Documents.Fields, RecordTable.Tags];

    /// <summary>The price of one of a line, which months do not hold.</summary>
    public static readonly RecordField UnitPrice = OfLine("unit_price");

    /// <summary>The note of a line, which they do not hold either.</summary>
    public static readonly RecordField Memo = OfLine("memo");

    /// <summary>The fields of lines that have columns.</summary>
    public static readonly IReadOnlyList<RecordField> OfLines = [UnitPrice, Memo];

    private static readonly RecordField Id = RecordTables.Documents.Fields[RecordTables.Documents.IndexOf(RecordTables.Documents.Id!)];

    private readonly Dictionary<string, WordColumn?> _columns = new(StringComparer.Ordinal);
    private readonly List<(RecordField Field, WordColumn? Column)> _ofFields = [];
    private WordColumn? _lineNumbers;
    private int[]? _firstLines;

    /// <summary>The name of the column of a field of lines.</summary>
    public static string NameOfLine(RecordField field) => ReferenceEquals(field, Memo) ? "lines.memo" : "lines.unit_price";

    /// <summary>Where a stretch is kept: where other kinds of what is derived have a month.</summary>
    public static YearMonth PlaceOf(int stretch) => new(stretch);

    private static RecordField OfLine(string name) => RecordTables.Lines.Fields[RecordTables.Lines.IndexOf(name)];

    /// <summary>The column of that name; nothing where nobody says anything in it.</summary>
    public WordColumn? Column(string name)
    {
        if (!_columns.TryGetValue(name, out var column))
        {
            _columns[name] = column = read(name);
        }

        return column;
    }

    /// <summary>The column of a field of documents or of lines; nothing where nobody says anything in it.</summary>
    public WordColumn? Column(RecordField field)
    {
        // Few are asked for, and each for every row.
        foreach (var (known, column) in CollectionsMarshal.AsSpan(_ofFields))
        {
            if (ReferenceEquals(known, field))
            {
                return column;
            }
        }

        _ofFields.Add((field, Column(OfLines.Any(known => ReferenceEquals(known, field)) ? NameOfLine(field) : field.Name)));
        return _ofFields[^1].Column;
    }

    /// <summary>Whether a document is there.</summary>
    public bool Has(int row) => Column(Id)?.IsSaid(row) == true;

    /// <summary>Where the lines of a document begin, among all lines of the stretch.</summary>
    public int FirstLineOf(int row)
    {
        if (_firstLines is null)
        {
            _firstLines = new int[Size + 1];
            var counts = Column(LineCount);
            for (var place = 0; place < Size; place++)
            {
                _firstLines[place + 1] = _firstLines[place] + (int)(counts?.NumberOf(place) ?? 0);
            }
        }

        return _firstLines[row];
    }

    /// <summary>Where a line of a document stands among all lines of the stretch; less than 0 where there is none.</summary>
    public int LineAt(int row, int number)
    {
        var (first, end) = (FirstLineOf(row), FirstLineOf(row + 1));
        if (first == end || (_lineNumbers ??= Column(LineNumber)) is not { } numbers)
        {
            return -1;
        }

        // Most documents count their lines from 1.
        var likely = first + number - 1;
        if (likely >= first && likely < end && numbers.NumberOf(likely) == number)
        {
            return likely;
        }

        for (var line = first; line < end; line++)
        {
            if (numbers.NumberOf(line) == number)
            {
                return line;
            }
        }

        return -1;
    }
}
