using Vlei.Core.Fields;

namespace Vlei.Core.Reports;

/// <summary>The order of rows, and the first few of them.</summary>
internal static class RowOrder
{
    /// <summary>The word that means what stands before the figures.</summary>
    public const string Name = "name";

    /// <summary>The key of all rows that come behind the first few.</summary>
    public const string Rest = "rest";

    /// <summary>
    /// The order of cells: numbers by their size, texts without regard to capitals and with the numbers in them by their value;
    /// nothing first.
    /// </summary>
    public static IComparer<Cell> OfCells { get; } = Comparer<Cell>.Create((one, other) => (one.Units, other.Units) switch
    {
        ({ } left, { } right) => left.CompareTo(right),
        (not null, null) => 1,
        (null, not null) => -1,
        _ => ValueList.Compare(one.Words ?? "", other.Words ?? ""),
    });

    /// <summary>What is asked for, in its order; where no key finds a difference, as it was.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="keys">What they are ordered by, the most important first.</param>
    /// <param name="cellOf">What rows have in a key; nothing where the key says nothing of them.</param>
    public static IReadOnlyList<T> Sorted<T>(IReadOnlyList<T> rows, IReadOnlyList<SortOrder> keys, Func<string, Func<T, Cell>?> cellOf)
    {
        foreach (var key in keys.Reverse())
        {
            if (cellOf(key.Name) is { } of)
            {
                rows = key.Downwards ? [.. rows.OrderByDescending(of, OfCells)] : [.. rows.OrderBy(of, OfCells)];
            }
        }

        return rows;
    }

    /// <summary>
    /// What rows are ordered by: what is asked for, else, where only the first few are shown, by the column that says which are
    /// the largest.
    /// </summary>
    public static IReadOnlyList<SortOrder> Keys(ReportRequest request, string? largest) =>
        request.Sort.Count > 0 || request.Top is null || largest is null
        ? request.Sort : [new SortOrder(largest, Downwards: true)];

    /// <summary>What the row of those behind the first few is called.</summary>
    public static Caption RestLabel(int count) => Caption.Ours("The rest ({0})", $"{count}");
}
