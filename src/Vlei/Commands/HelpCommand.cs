using System.CommandLine;
using Vlei.Core.Languages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei help</c>: explains what is not of one command alone; and a command, where one is named.</summary>
internal static class HelpCommand
{
    private static readonly Argument<string?> Topic = new("TOPIC")
    {
        Description = "A topic, a command, or a report; without one, the topics are listed", Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> InLanguage = new Option<string?>($"--{LookOptions.Language.Name}")
    {
        Description = "The language of topics: en, de, fr, af; else that of the book", HelpName = "CODE",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("help", "Explain periods, selecting, columns, formats and more")
        {
            Examples = [("vlei help", "the topics"), ("vlei help periods", "how days and periods are written")],
        };
        Topic.CompletionSources.Clear();
        Topic.CompletionSources.Add([.. HelpTopic.Names, .. CommandTable.All.Select(known => known.Name)]);
        command.Arguments.Add(Topic);
        command.Options.Add(InLanguage);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        using var output = Terminal.Output();
        var page = new HelpPage(output);
        if (result.GetValue(Topic) is not { } name)
        {
            var language = LanguageOf(result);
            page.Pairs("vlei help TOPIC explains:", [.. HelpTopic.Names.Select(topic => (topic, HelpTopic.Of(topic, language).Line))]);
            page.Paragraph("vlei COMMAND --help tells of a command, vlei show REPORT --help of a report.");
        }
        else if (HelpTopic.Names.Contains(name))
        {
            HelpTopic.Of(name, LanguageOf(result)).Write(page);
        }
        else if (result.GetResult(InLanguage) is { Implicit: false })
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{LookOptions.Language.Name} is for topics, and {name} is none.",
                "Leave it out: commands and reports are explained in English.");
        }
        else if (CommandTable.Find(name) is { } command)
        {
            CommandHelp.Write(command, page);
        }
        else if (!ReportHelp.Tell(new ReportsOverview(BookOptions.DeskIfAny(result)), name, page))
        {
            var names = HelpTopic.Names.Concat(CommandTable.All.Select(known => known.Name));
            throw new ProblemException(
                ProblemKind.NotFound, $"There is no topic, no command and no report {name}.",
                Suggestion.DidYouMean(name, names) ?? "vlei help lists the topics, vlei reports the reports.");
        }

        return ExitStatus.Done;
    }

    private static string LanguageOf(ParseResult result)
    {
        if (result.GetValue(InLanguage) is { } typed)
        {
            return Language.Standard.Contains(typed) ? typed : throw new ProblemException(
                ProblemKind.Usage, $"--{LookOptions.Language.Name}: topics are not written in {typed}.",
                Suggestion.ThereAre(Language.Standard));
        }

        // A book in a language of its own is explained in English, and so is how to mend one that cannot be opened.
        try
        {
            return BookOptions.BookIfAny(result)?.Settings.Language is { } own && Language.Standard.Contains(own)
                ? own : Language.English.Code;
        }
        catch (ProblemException)
        {
            return Language.English.Code;
        }
    }
}
