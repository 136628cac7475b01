using System.Collections.Immutable;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk.Keeping;

namespace Vlei.Desk;

/// <summary>All reports as a person finds them: one's own first, in which groups they are, and when they were last shown.</summary>
public sealed class ReportsOverview
{
    private readonly Dictionary<string, KeptReport> _kept;
    private readonly Dictionary<string, IReadOnlyList<string>> _groups = [];
    private readonly IReadOnlyList<RecentReport> _recent;
    private readonly List<ProblemException> _broken;

    // Read once: what is wrong with one is told once.
    private readonly Lazy<IReadOnlyList<KeptPage>> _pages;

    /// <summary>Reads what is kept: what one file has wrong does not hide the others.</summary>
    /// <param name="desk">The book; nothing where there is none.</param>
    public ReportsOverview(ReportDesk? desk)
    {
        (Desk, Library) = (desk, desk?.Library ?? Library.Of(null));
        var (kept, broken) = new ReportCatalogue(Library).Read();
        (_kept, _broken) = (kept.ToDictionary(report => report.Definition.Key), [.. broken]);
        _pages = new Lazy<IReadOnlyList<KeptPage>>(() =>
            [.. PageFile.NamesIn(Library).Select(name => Sound(() => PageFile.Find(Library, name)!)).OfType<KeptPage>()]);
        _recent = desk is null ? [] : RecentReports.Of(desk.Book);
        foreach (var file in Library.All(KeptKind.Group))
        {
            _groups[file.Name] = Sound(() => GroupFile.MembersOf(file)) ?? [];
        }

        All = [.. kept.Select(report => report.Definition), .. ReportCatalogue.Standard.Where(report => !_kept.ContainsKey(report.Key))];
    }

    /// <summary>The book; nothing where there is none.</summary>
    public ReportDesk? Desk { get; }

    /// <summary>What is kept.</summary>
    public Library Library { get; }

    /// <summary>All reports, one's own first.</summary>
    public IReadOnlyList<ReportDefinition> All { get; }

    /// <summary>What is wrong with files that were looked at.</summary>
    public IReadOnlyList<ProblemException> Broken => _broken;

    /// <summary>A report as it is kept; nothing for a standard one.</summary>
    public KeptReport? KeptAs(ReportDefinition report) => _kept.GetValueOrDefault(report.Key);

    /// <summary>The date that a kept report is always of; nothing where it moves on.</summary>
    public string? FixedDateOf(KeptReport report) => Desk is null ? null
        : KeptFiles.FixedDates(report.Own, Desk.Today.Date, Desk.Settings.Calendar).Select(option => option.Date).FirstOrDefault();

    /// <summary>The groups that a report is in.</summary>
    public IEnumerable<string> GroupsWith(ReportDefinition report) =>
        _groups.Where(group => group.Value.Contains(report.Key)).Select(group => group.Key);

    /// <summary>When a report was last shown; nothing where it was not lately.</summary>
    public RecentReport? LastOf(ReportDefinition report) => _recent.FirstOrDefault(shown => shown.Name == report.Key);

    /// <summary>What else is kept, in the order in which a person looks: with its name, and what it is about.</summary>
    public IEnumerable<(string Heading, IReadOnlyList<(string Name, string About, bool IsFavourite)> Files)> OtherFiles =>
    [
        ("Pages", [.. Pages.Select(page => (page.Name, page.Question, false))]),
        ("Selections", FilesOf(KeptKind.Selection, SelectionAbout)),
        ("Groups", FilesOf(KeptKind.Group, name => (string.Join(", ", _groups[name]), false))),
        ("Layouts", FilesOf(KeptKind.Layout, _ => ("", false))),
    ];

    /// <summary>The pages of panels, one's own first; one whose file is not as it should be is among what is broken.</summary>
    public IReadOnlyList<KeptPage> Pages => _pages.Value;

    /// <summary>Where a kept report is: the file, and whose it is where it is not the book's.</summary>
    public string PlaceOf(ReportDefinition report)
    {
        var file = Library.Find(KeptKind.Report, report.Key)!;
        return $"{(file.Shelf.Word == "book" ? "" : $"{file.Shelf.Word}'s ")}{file.Kind.Folder}/{file.Name}{KeptFile.Ending}";
    }

    /// <summary>The names of the fields that a report can show or be narrowed by.</summary>
    public static IEnumerable<string> FieldsOf(ReportDefinition report) =>
        report.Table?.Fields.SelectMany(field => (field.Target?.Fields.Select(known => known.Name) ?? []).Append(field.Name))
            ?? report.Options.Where(option => option == ReportOptions.Basis || option == ReportOptions.Limits)
                .Select(option => option.Name);

    /// <summary>The reports as a list: all that is known of each.</summary>
    public Report Inventory(IReadOnlyList<ReportDefinition> reports) => new()
    {
        Key = "reports",
        Title = "Reports",
        Book = Desk?.Settings.Name ?? "",
        Currency = Desk?.Settings.Currency ?? Currency.None,
        Basis = AccountingBasis.Accrual,
        Period = null,
        AsOf = null,
        PeriodInWords = "",
        Columns =
        [
            .. new[] { ("title", "Title"), ("subject", "Subject"), ("question", "Question"), ("kept", "Kept in"), ("from", "From"),
                ("favourite", "Favourite"), ("groups", "Groups"), ("last", "Last shown"), ("options", "Options") }
                .Select(column => new ReportColumn(column.Item1, column.Item2, ColumnKind.Text)),
        ],
        Rows = [.. reports.Select(report => new ReportRow(report.Key, report.Key, RowKind.Record, 0, InventoryOf(report)))],
        Checks = [],
        OriginOf = (_, _) => null,
        Revision = 0,
    };

    private ImmutableArray<Cell> InventoryOf(ReportDefinition report)
    {
        var kept = KeptAs(report);
        return
        [
            .. new[]
            {
                report.Title, report.Subject, report.Question, kept is null ? null : PlaceOf(report), kept?.From,
                kept?.IsFavourite == true ? "yes" : null, string.Join(", ", GroupsWith(report)),
                LastOf(report) is { } last ? PeriodText.Iso(last.Day) : null,
                string.Join(' ', report.Options.Select(option => option.Name)),
            }.Select(text => text is { Length: > 0 } ? Cell.Of(text) : Cell.Empty),
        ];
    }

    private List<(string Name, string About, bool IsFavourite)> FilesOf(
        KeptKind kind, Func<string, (string About, bool IsFavourite)> about) =>
        [.. Library.All(kind).Select(file => about(file.Name) is var told ? (file.Name, told.About, told.IsFavourite) : default)
            .OrderByDescending(file => file.IsFavourite)];

    private (string About, bool IsFavourite) SelectionAbout(string name) => Sound(() => Library.Selection(name)) is { } selection
        ? (selection.Question.Length > 0 ? selection.Question : string.Join(
            "; ", selection.Only.Select(text => $"only {text}").Concat(selection.Except.Select(text => $"except {text}"))
                .Concat(selection.Where)), selection.IsFavourite)
        : ("", false);

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
