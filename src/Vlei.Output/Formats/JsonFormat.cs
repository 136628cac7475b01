using Vlei.Core.Reports;

namespace Vlei.Output.Formats;

/// <summary>JSON in the schema that scripts rest on (RFC 8259).</summary>
internal sealed class JsonFormat() : ReportFormat("json")
{
    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes => Looks.Lines;

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) => JsonReport.Write(report, stream);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) => JsonReport.WritePack(pack, stream);
}
