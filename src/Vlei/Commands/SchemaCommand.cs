using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Desk.Maps;

namespace Vlei.Commands;

/// <summary><c>vlei schema</c>: what the files that people keep may say.</summary>
internal static class SchemaCommand
{
    private static readonly (string Word, Action<Stream> Write)[] Schemas =
    [
        .. KeptSchema.Kinds.Select(kind => (kind.Word, (Action<Stream>)(stream => KeptSchema.Write(kind, stream)))),
        (KeptKind.Map.Word, stream => KeptSchema.Write(KeptKind.Map, MapFile.Keys, MapFile.Tables, stream)),
        ("mail", stream => KeptSchema.Write(MailFile.Name, MailFile.Keys, stream)),
    ];

    private static readonly IReadOnlyList<string> Kinds = [.. Schemas.Select(schema => schema.Word)];

    private static readonly Argument<string> Kind = new("KIND") { Description = Suggestion.Listed(Kinds, "or") };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("schema", "Say what may stand in the files of a book, as JSON Schema")
        {
            Examples = [("vlei schema report", "every key of reports/NAME.toml, with what it means")],
        };
        Kind.CompletionSources.Add([.. Kinds]);
        command.Arguments.Add(Kind);
        command.SetAction(result =>
        {
            var word = result.GetRequiredValue(Kind);
            var place = Kinds.ToList().IndexOf(word);
            if (place < 0)
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"There is no schema of a {word}.",
                    Suggestion.DidYouMean(word, Kinds) ?? $"There is one of a {Suggestion.Listed(Kinds, "or a")}.");
            }

            using var output = Console.OpenStandardOutput();
            Schemas[place].Write(output);
            output.WriteByte((byte)'\n');
            return ExitStatus.Done;
        });
        return command;
    }
}
