using Vlei.Books;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Review;

namespace Vlei.Desk;

/// <summary>Marks findings of the review as seen, or as questions for the client.</summary>
/// <param name="desk">The book.</param>
/// <param name="review">The review in which they were found.</param>
/// <param name="period">The period of it, as it was typed.</param>
public sealed class FindingMarks(ReportDesk desk, OpenReport review, string period)
{
    /// <summary>
    /// Marks them, and gives how many. Throws a <see cref="ProblemException"/> where one was not found, or is marked twice.
    /// </summary>
    /// <param name="seen">Those that are fine.</param>
    /// <param name="questions">Those that the client is asked about.</param>
    /// <param name="unmarked">Those that are new again.</param>
    /// <param name="note">What is said about them.</param>
    public int Mark(IReadOnlyList<string> seen, IReadOnlyList<string> questions, IReadOnlyList<string> unmarked, string note)
    {
        var found = FoundRecords.In(review);
        List<Finding> Named(IEnumerable<string> names) => [.. names.Select(name => FoundRecords.Named(found, name, period))];
        var (fine, asked, anew) = (Named(seen), Named(questions), Named(unmarked));
        if (fine.Concat(asked).Concat(anew).GroupBy(finding => finding.Key).FirstOrDefault(same => same.Count() > 1) is { } twice)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{twice.Key} is marked twice.", "Mark a finding once: --seen, --question or --unmark.");
        }

        FindingMark Marked(Finding finding, bool isQuestion) =>
            new(finding.Key, finding.Fingerprint, isQuestion, note, Environment.UserName, desk.Today.Date);
        List<FindingMark> marks =
            [.. fine.Select(finding => Marked(finding, isQuestion: false)), .. asked.Select(finding => Marked(finding, isQuestion: true))];
        HashSet<string> gone = [.. fine.Concat(asked).Concat(anew).Select(finding => finding.Key)];
        MarkFile.Change(desk.Book, known => [.. known.Where(mark => !gone.Contains(mark.Finding)), .. marks]);
        return gone.Count;
    }
}
