namespace Vlei.Core.Reports;

/// <summary>
/// One option of a report. The catalogue of options is the one place that says what they are called and what they
/// take; the command line, help, completion and the reports themselves read it.
/// </summary>
/// <param name="Name">Its name, without dashes.</param>
/// <param name="ValueName">What stands for its value in help; nothing for a switch.</param>
/// <param name="Help">What it does, in a line.</param>
public sealed record ReportOption(string Name, string? ValueName, string Help)
{
    /// <summary>The words that it takes, or some of them, for completion.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Whether it takes nothing but those words.</summary>
    public bool OnlyWords { get; init; }

    /// <summary>Whether it may be given more than once.</summary>
    public bool Repeatable { get; init; }
}
