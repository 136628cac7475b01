using System.Text;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output.Charts;

namespace Vlei.Output.Formats;

/// <summary>The chart of a report and nothing else, as SVG or PNG.</summary>
/// <param name="name">Which of the two.</param>
/// <param name="isBinary">Whether it is no text.</param>
internal sealed class PictureFormat(string name, bool isBinary) : ReportFormat(name)
{
    /// <inheritdoc/>
    public override bool IsPage => true;

    /// <inheritdoc/>
    public override bool IsBinary => isBinary;

    /// <inheritdoc/>
    public override bool IsPicture => true;

    /// <inheritdoc/>
    public override IReadOnlyList<ReportOption> Takes { get; } =
        [LookOptions.Chart, .. Looks.Words, LookOptions.Thousands, LookOptions.DecimalMark, LookOptions.Scale, LookOptions.Accent];

    /// <inheritdoc/>
    public override void Write(Report report, Stream stream, Surface surface) => stream.Write(isBinary
        ? ChartDrawing.Png(new ReportWords(report), surface.Charts)
        : Encoding.UTF8.GetBytes(
            $"<?xml version=\"1.0\" encoding=\"utf-8\"?>\n{ChartDrawing.Svg(new ReportWords(report), surface.Charts)}\n"));

    /// <inheritdoc/>
    public override void WritePack(ReportPack pack, Stream stream, Surface surface) => throw new ProblemException(
        ProblemKind.Usage, $"{pack.Title} has several reports, and a picture holds one chart.",
        "Take html, pdf or xlsx with --chart, or show one report.");
}
