using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>The values of a field that the columns of a statement are spread over, and which of them each posting has.</summary>
/// <param name="Field">The field.</param>
/// <param name="Values">The values; the first is none.</param>
/// <param name="PlacesOf">The place of the value that each row has.</param>
public sealed record Slicing(TableField Field, IReadOnlyList<FieldValue> Values, Func<RowSet, long[]> PlacesOf)
{
    /// <summary>The columns of postings that say it; nothing where records are looked up for it.</summary>
    public IReadOnlyList<PostingField>? Columns { get; init; }

    /// <summary>The postings of a month as rows with every field.</summary>
    public required Func<PostingSource, YearMonth, RowBlock> MonthOf { get; init; }

    /// <summary>The places of the values that the postings of a month have.</summary>
    public long[] PlacesIn(PostingMonth postings, PostingSource source, YearMonth month) =>
        PlacesOf(new RowSet(Columns is not null ? PostingColumns.BlockOf(postings) : MonthOf(source, month)));
}
