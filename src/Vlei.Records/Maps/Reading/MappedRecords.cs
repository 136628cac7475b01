using System.Buffers;
using System.Text;
using Vlei.Core.Ledger;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Records of one kind that came of one file, packed as they were found, each value with its place in that file. A value may be one
/// that is only known when everything was read, such as the code of an account that the file knows by its name.
/// </summary>
internal sealed class MappedRecords(RecordTable table, string name, RecordFile file, IReadOnlyList<string> later) : ICellSource
{
    // Begins a value that is known later; no text of a file has it, as it could not be told from a damaged one.
    private const byte Later = 1;

    // What a file comes to is about as long as the file.
    private const int Fewest = 1 << 10;
    private const int Most = 1 << 26;

    private static readonly byte[] EndOfRecord = [0];

    private readonly ArrayBufferWriter<byte> _bytes = new((int)Math.Clamp(file.Bytes, Fewest, Most));
    private readonly List<string> _tags = [];
    private readonly Dictionary<string, int> _places = table.Fields.Index().ToDictionary(field => field.Item.Name, field => field.Index);

    /// <inheritdoc/>
    public string Name => name;

    /// <inheritdoc/>
    public RecordFile File => file;

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>What stands for a value that is known later, by its place among those.</summary>
    public static string LaterText(int place) => $"{(char)Later}{place}";

    /// <summary>Begins a record that stands on a line of the file.</summary>
    public void Begin(long line)
    {
        Count++;
        var bytes = _bytes.GetSpan(PackedNumber.Longest);
        var rest = bytes;
        PackedNumber.Put(ref rest, line);
        _bytes.Advance(bytes.Length - rest.Length);
    }

    /// <summary>Says what a field is; nothing for an empty text.</summary>
    public void Put(string field, string value, int column)
    {
        if (value.Length > 0)
        {
            Put(_places[field], value, column);
        }
    }

    /// <summary>The same for a number.</summary>
    public void Put(string field, decimal value, int column)
    {
        var text = (Span<byte>)stackalloc byte[48];
        _ = value.TryFormat(text, out var written, default, System.Globalization.CultureInfo.InvariantCulture);
        PutBytes(_places[field], text[..written], column);
    }

    /// <summary>Says what it is tagged with.</summary>
    public void PutTag(string tag, string value)
    {
        var place = _tags.IndexOf(tag);
        if (place < 0)
        {
            place = _tags.Count;
            _tags.Add(tag);
        }

        if (value.Length > 0)
        {
            Put(table.Fields.Count + place, value, 1);
        }
    }

    /// <summary>Ends the record.</summary>
    public void End() => _bytes.Write(EndOfRecord);

    /// <inheritdoc/>
    public ICellReader Open() => new Rows(this);

    private void Put(int field, string value, int column)
    {
        const int Short = 256;
        var most = Encoding.UTF8.GetMaxByteCount(value.Length);
        var bytes = most <= Short ? stackalloc byte[Short] : new byte[most];
        PutBytes(field, bytes[..Encoding.UTF8.GetBytes(value, bytes)], column);
    }

    private void PutBytes(int field, ReadOnlySpan<byte> value, int column)
    {
        var bytes = _bytes.GetSpan((3 * PackedNumber.Longest) + value.Length);
        var rest = bytes;
        PackedNumber.Put(ref rest, field + 1);
        PackedNumber.Put(ref rest, column);
        PackedNumber.Put(ref rest, value.Length);
        value.CopyTo(rest);
        _bytes.Advance(bytes.Length - rest.Length + value.Length);
    }

    private sealed class Rows : ICellReader
    {
        private readonly MappedRecords _records;
        private readonly (int Start, int Length, int Column)[] _cells;
        private int _at;

        public Rows(MappedRecords records)
        {
            _records = records;
            Headings = [.. records.Table.Fields.Select(field => field.Name), .. records._tags.Select(tag => $"tag.{tag}")];
            _cells = new (int, int, int)[Headings.Count];
        }

        public IReadOnlyList<string> Headings { get; }

        public long Line { get; private set; }

        public (int Column, string Message)? Fault => null;

        private ReadOnlySpan<byte> All => _records._bytes.WrittenSpan;

        public bool Read()
        {
            if (_at == All.Length)
            {
                return false;
            }

            Array.Clear(_cells);
            var rest = All[_at..];
            Line = PackedNumber.Take(ref rest);
            for (var field = PackedNumber.Take(ref rest); field > 0; field = PackedNumber.Take(ref rest))
            {
                var (column, length) = ((int)PackedNumber.Take(ref rest), (int)PackedNumber.Take(ref rest));
                _cells[field - 1] = (All.Length - rest.Length, length, column);
                rest = rest[length..];
            }

            _at = All.Length - rest.Length;
            return true;
        }

        public ReadOnlySpan<byte> Cell(int column)
        {
            var bytes = All.Slice(_cells[column].Start, _cells[column].Length);
            return !bytes.IsEmpty && bytes[0] == Later
                ? Encoding.UTF8.GetBytes(_records.LaterValues[int.Parse(bytes[1..], null)]) : bytes;
        }

        public int PlaceOf(int column) => Math.Max(1, _cells[column].Column);

        public bool IsDay(int column) => false;

        public void Dispose()
        {
        }
    }

    private RecordTable Table => table;

    private IReadOnlyList<string> LaterValues => later;
}
