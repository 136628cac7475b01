using Vlei.Core.Reports;
using Vlei.Output.OpenDocument;
using Vlei.Output.Workbook;

namespace Vlei.Output.Formats;

/// <summary>A spreadsheet (OpenDocument, ISO/IEC 26300). It has no charts and no pictures.</summary>
internal sealed class OpenDocumentFormat() : ReportFormat("ods")
{
    /// <inheritdoc/>
    public override bool IsPage => true;

    /// <inheritdoc/>
    public override bool IsBinary => true;

    /// <inheritdoc/>
    // What stands before decimals is a matter of whose computer opens it.
    public override IReadOnlyList<ReportOption> Takes { get; } =
        Array.FindAll(Looks.Document, look => look != LookOptions.DecimalMark && look != LookOptions.Chart && look != LookOptions.Logo);

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface)
    {
        var words = new ReportWords(report);
        using var spreadsheet = new OpenDocumentPackage(stream, words.Report.Title, words.Look);
        WorkbookReport.Write(words, spreadsheet);
    }

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface)
    {
        using var spreadsheet = new OpenDocumentPackage(stream, pack.Title, pack.Look);
        WorkbookReport.WritePack(pack, spreadsheet);
    }
}
