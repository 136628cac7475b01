using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei save</c>: keeps a report with its options, or a selection, under a name.</summary>
internal static class SaveCommand
{
    private static readonly string[] Shelves = ["book", "library", "user"];

    private static readonly Argument<string?> Name = new("NAME") { Description = "The name to keep it under", Arity = ArgumentArity.ZeroOrOne };

    private static readonly Option<string?> From = new("--from")
    {
        Description = "The report or table to start from: a standard one, or a kept one, to copy it (else the report that was shown last)", HelpName = "REPORT",
    };

    private static readonly Option<string?> Default = new("--default")
    {
        Description = "Change what this standard report shows in this book where nothing else is asked", HelpName = "REPORT",
    };

    private static readonly Option<bool> Selection = new("--selection") { Description = "Keep --only, --except and --where alone, for --select NAME in any report" };

    private static readonly Option<string?> Question = new("--question") { Description = "The question that it answers, for vlei reports", HelpName = "TEXT" };

    private static readonly Option<string?> Subject = new("--subject") { Description = "The subject that vlei reports lists it under", HelpName = "TEXT" };

    private static readonly Option<string[]> Words = new("--words") { Description = "Other words that people look for it by; may be repeated", HelpName = "WORD" };

    private static readonly Option<bool> Favourite = new("--favourite") { Description = "List it first; --favourite false takes that back" };

    private static readonly Option<string[]> Unset = new("--unset") { Description = "Take an option out of it again: --unset basis; may be repeated", HelpName = "OPTION" };

    private static readonly Option<string?> Rename = new("--rename") { Description = "Give it another name", HelpName = "NEW" };

    private static readonly Option<bool> Remove = new("--remove") { Description = "Remove it" };

    private static readonly Option<string?> In = new("--in")
    {
        Description = "Where to keep it: in the book, in the library that book.toml names, or for all books of this user", HelpName = "PLACE",
    };

    private static readonly (Option Option, string Key)[] Descriptions =
        [(Question, "question"), (Subject, "subject"), (Words, "words"), (Favourite, "favourite")];

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("save", "Keep a report with its options, or a selection, under a name")
        {
            Examples =
            [
                ("vlei save items-by-month --from sales-by-item --rows item --across month --period last-6-months", "a report of one's own"),
                ("vlei save items-by-month --basis cash --favourite", "change one that is kept; everything else stays as it is"),
                ("vlei save big-sales --from items-by-month --top 5", "copy it, and change the copy"),
                ("vlei save --default profit-loss --percent income", "what plain vlei show profit-loss shows in this book"),
                ("vlei save --selection oars --only item=OAR*", "for --select oars"),
                ("vlei save big-sales --rename best-sellers", "another name"),
                ("vlei save best-sellers --remove", "and away with it"),
            ],
        };
        In.CompletionSources.Add(Shelves);
        Name.CompletionSources.Clear();
        Name.CompletionSources.Add(context => ReportArguments.LibraryOf(context).All(KeptKind.Report).Select(file => new System.CommandLine.Completions.CompletionItem(file.Name)));
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
        var book = BookOptions.OpenBook(result);
        var library = Library.Of(book);
        var kind = result.GetValue(Selection) ? KeptKind.Selection : KeptKind.Report;
        var file = ShelfOf(result, library).Place(kind, NameOf(result, kind));
        if (result.GetValue(Remove) || result.GetValue(Rename) is not null)
        {
            Move(result, arguments, library, file);
        }
        else if (kind == KeptKind.Selection)
        {
            SaveSelection(result, arguments, file);
        }
        else
        {
            SaveReport(result, arguments, book, library, file);
        }

