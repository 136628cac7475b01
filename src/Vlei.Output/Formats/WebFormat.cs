using Vlei.Core.Reports;
using Vlei.Output.Web;

namespace Vlei.Output.Formats;

/// <summary>A web page that stands alone.</summary>
internal sealed class WebFormat() : ReportFormat("html")
{
    /// <inheritdoc/>
    public override bool IsPage => true;

    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes => Looks.Document;

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) =>
        WebReport.Write(new ReportWords(report), stream, surface.Charts);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) => WebReport.WritePack(pack, stream, surface.Charts);
}
