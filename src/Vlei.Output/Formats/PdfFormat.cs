using Vlei.Core.Reports;
using Vlei.Output.Pages;

namespace Vlei.Output.Formats;

/// <summary>Pages (PDF, ISO 32000).</summary>
internal sealed class PdfFormat() : ReportFormat("pdf")
{
    /// <inheritdoc/>
    public override bool IsPage => true;

    /// <inheritdoc/>
    public override bool IsBinary => true;

    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes => Looks.Document;

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) =>
        PdfReport.Write(new ReportWords(report), stream, surface.Charts);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) => PdfReport.WritePack(pack, stream, surface.Charts);
}
