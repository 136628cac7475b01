using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Runs;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary><c>vlei show</c>: builds a report and writes it; alone, it lists favourites and what was shown lately.</summary>
internal static class ShowCommand
{
    private const int MostRecent = 10;
    private const string ByBook = "book";

    private static readonly ReportOption[] OfColumns = [ReportOptions.Compare, ReportOptions.Change, ReportOptions.Share];

    private static readonly Option<string[]> Books = new("--books")
    {
        Description = "Several books, --by book, or a page: 'clients/*'", HelpName = "PATTERN",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("show", "Build a report; alone, list favourites and what was shown lately")
        {
            ExplainsReports = true,
            Examples =
            [
                ("vlei show profit-loss --period last-month --compare prior-year --change", "beside the same month a year before"),
                ("vlei show sales-by-item --period fy2026 --by fiscal-quarter --to sales.xlsx", "a workbook, a column per quarter"),
                ("vlei show profit-loss --period last-month --books 'clients/*' --by book", "one column per book, and a total"),
            ],
        };
        var arguments = new ReportArguments(command, ReportCount.ZeroOrOne);
        command.OfItsReport = arguments.Tell;
        command.Options.Add(Books);
        var destination = new ReportDestination(command);
        command.SetAction(result => result.GetValue(Books) is { Length: > 0 } ? ShowSideBySide(result, arguments, destination)
            : arguments.IsNamed(result) ? Show(result, arguments, destination) : ListLately(result, arguments, destination));
        return command;
    }

    private static int Show(ParseResult result, ReportArguments arguments, ReportDestination destination)
    {
        var (targets, typed) = (destination.TargetsOf(result, arguments), arguments.Typed(result));
        var desk = BookOptions.OpenDesk(result);
        if (arguments.PageOf(result, desk) is { } page)
        {
            return destination.WritePage(result, targets, BookPage.Of(desk, page, arguments.LookOf(result, desk)));
        }

        using var open = arguments.Open(result, desk);
        ReportFormat[] formats = [.. targets.Select(target => target.Format)];
        if (typed.ContainsKey(LookOptions.Chart.Name))
        {
            TypedLooks.RefuseChartWithoutPlace(open.Request.Look, formats);
        }

        var status = destination.IsFolder(result) && open.Each(formats) is { } each
            ? destination.WriteEach(result, targets[0], each.Select(one => (one.Name, Checked(one.Report))))
            : destination.Write(result, targets, Checked(open.Build(formats)));
        RecentReports.Note(desk.Book, desk.Today.Date, open.Definition.Key, typed);
        return status;

        Report Checked(Report report)
        {
            TypedLooks.RefuseOfNothing(typed, report);
            return report;
        }
    }

    // Every book has its own column, so what else would make columns has no place.
    private static int ShowSideBySide(ParseResult result, ReportArguments arguments, ReportDestination destination)
    {
        var targets = destination.TargetsOf(result, arguments);
        var folders = BookSet.Of(result.GetValue(Books)!, Terminal.Say);
        var desk = FirstOf(folders, BookOptions.ClockTyped(result));
        if (arguments.PageOf(result, desk) is { } page)
        {
            return destination.WritePage(
                result, targets, BookPage.OfBooks(page, arguments.LookOf(result, desk), folders, BookOptions.ClockTyped(result),
                    desk.Today.Date));
        }

        var typed = arguments.Typed(result);
        if (!typed.Remove(ReportOptions.By.Name, out var by) || by is not [ByBook]
            || result.GetResult(BookOptions.Book) is { Implicit: false })
        {
            throw new ProblemException(
                ProblemKind.Usage, "--books is for a statement with a column per book.", $"Add --by {ByBook}, and leave --book out.");
        }

        if (arguments.TypedNames(result).Contains("revision"))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--revision is of one book, and every book has its own.", "Leave it out, or show one book.");
        }

        if (!arguments.IsNamed(result))
        {
            throw new ProblemException(ProblemKind.Usage, "No report is named.", "Name a statement, as profit-loss.");
        }

        if (typed.Keys.FirstOrDefault(name => OfColumns.Any(option => option.Name == name)) is { } other)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{other} does not go with --by {ByBook}, which has a column per book.",
                "Leave it out, or show one book.");
        }

        var order = arguments.OrdersOf(result)[0] with { Options = typed };
        return destination.Write(result, targets, SideBySide.Of(
            [.. folders
                .Select(
                    folder => (BookSet.NameOf(folder), Naming.Of(folder, () => BuiltIn(folder, order, BookOptions.ClockTyped(result)))))]));
    }

    private static Report BuiltIn(string folder, ReportOrder order, DateOnly? today)
    {
        using var open = new ReportDesk(Book.Open(folder), today).Open(order);
        var report = open.Build();

        // Rows are made when they are looked at, and the book is closed by then.
        return report with { Rows = [.. report.Rows] };
    }

    // Which page is meant the first book says that can be opened; what is wrong with another is said in its place.
    private static ReportDesk FirstOf(IReadOnlyList<string> folders, DateOnly? today)
    {
        foreach (var folder in folders.SkipLast(1))
        {
            try
            {
                return new ReportDesk(Book.Open(folder), today);
            }
            catch (ProblemException)
            {
                // The next may say it.
            }
        }

        return new ReportDesk(Book.Open(folders[^1]), today);
    }

    private static int ListLately(ParseResult result, ReportArguments arguments, ReportDestination destination)
    {
        destination.RefuseIn(result, "is for reports, and none is named");
        var desk = BookOptions.OpenDesk(result);
        _ = arguments.OrdersOf(result);
        var favourites = desk.Catalogue.Read().Kept.Where(report => report.IsFavourite).Select(report => report.Definition).ToList();
        var recent = RecentReports.Of(desk.Book).DistinctBy(shown => LineOf(shown)).Take(MostRecent).ToList();
        if (favourites.Count + recent.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, "No report is named, none is a favourite yet, and none was shown lately.",
                "Name one, as vlei show profit-loss; vlei reports lists them.");
        }

        using var output = Terminal.Output();
        foreach (var (heading, lines) in new[]
        {
            ("Favourites", favourites.Select(report => $"  vlei show {report.Key}  {report.Question}").ToList()),
            ("Lately", recent.Select(shown => $"  {PeriodText.Iso(shown.Day)}  {LineOf(shown)}").ToList()),
        }.Where(part => part.Item2.Count > 0))
        {
            output.WriteLine(heading);
            lines.ForEach(output.WriteLine);
        }

        return ExitStatus.Done;
    }

    private static string LineOf(RecentReport shown) =>
        shown.Group is { } group ? $"vlei run {group}" : $"vlei show {shown.Name}{OptionText.Of(shown.Options)}";
}
