using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The records behind every figure of a report, and the documents that they are of, to go along with it.</summary>
public static class Details
{
    private const long MostFigures = 50_000;
    private const string Amount = "amount";

    // The columns that traces have, in their order, each some of them. What all so far come to is left to a trace of one figure.
    private static readonly string[] Order = ["date", "kind", "number", "contact", "account", "memo", "settled-by", "amount"];

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
        var traces = FigureTrace.Of(report, context.Ledger);
        var columns = traces.SelectMany(trace => trace.Records?.Columns ?? []).Where(column => Order.Contains(column.Key))
            .DistinctBy(column => column.Key).OrderBy(column => Array.IndexOf(Order, column.Key)).ToList();
        var rows = new List<ReportRow>();
        var (figures, parts) = (new Dictionary<int, CellPlace>(), new Dictionary<int, CellPlace>());
        foreach (var trace in traces)
        {
            figures.Add(rows.Count, trace.Figure);
            var name = $"figure-{figures.Count}";
            rows.Add(new ReportRow(name, NameOf(report, trace.Figure), RowKind.Heading, 0, [.. columns.Select(_ => Cell.Empty)]));
            foreach (var (part, units) in trace.Parts)
            {
                parts.Add(rows.Count, part);
                rows.Add(PartRow(report, trace, (part, units), name, columns));
            }

            rows.AddRange(trace.Records is { } records ? RowsOf(records, name, columns, trace.Parts.Sum(part => part.Units))
                : trace.IsSum ? [TotalOf(trace, name, columns)] : []);
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
            Letter = null,
            Explanation = null,
            InWhat = null,
            Look = look,
        };
        return report with
        {
            Records = new ReportRecords(list, figures, parts)
            {
                Documents = report.Look.Details == DetailDepth.Documents ? DocumentsOf(rows, context, lines) is { } documents
                    ? documents with { Look = look } : null : null,
            },
        };
    }

    // The records behind a figure, under its name and in the columns that all figures have; its total counts what stands before them.
    private static IEnumerable<ReportRow> RowsOf(Report records, string name, List<ReportColumn> columns, long before)
    {
        var places = columns.Select(column => records.Columns.ToList().FindIndex(own => own.Key == column.Key)).ToList();
        return records.Rows.Select(row => row with
        {
            // Every figure has a total of its own.
            Key = row.Kind is RowKind.Total or RowKind.GrandTotal ? $"{name}/{row.Key}" : row.Key,
            CountsIn = row.CountsIn is { } total ? $"{name}/{total}" : null,
            Kind = row.Kind == RowKind.GrandTotal ? RowKind.Total : row.Kind,
            Level = row.Level + (row.Kind == RowKind.GrandTotal ? 0 : 1),
            Cells =
            [
                .. places.Index().Select(place => place.Item < 0 ? Cell.Empty
                    : row.Kind == RowKind.GrandTotal && columns[place.Index].Key == Amount ? new Cell(row.Cells[place.Item].Units + before)
                    : row.Cells[place.Item]),
            ],
        });
    }

    // The name of a figure, until its report is said in another language.
    private static string NameOf(Report report, CellPlace figure) =>
        $"{report.Rows[figure.Row].Label}, {report.Columns[figure.Column].Heading}";

    private static ReportRow PartRow(
        Report report, FigureTrace trace, (CellPlace Figure, long Units) part, string name, List<ReportColumn> columns) =>
        new(
            $"{name}/{report.Rows[part.Figure.Row].Key}/{report.Columns[part.Figure.Column].Key}", NameOf(report, part.Figure),
            RowKind.Group, 1, [.. columns.Select(column => column.Key == Amount ? new Cell(part.Units) : Cell.Empty)])
        {
            CountsIn = trace.IsSum ? $"{name}/total" : null,
        };

    private static ReportRow TotalOf(FigureTrace trace, string name, List<ReportColumn> columns) =>
        new($"{name}/total", "Total", RowKind.Total, 0,
            [.. columns.Select(column => column.Key == Amount ? new Cell(trace.Parts.Sum(part => part.Units)) : Cell.Empty)]);

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
