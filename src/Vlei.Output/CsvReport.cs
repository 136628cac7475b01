using CsvHelper;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report as one table for tools: what each row is, then its figures under the keys of their columns, exact and without
/// thousands separators. What rows are may be left out, keys may be headings, and text that a spreadsheet could take for a
/// formula may be marked as text.
/// </summary>
internal sealed class CsvReport
{
    private static readonly string[] OfRows = ["row", "label", "kind", "level"];
    private static readonly string[] OfFigures = ["column", "heading", "value"];

    private readonly CsvWriter _csv;
    private readonly ReportLook _look;

    private CsvReport(CsvWriter csv, ReportLook look) => (_csv, _look) = (csv, look);

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream)
    {
        using var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true);
        var (report, table) = (words.Report, new CsvReport(csv, words.Look));
        csv.WriteHeader(
            [.. table.Heads(OfRows), .. report.Columns.Select(
                column => table.Safe(words.Look.CsvHasHeadings ? column.Heading : column.Key))]);
        Span<char> room = stackalloc char[DecimalText.Longest];
        foreach (var row in RowsAhead.Of(report.Rows))
        {
            table.WriteRow(row);
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var (units, text) = row.Cells[column];
                csv.WriteField(units is { } number ? Figures.Exact(report, row, column, number, room)
                    : text is null ? default(ReadOnlySpan<char>) : table.Safe(text));
            }

            csv.EndRecord();
        }
    }

    /// <summary>Writes several reports as one table for tools: a line per figure, with what it is of.</summary>
    public static void WritePack(ReportPack pack, Stream stream)
    {
        using var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true);
        var look = pack.Reports.Count > 0 ? pack.Reports[0].Report.Look : new ReportLook();
        csv.WriteHeader(["report", .. new CsvReport(csv, look).Heads(OfRows), .. OfFigures]);
        foreach (var (name, report) in pack.Reports.Select(named => (named.Name, new ReportWords(named.Report).Report)))
        {
            var table = new CsvReport(csv, report.Look with { CsvIsPlain = look.CsvIsPlain });
            foreach (var row in report.Rows)
            {
                for (var column = 0; column < report.Columns.Count; column++)
                {
                    if (Figures.Exact(report, row, column) is { } value)
                    {
                        csv.WriteField(name);
                        table.WriteRow(row);
                        csv.WriteField(table.Safe(report.Columns[column].Key));
                        csv.WriteField(table.Safe(report.Columns[column].Heading));
                        csv.WriteField(row.Cells[column].Units is null ? table.Safe(value) : value);
                        csv.EndRecord();
                    }
                }
            }
        }
    }

    private IEnumerable<string> Heads(IReadOnlyList<string> heads) => heads.Where((_, place) => place == 1 || !_look.CsvIsPlain);

    private void WriteRow(ReportRow row)
    {
        if (!_look.CsvIsPlain)
        {
            _csv.WriteField(Safe(row.Key));
        }

        _csv.WriteField(Safe(row.Label));
        if (!_look.CsvIsPlain)
        {
            _csv.WriteField(RowKinds.NameOf(row.Kind));
            _csv.WriteField(row.Level);
        }
    }

    // A mark before it, which spreadsheets do not show, keeps text from being worked out.
    private string Safe(string text) => _look.CsvIsSafe && text.Length > 0 && "=+-@\t\r".Contains(text[0]) ? $"'{text}" : text;
}
