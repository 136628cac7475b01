using System.Globalization;
using System.Text;
using Vlei.Books.Store;
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
        using var database = RecordsFile.OpenToRead(book.RecordsPath);
        using var statement = database.Prepare(
            "SELECT i.revision, i.at, i.by, c.added, c.changed, c.removed FROM imports i LEFT JOIN import_counts c "
            + "ON c.revision = i.revision AND c.kind = 'documents' ORDER BY i.revision");
        var revisions = new List<Revision>();
        while (statement.Step())
        {
            revisions.Add(new Revision(
                statement.Number(0), MomentOf(statement.Text(1)), statement.Text(2), statement.Number(3),
                statement.Number(4), statement.Number(5)));
        }

        return revisions;
    }

    /// <summary>The documents and settlements that are not as they were at an earlier import.</summary>
    public static IReadOnlyList<RecordChange> ChangesSince(Book book, long revision)
    {
        using var database = RecordsFile.OpenToRead(book.RecordsPath);
        return RecordChanges.Since(database, revision);
    }

    /// <summary>Whether accounts, contacts or other lists of records are not as they were at an earlier import.</summary>
    public static bool ListsChangedSince(Book book, long revision)
    {
        using var database = RecordsFile.OpenToRead(book.RecordsPath);
        return database.Number(
            $"SELECT count(*) FROM import_counts WHERE revision > {revision} "
                + "AND kind NOT IN ('documents', 'settlements') AND added + changed + removed > 0") > 0;
    }

    /// <summary>The periods that were marked as reported.</summary>
    public static IReadOnlyList<ClosedPeriod> Closed(Book book)
    {
        using var database = RecordsFile.OpenToRead(book.RecordsPath);
        using var statement = database.Prepare(
            "SELECT first_day, last_day, revision, at, by FROM closed_periods ORDER BY first_day, last_day");
        var closed = new List<ClosedPeriod>();
        while (statement.Step())
        {
            _ = IsoText.TryDay(statement.Bytes(0), out var from) & IsoText.TryDay(statement.Bytes(1), out var to);
            closed.Add(new ClosedPeriod(
                new DateRange(from, to), statement.Number(2), MomentOf(statement.Text(3)), statement.Text(4)));
        }

        return closed;
    }

    /// <summary>Marks a period as reported, on the records as they are; one that is marked already is marked anew.</summary>
    public static void Close(Book book, DateRange days, DateTimeOffset at, string by)
    {
        using var database = RecordsFile.OpenToWrite(book.RecordsPath);
        using (var insert = database.Prepare(
            "INSERT OR REPLACE INTO closed_periods(first_day, last_day, revision, at, by) "
            + "SELECT ?, ?, coalesce(max(revision), 0), ?, ? FROM imports"))
        {
            insert.Bind(1, PeriodText.Iso(days.From)).Bind(2, PeriodText.Iso(days.To)).Bind(3, MomentText(at)).Bind(4, by).Run();
        }

        database.Commit();
    }

    /// <summary>Takes the mark of a period away; false where it has none.</summary>
    public static bool Reopen(Book book, DateRange days)
    {
        using var database = RecordsFile.OpenToWrite(book.RecordsPath);
        using (var delete = database.Prepare("DELETE FROM closed_periods WHERE first_day = ? AND last_day = ?"))
        {
            delete.Bind(1, PeriodText.Iso(days.From)).Bind(2, PeriodText.Iso(days.To)).Run();
        }

        var wasThere = database.Number("SELECT changes()") > 0;
        database.Commit();
        return wasThere;
    }

    private static DateOnly DayOf(Revision revision) => DateOnly.FromDateTime(revision.At.LocalDateTime);

    /// <summary>A moment as the store writes it.</summary>
    internal static string MomentText(DateTimeOffset at) =>
        at.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);

    /// <summary>A moment as the store keeps it.</summary>
    internal static DateTimeOffset MomentOf(string text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at)
            ? at
            : throw StoreProblem.Damaged($"\"{text}\" is no moment");
}
