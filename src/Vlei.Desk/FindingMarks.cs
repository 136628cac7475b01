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
        if (seen.Concat(questions).Concat(unmarked).GroupBy(key => key).FirstOrDefault(keys => keys.Count() > 1) is { } twice)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{twice.Key} is marked twice.", "Mark a finding once: --seen, --question or --unmark.");
        }

        var found = FoundRecords.In(review);
        List<FindingMark> marks =
        [
            .. seen.Select(name => Marked(name, isQuestion: false)), .. questions.Select(name => Marked(name, isQuestion: true)),
        ];
        HashSet<string> gone = [.. marks.Select(mark => mark.Finding), .. unmarked.Select(name => Named(name).Key)];
        MarkFile.Change(desk.Book, known => [.. known.Where(mark => !gone.Contains(mark.Finding)), .. marks]);
        return gone.Count;

        Finding Named(string name) => FoundRecords.Named(found, name, period);
        FindingMark Marked(string name, bool isQuestion) => Named(name) is var finding
            ? new(finding.Key, finding.Fingerprint, isQuestion, note, Environment.UserName, desk.Today.Date)
            : throw new InvalidOperationException();
    }
}
