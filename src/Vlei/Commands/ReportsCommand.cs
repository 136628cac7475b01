using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei reports</c>: the catalogue, one's own reports before the standard ones.</summary>
internal static class ReportsCommand
{
    private const int MostOptions = 8;
    private const int MostAnswers = 10;

    private static readonly Argument<string[]> Words = new("WORDS")
    {
        Description = "Words of the question that you have, or the name of a report or a field", Arity = ArgumentArity.ZeroOrMore,
    };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("reports", "List the reports, one's own first, with the question that each answers")
        {
            Examples = [("vlei reports", "all of them"), ("vlei reports who owes us money", "those that answer that, best first")],
        };
        command.Arguments.Add(Words);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var overview = new ReportsOverview(BookOptions.DeskIfAny(result));
        var words = string.Join(' ', result.GetValue(Words) ?? []);
        IReadOnlyList<ReportDefinition> shown = words.Length == 0 ? overview.All
            : [.. ReportSearch.Answering(overview.All, words, FieldsOf).Take(MostAnswers)];
        if (shown.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"No report answers \"{words}\".",
                Suggestion.DidYouMean(words, overview.All.Select(report => report.Key)) ?? "vlei reports lists all of them.");
        }

        using (var output = Terminal.Output())
        {
            new Listing(overview, output, shown.Max(report => report.Key.Length)).Write(shown, isWhole: words.Length == 0);
        }

        foreach (var problem in overview.Broken)
        {
            Terminal.Say($"vlei: {problem.Message} {problem.Advice}");
        }

        return overview.Broken.Count == 0 ? ExitStatus.Done : (int)overview.Broken[0].Kind;
    }

    private static string WhereOf(KeptFile file) =>
        $"{(file.Shelf.Word == "book" ? "" : $"{file.Shelf.Word}'s ")}{file.Kind.Folder}/{file.Name}{KeptFile.Ending}";

    private static string Options(ReportDefinition report) =>
        string.Join(' ', report.Options.Take(MostOptions).Select(option => $"--{option.Name}"))
        + (report.Options.Count > MostOptions ? " …" : "");

    private static IEnumerable<string> FieldsOf(ReportDefinition report) =>
        report.Table?.Fields.SelectMany(field => (field.Target?.Fields.Select(known => known.Name) ?? []).Append(field.Name))
            ?? report.Options.Where(option => option == ReportOptions.Basis || option == ReportOptions.Limits)
                .Select(option => option.Name);

    // The lines of the list.
    private sealed class Listing(ReportsOverview overview, TextWriter output, int width)
    {
        public void Write(IReadOnlyList<ReportDefinition> shown, bool isWhole)
        {
            if (!isWhole)
            {
                shown.ToList().ForEach(Write);
                return;
            }

            foreach (var subject in shown.GroupBy(report => report.Subject))
            {
                output.WriteLine(subject.Key);
                subject.OrderByDescending(report => overview.KeptAs(report)?.IsFavourite == true).ToList().ForEach(Write);
            }

            WriteFiles(KeptKind.Selection, "Selections", file => overview.SelectionIn(file) is { } selection
                ? selection.Question.Length > 0 ? selection.Question : string.Join(
                "; ", selection.Only.Select(text => $"only {text}").Concat(selection.Except.Select(text => $"except {text}"))
                    .Concat(selection.Where)) : "");
            WriteFiles(KeptKind.Group, "Groups", file => string.Join(", ", overview.MembersOf(file.Name)));
            WriteFiles(KeptKind.Layout, "Layouts", _ => "");
        }

        private void Write(ReportDefinition report)
        {
            var own = overview.KeptAs(report);
            output.WriteLine($"{(own is null ? "  " : own.IsFavourite ? "* " : "+ ")}{report.Key.PadRight(width)} {report.Question}");
            output.WriteLine($"  {new string(' ', width)} {(own is null ? Options(report) : KeptIn(own))}{Standing(report)}");
        }

        private string KeptIn(KeptReport report) =>
            $"{WhereOf(overview.Library.Find(KeptKind.Report, report.Definition.Key)!)}, from {report.From}"
            + (overview.FixedDateOf(report) is { } date ? $", always {date}" : "");

        private string Standing(ReportDefinition report) =>
            (overview.GroupsWith(report).ToList() is { Count: > 0 } within ? $"; in {string.Join(", ", within)}" : "")
            + (overview.LastOf(report) is { } last
                ? $"; last {(last.Group is null ? "shown" : $"run in {last.Group}")} {PeriodText.Iso(last.Day)}" : "");

        private bool IsFavourite(KeptFile file) =>
            file.Kind == KeptKind.Selection && overview.SelectionIn(file) is { IsFavourite: true };

        private void WriteFiles(KeptKind kind, string heading, Func<KeptFile, string> about)
        {
            var files = overview.Library.All(kind).OrderByDescending(IsFavourite).ToList();
            if (files.Count > 0)
            {
                output.WriteLine(heading);
            }

            foreach (var file in files)
            {
                output.WriteLine(
                    $"{(IsFavourite(file) ? "* " : "+ ")}{file.Name.PadRight(width)} {WhereOf(file)}"
                        + (about(file) is { Length: > 0 } what ? $": {what}" : ""));
            }
        }
    }
}
