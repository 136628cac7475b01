using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Desk.Maps;

namespace Vlei.Commands;

/// <summary><c>vlei schema</c>: what the files that people keep may say.</summary>
internal static class SchemaCommand
{
    private static readonly IReadOnlyList<string> Kinds = [.. KeptSchema.Kinds.Select(kind => kind.Word), KeptKind.Map.Word];

    private static readonly Argument<string> Kind = new("KIND") { Description = Suggestion.Listed(Kinds, "or") };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand(
            "schema", "Write what the file of a report, a selection, a group or a map may say, as JSON Schema")
        {
            Examples = [("vlei schema report", "every key of reports/NAME.toml, with what it means")],
        };
        Kind.CompletionSources.Add([.. Kinds]);
        command.Arguments.Add(Kind);
        command.SetAction(result =>
        {
            var word = result.GetRequiredValue(Kind);
            var kind = KeptSchema.Kinds.Append(KeptKind.Map).FirstOrDefault(kind => kind.Word == word) ?? throw new ProblemException(
                ProblemKind.Usage, $"There is no schema of a {word}.", Suggestion.DidYouMean(word, Kinds)
                    ?? $"There is one of a {Suggestion.Listed(Kinds, "or a")}.");
            using var output = Console.OpenStandardOutput();
            if (kind == KeptKind.Map)
            {
                KeptSchema.Write(kind, MapFile.Keys, MapFile.Tables, output);
            }
            else
            {
                KeptSchema.Write(kind, output);
            }

            output.WriteByte((byte)'\n');
            return ExitStatus.Done;
        });
        return command;
    }
}
