using Vlei.Core.Calendar;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>What imports did to a document or a settlement.</summary>
public enum ChangeKind
{
    /// <summary>It is new.</summary>
    Added,

    /// <summary>It was there and is not the same.</summary>
    Changed,

    /// <summary>It is there no longer.</summary>
    Removed,

    /// <summary>Two documents are set against each other that were not.</summary>
    Settled,

    /// <summary>Two documents are no longer set against each other.</summary>
    Unsettled,
}

/// <summary>A document or a settlement that is not as it was at an earlier import.</summary>
/// <param name="Kind">What was done to it.</param>
/// <param name="Id">The document, or the two documents of a settlement.</param>
/// <param name="Was">The day that it counted; nothing where it was not there.</param>
/// <param name="Is">The day that it counts; nothing where it is not there.</param>
/// <param name="DocumentKind">The kind of the document; empty for a settlement.</param>
/// <param name="Number">The number of the document; empty for a settlement.</param>
/// <param name="Before">The sum of its debits, or what was settled.</param>
/// <param name="After">The same now.</param>
public sealed record RecordChange(
    ChangeKind Kind, string Id, DateOnly? Was, DateOnly? Is, string DocumentKind, string Number, Amount Before, Amount After)
{
    /// <summary>Whether it counted within those days, or counts there now.</summary>
    public bool Touches(DateRange days) => Contains(days, Was) || Contains(days, Is);

    private static bool Contains(DateRange days, DateOnly? day) => day >= days.From && day <= days.To;
}

/// <summary>What one import did to one document.</summary>
/// <param name="Document">The key of the document.</param>
/// <param name="Id">Its id.</param>
/// <param name="Kind">The number of its kind then.</param>
/// <param name="Date">Its date then.</param>
/// <param name="Total">The sum of its debits then.</param>
/// <param name="Change">Added, changed or removed.</param>
/// <param name="Revision">The number of the import.</param>
/// <param name="At">When it was run.</param>
/// <param name="By">Who ran it.</param>
public sealed record DocumentVersion(
    DocumentKey Document, string Id, int Kind, DateOnly Date, Amount Total, ChangeKind Change, long Revision, DateTimeOffset At, string By);

/// <summary>A period that was reported, and is not expected to change.</summary>
/// <param name="Days">Its days.</param>
/// <param name="Revision">The last import that the report had seen.</param>
/// <param name="At">When it was marked.</param>
/// <param name="By">Who marked it.</param>
public sealed record ClosedPeriod(DateRange Days, long Revision, DateTimeOffset At, string By);
