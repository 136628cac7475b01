using System.ComponentModel;
using System.Diagnostics;
using Vlei.Core.Problems;
using Vlei.Output;

namespace Vlei.Desk;

/// <summary>
/// Draws charts by a program of its own beside this one, so that what draws costs nothing where nothing is drawn.
/// </summary>
public sealed class ChartProgram : IChartDrawer
{
    private const string Program = "vlei-charts";

    /// <summary>The one that there is.</summary>
    public static ChartProgram Beside { get; } = new();

    /// <inheritdoc/>
    public byte[] Draw(string format, ReadOnlyMemory<byte> chart)
    {
        var path = Path.Combine(Path.GetDirectoryName(Environment.ProcessPath) ?? "", Program);
        var start = new ProcessStartInfo(path, [format])
        {
            RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true, UseShellExecute = false,
        };
        try
        {
            using var drawing = Process.Start(start)!;
            var messages = drawing.StandardError.ReadToEndAsync();
            using (var input = drawing.StandardInput.BaseStream)
            {
                input.Write(chart.Span);
            }

            using var picture = new MemoryStream();
            drawing.StandardOutput.BaseStream.CopyTo(picture);
            drawing.WaitForExit();
            return drawing.ExitCode == 0 ? picture.ToArray() : throw new ProblemException(
                ProblemKind.CannotWrite, $"The chart cannot be drawn: {messages.Result.Trim()}",
                "Leave --chart out, or install vlei again.");
        }
        catch (Win32Exception missing)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"The chart cannot be drawn: {path} is not there.",
                "Leave --chart out, or install vlei again.", missing);
        }
    }
}
