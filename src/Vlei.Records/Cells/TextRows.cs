using CsvHelper;
using Vlei.Core.Problems;

namespace Vlei.Records.Cells;

/// <summary>The rows of a text with separators, of any dialect, as they stand in the file: ragged ones too.</summary>
internal sealed class TextRows : IFileRows
{
    // A quote that is never closed would otherwise swallow the rest of the file.
    private const int LongestRecord = 1 << 20;

    private readonly string _path;
    private readonly CsvReader _csv;
    private readonly List<FileCell> _cells = [];

    /// <summary>Begins at the first row.</summary>
    public TextRows(string path, TextDialect dialect) => (_path, _csv) = (path, CsvReader.FromFile(path, new CsvReaderOptions
    {
        Separator = dialect.Separator,
        Encoding = TextDialect.EncodingOf(dialect.Encoding),
        HasHeader = false,
        TrackLineNumbers = true,
        PoolStrings = true,
        MaxRecordSize = LongestRecord,
    }));

    /// <inheritdoc/>
    public long Row => _csv.LineNumber;

    /// <inheritdoc/>
    public List<FileCell> Cells => _cells;

    /// <inheritdoc/>
    public bool Read()
    {
        _cells.Clear();
        try
        {
            if (!_csv.Read())
            {
                return false;
            }
        }
        catch (CsvFormatException cannot)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{Path.GetFileName(_path)}:{cannot.LineNumber}: this row cannot be read: is a quote left open?",
                "Close it, or write a quote twice within quotes.", cannot);
        }

        for (var column = 0; column < _csv.FieldCount; column++)
        {
            _cells.Add(new FileCell(_csv.GetString(column).Trim().TrimStart('\ufeff')));
        }

        return true;
    }

    /// <inheritdoc/>
    public void Dispose() => _csv.Dispose();
}
