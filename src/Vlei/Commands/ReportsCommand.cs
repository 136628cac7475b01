using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Keeping;

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
        var desk = BookOptions.DeskIfAny(result);
        var (book, library) = (desk?.Book, desk?.Library ?? Library.Of(null));
        var (files, unread) = new ReportCatalogue(library).Read();
        var (kept, broken) = (files.ToDictionary(report => report.Definition), unread.ToList());
        var recent = book is null ? [] : RecentReports.Of(book);
        var groups = library.All(KeptKind.Group).Select(file => (file.Name, Members: Sound(() => GroupFile.MembersOf(file), broken)))
            .ToDictionary(group => group.Name, group => group.Members ?? []);
        List<ReportDefinition> all = [.. kept.Keys, .. ReportCatalogue.Standard.Where(report => kept.Keys.All(own => own.Key != report.Key))];
        var words = string.Join(' ', result.GetValue(Words) ?? []);
        var shown = words.Length == 0 ? all : [.. ReportSearch.Answering(all, words, FieldsOf).Take(MostAnswers)];
        if (shown.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"No report answers \"{words}\".",
                Suggestion.DidYouMean(words, all.Select(report => report.Key)) ?? "vlei reports lists all of them.");
        }

        var width = shown.Max(report => report.Key.Length);
        using (var output = new StreamWriter(Console.OpenStandardOutput()))
        {
            if (words.Length > 0)
            {
                shown.ForEach(Write);
            }
            else
            {
                foreach (var subject in shown.GroupBy(report => report.Subject))
                {
                    output.WriteLine(subject.Key);
                    subject.OrderByDescending(report => kept.GetValueOrDefault(report)?.IsFavourite == true).ToList().ForEach(Write);
                }

                WriteFiles(KeptKind.Selection, "Selections", file => Sound(() => library.Selection(file.Name), broken) is { } selection
                    ? string.Join("; ", selection.Only.Select(text => $"only {text}").Concat(selection.Except.Select(text => $"except {text}")).Concat(selection.Where)) : "");
                WriteFiles(KeptKind.Group, "Groups", file => string.Join(", ", groups[file.Name]));
                WriteFiles(KeptKind.Layout, "Layouts", _ => "");
            }

            void Write(ReportDefinition report)
            {
                var own = kept.GetValueOrDefault(report);
                output.WriteLine($"{(own is null ? "  " : own.IsFavourite ? "* " : "+ ")}{report.Key.PadRight(width)} {report.Question}");
                output.WriteLine($"  {new string(' ', width)} {(own is null ? Options(report) : KeptAs(own))}{Standing(report)}");
            }

            string KeptAs(KeptReport report) => $"{WhereOf(library.Find(KeptKind.Report, report.Definition.Key)!)}, from {report.From}"
                + (desk is not null && KeptFiles.FixedDates(report.Own, desk.Today.Date, desk.Settings.Calendar).FirstOrDefault().Date is { } date ? $", always {date}" : "");

            string Standing(ReportDefinition report) =>
                (groups.Where(group => group.Value.Contains(report.Key)).Select(group => group.Key).ToList() is { Count: > 0 } within ? $"; in {string.Join(", ", within)}" : "")
                + (recent.FirstOrDefault(shown => shown.Name == report.Key) is { } last ? $"; last {(last.Group is null ? "shown" : $"run in {last.Group}")} {PeriodText.Iso(last.Day)}" : "");

            void WriteFiles(KeptKind kind, string heading, Func<KeptFile, string> about)
            {
                foreach (var file in library.All(kind))
                {
                    if (file == library.All(kind)[0])
                    {
                        output.WriteLine(heading);
                    }

                    output.WriteLine($"+ {file.Name.PadRight(width)} {WhereOf(file)}{(about(file) is { Length: > 0 } what ? $": {what}" : "")}");
                }
            }
        }

        broken.ForEach(problem => Terminal.Say($"vlei: {problem.Message} {problem.Advice}"));
        return broken.Count == 0 ? ExitStatus.Done : (int)broken[0].Kind;
    }

    // What one file has wrong does not hide the others.
    private static T? Sound<T>(Func<T> read, List<ProblemException> broken)
        where T : class
    {
        try
        {
            return read();
        }
        catch (ProblemException problem)
        {
            broken.Add(problem);
            return null;
        }
    }

    private static string WhereOf(KeptFile file) => $"{(file.Shelf.Word == "book" ? "" : $"{file.Shelf.Word}'s ")}{file.Kind.Folder}/{file.Name}{KeptFile.Ending}";

    private static string Options(ReportDefinition report) =>
        $"{string.Join(' ', report.Options.Take(MostOptions).Select(option => $"--{option.Name}"))}{(report.Options.Count > MostOptions ? " …" : "")}";

    private static IEnumerable<string> FieldsOf(ReportDefinition report) =>
        report.Table?.Fields.SelectMany(field => (field.Target?.Fields.Select(known => known.Name) ?? []).Append(field.Name)) ?? report.Options.Where(option => option == ReportOptions.Basis || option == ReportOptions.Limits).Select(option => option.Name);
}
