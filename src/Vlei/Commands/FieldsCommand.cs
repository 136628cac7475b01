using System.CommandLine;
using System.CommandLine.Completions;
using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Commands;

/// <summary><c>vlei fields</c>: the tables, the fields of one, and what a field holds.</summary>
internal static class FieldsCommand
{
    private static readonly Argument<string?> Table = new("TABLE")
    {
        Description = "A table, or a field of one: postings, postings.item", Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Argument<string[]> Words = new("WORDS")
    {
        Description = "Show only the fields whose name or meaning has these words", Arity = ArgumentArity.ZeroOrMore,
    };

    private static readonly Option<string?> Values = new("--values")
    {
        Description = "What the field holds, with how often: all of it, or what fits a list, a range or a pattern", HelpName = "LIST",
        Arity = ArgumentArity.ZeroOrOne,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("fields", "List what can be shown, filtered, grouped and summed")
        {
            Examples =
            [
                ("vlei fields", "the tables"), ("vlei fields postings", "what is known of a posting"),
                ("vlei fields postings due", "the fields that have to do with due"),
                ("vlei fields postings.item --values \"Oar*\"", "what a field holds, with counts"),
            ],
        };
        Table.CompletionSources.Clear();
        Table.CompletionSources.Add(_ => StandardTables.All.Select(table => new CompletionItem(table.Name, detail: table.Meaning)));
        command.Arguments.Add(Table);
        command.Arguments.Add(Words);
        command.Options.Add(Values);
        var destination = new ReportDestination(command);
        command.SetAction(result => Run(result, destination));
        return command;
    }

    private static int Run(ParseResult result, ReportDestination destination)
    {
        var targets = destination.TargetsOf(result);
        var desk = BookOptions.OpenDesk(result);
        using var ledger = LedgerReader.Open(desk.Book);
        return destination.Write(result, targets, Listed(result, desk.ContextOf(ledger)));
    }

    private static Report Listed(ParseResult result, ReportContext context)
    {
        var hasValues = result.GetResult(Values) is { Implicit: false };
        if (result.GetValue(Table) is not { } name)
        {
            return hasValues
                ? throw new ProblemException(
                    ProblemKind.Usage, "--values is of one field, and none is named.", "Name it: vlei fields postings.item --values")
                : FieldLists.Tables(context, StandardTables.All);
        }

        var dot = name.IndexOf('.');
        var table = StandardTables.Find(dot < 0 ? name : name[..dot]) ?? throw new ProblemException(
            ProblemKind.NotFound, $"There is no table {name}.",
            Suggestion.DidYouMean(dot < 0 ? name : name[..dot], StandardTables.All.Select(known => known.Name))
                ?? "vlei fields lists them.");
        var words = result.GetValue(Words) ?? [];
        return (dot, hasValues) switch
        {
            ( < 0, true) => throw new ProblemException(
                ProblemKind.Usage, "--values is of one field.", $"Name it: vlei fields {name}.{table.Fields[0].Name} --values"),
            ( < 0, _) => FieldLists.Fields(context, table, words),
            (_, false) => FieldLists.Fields(context, table, [name[(dot + 1)..], .. words]),
            _ => FieldLists.Values(context, table, name[(dot + 1)..], result.GetValue(Values)),
        };
    }
}
