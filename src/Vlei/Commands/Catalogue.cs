using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>The catalogue of the standard reports: those that are written in code, and those that are definitions in files.</summary>
internal static class Catalogue
{
    private static readonly Lazy<IReadOnlyList<ReportDefinition>> Whole = new(() =>
    [
        .. StandardReports.All.Where(report => report.Table is null), .. ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!),
        .. StandardReports.All.Where(report => report.Table is not null),
    ]);

    /// <summary>All of them, by subject; tables last.</summary>
    public static IReadOnlyList<ReportDefinition> Standard => Whole.Value;

    /// <summary>The names of all reports, kept and standard.</summary>
    public static IEnumerable<string> Names(Library library) =>
        library.All(KeptKind.Report).Select(file => file.Name).Concat(Standard.Select(report => report.Key)).Distinct();

    /// <summary>The report of that name, kept or standard. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public static ReportDefinition Find(Library library, string key) => library.FindReport(key) ?? throw new ProblemException(
        ProblemKind.NotFound, $"There is no report {key}.", Suggestion.DidYouMean(key, Names(library)) ?? "vlei reports lists them.");
}
