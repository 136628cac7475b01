using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// One option of a report. The catalogue of options is the one place that says what they are called and what they
/// take; the command line, help, completion and the reports themselves read it.
/// </summary>
/// <param name="Name">Its name, without dashes.</param>
/// <param name="ValueName">What stands for its value in help; nothing for a switch.</param>
/// <param name="Help">What it does, in so few words that they stand beside it on a line of 80 letters.</param>
public record ReportOption(string Name, string? ValueName, string Help)
{
    /// <summary>What else there is to know, for the manual and for schemas; empty where the help is all.</summary>
    public string More { get; init; } = "";

    /// <summary>All of it: what it does, its words where it takes nothing else, and what else there is to know.</summary>
    public string Explained => More.Length == 0 ? Summary : $"{Summary}. {More}";

    /// <summary>What it does, and its words where it takes nothing else.</summary>
    public string Summary => OnlyWords ? $"{Help}: {Suggestion.Listed(Words, "or")}" : Help;

    /// <summary>The words that it takes, or some of them, for completion.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Whether it takes nothing but those words.</summary>
    public bool OnlyWords { get; init; }

    /// <summary>Whether it may be given more than once.</summary>
    public bool Repeatable { get; init; }

    /// <summary>What is meant where it stands without a value; nothing where it must have one.</summary>
    public string? WhenBare { get; init; }

    /// <summary>The question that it belongs to.</summary>
    public ReportQuestion Question { get; init; }

    /// <summary>What is told of a value that it does not take.</summary>
    protected ProblemException Refusal(string word) => new(
        ProblemKind.Usage, $"--{Name} does not take \"{word}\".", Suggestion.DidYouMean(word, Words)
            ?? $"It takes {Suggestion.Listed(Words, "or")}.");
}

/// <summary>The questions that options answer, in the order in which a person asks them.</summary>
public enum ReportQuestion
{
    /// <summary>Which days, and on which basis?</summary>
    Days,

    /// <summary>Which records?</summary>
    Records,

    /// <summary>Grouped how?</summary>
    Groups,

    /// <summary>Beside what?</summary>
    Beside,

    /// <summary>Which columns?</summary>
    Columns,

    /// <summary>Which rows, once added up?</summary>
    Rows,

    /// <summary>In which order?</summary>
    Order,

    /// <summary>Looking how, going where?</summary>
    Look,
}
