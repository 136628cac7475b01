using Vlei.Core.Calendar;

namespace Vlei.Books.Store;

/// <summary>What is kept of a kind of derived rows in a month, beside its columns.</summary>
/// <param name="Month">The month.</param>
/// <param name="Rows">How many rows it has.</param>
/// <param name="Sums">What the rows sum up to, as bytes.</param>
/// <param name="Checksum">The checksum of the sums.</param>
internal readonly record struct MonthHead(YearMonth Month, int Rows, byte[] Sums, long Checksum);

/// <summary>One column of a month's rows, as bytes with their checksum.</summary>
internal readonly record struct MonthColumn(string Name, byte[] Data, long Checksum);

/// <summary>The months of what is derived: per kind and month a head, and a blob per column.</summary>
internal interface IMonths
{
    /// <summary>The months of a kind that have rows, and how many; the oldest first.</summary>
    IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind);

    /// <summary>The heads of the months of a kind from the first to the last, the oldest first.</summary>
    IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last);

    /// <summary>The months of a kind that have anything, be it only columns without a head.</summary>
    IReadOnlyList<YearMonth> AllMonths(DerivedKind kind);

    /// <summary>A column of a month; valid until the next is asked for or anything is written. False where it is not there.</summary>
    bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum);

    /// <summary>All columns of a month, by their names.</summary>
    IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month);
}

/// <summary>Months that can be written.</summary>
internal interface IWritableMonths : IMonths
{
    /// <summary>Puts a month in the place of what was there; one without rows goes.</summary>
    void PutMonth(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns);

    /// <summary>Throws all months away.</summary>
    void ClearMonths();
}
