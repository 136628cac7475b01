namespace Vlei.Core.Reports;

/// <summary>A row of a report before it has cells.</summary>
/// <param name="Key">The name by which machines know it.</param>
/// <param name="Label">What stands before its figures.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Level">How far it is indented, from 0.</param>
/// <param name="Of">What its figures are of; not looked at for a heading.</param>
internal readonly record struct FigureRow<TRow>(string Key, Caption Label, RowKind Kind, int Level, TRow Of)
    where TRow : struct
{
    /// <summary>What the group that it stands in comes to as a whole; nothing where it stands in none.</summary>
    public TRow? Within { get; init; }

    /// <summary>The formula that it is worked out by from other rows; nothing where records come to it.</summary>
    public RowFormula<TRow>? Formula { get; init; }

    /// <summary>What its figures are where its columns say money.</summary>
    public ColumnKind Shows { get; init; }

    /// <inheritdoc cref="ReportRow.CountsIn"/>
    public string? CountsIn { get; init; }

    /// <inheritdoc cref="ReportRow.MadeOf"/>
    public IReadOnlyList<(string Key, int Sign)>? MadeOf { get; init; }

    /// <inheritdoc cref="ReportRow.Group"/>
    public IReadOnlyList<string>? Group { get; init; }

    /// <summary>A heading.</summary>
    public static FigureRow<TRow> Heading(string key, Caption label, int level) => new(key, label, RowKind.Heading, level, default);
}

/// <summary>How a row is worked out from others, where that is no sum.</summary>
/// <param name="Formula">The formula.</param>
/// <param name="Rows">The rows that it names.</param>
/// <param name="Kind">Whether it is a percentage or a plain number.</param>
internal sealed record RowFormula<TRow>(Fields.Formula Formula, IReadOnlyDictionary<string, FigureRow<TRow>> Rows, ColumnKind Kind)
    where TRow : struct;
