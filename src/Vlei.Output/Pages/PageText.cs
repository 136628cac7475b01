using Vlei.Core.Languages;
using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>The text of pages: its faces and its size.</summary>
/// <param name="regular">The face of most text.</param>
/// <param name="bold">The face of titles, headings and totals.</param>
/// <param name="size">The size, in points.</param>
internal sealed class PageText(PageFace regular, PageFace bold, double size)
{
    private const double LineSpacing = 1.32;

    /// <summary>The face of most text.</summary>
    public PageFace Regular => regular;

    /// <summary>The face of titles, headings and totals.</summary>
    public PageFace Bold => bold;

    /// <summary>The size, in points.</summary>
    public double Size => size;

    /// <summary>From one line to the next, in points.</summary>
    public double LineHeight => size * LineSpacing;

    /// <summary>The face of a row.</summary>
    public PageFace FaceOf(ReportRow row) => RowLook.Of(row).IsStrong ? bold : regular;

    /// <summary>What is missing from what is shown; nothing where nothing is.</summary>
    public string? Missing(Language language) =>
        regular.Unknown.Concat(bold.Unknown).Distinct().Order(StringComparer.Ordinal).ToList() is { Count: > 0 } unknown
        ? language.Say(
            "The font has no letters for {0}; a question mark stands for each.",
            string.Join(", ", unknown.Select(letter => $"U+{char.ConvertToUtf32(letter, 0):X4}")))
        : null;

    /// <summary>How wide a text is.</summary>
    public double Width(PageFace face, string text) => face.Width(face.Shown(text), size);

    /// <summary>How much room the mark of a change takes, so that figures line up before it.</summary>
    public double MarkWidth => Math.Max(Width(regular, "↑"), Width(regular, "=")) + (0.45 * size);

    /// <summary>The mark of a change; the arrows are those that the font has.</summary>
    public static string MarkOf(char? mark) => mark switch { '▲' => "↑", '▼' => "↓", '=' => "=", _ => "" };

    /// <summary>Lines that are no wider than that, broken at blanks, and within words that are wider.</summary>
    public IReadOnlyList<string> Lines(PageFace face, string text, double width)
    {
        var shown = face.Shown(text);
        if (face.Width(shown, size) <= width)
        {
            return [shown];
        }

        var (lines, line) = (new List<string>(), "");
        foreach (var word in shown.Split(' ').SelectMany(word => Pieces(face, word, width)))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && face.Width(longer, size) > width)
            {
                lines.Add(line);
                longer = word;
            }

            line = longer;
        }

        return [.. lines, line];
    }

    /// <summary>The first of its lines, so many at most; what is left out shows at their end.</summary>
    public IReadOnlyList<string> FirstLines(PageFace face, string text, double width, int most)
    {
        const string More = " …";
        var lines = Lines(face, text, width);
        return lines.Count <= most ? lines
            : [.. lines.Take(most - 1), Lines(face, lines[most - 1], width - face.Width(face.Shown(More), size))[0] + More];
    }

    private IEnumerable<string> Pieces(PageFace face, string word, double width)
    {
        var start = 0;
        for (var end = 1; end < word.Length; end++)
        {
            if (face.Width(word.AsSpan(start..(end + 1)), size) > width)
            {
                yield return word[start..end];
                start = end;
            }
        }

        yield return word[start..];
    }
}
