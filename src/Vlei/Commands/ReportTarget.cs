using Vlei.Output;

namespace Vlei.Commands;

/// <summary>Where a report goes, and as what.</summary>
/// <param name="Path">The file, or the folder; nothing for standard output.</param>
/// <param name="Format">The format.</param>
internal readonly record struct ReportTarget(string? Path, ReportFormat Format)
{
    /// <summary>The printer that it goes to, empty for the usual one; nothing where it goes to a file.</summary>
    public string? Printer { get; init; }
}
