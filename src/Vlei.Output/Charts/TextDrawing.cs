namespace Vlei.Output.Charts;

/// <summary>Figures drawn with letters of a terminal.</summary>
internal static class TextDrawing
{
    private const string Levels = "▁▂▃▄▅▆▇█";
    private const string AsciiLevels = "_.-=+*%#";
    private const string Parts = " ▏▎▍▌▋▊▉";
    private const int Eighths = 8;

    /// <summary>
    /// A line of small bars: from the least to the largest of the figures, nought within; what is not there is left out.
    /// </summary>
    public static string Line(IReadOnlyList<long?> units, bool ascii)
    {
        var levels = ascii ? AsciiLevels : Levels;
        var (least, most) = (Math.Min(0, units.Min() ?? 0), Math.Max(0, units.Max() ?? 0));
        return string.Concat(units.Select(value => value is not { } known ? ' '
            : most == least ? levels[0] : levels[(int)Math.Round((levels.Length - 1) * ((double)known - least) / ((double)most - least))]));
    }

    /// <summary>A bar; what is not nothing is seen.</summary>
    /// <param name="share">How much of the width it takes, from 0 to 1.</param>
    /// <param name="width">How wide the longest is.</param>
    /// <param name="ascii">Whether only ASCII can be shown.</param>
    public static string Bar(double share, int width, bool ascii)
    {
        var eighths = (int)Math.Round(width * Eighths * share);
        var part = ascii || eighths % Eighths == 0 ? "" : Parts[eighths % Eighths].ToString();
        var bar = new string(ascii ? '#' : '█', eighths / Eighths) + part;
        return bar.Length > 0 || share == 0 ? bar : ascii ? "#" : "▏";
    }
}
