using Vlei.Core.Reports;

namespace Vlei.Core.Pages;

/// <summary>Several reports at one glance, each cut down to what is looked at first.</summary>
/// <param name="Key">The name by which it is asked for.</param>
/// <param name="Title">Its title.</param>
/// <param name="Book">Whose it is.</param>
/// <param name="Day">The day on which it says how things stand.</param>
/// <param name="Panels">What is on it, in the order in which it is read.</param>
public sealed record Page(string Key, string Title, string Book, DateOnly Day, IReadOnlyList<Panel> Panels)
{
    /// <summary>How it looks.</summary>
    public ReportLook Look { get; init; } = new();
}

/// <summary>One part of a page.</summary>
/// <param name="Title">What it is about.</param>
/// <param name="Command">The command that shows all of it.</param>
public sealed record Panel(string Title, string Command)
{
    /// <summary>What it shows of its report; nothing where it is words.</summary>
    public PanelPlan? Plan { get; init; }

    /// <summary>The report; nothing where it is words, or could not be built.</summary>
    public Report? Report { get; init; }

    /// <summary>What it says where it is no report: a text each, and the command that leads on, or nothing.</summary>
    public IReadOnlyList<(string Text, string Command)> Words { get; init; } = [];

    /// <summary>Why there is nothing in it; nothing where there is.</summary>
    public string? Problem { get; init; }
}
