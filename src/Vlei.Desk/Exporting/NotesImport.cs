using Vlei.Books;
using Vlei.Records;

namespace Vlei.Desk.Exporting;

/// <summary>Takes what was noted beside the records of a record set into a book: promises, and what was said about findings.</summary>
public static class NotesImport
{
    /// <summary>Takes in what the book does not have yet; how many notes that were.</summary>
    /// <param name="book">The book.</param>
    /// <param name="paths">What was imported; folders may have such notes.</param>
    public static int Run(Book book, IEnumerable<string> paths)
    {
        var count = 0;
        foreach (var folder in paths.Where(Directory.Exists))
        {
            var promises = PromiseFile.Read(book, Path.Combine(folder, RecordSet.PromisesName));
            if (promises.Count > 0)
            {
                PromiseFile.Change(book, known =>
                {
                    var added = promises.Where(promise => !known.Any(other => IsSame(promise, other))).ToList();
                    var next = known.Select(promise => promise.Number).DefaultIfEmpty(0).Max() + 1;
                    count += added.Count;
                    return known.Concat(added.Select((promise, place) => promise with { Number = next + place })).ToList();
                });
            }

            var marks = MarkFile.Read(Path.Combine(folder, RecordSet.MarksName));
            if (marks.Count > 0)
            {
                MarkFile.Change(book, known =>
                {
                    var added = marks.Where(mark => !known.Any(other => other.Finding == mark.Finding)).ToList();
                    count += added.Count;
                    return known.Concat(added).ToList();
                });
            }
        }

        return count;
    }

    private static bool IsSame(PromiseRecord left, PromiseRecord right) => left with { Number = 0, Withdrawn = null } == right with
    {
        Number = 0,
        Withdrawn = null,
    };
}
