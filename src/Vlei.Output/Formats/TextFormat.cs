using Vlei.Core.Reports;
using Vlei.Output.Overview;

namespace Vlei.Output.Formats;

/// <summary>Text for terminals.</summary>
internal sealed class TextFormat() : ReportFormat("text")
{
    // A cover is words, which are read in lines of this length.
    private const int CoverWidth = 100;

    /// <inheritdoc/>
    public override string Ending => "txt";

    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes { get; } = [LookOptions.Chart, .. Looks.Numbers, .. Looks.Columns, .. Looks.Lines];

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) => TextReport.Write(new ReportWords(report), stream, surface);

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface)
    {
        if (pack.Front is { } front)
        {
            TextPage.Write(new PageWords(front), stream, surface);
            stream.Write("\n\n"u8);
        }

        WriteApart(
            pack, stream, "\n\n", report => Write(report, stream, report == pack.Cover ? surface with { Width = CoverWidth } : surface));
    }
}
