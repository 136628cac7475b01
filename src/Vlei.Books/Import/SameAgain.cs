using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>
/// Whether what comes in is, byte by byte, what came in last: then all of it is there already, and was found to be sound. Whoever asks
/// for an import each night is answered at once on most of them.
/// </summary>
internal static class SameAgain
{
    /// <summary>What the import would come to; nothing where the records must be looked at.</summary>
    /// <param name="book">The book.</param>
    /// <param name="store">Its records.</param>
    /// <param name="records">What comes in.</param>
    /// <param name="order">How.</param>
    public static IReadOnlyList<(RecordTable Table, RecordCounts Counts)>? CountsOf(
        Book book, IStoreReading store, IRecordSet records, ImportOrder order)
    {
        // What a book says of itself, as its currency, is part of how records are read. Imports are known by their second.
        if (order.CompleteFor is not null || records.Balances.Count > 0 || store.Imports() is not [.., var last]
            || last.Complete != order.Complete
            || book.SettingsWrittenAt is not { } written || written >= last.At.UtcDateTime.AddSeconds(1)
            || !records.IsMadeOf(last.Files))
        {
            return null;
        }

        return
        [
            .. last.Counts.Select(counts => (Table: RecordTables.Named(counts.Kind), Counts: new RecordCounts
            {
                Unchanged = counts.Added + counts.Changed + counts.Unchanged,
            })).OrderBy(counts => RecordTables.All.ToList().IndexOf(counts.Table)),
        ];
    }
}
