using Vlei.Core.Reports;

namespace Vlei.Output.Formats;

/// <summary>Markdown (CommonMark).</summary>
internal sealed class MarkdownFormat() : ReportFormat("md")
{
    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes { get; } = [.. Looks.Numbers, LookOptions.Align, .. Looks.Lines];

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) => MarkdownReport.Write(new ReportWords(report), stream);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) =>
        WriteApart(pack, stream, "---\n\n", report => Write(report, stream, surface));
}
