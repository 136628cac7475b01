using Vlei.Core.Reports;

namespace Vlei.Output.Web;

/// <summary>Where in its page a table's parts lead to, and by which names they are led to; nothing where they are not.</summary>
internal sealed class PageLinks
{
    /// <summary>The name that a figure leads to; its own is that with an f at its end.</summary>
    public Func<CellPlace, string?> Figure { get; init; } = _ => null;

    /// <summary>The name that what stands before a row's figures leads to.</summary>
    public Func<ReportRow, int, string?> Label { get; init; } = (_, _) => null;

    /// <summary>The name of a row.</summary>
    public Func<ReportRow, int, string?> Row { get; init; } = (_, _) => null;
}
