using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output.Charts;
using Vlei.Output.Pages;
using Vlei.Output.Web;
using Vlei.Output.Workbook;

namespace Vlei.Output;

/// <summary>Writes a report, or several together, in one format. It computes nothing: what it writes is in the reports.</summary>
/// <param name="Name">The format's name.</param>
/// <param name="Write">Writes a report.</param>
/// <param name="WritePack">Writes several reports as one file.</param>
public sealed record ReportFormat(string Name, Action<Report, Stream, TextLook> Write, Action<ReportPack, Stream, TextLook> WritePack)
{
    // A cover is words, which are read in lines of this length.
    private const int CoverWidth = 100;

    private static readonly ReportOption[] Words = [LookOptions.Language, LookOptions.Dates];
    private static readonly ReportOption[] Numbers = [.. Words, LookOptions.Negatives, LookOptions.Thousands, LookOptions.DecimalMark, LookOptions.Scale, LookOptions.Decimals];
    private static readonly ReportOption[] Lines = [LookOptions.Subtitle, LookOptions.Footer];
    private static readonly ReportOption[] Columns = [LookOptions.Widths, LookOptions.Align];
    private static readonly ReportOption[] Picture = [LookOptions.Chart, .. Words, LookOptions.Thousands, LookOptions.DecimalMark, LookOptions.Scale, LookOptions.Accent];

    private static readonly ReportOption[] Document =
    [
        LookOptions.Chart, LookOptions.WithDetail, .. Numbers, .. Columns, .. Lines, LookOptions.Paper, LookOptions.Orientation, LookOptions.FontSize, LookOptions.Logo, LookOptions.Accent,
    ];

    /// <summary>All formats. The first is what a terminal shows.</summary>
    public static IReadOnlyList<ReportFormat> All { get; } =
    [
        new("text", (report, stream, look) => TextReport.Write(new ReportWords(report), stream, look), (pack, stream, look) => WriteApart(
            pack, stream, "\n\n", report => TextReport.Write(new ReportWords(report), stream, report == pack.Cover ? look with { Width = CoverWidth } : look)))
        {
            Takes = [LookOptions.Chart, .. Numbers, .. Columns, .. Lines],
        },
        new("csv", (report, stream, _) => CsvReport.Write(new ReportWords(report), stream), (pack, stream, _) => CsvReport.WritePack(pack, stream)) { Takes = [LookOptions.CsvStyle, .. Words] },
        new("json", (report, stream, _) => JsonReport.Write(report, stream), (pack, stream, _) => JsonReport.WritePack(pack, stream)) { Takes = Lines },
        new("md", (report, stream, _) => MarkdownReport.Write(new ReportWords(report), stream), (pack, stream, _) =>
            WriteApart(pack, stream, "---\n\n", report => MarkdownReport.Write(new ReportWords(report), stream)))
        {
            Takes = [.. Numbers, LookOptions.Align, .. Lines],
        },
        new("html", (report, stream, _) => WebReport.Write(new ReportWords(report), stream), (pack, stream, _) => WebReport.WritePack(pack, stream)) { IsPage = true, Takes = Document },
        new("pdf", (report, stream, _) => PdfReport.Write(new ReportWords(report), stream), (pack, stream, _) => PdfReport.WritePack(pack, stream)) { IsPage = true, IsBinary = true, Takes = Document },
        new("xlsx", (report, stream, _) => WorkbookReport.Write(new ReportWords(report), stream), (pack, stream, _) => WorkbookReport.WritePack(pack, stream))
        {
            // What stands before decimals is a matter of whose computer opens it.
            IsPage = true, IsBinary = true, Takes = [.. Document.Except([LookOptions.DecimalMark]), LookOptions.Template],
        },
        new("svg", (report, stream, _) => ChartReport.WriteSvg(new ReportWords(report), stream), (pack, _, _) => ChartReport.RefusePack(pack)) { IsPage = true, IsPicture = true, Takes = Picture },
        new("png", (report, stream, _) => ChartReport.WritePng(new ReportWords(report), stream), (pack, _, _) => ChartReport.RefusePack(pack)) { IsPage = true, IsPicture = true, IsBinary = true, Takes = Picture },
    ];

    /// <summary>Whether a file of it holds one report or a pack, which cannot follow each other in it.</summary>
    public bool IsPage { get; init; }

    /// <summary>Whether it is no text, which a terminal could show.</summary>
    public bool IsBinary { get; init; }

    /// <summary>Whether it is a chart and nothing else.</summary>
    public bool IsPicture { get; init; }

    /// <summary>The looks that it has: any other changes nothing in it.</summary>
    public IReadOnlyList<ReportOption> Takes { get; init; } = [];

    /// <summary>The ending of its files.</summary>
    public string Ending => this == All[0] ? "txt" : Name;

    /// <summary>The format of a file with that ending (<c>.txt</c> is text), or nothing.</summary>
    public static ReportFormat? ForFile(string path) =>
        All.FirstOrDefault(format => Path.GetExtension(path).Equals($".{format.Ending}", StringComparison.OrdinalIgnoreCase));

    /// <summary>The formats of those names, each once. Throws a <see cref="ProblemException"/> where there is no such.</summary>
    /// <param name="where">Where they are named, for messages.</param>
    /// <param name="names">The names.</param>
    public static IReadOnlyList<ReportFormat> Named(string where, IReadOnlyList<string> names)
    {
        var known = All.Select(format => format.Name).ToList();
        return
        [
            .. names.Select(name => All.FirstOrDefault(format => format.Name == name) ?? throw new ProblemException(
                ProblemKind.Usage, $"{where} does not take \"{name}\".",
                Suggestion.DidYouMean(name, known) ?? $"It takes {Suggestion.Listed(known, "or")}.")).Distinct(),
        ];
    }

    /// <summary>Writes several reports that no cover holds together: a document has them all, else they follow one another.</summary>
    public void WriteAll(IReadOnlyList<Report> reports, Stream stream, TextLook look)
    {
        if (IsPage && reports.Count > 1)
        {
            WritePack(new ReportPack(reports[0].Key, reports[0].Title, null, [.. reports.Select(report => (report.Key, report))]), stream, look);
            return;
        }

        foreach (var report in reports)
        {
            stream.Write(report == reports[0] ? [] : "\n"u8);
            Write(report, stream, look);
        }
    }

    private static void WriteApart(ReportPack pack, Stream stream, string between, Action<Report> write)
    {
        var isFirst = true;
        foreach (var report in pack.Whole)
        {
            stream.Write(System.Text.Encoding.UTF8.GetBytes(isFirst ? "" : between));
            write(report);
            isFirst = false;
        }
    }
}
