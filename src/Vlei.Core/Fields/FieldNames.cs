namespace Vlei.Core.Fields;

/// <summary>What is known of the names of fields wherever they are typed.</summary>
public static class FieldNames
{
    /// <summary>What the name of every tag begins with.</summary>
    public const string TagPrefix = "tag.";

    /// <summary>What stands for "has none".</summary>
    public const string None = "none";

    /// <summary>The fields that postings are chosen by most, as help and messages list them; beside them there are tags.</summary>
    public static IReadOnlyList<string> OfPostings { get; } =
    [
        "account", "account.name", "account.type", "account.cash-flow", "contact", "contact.name", "project", "project.name",
        "department", "department.name", "item", "item.name", "kind",
    ];

    /// <summary>The fields that a statement can have a column per value of; beside them the tags.</summary>
    public static IReadOnlyList<string> Spreading { get; } = ["project", "department", "contact", "item"];

    /// <summary>Whether the values of a field of that name are chosen by their names, rather than by their ids.</summary>
    public static bool IsNameOf(string field) => field.EndsWith(".name", StringComparison.OrdinalIgnoreCase);

    /// <summary>Whether it is that of a tag.</summary>
    public static bool IsTag(string field) => field.StartsWith(TagPrefix, StringComparison.OrdinalIgnoreCase);
}
