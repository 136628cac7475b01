using System.Globalization;
using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>An import, as the book remembers it.</summary>
/// <param name="Number">Its number.</param>
/// <param name="At">When it was.</param>
/// <param name="By">Who did it.</param>
/// <param name="Added">How many documents were new.</param>
/// <param name="Changed">How many were not as before.</param>
/// <param name="Removed">How many went.</param>
public sealed record Revision(long Number, DateTimeOffset At, string By, long Added, long Changed, long Removed);

/// <summary>The imports of a book, what they changed, and the periods that were reported between them.</summary>
public static class Revisions
{
    /// <summary>
    /// The revision that a person means: its number, or the last one of a day or before it. Throws a
    /// <see cref="ProblemException"/> where it is neither a number nor a day.
    /// </summary>
    /// <param name="book">The book.</param>
    /// <param name="text">What the person wrote.</param>
    /// <param name="mayBeNone">Whether the time before the first import is meant too, which is revision 0; else that is refused.</param>
    public static long Find(Book book, string text, bool mayBeNone = false)
    {
        var all = All(book);
        if (all.Count == 0 && !mayBeNone)
        {
            throw new ProblemException(
                ProblemKind.NotFound, "Nothing has been imported, so there are no earlier records.", "vlei import PATH takes records in.");
        }

        if (long.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
        {
            return number >= (mayBeNone ? 0 : 1) && number <= all.Count ? number : throw new ProblemException(
                ProblemKind.NotFound, $"There is no revision {number}.",
                $"Imports are numbered from 1 to {all.Count}; vlei changes lists them.");
        }

        if (!IsoText.TryDay(Encoding.UTF8.GetBytes(text), out var day))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" is no revision.",
                "Write the number of an import, as 3, or a day, as 2026-03-31.");
        }

        return all.LastOrDefault(revision => DayOf(revision) <= day)?.Number ?? (mayBeNone ? 0 : throw new ProblemException(
            ProblemKind.NotFound, $"Nothing was imported up to {PeriodText.Iso(day)}.",
            $"The first import is of {PeriodText.Iso(DayOf(all[0]))}."));
    }

    /// <summary>All imports, oldest first.</summary>
    public static IReadOnlyList<Revision> All(Book book)
    {
        using var store = book.Store.Read();
        return [.. store.Imports().Select(import => (import, Counts: import.CountsOf(RecordTables.Documents))).Select(one =>
            new Revision(one.import.Revision, one.import.At, one.import.By, one.Counts.Added, one.Counts.Changed, one.Counts.Removed))];
    }

    /// <summary>The documents and settlements that are not as they were at an earlier import.</summary>
    public static IReadOnlyList<RecordChange> ChangesSince(Book book, long revision)
    {
        using var store = Upkeep.Read(book);
        return RecordChanges.Since(store, revision);
    }

    /// <summary>Whether accounts, contacts or other lists of records are not as they were at an earlier import.</summary>
    public static bool ListsChangedSince(Book book, long revision)
    {
        using var store = book.Store.Read();
        return store.Imports().Where(import => import.Revision > revision).SelectMany(import => import.Counts).Any(counts =>
            counts.Kind != RecordTables.Documents.Name && counts.Kind != RecordTables.Settlements.Name
                && counts.Added + counts.Changed + counts.Removed > 0);
    }

    /// <summary>The periods that were marked as reported.</summary>
    public static IReadOnlyList<ClosedPeriod> Closed(Book book)
    {
        using var store = book.Store.Read();
        return store.ClosedPeriods();
    }

    /// <summary>Marks a period as reported, on the records as they are; one that is marked already is marked anew.</summary>
    public static void Close(Book book, DateRange days, DateTimeOffset at, string by)
    {
        using var store = book.Store.Write();
        store.SetClosed(new ClosedPeriod(days, store.State.Revision, at, by));
        store.Commit();
    }

    /// <summary>Takes the mark of a period away; false where it has none.</summary>
    public static bool Reopen(Book book, DateRange days)
    {
        using var store = book.Store.Write();
        var wasThere = store.RemoveClosed(days);
        store.Commit();
        return wasThere;
    }

    private static DateOnly DayOf(Revision revision) => DateOnly.FromDateTime(revision.At.LocalDateTime);
}
