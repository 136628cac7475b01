using System.CommandLine;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Desk.Keeping;

namespace Vlei.Commands;

/// <summary><c>vlei save</c>: keeps a report with its options, or a selection, under a name.</summary>
internal static class SaveCommand
{
    private static readonly string[] Shelves = ["book", "library", "user"];

    private static readonly Argument<string?> Name = new("NAME")
    {
        Description = "The name to keep it under",
        Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> From = new("--from")
    {
        Description =
            "The report or table to start from: a standard one, or a kept one, to copy it (else the report that was shown last)",
        HelpName = "REPORT",
    };

    private static readonly Option<string?> Default = new("--default")
    {
        Description = "Change what this standard report shows in this book where nothing else is asked", HelpName = "REPORT",
    };

    private static readonly Option<bool> Selection = new("--selection")
    {
        Description = "Keep --only, --except and --where alone, for --select NAME in any report",
    };

    private static readonly Option<string?> Question = new("--question")
    {
        Description = "The question that it answers, for vlei reports",
        HelpName = "TEXT",
    };

    private static readonly Option<string?> Subject = new("--subject")
    {
        Description = "The subject that vlei reports lists it under",
        HelpName = "TEXT",
    };

    private static readonly Option<string[]> Words = new("--words")
    {
        Description = "Other words that people look for it by; may be repeated",
        HelpName = "WORD",
    };

    private static readonly Option<bool> Favourite = new("--favourite")
    {
        Description = "List it first; --favourite false takes that back",
    };

    private static readonly Option<string[]> Unset = new("--unset")
    {
        Description = "Take an option out of it again: --unset basis, or one filter: --unset only:contact; may be repeated",
        HelpName = "OPTION",
    };

    private static readonly Option<string?> Rename = new("--rename") { Description = "Give it another name", HelpName = "NEW" };

    private static readonly Option<bool> Remove = new("--remove") { Description = "Remove it" };

    private static readonly Option<string?> In = new("--in")
    {
        Description = "Where to keep it: in the book, in the library that book.toml names, or for all books of this user",
        HelpName = "PLACE",
    };

    private static readonly (Option Option, string Key)[] Descriptions =
        [(Question, "question"), (Subject, "subject"), (Words, "words"), (Favourite, "favourite")];

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("save", "Keep a report with its options, or a selection, under a name")
        {
            Examples =
            [
                ("vlei save items-by-month --from sales-by-item --by month --period last-6-months",
                    "a report of one's own"),
                ("vlei save items-by-month --basis cash --favourite", "change one that is kept; everything else stays as it is"),
                ("vlei save big-sales --from items-by-month --top 5", "copy it, and change the copy"),
                ("vlei save --default profit-loss --share income", "what plain vlei show profit-loss shows in this book"),
                ("vlei save --selection oars --only item=OAR*", "for --select oars"),
                ("vlei save big-sales --rename best-sellers", "another name"),
                ("vlei save best-sellers --remove", "and away with it"),
            ],
        };
        In.CompletionSources.Add(Shelves);
        Name.CompletionSources.Clear();
        Name.CompletionSources.Add(
            context => ReportArguments.LibraryOf(context).All(KeptKind.Report)
                .Select(file => new System.CommandLine.Completions.CompletionItem(file.Name)));
        command.Arguments.Add(Name);
        foreach (var option in new Option[] { From, Default, Selection, Question, Subject, Words, Favourite, Unset, Rename, Remove, In })
        {
            command.Options.Add(option);
        }

        var arguments = new ReportArguments(command, ReportCount.None);
        command.SetAction(result => Run(result, arguments));
        return command;
    }

    private static int Run(ParseResult result, ReportArguments arguments)
    {
        var desk = BookOptions.OpenDesk(result);
        var kind = result.GetValue(Selection) ? KeptKind.Selection : KeptKind.Report;
        var file = ShelfOf(result, desk.Library).Place(kind, NameOf(result, kind));
        using var turn = FileTurn.Take(file.Shelf.Folder);
        foreach (var line in result.GetValue(Remove) || result.GetValue(Rename) is not null ? Moved(result, arguments, desk.Library, file)
            : kind == KeptKind.Selection ? KeptSelection(result, arguments, file)
            : new KeptReports(desk).Keep(file, OrderOf(result, arguments)))
        {
            Terminal.Say(line);
        }

        return ExitStatus.Done;
    }

