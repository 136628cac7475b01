using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>The catalogue of all reports: those that are written in code, and those that are definitions in files.</summary>
internal static class Catalogue
{
    private static readonly Lazy<IReadOnlyList<ReportDefinition>> Whole = new(() =>
    [
        .. StandardReports.All.Where(report => report.Table is null), .. ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!),
        .. StandardReports.All.Where(report => report.Table is not null),
    ]);

    /// <summary>All of them, by subject; tables last.</summary>
    public static IReadOnlyList<ReportDefinition> All => Whole.Value;

    /// <summary>Finds a report by its key, without reading any other.</summary>
    public static ReportDefinition? Find(string key) => StandardReports.Find(key) ?? ReportFile.Standard(key);

    /// <summary>
    /// The reports that answer the words, best first: those in whose key, title, question and other words the most of them
    /// are found.
    /// </summary>
    public static IEnumerable<ReportDefinition> Answering(IReadOnlyCollection<string> words) => All
        .Select(report => (Report: report, Found: words.Count(word => Text(report).Contains(word, StringComparison.OrdinalIgnoreCase))))
        .Where(found => found.Found > 0)
        .OrderByDescending(found => found.Found)
        .Select(found => found.Report);

    private static string Text(ReportDefinition report) =>
        $"{report.Key} {report.Title} {report.Question} {string.Join(' ', report.Words)}";
}
