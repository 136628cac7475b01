using System.Globalization;
using System.Text;
using ExcelDataReader;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>The rows of a sheet of an Office Open XML workbook.</summary>
internal sealed class OfficeRows : IFileRows
{
    private readonly IExcelDataReader _reader;
    private readonly List<FileCell> _cells = [];
    private readonly Dictionary<string, string> _errors;

    /// <summary>Begins at the first row of a sheet.</summary>
    public OfficeRows(byte[] file, string sheet)
    {
        // The library asks for it whatever it reads.
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        _errors = OfficeParts.Errors(file, sheet);
        _reader = ExcelReaderFactory.CreateOpenXmlReader(new MemoryStream(file, writable: false));
        while (_reader.Name != sheet)
        {
            if (!_reader.NextResult())
            {
                throw new InvalidDataException($"the sheet {sheet} has no part.");
            }
        }
    }

    /// <inheritdoc/>
    public long Row { get; private set; }

    /// <inheritdoc/>
    public List<FileCell> Cells => _cells;

    /// <inheritdoc/>
    public bool Read()
    {
        _cells.Clear();
        if (!_reader.Read())
        {
            return false;
        }

        Row = _reader.Depth + 1;
        for (var column = 0; column < _reader.FieldCount; column++)
        {
            _cells.Add(_errors.Count > 0 && _errors.TryGetValue($"{FilePlace.ColumnName(column + 1)}{Row}", out var error)
                ? new FileCell(error) : CellOf(column));
        }

        return true;
    }

    /// <inheritdoc/>
    public void Dispose() => _reader.Dispose();

    private FileCell CellOf(int column) => _reader.GetValue(column) switch
    {
        string text => new FileCell(text),
        bool flag => new FileCell(flag ? "true" : "false"),
        DateTime day => new FileCell(
            day.ToString(day.TimeOfDay == TimeSpan.Zero ? "yyyy-MM-dd" : "yyyy-MM-ddTHH:mm:ss", CultureInfo.InvariantCulture), true),
        double number => new FileCell(SheetNumber.Text(number), IsNumber: true),
        IFormattable other => new FileCell(other.ToString(null, CultureInfo.InvariantCulture)),
        _ => new FileCell(""),
    };
}
