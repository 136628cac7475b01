using System.CommandLine;

namespace Vlei.Commands;

/// <summary>A command that says more about itself than its options do: help, the manual page and the guide read it.</summary>
internal sealed class DocumentedCommand(string name, string description) : Command(name, description)
{
    /// <summary>Command lines that work, each with what it does.</summary>
    public IReadOnlyList<(string Line, string Meaning)> Examples { get; init; } = [];

    /// <summary>The options that it has because it builds reports; none where it builds none.</summary>
    public IReadOnlyList<Option> OfReports { get; set; } = [];

    /// <summary>Whether its help explains the options of reports, rather than names them.</summary>
    public bool ExplainsReports { get; init; }

    /// <summary>Tells of the report that is named beside <c>--help</c>; says whether one is.</summary>
    public Func<ParseResult, HelpPage, bool>? OfItsReport { get; set; }
}
