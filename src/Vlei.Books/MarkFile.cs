using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>Reads and writes <c>review.csv</c>: which findings of the review were seen, and which are questions for the client.</summary>
public static class MarkFile
{
    private const string Seen = "seen";
    private const string Question = "question";

    /// <summary>All marks, in the order of the file. Throws a <see cref="ProblemException"/> where it is damaged.</summary>
    public static IReadOnlyList<FindingMark> Read(Book book) => [.. FileOf(book).Read().Select(MarkOf)];

    /// <summary>
    /// Changes the marks; nobody else can meanwhile. Throws a <see cref="ProblemException"/> where somebody else does, or where
    /// the book cannot be written; then they are as they were.
    /// </summary>
    public static void Change(Book book, Func<IReadOnlyList<FindingMark>, IEnumerable<FindingMark>> change)
    {
        using var only = book.Store.Write();
        FileOf(book).Write(change(Read(book)).Select(TextsOf));
    }

    /// <summary>What another file of the same kind says, such as one of a record set; none where it is not there.</summary>
    public static IReadOnlyList<FindingMark> Read(string path) => [.. At(path).Read().Select(MarkOf)];

    /// <summary>Writes a file of the same kind; none where there is nothing to say.</summary>
    public static void Write(string path, IReadOnlyList<FindingMark> marks)
    {
        if (marks.Count > 0)
        {
            At(path).Write(marks.Select(TextsOf));
        }
    }

    private static NotesFile FileOf(Book book) => At(book.MarksPath);

    private static NotesFile At(string path) => new(path, ["finding", "status", "note", "by", "on", "records"]);

    private static IReadOnlyList<string> TextsOf(FindingMark mark) =>
    [
        mark.Finding, mark.IsQuestion ? Question : Seen, mark.Note, mark.By, PeriodText.Iso(mark.On),
        mark.Fingerprint.ToString("x16", CultureInfo.InvariantCulture),
    ];

    private static FindingMark MarkOf(NotesRow row) => new(
        row.Fields[0],
        long.TryParse(row.Fields[5], NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var fingerprint)
            ? fingerprint : throw row.Wrong($"\"{row.Fields[5]}\" is no fingerprint of records", "sixteen hexadecimal digits"),
        row.Fields[1] == Question
            || (row.Fields[1] == Seen ? false : throw row.Wrong($"\"{row.Fields[1]}\" is no status", $"{Seen} or {Question}")),
        row.Fields[2], row.Fields[3], row.DayIn(4));
}
