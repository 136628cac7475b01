using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>A report of a group.</summary>
/// <param name="Report">The report.</param>
/// <param name="Name">The name of its files.</param>
/// <param name="Note">What to look at, for the reader; empty where nothing is said.</param>
/// <param name="Options">What is asked of it here, as texts by the names of options.</param>
/// <param name="Place">Where the group says so, for messages.</param>
public sealed record GroupMember(
    string Report, string Name, string Note, IReadOnlyDictionary<string, IReadOnlyList<string>> Options, string Place)
{
    /// <summary>Whether it is another group, with all its reports, rather than a report.</summary>
    public bool IsGroup { get; init; }
}

/// <summary>Reports that are produced together.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Title">Its title.</param>
/// <param name="Members">Its reports, in their order.</param>
public sealed record ReportGroup(string Name, string Title, IReadOnlyList<GroupMember> Members)
{
    /// <summary>The period that it is produced for where none is asked for, as text.</summary>
    public required string Period { get; init; }

    /// <summary>The basis of those of its reports that have one; nothing where each has its own.</summary>
    public string? Basis { get; init; }

    /// <summary>What stands on its cover, in paragraphs.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>The file that says so, for messages; empty where none does.</summary>
    public string? Path { get; init; }

    /// <summary>Whether it is a report alone, whose file is all there is.</summary>
    public bool IsAlone => Members is [{ IsGroup: false } alone] && alone.Name == Name;

    /// <summary>Whether it is a page of panels alone.</summary>
    public bool IsPage => Members.Count == 0;

    /// <summary>Whether it has a cover.</summary>
    public bool HasCover { get; init; } = true;

    /// <summary>Whether the open questions of the review of its period stand on the cover.</summary>
    public bool HasQuestions { get; init; }

    /// <summary>The page of panels that its text, its PDF and its web page begin with; nothing for none.</summary>
    public string? Front { get; init; }

    /// <summary>The formats that it is produced in, by their names.</summary>
    public IReadOnlyList<string> Formats { get; init; } = [];

    /// <summary>Where it goes, and when.</summary>
    public DeliveryPlan Delivery { get; init; } = new();

    /// <summary>
    /// Throws a <see cref="ProblemException"/> where two members have one name, or one has that of the group, whose own file has
    /// all of them.
    /// </summary>
    public void RefuseTwins(string path)
    {
        if (Members.FirstOrDefault(member => member.Name.Equals(Name, StringComparison.OrdinalIgnoreCase)) is { } twin)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{twin.Place}: the report has the name of the group, whose file has all reports.",
                "Give it a name of its own: name = \"…\".");
        }

        if (Members.GroupBy(member => member.Name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(same => same.Count() > 1) is { } twins)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{twins.Last().Place}: {path} has two reports under the name {twins.Key}.",
                "Give one of them a name of its own: name = \"…\".");
        }
    }
}
