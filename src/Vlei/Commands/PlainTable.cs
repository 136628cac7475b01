using Vlei.Output;

namespace Vlei.Commands;

/// <summary>A list with headings, for what is no report: each column as wide as what is in it.</summary>
internal static class PlainTable
{
    /// <summary>Writes it.</summary>
    /// <param name="output">Where to.</param>
    /// <param name="headings">The headings.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="most">How wide a column may be, but the last; longer texts are cut.</param>
    public static void Write(TextWriter output, string[] headings, IReadOnlyList<string[]> rows, int most = int.MaxValue)
    {
        var cut = rows.Select(
            row => row.Select((text, column) => column < row.Length - 1 && text.Length > most ? $"{text[..(most - 1)]}…" : text)
            .ToArray()).Prepend(headings).ToList();
        var widths = headings.Select((_, column) => cut.Max(row => DisplayText.Width(row[column]))).ToArray();
        foreach (var row in cut)
        {
            output.WriteLine(string.Join("  ", row.Select((text, column) =>
                text + new string(' ', widths[column] - DisplayText.Width(text)))).TrimEnd());
        }
    }
}
