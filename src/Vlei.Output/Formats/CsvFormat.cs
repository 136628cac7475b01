using Vlei.Core.Reports;

namespace Vlei.Output.Formats;

/// <summary>One table for tools (RFC 4180).</summary>
internal sealed class CsvFormat() : ReportFormat("csv")
{
    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes { get; } = [LookOptions.CsvStyle, .. Looks.Words];

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) => CsvReport.Write(new ReportWords(report), stream);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) => CsvReport.WritePack(pack, stream);
}
