using Vlei.Core.Calendar;
using Vlei.Core.Fields;

namespace Vlei.Core.Tables;

/// <summary>Days that a table is read for, on a basis, and what their columns are called beside others.</summary>
/// <param name="Pieces">The days, in the pieces that columns of time are made of; otherwise in one piece.</param>
/// <param name="Context">What it is read from.</param>
/// <param name="Key">The key of these days, or of the basis where both stand side by side.</param>
/// <param name="Heading">What they are called.</param>
internal sealed record TableSpan(IReadOnlyList<DateRange> Pieces, TableContext Context, string Key, string Heading)
{
    /// <summary>All the days.</summary>
    public DateRange Whole => new(Pieces[0].From, Pieces[^1].To);
}
