using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Output.Charts;

/// <summary>A report as its chart alone.</summary>
internal static class ChartReport
{
    /// <summary>Writes it as SVG.</summary>
    public static void WriteSvg(ReportWords words, Stream stream) => stream.Write(Encoding.UTF8.GetBytes($"<?xml version=\"1.0\" encoding=\"utf-8\"?>\n{ChartDrawing.Svg(words)}\n"));

    /// <summary>Writes it as PNG.</summary>
    public static void WritePng(ReportWords words, Stream stream) => stream.Write(ChartDrawing.Png(words));

    /// <summary>A picture holds one chart. Throws a <see cref="ProblemException"/> that says so.</summary>
    public static void RefusePack(ReportPack pack) => throw new ProblemException(
        ProblemKind.Usage, $"{pack.Title} has several reports, and a picture holds one chart.", "Take html, pdf or xlsx with --chart, or show one report.");
}
