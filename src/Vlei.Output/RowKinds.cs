using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>The kinds of rows as files name them.</summary>
internal static class RowKinds
{
    /// <summary>The name of a kind.</summary>
    public static string NameOf(RowKind kind) => kind switch
    {
        RowKind.Heading => "heading",
        RowKind.Account => "account",
        RowKind.Record => "record",
        RowKind.Group => "group",
        _ => "total",
    };

    /// <summary>The kind of that name; of those that files do not tell apart the first.</summary>
    public static RowKind Named(string name) => Enum.GetValues<RowKind>().First(kind => NameOf(kind) == name);
}