        return ExitStatus.Done;
    }

    private static Shelf ShelfOf(ParseResult result, Library library)
    {
        var word = result.GetValue(In) ?? Shelves[0];
        return Shelves.Contains(word) ? library.ShelfOf(word) : throw new ProblemException(
            ProblemKind.Usage, $"--in does not take \"{word}\".", Suggestion.DidYouMean(word, Shelves) ?? $"It takes {Suggestion.Listed(Shelves, "or")}.");
    }

    private static string NameOf(ParseResult result, KeptKind kind)
    {
        var (name, standard) = (result.GetValue(Name), result.GetValue(Default));
        if (name is null == standard is null)
        {
            throw new ProblemException(
                ProblemKind.Usage, name is null ? "It is not said under which name." : "--default says which report, so there is no other name.",
                name is null ? "Write vlei save NAME, or --default REPORT." : $"Leave {name} out.");
        }

        if (standard is not null)
        {
            return kind == KeptKind.Report && Library.Standard(standard) is not null ? standard : throw new ProblemException(
                kind == KeptKind.Report ? ProblemKind.NotFound : ProblemKind.Usage,
                kind == KeptKind.Report ? $"There is no standard report {standard}." : "--default is of reports, not of selections.",
                kind == KeptKind.Report ? Suggestion.DidYouMean(standard, Catalogue.Standard.Select(report => report.Key)) ?? "vlei reports lists them." : "Leave one of them out.");
        }

        var twin = kind == KeptKind.Report ? Catalogue.Standard.FirstOrDefault(report => report.Key.Equals(name, StringComparison.OrdinalIgnoreCase)) : null;
        return twin is null ? name! : throw new ProblemException(
            ProblemKind.Usage, $"{twin.Key} is a standard report.", $"Take another name, or change what it shows in this book: --default {twin.Key}.");
    }

    private static void Move(ParseResult result, ReportArguments arguments, Library library, KeptFile file)
    {
        var isBoth = result.GetValue(Remove) && result.GetValue(Rename) is not null;
        var others = arguments.TypedNames(result).Concat(Descriptions.Select(description => description.Option).Append(From).Append(Unset)
            .Where(option => result.GetResult(option) is { Implicit: false }).Select(option => option.Name));
        if ((isBoth ? others.Append(Remove.Name) : others).FirstOrDefault() is { } other)
        {
            throw new ProblemException(ProblemKind.Usage, $"{other} does not go with removing or renaming.", "Do one after the other.");
        }

        if (result.GetValue(Rename) is not { } name)
        {
            Kept.Remove(library, file);
        }
        else if (file.Kind == KeptKind.Report && Library.Standard(name) is not null)
        {
            throw new ProblemException(ProblemKind.Usage, $"{name} is a standard report.", "Take another name.");
        }
        else
        {
            Kept.Rename(library, file, name);
        }
    }

    private static void SaveSelection(ParseResult result, ReportArguments arguments, KeptFile file)
    {
        var typed = arguments.Typed(result);
        if (typed.Keys.FirstOrDefault(name => SelectionFile.Keys.All(key => key.Name != name)) is { } other)
        {
            throw new ProblemException(ProblemKind.Usage, $"--{other} does not belong to a selection.", "It has --only, --except and --where, and a --title.");
        }

        RefuseOf(result, [From, .. Descriptions.Select(description => description.Option)], "a selection");
        var text = File.Exists(file.Path) ? file.Read() : $"# --select {file.Name}\n\n";
        foreach (var key in SelectionFile.Keys.Where(key => typed.ContainsKey(key.Name)))
        {
            text = ReportText.With(text, file.Path, key, typed[key.Name]);
        }

        text = (result.GetValue(Unset) ?? []).SelectMany(list => list.Split(',')).Aggregate(text, (left, name) => Without(left, file, name));

        _ = SelectionFile.Read(file, text);
        file.Write(text);
        Terminal.Say($"{file.Path} is kept: --select {file.Name}");
    }

    private static void SaveReport(ParseResult result, ReportArguments arguments, Book book, Library library, KeptFile file)
    {
        var today = BookOptions.TodayOf(result, book.Settings);
        var typed = arguments.Typed(result);
        var (text, own) = Start(result, book, library, file, ref typed);
        var start = library.Read(file, text);
        ReportArguments.RefuseWhatDoesNotApply(typed.Keys, start.Definition with { Key = start.From });
        var wanted = RequestText.Merged(own, typed);
        foreach (var name in (result.GetValue(Unset) ?? []).SelectMany(list => list.Split(',')))
        {
            if (ReportFile.Own.Skip(1).Any(key => key.Name == name))
            {
                text = Without(text, file, name);
                continue;
            }

            _ = own.ContainsKey(name) ? wanted.Remove(name) : throw new ProblemException(
                ProblemKind.Usage, $"{file.Name} has no {name} to take out.",
                own.Count == 0 ? "It has no options of its own." : Suggestion.DidYouMean(name, own.Keys) ?? $"It has {Suggestion.Listed([.. own.Keys], "and")}.");
        }

        text = ReportText.WithOptions(text, file.Path, own, LookFiles.Kept(wanted, file.Shelf.Folder));
        foreach (var (option, key) in Descriptions.Where(description => result.GetResult(description.Option) is { Implicit: false }))
        {
            text = ReportText.With(text, file.Path, ReportFile.Own.First(own => own.Name == key), option switch
            {
                Option<bool> flag => [result.GetValue(flag) ? "true" : "false"],
                Option<string[]> list => result.GetValue(list) ?? [],
                _ => [result.GetValue((Option<string?>)option) ?? ""],
            });
        }

        // What cannot be shown is not kept.
        var report = library.Read(file, text);
        using (var ledger = LedgerReader.Open(book))
        {
            _ = ReportArguments.OfSums(report.Definition, () => report.Definition.Make(
                ReportArguments.ContextOf(book, today, ledger), ReportArguments.Request(report.Definition, report.Definition.Defaults, book.Settings, library, today)));
        }

        file.Write(text);
        Terminal.Say($"{file.Path} is kept: vlei show {file.Name}");
        foreach (var (option, date) in Kept.FixedDates(report.Own, today, book.Settings.Calendar))
        {
            Terminal.Say($"Its {option} is always {date}" + (FixedDates.WordsFor(date, today, book.Settings.Calendar) is { } words
                ? $"; --{option} {words} is the same today, and moves on." : "; words like last-month move on."));
        }
    }

    // The text to start from, and the options that it has: of the file that is changed, of the report that is copied, or none.
    private static (string Text, IReadOnlyDictionary<string, IReadOnlyList<string>> Own) Start(
        ParseResult result, Book book, Library library, KeptFile file, ref Dictionary<string, IReadOnlyList<string>> typed)
    {
        var from = result.GetValue(From) ?? result.GetValue(Default);
        if (File.Exists(file.Path))
        {
            return result.GetValue(From) is null ? (file.Read(), library.Read(file).Own) : throw new ProblemException(
                ProblemKind.Usage, $"There is a report {file.Name} already: {file.Path}.", "Leave --from out to change it, or remove it first.");
        }

        if (from is null)
        {
            var last = RecentReports.Of(book).FirstOrDefault(shown => shown.Group is null) is { } latest ? latest : throw new ProblemException(
                ProblemKind.Usage, "It is not said which report to keep, and none was shown lately.", "Name it: --from profit-loss.");
            (from, typed) = (last.Name, RequestText.Merged(last.Options, typed));
            foreach (var empty in typed.Where(pair => pair.Value.Count == 0).Select(pair => pair.Key).ToList())
            {
                _ = typed.Remove(empty);
            }
        }

        if (result.GetValue(Default) is null && library.Find(KeptKind.Report, from) is { } source)
        {
            return (ReportText.Copied(source.Read(), source.Path, source.Name, file.Name), library.Read(source).Own);
        }

        _ = Catalogue.Find(library, from);
        return (ReportText.New(file.Name, from), new Dictionary<string, IReadOnlyList<string>>());
    }

    private static string Without(string text, KeptFile file, string name) => ReportText.Without(text, file.Path, name) is var without && without != text
        ? without : throw new ProblemException(ProblemKind.Usage, $"{file.Name} has no {name} to take out.", "Leave it out.");

    private static void RefuseOf(ParseResult result, IEnumerable<Option> options, string what)
    {
        if (options.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } option)
        {
            throw new ProblemException(ProblemKind.Usage, $"{option.Name} does not belong to {what}.", "Leave it out.");
        }
    }
}
