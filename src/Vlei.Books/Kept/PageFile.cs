using Tomlyn.Syntax;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>A panel as a page's file says it.</summary>
/// <param name="Title">What it is about.</param>
/// <param name="Report">The report; nothing where it is a list that is no report.</param>
/// <param name="Options">What is asked of it, as texts by the names of options.</param>
/// <param name="Plan">What is shown of it.</param>
/// <param name="List">The list that it is; nothing where it is a report.</param>
/// <param name="Place">Where it stands, for messages.</param>
public sealed record KeptPanel(
    string Title, string? Report, IReadOnlyDictionary<string, IReadOnlyList<string>> Options, PanelPlan Plan, string? List, string Place);

/// <summary>A page as its file says it.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Title">Its title.</param>
/// <param name="Question">The question that it answers.</param>
/// <param name="Panels">What is on it.</param>
/// <param name="Delivery">Where it goes, and when.</param>
public sealed record KeptPage(string Name, string Title, string Question, IReadOnlyList<KeptPanel> Panels, DeliveryPlan Delivery);

/// <summary>Reads pages of panels. The standard one is such a file too.</summary>
public static class PageFile
{
    private const string Folder = "pages/";

    /// <summary>The lists that a panel may be and that are no reports.</summary>
    public static IReadOnlyList<string> Lists { get; } = ["questions", "moved", "deliveries", "favourites"];

    // Each report that is shown asks for the names of pages, and of few is more asked.
    private static readonly Lazy<IReadOnlyList<FileKey>> KeysOfPages = new(() =>
    [
        new("title", FileKeyKind.Text, "Its title."),
        new("question", FileKeyKind.Text, "The question that it answers, for vlei reports."),
        new("formats", FileKeyKind.Texts, "The formats that it is sent in; PDF, where nothing is said."),
        .. DeliveryKeys.Keys,
    ]);

    private static readonly Lazy<IReadOnlyList<FileKey>> KeysOfPanels = new(() =>
    [
        new("title", FileKeyKind.Text, "What it is about; the report's title where there is none here."),
        new("report", FileKeyKind.Text, "The report that it shows: a standard one, or a kept one."),
        new("list", FileKeyKind.Text, "A list that is no report, in its place.") { Words = Lists },
        new("show", FileKeyKind.Text, "How it shows the report.") { Words = PanelPlan.Words.Words },
        new("rows", FileKeyKind.Texts, "The rows that are shown, by their keys; the first few where there are none here."),
        new("column", FileKeyKind.Text, "The column that is shown, by its key or heading."),
        new("most", FileKeyKind.Number, "How many rows are shown where none are named."),
        .. ReportFile.OptionKeys(ReportOptions.All.Except([ReportOptions.Title])),
    ]);

    /// <summary>The keys of a page.</summary>
    public static IReadOnlyList<FileKey> Keys => KeysOfPages.Value;

    /// <summary>The keys of a panel; all others are options of its report.</summary>
    public static IReadOnlyList<FileKey> PanelKeys => KeysOfPanels.Value;

    /// <summary>The names of the standard pages.</summary>
    public static IReadOnlyList<string> StandardNames => StandardFiles.NamesIn(Folder);

    /// <summary>The names of all pages, kept and standard.</summary>
    public static IEnumerable<string> NamesIn(Library library) =>
        library.All(KeptKind.Page).Select(file => file.Name).Concat(StandardNames).Distinct();

    /// <summary>The page of a name, a kept one before the standard one; nothing where there is none.</summary>
    public static KeptPage? Find(Library library, string name)
    {
        if (library.Find(KeptKind.Page, name) is { } file)
        {
            return Read(file.Read(), name, file.Path, library);
        }

        return StandardFiles.TextOf(Folder, name) is { } text ? Read(text, name, name + KeptFile.Ending, library) : null;
    }

    /// <summary>Reads a page. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.</summary>
    public static KeptPage Read(string text, string name, string path, Library library)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        var head = toml.Head(Keys, table => IsPanel(table) || DeliveryKeys.IsSchedule(table));
        var panels = toml.Document.Tables.Where(IsPanel).Select(table => PanelOf(toml, table, library)).ToList();
        return panels.Count > 0
            ? new KeptPage(
                name, toml.Text(head, "title") ?? name, toml.Text(head, "question") ?? "", panels, DeliveryKeys.Read(toml, head, []))
            : throw new ProblemException(
                ProblemKind.BadData, $"{path}: the page has no panel.", "Add one: [[panel]], and below it report = \"profit-loss\".");
    }

    private static bool IsPanel(TableSyntaxBase table) => table is TableArraySyntax && table.Name?.ToString().Trim() == "panel";

    private static KeptPanel PanelOf(TomlText toml, TableSyntaxBase table, Library library)
    {
        var values = toml.Known(table.Items, [.. PanelKeys.Select(key => key.Name)]);
        var place = toml.PlaceOf(table.Span);
        if (toml.Text(values, "list") is { } list)
        {
            return values.Keys.FirstOrDefault(key => key is not ("list" or "title")) is { } other
                ? throw toml.Wrong(values[other].Span, $"{other} is of a report, and this panel is a list.", "Leave it out.")
                : Lists.Contains(list) ? new KeptPanel(
                    toml.Text(values, "title") ?? list, null, new Dictionary<string, IReadOnlyList<string>>(),
                    new PanelPlan(PanelShow.Figures), list, place)
                : throw toml.Wrong(
                    values["list"].Span, $"there is no list {list}.",
                    Suggestion.DidYouMean(list, Lists) ?? $"There are {Suggestion.Listed(Lists, "and")}.");
        }

        var name = toml.Text(values, "report") ?? throw toml.Wrong(
            table.Span, "it is not said which report.", "Add a line: report = \"profit-loss\".");
        var report = library.FindReport(name) ?? throw toml.Wrong(
            values["report"].Span, $"there is no report {name}.",
            Suggestion.DidYouMean(name, library.NamesOfReports)
                ?? "vlei reports lists them.");
        var own = PanelKeys.TakeWhile(key => key.Name != ReportOptions.Period.Name).Select(key => key.Name).ToHashSet();
        var options = ReportFile.OptionsIn(
            toml, values.Where(pair => !own.Contains(pair.Key)),
            [.. report.Options, .. report.Takes(ReportOptions.Period.Name) ? new[] { ReportOptions.Period } : [], .. LookOptions.All],
            name, "");
        return new KeptPanel(
            toml.Text(values, "title") ?? report.Title, name, options,
            new PanelPlan(toml.Text(values, "show") is { } show ? ShowOf(toml, values["show"], show) : PanelShow.Figures)
            {
                Rows = toml.Texts(values, "rows"),
                Column = toml.Text(values, "column"),
                Most = values.TryGetValue("most", out var most) ? NumberIn(toml, most) : PanelPlan.UsualMost,
            },
            null, place);
    }

    private static PanelShow ShowOf(TomlText toml, KeyValueSyntax pair, string show) =>
        PanelPlan.Words.Words.Contains(show) ? PanelPlan.Words.ValueOf(show)
        : throw toml.Wrong(
            pair.Span, $"show does not take \"{show}\".",
            Suggestion.DidYouMean(show, PanelPlan.Words.Words) ?? $"It takes {Suggestion.Listed(PanelPlan.Words.Words, "or")}.");

    private static int NumberIn(TomlText toml, KeyValueSyntax pair) => pair.Value is IntegerValueSyntax { Value: > 0 and <= 100 } number
        ? (int)number.Value : throw toml.Wrong(pair.Span, "most is a whole number from 1 to 100.", "Write it without quotes: most = 5.");
}
