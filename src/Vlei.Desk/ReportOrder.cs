namespace Vlei.Desk;

/// <summary>A report as a person asks for it: its name, and texts by the names of options.</summary>
/// <param name="Name">The name of the report.</param>
/// <param name="Options">What is asked of it; a switch has the text <c>true</c>.</param>
public sealed record ReportOrder(string Name, IReadOnlyDictionary<string, IReadOnlyList<string>> Options)
{
    /// <summary>Whether it is meant as it is without what a book keeps of it.</summary>
    public bool IsStandard { get; init; }

    /// <summary>The records that it is made from, by the number of an import or a day; nothing for those of now.</summary>
    public string? Revision { get; init; }
}
