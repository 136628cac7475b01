using System.Globalization;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Review;
using Vlei.Core.Tables;

namespace Vlei.Desk;

/// <summary>The records behind a finding of the review, which is named by its number there, or by its key.</summary>
public static class FoundRecords
{
    private const string Review = "review";

    /// <summary>The findings of a review, in its order.</summary>
    public static IReadOnlyList<Finding> In(OpenReport review) =>
    [
        .. FindingsTable.Find(
            TableReport.ContextOf(FindingsTable.Definition, review.Context, review.Request), review.Context.PeriodOf(review.Request).Range),
    ];

    /// <summary>
    /// The finding of that number or key, with what findings are shown by before it or not. Throws a
    /// <see cref="ProblemException"/> where there is none.
    /// </summary>
    /// <param name="found">The findings, in the order of the review.</param>
    /// <param name="name">The number or the key.</param>
    /// <param name="period">The period that was reviewed, for messages.</param>
    public static Finding Named(IReadOnlyList<Finding> found, string name, string period)
    {
        var bare = name.StartsWith(FindingsTable.NamePrefix, StringComparison.Ordinal) ? name[FindingsTable.NamePrefix.Length..] : name;
        return int.TryParse(bare, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number >= 1 && number <= found.Count
            ? found[number - 1]
            : found.FirstOrDefault(finding => finding.Key == bare) ?? throw new ProblemException(
                ProblemKind.NotFound, $"Nothing was found under {bare} in that period.",
                Suggestion.DidYouMean(bare, found.Select(finding => finding.Key)) ?? $"vlei check --review {period} lists what was.");
    }

    /// <summary>
    /// The report that shows the records behind a finding: of the period that is typed, else of the one that was reviewed last.
    /// Throws a <see cref="ProblemException"/> where there is none.
    /// </summary>
    /// <param name="desk">The book.</param>
    /// <param name="order">The finding as it is asked for: <c>finding/3</c>.</param>
    public static ReportOrder OrderOf(ReportDesk desk, ReportOrder order)
    {
        var days = new[] { ReportOptions.Period.Name, ReportOptions.AsOf.Name };
        var typed = order.Options.Where(option => days.Contains(option.Key)).ToDictionary();
        var reviewed = typed.Count > 0 ? typed : RecentReports.Of(desk.Book)
            .FirstOrDefault(shown => shown.Name == Review && shown.Day == desk.Today.Date)?.Options
            .Where(option => days.Contains(option.Key)).ToDictionary();
        if (reviewed is null)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"It is not said in which period {order.Name} was found, and nothing was reviewed today.",
                "Add --period, or look first: vlei check --review last-month.");
        }

        using var review = desk.Open(new ReportOrder(Review, reviewed) { IsStandard = true, Revision = order.Revision });
        var records = Named(In(review), order.Name, reviewed.Values.FirstOrDefault()?[^1] ?? "last-month").Records;
        return order with
        {
            Name = records.Report,
            Options = order.Options.Where(option => !days.Contains(option.Key)).Concat(records.Options)
                .GroupBy(option => option.Key, option => option.Value)
                .ToDictionary(same => same.Key, same => (IReadOnlyList<string>)[.. same.SelectMany(texts => texts)]),
        };
    }
}
