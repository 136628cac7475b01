using System.Globalization;
using Vlei.Core.Calendar;

namespace Vlei.Books;

/// <summary>Something that the source of an import shows, and that the book does not come to; it was taken in all the same.</summary>
/// <param name="Revision">The number of the import.</param>
/// <param name="Source">The file, or the sheet of one.</param>
/// <param name="Message">What it shows, what the book comes to, and the difference, with the place.</param>
/// <param name="By">Who took it in.</param>
/// <param name="On">The day.</param>
public sealed record ImportDifference(long Revision, string Source, string Message, string By, DateOnly On);

/// <summary>
/// Reads and writes <c>differences.csv</c>: what imports did not prove and was taken in anyway. What a later import of the same source
/// proves is taken out.
/// </summary>
public static class DifferenceFile
{
    /// <summary>All of them, in the order of the file.</summary>
    public static IReadOnlyList<ImportDifference> Read(Book book) => [.. FileOf(book).Read().Select(row => new ImportDifference(
        long.TryParse(row.Fields[0], NumberStyles.None, CultureInfo.InvariantCulture, out var revision) ? revision
            : throw row.Wrong($"\"{row.Fields[0]}\" is no revision", "a number"),
        row.Fields[1], row.Fields[2], row.Fields[3], row.DayIn(4)))];

    /// <summary>Replaces what is noted of some sources.</summary>
    /// <param name="book">The book.</param>
    /// <param name="sources">The sources that were imported.</param>
    /// <param name="differences">What they did not prove; none where all of it is proved.</param>
    public static void Replace(Book book, IReadOnlyCollection<string> sources, IReadOnlyList<ImportDifference> differences)
    {
        var known = Read(book);
        if (differences.Count == 0 && !known.Any(difference => sources.Contains(difference.Source)))
        {
            return;
        }

        using var only = book.Store.Write();
        FileOf(book).Write(known.Where(difference => !sources.Contains(difference.Source)).Concat(differences)
            .Select(difference => (IReadOnlyList<string>)
            [
                difference.Revision.ToString(CultureInfo.InvariantCulture), difference.Source, difference.Message, difference.By,
                PeriodText.Iso(difference.On),
            ]));
    }

    private static NotesFile FileOf(Book book) => new(book.DifferencesPath, ["revision", "source", "difference", "by", "on"]);
}