    private static KeepingOrder OrderOf(ParseResult result, ReportArguments arguments) => new(
        arguments.Typed(result), [.. (result.GetValue(Unset) ?? []).SelectMany(list => list.Split(','))],
        [.. Descriptions.Where(description => result.GetResult(description.Option) is { Implicit: false })
            .Select(description => (description.Key, (IReadOnlyList<string>)(description.Option switch
        {
            Option<bool> flag => [result.GetValue(flag) ? "true" : "false"],
            Option<string[]> list => result.GetValue(list) ?? [],
            var text => [result.GetValue((Option<string?>)text) ?? ""],
        })))])
    {
        From = result.GetValue(From) ?? result.GetValue(Default), IsDefault = result.GetValue(From) is null
            && result.GetValue(Default) is not null,
    };

    private static Shelf ShelfOf(ParseResult result, Library library)
    {
        var word = result.GetValue(In) ?? Shelves[0];
        return Shelves.Contains(word) ? library.ShelfOf(word) : throw new ProblemException(
            ProblemKind.Usage, $"--in does not take \"{word}\".", Suggestion.DidYouMean(word, Shelves)
                ?? $"It takes {Suggestion.Listed(Shelves, "or")}.");
    }

    private static string NameOf(ParseResult result, KeptKind kind)
    {
        var (name, standard) = (result.GetValue(Name), result.GetValue(Default));
        if (name is null == standard is null)
        {
            throw new ProblemException(
                ProblemKind.Usage, name is null ? "It is not said under which name."
                    : "--default says which report, so there is no other name.",
                name is null ? "Write vlei save NAME, or --default REPORT." : $"Leave {name} out.");
        }

        if (standard is not null)
        {
            return kind == KeptKind.Report && Library.Standard(standard) is not null ? standard : throw new ProblemException(
                kind == KeptKind.Report ? ProblemKind.NotFound : ProblemKind.Usage,
                kind == KeptKind.Report ? $"There is no standard report {standard}." : "--default is of reports, not of selections.",
                kind == KeptKind.Report ? Suggestion.DidYouMean(standard, ReportCatalogue.Standard.Select(report => report.Key))
                    ?? "vlei reports lists them." : "Leave one of them out.");
        }

        var twin = kind == KeptKind.Report
            ? ReportCatalogue.Standard.FirstOrDefault(report => report.Key.Equals(name, StringComparison.OrdinalIgnoreCase)) : null;
        return twin is null ? name! : throw new ProblemException(
            ProblemKind.Usage, $"{twin.Key} is a standard report.",
            $"Take another name, or change what it shows in this book: --default {twin.Key}.");
    }

    private static IReadOnlyList<string> Moved(ParseResult result, ReportArguments arguments, Library library, KeptFile file)
    {
        var isBoth = result.GetValue(Remove) && result.GetValue(Rename) is not null;
        var others = arguments.TypedNames(result).Select(name => $"--{name}")
            .Concat(Descriptions.Select(description => description.Option).Append(From).Append(Unset)
            .Where(option => result.GetResult(option) is { Implicit: false }).Select(option => option.Name));
        if ((isBoth ? others.Append(Remove.Name) : others).FirstOrDefault() is { } other)
        {
            throw new ProblemException(ProblemKind.Usage, $"{other} does not go with removing or renaming.", "Do one after the other.");
        }

        return result.GetValue(Rename) is not { } name ? KeptFiles.Remove(library, file)
            : file.Kind == KeptKind.Report && Library.Standard(name) is not null
                ? throw new ProblemException(ProblemKind.Usage, $"{name} is a standard report.", "Take another name.")
            : KeptFiles.Rename(library, file, name);
    }

    private static IReadOnlyList<string> KeptSelection(ParseResult result, ReportArguments arguments, KeptFile file)
    {
        var order = OrderOf(result, arguments);
        if (order.Typed.Keys.All(name => SelectionFile.Keys.Any(key => key.Name == name)))
        {
            RefuseOf(result, [From, Subject, Words], "a selection");
        }

        return KeptReports.KeepSelection(file, order);
    }

    private static void RefuseOf(ParseResult result, IEnumerable<Option> options, string what)
    {
        if (options.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } option)
        {
            throw new ProblemException(ProblemKind.Usage, $"{option.Name} does not belong to {what}.", "Leave it out.");
        }
    }
}
