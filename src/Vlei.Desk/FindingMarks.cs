using Vlei.Books;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Review;
using Vlei.Core.Tables;

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

        var found = FindingsTable.Find(
            TableReport.ContextOf(FindingsTable.Definition, review.Context, review.Request), review.Context.PeriodOf(review.Request).Range)
            .DistinctBy(finding => finding.Key).ToDictionary(finding => finding.Key);
        List<FindingMark> marks =
        [
            .. seen.Select(key => Marked(key, isQuestion: false)), .. questions.Select(key => Marked(key, isQuestion: true)),
        ];
        HashSet<string> gone = [.. marks.Select(mark => mark.Finding), .. unmarked.Select(key => Named(key).Key)];
        MarkFile.Change(desk.Book, known => [.. known.Where(mark => !gone.Contains(mark.Finding)), .. marks]);
        return gone.Count;

        Finding Named(string key) => found.GetValueOrDefault(key) ?? throw new ProblemException(
            ProblemKind.NotFound, $"Nothing was found under {key} in that period.",
            Suggestion.DidYouMean(key, found.Keys) ?? $"vlei check --review {period} lists what was.");
        FindingMark Marked(string key, bool isQuestion) =>
            new(key, Named(key).Fingerprint, isQuestion, note, Environment.UserName, desk.Today.Date);
    }
}
