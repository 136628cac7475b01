using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output.Formats;

namespace Vlei.Output;

/// <summary>
/// A format: it writes a report, or several together, and says what it can carry. It computes nothing, opens no path and starts
/// no process: what it writes is in the reports, and what it needs besides is handed over.
/// </summary>
/// <param name="name">Its name.</param>
public abstract class ReportFormat(string name)
{
    /// <summary>All formats. The first is what a terminal shows.</summary>
    public static IReadOnlyList<ReportFormat> All { get; } =
    [
        new TextFormat(), new CsvFormat(), new JsonFormat(), new MarkdownFormat(), new WebFormat(), new PdfFormat(), new WorkbookFormat(),
        new OpenDocumentFormat(), new PictureFormat("svg", isBinary: false), new PictureFormat("png", isBinary: true),
    ];

    /// <summary>Its name.</summary>
    public string Name => name;

    /// <summary>The ending of its files.</summary>
    public virtual string Ending => name;

    /// <summary>Whether a file of it holds one report or a pack, which cannot follow each other in it.</summary>
    public virtual bool IsPage => false;

    /// <summary>Whether it is no text, which a terminal could show.</summary>
    public virtual bool IsBinary => false;

    /// <summary>Whether it is a chart and nothing else.</summary>
    public virtual bool IsPicture => false;

    /// <summary>The looks that it has: any other changes nothing in it.</summary>
    public abstract IReadOnlyList<ReportOption> Takes { get; }

    /// <summary>Writes a report. Throws a <see cref="ProblemException"/> where it has no room for it.</summary>
    public abstract void Write(Report report, Stream stream, Surface surface);

    /// <summary>Writes several reports as one file. Throws a <see cref="ProblemException"/> where it has no room for them.</summary>
    public abstract void WritePack(ReportPack pack, Stream stream, Surface surface);

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
    public void WriteAll(IReadOnlyList<Report> reports, Stream stream, Surface surface)
    {
        if (IsPage && reports.Count > 1)
        {
            WritePack(
                new ReportPack(reports[0].Key, reports[0].Title, null, [.. reports.Select(report => (report.Key, report))]), stream,
                surface);
            return;
        }

        foreach (var report in reports)
        {
            stream.Write(report == reports[0] ? [] : "\n"u8);
            Write(report, stream, surface);
        }
    }

    /// <summary>Writes reports one after the other, with something between them.</summary>
    private protected static void WriteApart(ReportPack pack, Stream stream, string between, Action<Report> write)
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
