using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>The kinds of charts.</summary>
public enum ChartKind
{
    /// <summary>What suits the report.</summary>
    Auto,

    /// <summary>Bars beside each other.</summary>
    Bars,

    /// <summary>Bars on top of each other.</summary>
    Stacked,

    /// <summary>Lines.</summary>
    Lines,

    /// <summary>Each part's share of the whole.</summary>
    Share,
}

/// <summary>A chart as it was asked for: <c>bars</c>, <c>lines:total-income,net-profit</c>.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Rows">The rows that it shows, by their keys or labels; those that suit it where none are named.</param>
public sealed record ChartText(ChartKind Kind, IReadOnlyList<string> Rows)
{
    /// <summary>The names of the kinds.</summary>
    public static IReadOnlyList<string> Words { get; } = ["auto", "bars", "stacked", "lines", "share"];

    /// <summary>Reads one; nothing for the word <c>none</c>. Throws a <see cref="ProblemException"/> where there is no such kind.</summary>
    public static ChartText? Parse(string option, string text)
    {
        var (word, rows) = text.IndexOf(':', StringComparison.Ordinal) is >= 0 and var at ? (text[..at], text[(at + 1)..]) : (text, "");
        if (word == "none")
        {
            return null;
        }

        var kind = Words.ToList().IndexOf(word);
        return kind >= 0 ? new ChartText(
            (ChartKind)kind, rows.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            : throw new ProblemException(
                ProblemKind.Usage, $"--{option} does not take \"{text}\".",
                Suggestion.DidYouMean(word, Words)
                    ?? $"It takes {Suggestion.Listed([.. Words, "none"], "or")}, and rows behind a colon: lines:total-income,net-profit.");
    }
}
