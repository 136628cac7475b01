using System.CommandLine;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei reports</c>: the catalogue.</summary>
internal static class ReportsCommand
{
    private const int MostOptions = 8;

    private static readonly Argument<string[]> Words = new("WORDS")
    {
        Description = "Words of the question that you have", Arity = ArgumentArity.ZeroOrMore,
    };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("reports", "List the reports, by subject, with the question that each answers")
        {
            Examples = [("vlei reports", "all of them"), ("vlei reports what did we earn", "those that answer that")],
        };
        command.Arguments.Add(Words);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var words = result.GetValue(Words) ?? [];
        var reports = (words.Length == 0 ? Catalogue.All : Catalogue.Answering(words)).ToList();
        if (reports.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"No report answers \"{string.Join(' ', words)}\".",
                Suggestion.DidYouMean(words[0], Catalogue.All.Select(report => report.Key)) ?? "vlei reports lists all of them.");
        }

        var width = reports.Max(report => report.Key.Length);
        using var output = new StreamWriter(Console.OpenStandardOutput());
        foreach (var subject in reports.GroupBy(report => report.Subject))
        {
            output.WriteLine(subject.Key);
            foreach (var report in subject)
            {
                output.WriteLine($"  {report.Key.PadRight(width)} {report.Question}");
                output.WriteLine($"  {new string(' ', width)} {string.Join(' ', report.Options.Take(MostOptions).Select(option => $"--{option.Name}"))}{(report.Options.Count > MostOptions ? " …" : "")}");
            }
        }

        return ExitStatus.Done;
    }
}
