using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>What of the look of a row follows from what it is: the same in every format.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Level">How far it is indented, from 0.</param>
internal readonly record struct RowLook(RowKind Kind, int Level)
{
    /// <summary>What a row is.</summary>
    public static RowLook Of(ReportRow row) => new(row.Kind, row.Level);

    /// <summary>Whether it is set off from records, accounts and groups: by being bold, where there is bold.</summary>
    public bool IsStrong => Kind is not (RowKind.Account or RowKind.Record or RowKind.Group);

    /// <summary>Whether its figures are what others come to.</summary>
    public bool IsTotal => Kind is RowKind.Total or RowKind.Result or RowKind.GrandTotal;

    /// <summary>Whether a row has nothing in any column.</summary>
    public static bool IsEmpty(ReportRow row) => row.Cells.All(cell => cell is { Units: null, Words: null });

    /// <summary>
    /// Whether a rule stands above its figures: above what everything comes to, and above a total whose parts stand right above
    /// it, rather than being left out.
    /// </summary>
    public bool HasRule(RowLook? above) => Kind is RowKind.Result or RowKind.GrandTotal
        || (Kind == RowKind.Total && above is { } upper && (!upper.IsStrong || upper.Level > Level));
}
