using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The records behind every figure of a report, and the documents that they are of, to go along with it.</summary>
public static class Details
{
    private const long MostFigures = 50_000;

    // The columns that traces have, in their order; each has some of them.
    private static readonly string[] Order = ["date", "kind", "number", "contact", "account", "memo", "settled-by", "amount", "running"];

    /// <summary>
    /// The report with as much as its looks ask for. Throws a <see cref="ProblemException"/> where that would be too much.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="context">The book that it was made from.</param>
    /// <param name="lines">The list of lines, which documents are shown by.</param>
    public static Report AddTo(Report report, ReportContext context, ReportDefinition lines)
    {
        if (report.Look.Details == DetailDepth.None)
        {
            return report;
        }

        if ((long)report.Rows.Count * report.Columns.Count > MostFigures)
        {
            throw new ProblemException(
                ProblemKind.Usage, string.Create(
                    CultureInfo.InvariantCulture,
                    $"{report.Title} has {report.Rows.Count:N0} rows, and the records behind every figure of them would be too many."),
                "Narrow it, take --summary, or leave --with-detail out: vlei trace shows what is behind one figure.");
        }

        var look = report.Look with { Chart = null, Details = DetailDepth.None, TemplateFile = null, Template = null, Subtitle = null };
        var traces = TracesOf(report, context);
        var columns = traces.SelectMany(trace => trace.Records.Columns).DistinctBy(column => column.Key)
            .OrderBy(column => Array.IndexOf(Order, column.Key)).ToList();
        var (rows, figures) = (new List<ReportRow>(), new Dictionary<int, CellPlace>());
        foreach (var (figure, records) in traces)
        {
            figures.Add(rows.Count, figure);
            rows.Add(new ReportRow(
                $"figure-{figures.Count}", $"{report.Rows[figure.Row].Label}, {report.Columns[figure.Column].Heading}", RowKind.Heading,
                0, [.. columns.Select(_ => Cell.Empty)]));
            rows.AddRange(RowsOf(records, $"figure-{figures.Count}", columns));
        }

        var list = report with
        {
            Key = "records",
            Title = "Records",
            Columns = columns,
            Rows = rows,
            Checks = [],
            Foot = [],
            AddressedTo = [],
            InWhat = null,
            Look = look,
        };
        return report with
        {
            Records = new ReportRecords(list, figures)
            {
                Documents = report.Look.Details == DetailDepth.Documents ? DocumentsOf(rows, context, lines) is { } documents
                    ? documents with { Look = look } : null : null,
            },
        };
    }

    // The records behind a figure, under its name and in the columns that all figures have.
    private static IEnumerable<ReportRow> RowsOf(Report records, string name, List<ReportColumn> columns)
    {
        var places = columns.Select(column => records.Columns.ToList().FindIndex(own => own.Key == column.Key)).ToList();
        return records.Rows.Select(row => row with
        {
            // Every figure has a total of its own.
            Key = row.Kind is RowKind.Total or RowKind.GrandTotal ? $"{name}/{row.Key}" : row.Key,
            CountsIn = row.CountsIn is { } total ? $"{name}/{total}" : null,
            Kind = row.Kind == RowKind.GrandTotal ? RowKind.Total : row.Kind,
            Level = row.Level + (row.Kind == RowKind.GrandTotal ? 0 : 1),
            Cells = [.. places.Select(place => place < 0 ? Cell.Empty : row.Cells[place])],
        });
    }

    private static List<(CellPlace Figure, Report Records)> TracesOf(Report report, ReportContext context)
    {
        var (traces, texts, place) = (new List<(CellPlace, Report)>(), new PostingTexts(report.MadeFrom ?? context.Ledger), 0);
        foreach (var row in report.Rows)
        {
            for (var column = 0; column < report.Columns.Count; column++)
            {
                // What is worked out from other figures has no records of its own; those figures have.
                if (row.Cells[column].Units is not null && report.OriginOf(place, column) is { Refusal: null } origin)
                {
                    var figure = new CellPlace(place, column);
                    traces.Add((figure, TraceList.Of(report, report.MadeFrom ?? context.Ledger, figure, origin, all: false, texts)));
                }
            }

            place++;
        }

        return traces;
    }

    // All lines by document, of which those that are wanted stay: to look each up by its id would take longer.
    private static Report? DocumentsOf(List<ReportRow> records, ReportContext context, ReportDefinition lines)
    {
        var wanted = records.Select(row => row.Document).OfType<string>().ToHashSet();
        if (wanted.Count == 0)
        {
            return null;
        }

        var report = lines.Build(context, new ReportRequest
        {
            Period = new OpenPeriod(context.Records),
            Columns = [ColumnText.Parse("columns", "date,kind,contact,account,item,quantity,memo,amount")],
            List = new ListRequest { GroupBy = ["document"] },
            Title = "Documents",
        });
        return report with
        {
            Rows =
                [.. report.Rows.Where(row => row.Kind != RowKind.GrandTotal && row.Group is [var document, ..] && wanted.Contains(document))
                .Select(row => row with { Document = row.Kind == RowKind.Heading ? row.Group![0] : null })],
            Checks = [],
        };
    }
}
