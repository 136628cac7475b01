using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>Writes a report in one format. It computes nothing: what it writes is in the report.</summary>
/// <param name="Name">The format's name.</param>
/// <param name="Write">Writes the report.</param>
public sealed record ReportFormat(string Name, Action<Report, Stream, TextLook> Write)
{
    /// <summary>All formats. The first is what a terminal shows.</summary>
    public static IReadOnlyList<ReportFormat> All { get; } =
    [
        new("text", TextReport.Write),
        new("csv", (report, stream, _) => CsvReport.Write(report, stream)),
        new("json", (report, stream, _) => JsonReport.Write(report, stream)),
    ];

    /// <summary>The ending of its files.</summary>
    public string Ending => this == All[0] ? "txt" : Name;

    /// <summary>The format of a file with that ending (<c>.txt</c> is text), or nothing.</summary>
    public static ReportFormat? ForFile(string path) =>
        All.FirstOrDefault(format => format.Ending == Path.GetExtension(path).TrimStart('.'));
}
