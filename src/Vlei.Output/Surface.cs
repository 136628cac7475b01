namespace Vlei.Output;

/// <summary>What the place that a report is written to can show, and who draws its charts.</summary>
/// <param name="Width">How many characters fit in a line; nothing where there is no end to it.</param>
/// <param name="Ascii">Whether only ASCII can be shown.</param>
/// <param name="Colour">Whether text may be bold and coloured (ECMA-48); what that says is said without it too.</param>
/// <param name="Charts">Draws charts; nothing where none can be drawn.</param>
public sealed record Surface(int? Width, bool Ascii, bool Colour, IChartDrawer? Charts = null)
{
    /// <summary>A file, which has no end to its lines and shows everything.</summary>
    public static Surface OfFile(IChartDrawer? charts) => new(null, Ascii: false, Colour: false, charts);
}

/// <summary>Draws charts as pictures.</summary>
public interface IChartDrawer
{
    /// <summary>Draws one. Throws a <see cref="Core.Problems.ProblemException"/> where it cannot.</summary>
    /// <param name="format">As what: <c>svg</c> or <c>png</c>; with <c>page-</c> before it where it is a page rather than a chart.</param>
    /// <param name="chart">What is drawn, as JSON.</param>
    byte[] Draw(string format, ReadOnlyMemory<byte> chart);
}
