using CsvHelper;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report as one table for tools: what each row is, then its figures under the keys of their columns, exact and
/// without thousands separators.
/// </summary>
internal static class CsvReport
{
    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream)
    {
        using var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true);
        csv.WriteHeader(["row", "label", "kind", "level", .. report.Columns.Select(column => column.Key)]);
        foreach (var row in report.Rows)
        {
            csv.WriteField(row.Key);
            csv.WriteField(row.Label);
            csv.WriteField(RowKinds.NameOf(row.Kind));
            csv.WriteField(row.Level);
            for (var column = 0; column < report.Columns.Count; column++)
            {
                csv.WriteField(Figures.Exact(report, row, column));
            }

            csv.EndRecord();
        }
    }

    /// <summary>Writes several reports as one table for tools: a line per figure, with what it is of.</summary>
    public static void WritePack(ReportPack pack, Stream stream)
    {
        using var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true);
        csv.WriteHeader(["report", "row", "label", "kind", "level", "column", "heading", "value"]);
        foreach (var (name, report) in pack.Reports)
        {
            foreach (var row in report.Rows)
            {
                for (var column = 0; column < report.Columns.Count; column++)
                {
                    if (Figures.Exact(report, row, column) is { } value)
                    {
                        csv.WriteField(name);
                        csv.WriteField(row.Key);
                        csv.WriteField(row.Label);
                        csv.WriteField(RowKinds.NameOf(row.Kind));
                        csv.WriteField(row.Level);
                        csv.WriteField(report.Columns[column].Key);
                        csv.WriteField(report.Columns[column].Heading);
                        csv.WriteField(value);
                        csv.EndRecord();
                    }
                }
            }
        }
    }
}
