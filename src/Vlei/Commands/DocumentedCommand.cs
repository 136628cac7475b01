using System.CommandLine;

namespace Vlei.Commands;

/// <summary>A command that says more about itself than its options do: help, the manual page and the guide read it.</summary>
internal sealed class DocumentedCommand(string name, string description) : Command(name, description)
{
    /// <summary>Command lines that work, each with what it does.</summary>
    public IReadOnlyList<(string Line, string Meaning)> Examples { get; init; } = [];
}
