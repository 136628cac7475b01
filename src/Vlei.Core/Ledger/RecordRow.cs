using System.Text;

namespace Vlei.Core.Ledger;

/// <summary>
/// One record on its way in: a number or a UTF-8 text per field of its table, or nothing. One instance is filled again
/// for every record, so that reading a million of them leaves nothing behind.
/// </summary>
public sealed class RecordRow(RecordTable table)
{
    private readonly long[] _numbers = new long[table.Fields.Count];
    private readonly (int Start, int Length)[] _texts = new (int, int)[table.Fields.Count];
    private readonly bool[] _filled = new bool[table.Fields.Count];
    private int[] _fileColumns = [];
    private byte[] _bytes = new byte[256];
    private int _used;
    private byte[] _tags = [];

    /// <summary>The kind of record that it is.</summary>
    public RecordTable Table { get; } = table;

    /// <summary>The file that it came from.</summary>
    public string File { get; set; } = "";

    /// <summary>The line of that file on which it starts, from 1.</summary>
    public long FileLine { get; set; }

    /// <summary>In which column of its file a field stands, from 1; 1 where the file does not have it.</summary>
    public int FileColumn(int field) => field < _fileColumns.Length ? Math.Max(1, _fileColumns[field]) : 1;

    /// <summary>Says where its fields stand in its file, from 1; 0 for those that are not there.</summary>
    public void PlaceFields(int[] fileColumns) => _fileColumns = fileColumns;

    /// <summary>Says that its fields stand where those of another record of the same file do.</summary>
    public void PlaceFieldsAs(RecordRow other) => _fileColumns = other._fileColumns;

    /// <summary>Its tags as a JSON object with the names in order; empty where it has none.</summary>
    public ReadOnlySpan<byte> Tags => _tags;

    /// <summary>
    /// Whether something in it is wrong and was told to the errors. What is right is there all the same, so that one
    /// mistake does not make others out of what refers to it.
    /// </summary>
    public bool IsBroken { get; set; }

    /// <summary>How long all texts in it are together, besides its tags; those too that others were put in the place of.</summary>
    public int TextBytes => _used;

    /// <summary>Empties all fields.</summary>
    public void Clear()
    {
        IsBroken = false;
        _filled.AsSpan().Clear();
        _used = 0;
        _tags = [];
    }

    /// <summary>Whether the field has a value.</summary>
    public bool Has(int field) => _filled[field];

    /// <summary>The number in the field, 0 where it is empty.</summary>
    public long Number(int field) => _filled[field] ? _numbers[field] : 0;

    /// <summary>The text in the field, empty where there is none. Valid until the row is filled again.</summary>
    public ReadOnlySpan<byte> Text(int field) =>
        _filled[field] ? _bytes.AsSpan(_texts[field].Start, _texts[field].Length) : default;

    /// <summary>The text in the field as a string.</summary>
    public string String(int field) => Encoding.UTF8.GetString(Text(field));

    /// <summary>The day in the field. Throws where it is empty or no day.</summary>
    public DateOnly Day(int field) => DateOnly.ParseExact(String(field), "yyyy-MM-dd");

    /// <summary>Puts a number into the field.</summary>
    public void Set(int field, long number)
    {
        _numbers[field] = number;
        _filled[field] = true;
    }

    /// <summary>Puts a text into the field.</summary>
    public void Set(int field, ReadOnlySpan<byte> text)
    {
        if (_used + text.Length > _bytes.Length)
        {
            Array.Resize(ref _bytes, Math.Max(2 * _bytes.Length, _used + text.Length));
        }

        text.CopyTo(_bytes.AsSpan(_used));
        _texts[field] = (_used, text.Length);
        _filled[field] = true;
        _used += text.Length;
    }

    /// <summary>Puts the tags in, as a JSON object.</summary>
    public void SetTags(byte[] json) => _tags = json;
}
