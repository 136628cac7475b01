using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>What of the look of a row follows from what it is: the same in every format.</summary>
internal static class RowLook
{
    /// <summary>Whether it is set off from records, accounts and groups: by being bold, where there is bold.</summary>
    public static bool IsStrong(ReportRow row) => row.Kind is not (RowKind.Account or RowKind.Record or RowKind.Group);

    /// <summary>Whether its figures are what others come to.</summary>
    public static bool IsTotal(ReportRow row) => row.Kind is RowKind.Total or RowKind.Result or RowKind.GrandTotal;

    /// <summary>Whether it has words alone, and may be as wide as the page.</summary>
    public static bool StandsAlone(ReportRow row) => row.Kind == RowKind.Heading && IsEmpty(row);

    /// <summary>Whether it has nothing in any column.</summary>
    public static bool IsEmpty(ReportRow row) => row.Cells.All(cell => cell is { Units: null, Words: null });

    /// <summary>
    /// Whether a rule stands above its figures: above what everything comes to, and above a total whose parts stand right above
    /// it, rather than being left out.
    /// </summary>
    public static bool HasRule(ReportRow row, ReportRow? above) => row.Kind is RowKind.Result or RowKind.GrandTotal
        || (row.Kind == RowKind.Total && above is not null && (!IsStrong(above) || above.Level > row.Level));
}
