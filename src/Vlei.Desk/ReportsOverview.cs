using Vlei.Books.Kept;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk.Keeping;

namespace Vlei.Desk;

/// <summary>All reports as a person finds them: one's own first, in which groups they are, and when they were last shown.</summary>
public sealed class ReportsOverview
{
    private readonly ReportDesk? _desk;
    private readonly Dictionary<string, KeptReport> _kept;
    private readonly Dictionary<string, IReadOnlyList<string>> _groups = [];
    private readonly IReadOnlyList<RecentReport> _recent;
    private readonly List<ProblemException> _broken;

    /// <summary>Reads what is kept: what one file has wrong does not hide the others.</summary>
    /// <param name="desk">The book; nothing where there is none.</param>
    public ReportsOverview(ReportDesk? desk)
    {
        (_desk, Library) = (desk, desk?.Library ?? Library.Of(null));
        var (kept, broken) = new ReportCatalogue(Library).Read();
        (_kept, _broken) = (kept.ToDictionary(report => report.Definition.Key), [.. broken]);
        _recent = desk is null ? [] : RecentReports.Of(desk.Book);
        foreach (var file in Library.All(KeptKind.Group))
        {
            _groups[file.Name] = Sound(() => GroupFile.MembersOf(file)) ?? [];
        }

        All = [.. kept.Select(report => report.Definition), .. ReportCatalogue.Standard.Where(report => !_kept.ContainsKey(report.Key))];
    }

    /// <summary>What is kept.</summary>
    public Library Library { get; }

    /// <summary>All reports, one's own first.</summary>
    public IReadOnlyList<ReportDefinition> All { get; }

    /// <summary>What is wrong with files that were looked at.</summary>
    public IReadOnlyList<ProblemException> Broken => _broken;

    /// <summary>A report as it is kept; nothing for a standard one.</summary>
    public KeptReport? KeptAs(ReportDefinition report) => _kept.GetValueOrDefault(report.Key);

    /// <summary>The date that a kept report is always of; nothing where it moves on.</summary>
    public string? FixedDateOf(KeptReport report) => _desk is null ? null
        : KeptFiles.FixedDates(report.Own, _desk.Today.Date, _desk.Settings.Calendar).Select(option => option.Date).FirstOrDefault();

    /// <summary>The groups that a report is in.</summary>
    public IEnumerable<string> GroupsWith(ReportDefinition report) =>
        _groups.Where(group => group.Value.Contains(report.Key)).Select(group => group.Key);

    /// <summary>The reports of a group.</summary>
    public IReadOnlyList<string> MembersOf(string group) => _groups[group];

    /// <summary>When a report was last shown; nothing where it was not lately.</summary>
    public RecentReport? LastOf(ReportDefinition report) => _recent.FirstOrDefault(shown => shown.Name == report.Key);

    /// <summary>What a selection says; nothing where its file is not as it should be.</summary>
    public SavedSelection? SelectionIn(KeptFile file) => Sound(() => Library.Selection(file.Name));

    private T? Sound<T>(Func<T> read)
        where T : class
    {
        try
        {
            return read();
        }
        catch (ProblemException problem)
        {
            _broken.Add(problem);
            return null;
        }
    }
}
