using System.CommandLine;
using Vlei.Core.Problems;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei help</c>: explains what is not of one command alone; and a command, where one is named.</summary>
internal static class HelpCommand
{
    private static readonly Argument<string?> Topic = new("TOPIC")
    {
        Description = "A topic, a command, or a report; without one, the topics are listed", Arity = ArgumentArity.ZeroOrOne,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("help", "Explain periods, selecting, columns, formats and more")
        {
            Examples = [("vlei help", "the topics"), ("vlei help periods", "how days and periods are written")],
        };
        Topic.CompletionSources.Clear();
        Topic.CompletionSources.Add([.. HelpTopic.All.Select(topic => topic.Name), .. CommandTable.All.Select(known => known.Name)]);
        command.Arguments.Add(Topic);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        using var output = Terminal.Output();
        var page = new HelpPage(output);
        if (result.GetValue(Topic) is not { } name)
        {
            page.Pairs("vlei help TOPIC explains:", [.. HelpTopic.All.Select(topic => (topic.Name, topic.Line))]);
            page.Paragraph("vlei COMMAND --help tells of a command, vlei show REPORT --help of a report.");
        }
        else if (HelpTopic.All.FirstOrDefault(topic => topic.Name == name) is { } topic)
        {
            topic.Write(page);
        }
        else if (CommandTable.Find(name) is { } command)
        {
            CommandHelp.Write(command, page);
        }
        else if (!ReportHelp.Tell(new ReportsOverview(BookOptions.DeskIfAny(result)), name, page))
        {
            var names = HelpTopic.All.Select(known => known.Name).Concat(CommandTable.All.Select(known => known.Name));
            throw new ProblemException(
                ProblemKind.NotFound, $"There is no topic, no command and no report {name}.",
                Suggestion.DidYouMean(name, names) ?? "vlei help lists the topics, vlei reports the reports.");
        }

        return ExitStatus.Done;
    }
}
