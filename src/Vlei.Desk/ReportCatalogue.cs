using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk;

/// <summary>
/// The one catalogue of reports: what is kept in a book, in its library and by the person, and what is standard: in code, in
/// files that ship with the program, and the tables.
/// </summary>
/// <param name="library">What is kept.</param>
public sealed class ReportCatalogue(Library library)
{
    private static readonly Lazy<IReadOnlyList<ReportDefinition>> Whole = new(() =>
    [
        .. StandardReports.All.Where(report => report.Table is null),
        .. ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!),
        .. StandardReports.All.Where(report => report.Table is not null),
    ]);

    /// <summary>The standard ones, by subject; tables last.</summary>
    public static IReadOnlyList<ReportDefinition> Standard => Whole.Value;

    /// <summary>The names of all, kept and standard.</summary>
    public IEnumerable<string> Names =>
        library.All(KeptKind.Report).Select(file => file.Name).Concat(Standard.Select(report => report.Key)).Distinct();

    /// <summary>The standard report of that name. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public static ReportDefinition FindStandard(string name) => Library.Standard(name) ?? throw new ProblemException(
        ProblemKind.NotFound, $"There is no standard report {name}.",
        Suggestion.DidYouMean(name, Standard.Select(report => report.Key)) ?? "vlei reports lists them.");

    /// <summary>The report of that name, kept or standard. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public ReportDefinition Find(string name) => library.FindReport(name) ?? throw new ProblemException(
        ProblemKind.NotFound, $"There is no report {name}.",
        Suggestion.DidYouMean(name, Names) ?? Meant(name) ?? "vlei reports lists them.");

    // Reports are asked for by what the trade calls them, too.
    private static string? Meant(string name)
    {
        const int Most = 3;
        var meant = ReportSearch.Answering(Standard, name, _ => []).Take(Most).Select(report => report.Key).ToList();
        return meant.Count == 0 ? null : $"Did you mean {Suggestion.Listed(meant, "or")}?";
    }

    /// <summary>
    /// The kept ones, and what is wrong with the files that are none: what one file has wrong does not hide the others.
    /// </summary>
    public (IReadOnlyList<KeptReport> Kept, IReadOnlyList<ProblemException> Broken) Read()
    {
        var (kept, broken) = (new List<KeptReport>(), new List<ProblemException>());
        foreach (var file in library.All(KeptKind.Report))
        {
            try
            {
                kept.Add(library.Read(file));
            }
            catch (ProblemException problem)
            {
                broken.Add(problem);
            }
        }

        return (kept, broken);
    }
}
