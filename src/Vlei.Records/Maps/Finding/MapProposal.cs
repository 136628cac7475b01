namespace Vlei.Records.Maps.Finding;

/// <summary>What a column of a file is taken as, and why.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="Role">What it is taken as; nothing where it is left out.</param>
/// <param name="Example">A value of it.</param>
/// <param name="Because">Why.</param>
public sealed record ColumnFinding(string Heading, ColumnRole? Role, string Example, string Because)
{
    /// <summary>The month whose figures the column has, as ISO 8601 has it; nothing where its heading is no month.</summary>
    public string? Month { get; init; }

    /// <summary>What it is taken as, in a word.</summary>
    public string TakenAs => Role?.Name ?? Month ?? "-";
}

/// <summary>Something of a map that was found, and why.</summary>
/// <param name="Key">The key of the map.</param>
/// <param name="Value">What it says, in words.</param>
/// <param name="Because">Why.</param>
public sealed record MapFinding(string Key, string Value, string Because);

/// <summary>Something of a map that the file does not decide.</summary>
/// <param name="Key">The key of the map.</param>
/// <param name="Question">What is to be decided, with an example.</param>
/// <param name="Choices">What the key can say.</param>
public sealed record OpenQuestion(string Key, string Question, IReadOnlyList<string> Choices);

/// <summary>A map that was found for a file, and the evidence.</summary>
/// <param name="File">The file.</param>
/// <param name="Map">The map.</param>
/// <param name="Columns">What its columns are taken as.</param>
/// <param name="Findings">What else was found.</param>
/// <param name="Questions">What is not decided.</param>
public sealed record MapProposal(
    SourceFile File, SourceMap Map, IReadOnlyList<ColumnFinding> Columns, IReadOnlyList<MapFinding> Findings,
    IReadOnlyList<OpenQuestion> Questions);
