using System.Security.Cryptography;
using System.Xml;
using ExcelDataReader.Exceptions;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Records.Cells;

/// <summary>A workbook in one of the open formats: Office Open XML (<c>.xlsx</c>) or OpenDocument (<c>.ods</c>).</summary>
public sealed class Spreadsheet
{
    private static readonly string[] Endings = [".xlsx", ".ods"];

    private readonly string _path;
    private readonly byte[] _bytes;
    private readonly Dictionary<string, KeptRows> _kept = [];

    private Spreadsheet(string path, byte[] bytes)
    {
        (_path, _bytes) = (path, bytes);
        File = new RecordFile(path, Convert.ToHexStringLower(SHA256.HashData(bytes)), bytes.Length);
        Sheets = Told(() => IsOpenDocument ? OpenDocumentRows.Sheets(_bytes) : OfficeParts.Sheets(_bytes));
    }

    /// <summary>The file.</summary>
    public RecordFile File { get; }

    /// <summary>The names of its sheets, in their order.</summary>
    public IReadOnlyList<string> Sheets { get; }

    private bool IsOpenDocument => _path.EndsWith(Endings[1], StringComparison.OrdinalIgnoreCase);

    /// <summary>Whether a file is one, by its ending.</summary>
    public static bool IsOne(string path) => Endings.Any(ending => path.EndsWith(ending, StringComparison.OrdinalIgnoreCase));

    /// <summary>
    /// Opens one. Throws a <see cref="ProblemException"/> where it cannot be read; where that shows later, as it is read.
    /// </summary>
    public static Spreadsheet Open(string path) => new(path, System.IO.File.ReadAllBytes(path));

    /// <summary>A sheet of it.</summary>
    public ICellSource Sheet(string name) => new SheetCells(
        FilePlace.Sheet(Path.GetFileName(_path), name), File, () => Rows(name));

    /// <summary>Begins at the first row of a sheet.</summary>
    internal IFileRows Rows(string name) => Told(() => IsOpenDocument
        ? new ToldRows(this, new OpenDocumentRows(_bytes, name)) : Kept(name).Open());

    private KeptRows Kept(string name)
    {
        if (!_kept.TryGetValue(name, out var kept))
        {
            using var rows = new OfficeRows(_bytes, name);
            _kept[name] = kept = new KeptRows(rows);
        }

        return kept;
    }

    // Whatever is wrong with the parts of a workbook is said of the workbook.
    private T Told<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception damaged) when (damaged is InvalidDataException or XmlException or ExcelReaderException or FormatException
            or IOException or NullReferenceException or ArgumentException or OverflowException)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{_path} is no workbook that can be read: {damaged.Message}",
                "Save it anew as .xlsx or .ods, without a password, or as CSV.", damaged);
        }
    }

    private sealed class ToldRows(Spreadsheet file, IFileRows rows) : IFileRows
    {
        public long Row => rows.Row;

        public List<FileCell> Cells => rows.Cells;

        public bool Read() => file.Told(rows.Read);

        public void Dispose() => rows.Dispose();
    }
}
