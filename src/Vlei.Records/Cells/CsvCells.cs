using CsvHelper;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>A CSV file as it is in a record set: RFC 4180 in UTF-8, with line numbers, and never guessing.</summary>
/// <param name="path">Where it is.</param>
/// <param name="name">What messages call it.</param>
/// <param name="errors">Where the first place goes that is not UTF-8.</param>
/// <param name="isKept">Whether its bytes are kept, so that it can be looked through again.</param>
internal sealed class CsvCells(string path, string name, RecordErrors errors, bool isKept) : ICellSource
{
    private Func<RecordFile>? _finish;
    private byte[]? _bytes;
    private RecordFile? _known;

    /// <inheritdoc/>
    public string Name => name;

    /// <inheritdoc/>
    public RecordFile File => _known ??= _finish!();

    /// <summary>What a file is, without looking at its cells.</summary>
    public static RecordFile Fingerprint(string path)
    {
        using var file = new FingerprintStream(path, path, new RecordErrors());
        return file.Finish();
    }

    /// <inheritdoc/>
    public ICellReader Open()
    {
        if (isKept && _bytes is null)
        {
            using var file = new FingerprintStream(path, name, errors);
            using var bytes = new MemoryStream();
            file.CopyTo(bytes);
            (_bytes, _known) = (bytes.ToArray(), file.Finish());
        }

        if (_bytes is not null)
        {
            return new Rows(new MemoryStream(_bytes));
        }

        var whole = new FingerprintStream(path, name, errors);
        _finish = whole.Finish;
        return new Rows(whole);
    }

    private sealed class Rows : ICellReader
    {
        // A quote that is never closed would otherwise swallow the rest of the file.
        private const int LongestRecord = 1 << 20;

        private readonly Stream _file;
        private readonly CsvReader _csv;
        private CsvMalformedReason? _malformed;
        private (long Line, string Message)? _broken;

        public Rows(Stream file)
        {
            _file = file;
            _csv = CsvReader.Create(
                file,
                new CsvReaderOptions
                {
                    TrackLineNumbers = true,
                    MaxRecordSize = LongestRecord,
                    OnMalformedRecord = record => _malformed ??= record.Reason,
                },
                leaveOpen: true);
            try
            {
                _csv.ReadHeader();
                Headings = _csv.Headers?.ToArray() ?? [];
            }
            catch (CsvFormatException)
            {
                _broken = (1, "the header cannot be read: is a quote left open?");
            }
        }

        public IReadOnlyList<string> Headings { get; } = [];

        public long Line => _broken?.Line ?? _csv.LineNumber;

        public (int Column, string Message)? Fault => _broken is { } broken ? (1, broken.Message) : _malformed switch
        {
            CsvMalformedReason.UnterminatedQuote => (1, "a quote is opened and never closed."),
            CsvMalformedReason.TextAfterClosingQuote =>
                (1, "there is text after a closing quote; write a quote twice inside quotes."),
            not null => (
                1, "there is a quote inside a value without quotes around it; quote the value and write its quotes twice."),
            null when _csv.FieldCount != Headings.Count => (
                Math.Min(_csv.FieldCount, Headings.Count),
                $"there are {_csv.FieldCount} values; expected {Headings.Count}, as in the header."),
            null => null,
        };

        public bool Read()
        {
            if (_broken is not null)
            {
                return false;
            }

            _malformed = null;
            try
            {
                return _csv.Read();
            }
            catch (CsvFormatException cannotRead)
            {
                _broken = (cannotRead.LineNumber, "this record cannot be read: is a quote left open?");
                return true;
            }
        }

        public ReadOnlySpan<byte> Cell(int column) => _broken is null ? _csv.GetSpan(column) : default;

        public bool IsDay(int column) => false;

        public void Dispose()
        {
            _csv.Dispose();
            _file.Dispose();
        }
    }
}
