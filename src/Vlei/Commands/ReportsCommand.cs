using System.CommandLine;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei reports</c>: the catalogue, one's own reports before the standard ones.</summary>
internal static class ReportsCommand
{
    private const int MostAnswers = 10;

    private static readonly Argument<string[]> Words = new("WORDS")
    {
        Description = "Words of the question that you have, or the name of a report", Arity = ArgumentArity.ZeroOrMore,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("reports", "Find a report: all of them, one, or those that answer a question")
        {
            Examples =
            [
                ("vlei reports", "all of them"), ("vlei reports who owes us money", "those that answer that, best first"),
                ("vlei reports profit-loss", "all about one"), ("vlei reports --format csv", "the whole inventory, for a script"),
            ],
        };
        Words.CompletionSources.Clear();
        Words.CompletionSources.Add(context => new ReportCatalogue(ReportArguments.LibraryOf(context)).Names.Select(
            name => new System.CommandLine.Completions.CompletionItem(name)));
        command.Arguments.Add(Words);
        var destination = new ReportDestination(command);
        command.SetAction(result => Run(result, destination));
        return command;
    }

    private static int Run(ParseResult result, ReportDestination destination)
    {
        var reports = new ReportsOverview(BookOptions.DeskIfAny(result));
        var words = string.Join(' ', result.GetValue(Words) ?? []);
        if (reports.All.Any(report => report.Key == words) || reports.Pages.Any(page => page.Name == words))
        {
            destination.RefuseIn(result, "is for lists of reports, and one is named");
            using var page = Terminal.Output();
            _ = ReportHelp.Tell(reports, words, new HelpPage(page));
            return ExitStatus.Done;
        }

        IReadOnlyList<ReportDefinition> shown = words.Length == 0 ? reports.All
            : [.. ReportSearch.Answering(reports.All, words, ReportsOverview.FieldsOf).Take(MostAnswers)];
        if (shown.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"No report answers \"{words}\".",
                Suggestion.DidYouMean(words, reports.All.Select(report => report.Key)) ?? "vlei reports lists all of them.");
        }

        if (destination.IsTyped(result))
        {
            return destination.Write(result, destination.TargetsOf(result), reports.Inventory(shown));
        }

        using (var output = Terminal.Output())
        {
            Write(new HelpPage(output), reports, shown, isWhole: words.Length == 0);
        }

        foreach (var problem in reports.Broken)
        {
            Terminal.Say($"vlei: {problem.Message} {problem.Advice}");
        }

        return reports.Broken.Count == 0 ? ExitStatus.Done : (int)reports.Broken[0].Kind;
    }

    private static void Write(HelpPage page, ReportsOverview reports, IReadOnlyList<ReportDefinition> shown, bool isWhole)
    {
        var named = reports.All.Max(report => report.Key.Length) + 2;
        if (!isWhole)
        {
            page.Pairs(null, [.. shown.Select(Line)], named: named);
            return;
        }

        foreach (var subject in shown.GroupBy(report => report.Subject))
        {
            page.Pairs(
                subject.Key, [.. subject.OrderByDescending(report => reports.KeptAs(report)?.IsFavourite == true).Select(Line)],
                isTight: true, named);
        }

        foreach (var (heading, kept) in reports.OtherFiles)
        {
            page.Pairs(heading, [.. kept.Select(file => (Marked(file.Name, true, file.IsFavourite), file.About))], isTight: true, named);
        }

        page.Paragraph("+ is your own, * a favourite. vlei reports NAME tells all about one.");

        (string Name, string Meaning) Line(ReportDefinition report) =>
            (Marked(report.Key, reports.KeptAs(report) is not null, reports.KeptAs(report)?.IsFavourite == true), report.Question);
    }

    private static string Marked(string name, bool isOwn, bool isFavourite) => $"{(isFavourite ? "*" : isOwn ? "+" : " ")} {name}";
}
