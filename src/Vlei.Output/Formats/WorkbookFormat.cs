using Vlei.Core.Reports;
using Vlei.Output.Workbook;
using Vlei.Output.Workbook.Template;

namespace Vlei.Output.Formats;

/// <summary>A workbook (Office Open XML, ECMA-376).</summary>
internal sealed class WorkbookFormat() : ReportFormat("xlsx")
{
    /// <inheritdoc/>
    public override bool IsPage => true;

    /// <inheritdoc/>
    public override bool IsBinary => true;

    /// <inheritdoc/>
    // What stands before decimals is a matter of whose computer opens it.
    public override IReadOnlyList<ReportOption> Takes { get; } =
        [.. Array.FindAll(Looks.Document, look => look != LookOptions.DecimalMark), LookOptions.Template];

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface)
    {
        var words = new ReportWords(report);
        if (words.Look.Template is { } template)
        {
            WorkbookTemplate.Write(words, template, stream);
        }
        else
        {
            using var workbook = new WorkbookPackage(stream, words.Report.Title, words.Look);
            WorkbookReport.Write(words, workbook);
        }
    }

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface)
    {
        using var workbook = new WorkbookPackage(stream, pack.Title, pack.Look);
        WorkbookReport.WritePack(pack, workbook);
    }
}
