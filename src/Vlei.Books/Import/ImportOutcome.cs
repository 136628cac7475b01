using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>What an import did to one kind of record.</summary>
public sealed class RecordCounts
{
    /// <summary>How many are new.</summary>
    public long Added { get; internal set; }

    /// <summary>How many were there and differ now.</summary>
    public long Changed { get; internal set; }

    /// <summary>How many were there and are the same.</summary>
    public long Unchanged { get; internal set; }

    /// <summary>How many were there and are no longer.</summary>
    public long Removed { get; internal set; }

    /// <summary>Whether anything is not as it was.</summary>
    public bool AnyChange => Added + Changed + Removed > 0;
}

/// <summary>What an import came to.</summary>
/// <param name="Revision">Its number; nothing where nothing was taken in: it was a trial, or nothing had changed.</param>
/// <param name="Counts">What it did, per kind of record; a document stands for its lines too.</param>
/// <param name="Changes">The documents and settlements that are not as they were, where periods are closed.</param>
/// <param name="Differences">Balances of the sources that the book does not come to; only where they are taken in all the same.</param>
public sealed record ImportOutcome(
    long? Revision, IReadOnlyList<(RecordTable Table, RecordCounts Counts)> Counts, IReadOnlyList<RecordChange> Changes,
    IReadOnlyList<RecordError> Differences);

/// <summary>How an import is to be done.</summary>
/// <param name="By">Who does it.</param>
/// <param name="At">When.</param>
/// <param name="Complete">Whether what is not in the record set is to be removed.</param>
/// <param name="Trial">Whether everything is to be checked and counted, and nothing kept.</param>
public sealed record ImportOrder(string By, DateTimeOffset At, bool Complete, bool Trial)
{
    /// <summary>The days of which the record set has all documents: what the book has of them beside it is removed.</summary>
    public DateRange? CompleteFor { get; init; }

    /// <summary>Whether balances that the book does not come to are no errors.</summary>
    public bool TakesDifferences { get; init; }
}
