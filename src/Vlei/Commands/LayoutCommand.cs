using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei layout</c>: writes a standard layout, to start one's own from.</summary>
internal static class LayoutCommand
{
    private static readonly Argument<string> Name = new("NAME")
    {
        Description = Suggestion.Listed(LayoutFile.StandardNames, "or"),
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("layout", "Write a standard layout of a statement, to start one's own from")
        {
            Examples = [("vlei layout profit-loss > own.toml", "then edit it, and: vlei show profit-loss --layout own.toml")],
        };
        Name.CompletionSources.Add([.. LayoutFile.StandardNames]);
        command.Arguments.Add(Name);
        command.SetAction(result =>
        {
            var name = result.GetRequiredValue(Name);
            using var output = new StreamWriter(Console.OpenStandardOutput());
            output.Write(LayoutFile.StandardText(name) ?? throw new ProblemException(
                ProblemKind.NotFound, $"There is no standard layout {name}.",
                Suggestion.DidYouMean(name, LayoutFile.StandardNames)
                    ?? Suggestion.ThereAre(LayoutFile.StandardNames)));
            return ExitStatus.Done;
        });
        return command;
    }
}
