using System.CommandLine;
using System.CommandLine.Completions;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>How many reports a command line names.</summary>
internal enum ReportCount
{
    /// <summary>None: the command says itself which report its options are of.</summary>
    None,

    /// <summary>One, or none: then the command says something else.</summary>
    ZeroOrOne,

    /// <summary>Exactly one.</summary>
    One,

    /// <summary>Any number.</summary>
    Any,
}

/// <summary>
/// Reports as the command line asks for them: which, with which options, of which book. Every command that builds reports
/// has these arguments.
/// </summary>
internal sealed class ReportArguments
{
    private readonly Func<ParseResult, IReadOnlyList<string>> _named = _ => [];

    private readonly Option<string?> _revision = new("--revision")
    {
        Description = "The records as they stood after import N, or at the end of a day", HelpName = "N|DATE",
    };

    private readonly Option<bool> _standard = new("--standard")
    {
        Description = "The report as it is without what this book keeps of it",
    };

    private readonly List<Option> _options = [.. ReportOptions.All.Select(CommandLineOption)];

    /// <summary>Adds them to a command.</summary>
    /// <param name="command">The command.</param>
    /// <param name="count">How many reports it takes; those that take one take any revision too.</param>
    public ReportArguments(Command command, ReportCount count = ReportCount.One)
    {
        if (count == ReportCount.Any)
        {
            var many = new Argument<string[]>("REPORT") { Arity = ArgumentArity.ZeroOrMore };
            _named = result => result.GetValue(many) ?? [];
            command.Arguments.Add(Described(many));
        }
        else if (count != ReportCount.None)
        {
            var one = new Argument<string?>("REPORT") { Arity = count == ReportCount.One ? ArgumentArity.ExactlyOne : ArgumentArity.ZeroOrOne };
            _named = result => result.GetValue(one) is { } name ? [name] : [];
            command.Arguments.Add(Described(one));
        }

        foreach (var option in _options)
        {
            command.Options.Add(option);
        }

        if (count is ReportCount.One or ReportCount.ZeroOrOne)
        {
            command.Options.Add(_revision);
            command.Options.Add(_standard);
        }
    }

    /// <summary>Whether a report is named.</summary>
    public bool IsNamed(ParseResult result) => _named(result).Count > 0;

    /// <summary>The options that are typed and belong to reports.</summary>
    public IEnumerable<string> TypedNames(ParseResult result) => _options
        .Append(_revision).Append(_standard).Where(option => result.GetResult(option) is { Implicit: false }).Select(option => option.Name);

    /// <summary>The reports that are asked for. Throws where there is no such, or where an option does not apply to one.</summary>
    public IReadOnlyList<ReportDefinition> Definitions(ParseResult result, Library library)
    {
        var definitions = _named(result).Select(name => result.GetValue(_standard) ? Standard(name) : Catalogue.Find(library, name)).ToList();
        if (definitions.Count == 0 && TypedNames(result).FirstOrDefault() is { } option)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{option} is for reports, and none is named.", "Name a report, as profit-loss, or leave it out.");
        }

        foreach (var definition in definitions)
        {
            RefuseWhatDoesNotApply(Typed(result).Keys, definition);
        }

        return definitions;
    }

    /// <summary>What is asked of one of them.</summary>
    public ReportRequest Request(ParseResult result, ReportDefinition definition, Book book) => Request(
        definition, RequestText.Merged(definition.Defaults, Typed(result)), book.Settings, Library.Of(book), BookOptions.TodayOf(result, book.Settings));

    /// <summary>
    /// What options ask of a report. Throws a <see cref="ProblemException"/> where a value makes no sense, or where a
    /// selection does not fit the report.
    /// </summary>
    public static ReportRequest Request(
        ReportDefinition definition, IReadOnlyDictionary<string, IReadOnlyList<string>> options, BookSettings settings, Library library, WorkingDay today)
    {
        var request = RequestText.Read(RequestText.WithLook(options, settings.Look), today, settings.Calendar, settings.Currency, name =>
            library.Selection(name) is var selection && (selection.Where.Count == 0 || definition.Options.Contains(ReportOptions.Where)) ? selection
                : throw new ProblemException(
                    ProblemKind.Usage, $"{selection.Source} has a predicate, and {definition.Key} takes none.", "Write it as only and except, or take a list."));
        return request with { Look = LookFiles.Of(request.Look, library) };
    }

    /// <summary>
    /// Opens the records that the report is asked of, and hands over what is needed to build it. Throws a
    /// <see cref="ProblemException"/> where the arguments make no sense.
    /// </summary>
    public T With<T>(ParseResult result, Func<Book, ReportDefinition, ReportContext, ReportRequest, T> use)
    {
        var book = BookOptions.OpenBook(result);
        var library = Library.Of(book);
        var definition = Definitions(result, library)[0];
        if (!result.GetValue(_standard) && library.Find(KeptKind.Report, definition.Key) is { } file && Library.Standard(definition.Key) is not null)
        {
            Terminal.Say($"{definition.Key} is shown as {file.Path} has it; --standard shows it without.");
        }

        var request = Request(result, definition, book);
        using var ledger = result.GetValue(_revision) is { } revision
            ? LedgerReader.Open(book, Revisions.Find(book, revision))
            : LedgerReader.Open(book);
        return OfSums(definition, () => use(book, definition, ContextOf(book, BookOptions.TodayOf(result, book.Settings), ledger), request));
    }

    /// <summary>Builds the report that is asked for, in one book of many. Throws a <see cref="ProblemException"/> where it cannot be.</summary>
    /// <param name="result">The command line.</param>
    /// <param name="book">The book.</param>
    /// <param name="typed">What is asked, as texts by the names of options.</param>
    public Report BuildIn(ParseResult result, Book book, IReadOnlyDictionary<string, IReadOnlyList<string>> typed)
    {
        var library = Library.Of(book);
        var name = _named(result)[0];
        var definition = result.GetValue(_standard) ? Standard(name) : Catalogue.Find(library, name);
        RefuseWhatDoesNotApply(typed.Keys, definition);
        var today = BookOptions.TodayOf(result, book.Settings);
        using var ledger = LedgerReader.Open(book);
        return OfSums(definition, () => definition.Make(ContextOf(book, today, ledger), Request(
            definition, RequestText.Merged(definition.Defaults, typed), book.Settings, library, today)));
    }

    /// <summary>Builds something of a report; a sum that is too large is a problem of the records.</summary>
    public static T OfSums<T>(ReportDefinition definition, Func<T> build)
    {
        try
        {
            return build();
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{definition.Title}: a sum is larger than 64 bits hold.", "Look for an amount with too many digits.", tooLarge);
        }
    }

    /// <summary>
    /// Refuses looks of columns that a report does not have, and a chart where there is nothing to draw, or no place for it,
    /// where they are typed; what is kept may be of other reports and other months too.
    /// </summary>
    public void RefuseLooksOfNothing(ParseResult result, Report report, IReadOnlyList<ReportFormat> formats)
    {
        if (TypedNames(result).Contains($"--{LookOptions.Chart.Name}"))
        {
            RefuseChartOfNothing(report, formats);
        }

        var names = report.Columns.SelectMany(column => new[] { column.Key, column.Heading }).Append("label").ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var option in new[] { LookOptions.Widths, LookOptions.Align }.Where(option => TypedNames(result).Contains($"--{option.Name}")))
        {
            var asked = LookText.Read(new Dictionary<string, IReadOnlyList<string>> { [option.Name] = Typed(result)[option.Name] });
            if (asked.Widths.Keys.Concat(asked.Aligns.Keys).FirstOrDefault(name => !names.Contains(name)) is { } other)
            {
                throw new ProblemException(
                    ProblemKind.NotFound, $"--{option.Name}: the report has no column {other}.",
                    Suggestion.DidYouMean(other, names) ?? $"It has {Suggestion.Listed([.. report.Columns.Select(column => column.Key), "label"], "and")}.");
            }
        }
    }

    private static void RefuseChartOfNothing(Report report, IReadOnlyList<ReportFormat> formats)
    {
        if (report.Look.Chart is not null)
        {
            _ = ReportChart.Of(report);
        }
        else if (formats.All(format => format.IsPicture))
        {
            throw new ProblemException(ProblemKind.Usage, "--chart none leaves nothing of a picture.", "Leave --chart out for the chart that suits the report, or say which.");
        }

        if (report.Look.Chart is not null && report.Look.TemplateFile is not null && formats.Where(format => format.Takes.Contains(LookOptions.Chart)).All(format => format.Takes.Contains(LookOptions.Template)))
        {
            throw new ProblemException(ProblemKind.Usage, "--chart adds none to a template: the charts in it are yours.", "Leave --chart out, or draw one in the template.");
        }
    }

    /// <summary>Builds a report, with the records behind its figures where it is asked for them and a format has room for them.</summary>
    public static Report Built(ReportDefinition definition, ReportContext context, ReportRequest request, IReadOnlyList<ReportFormat> formats)
    {
        var report = definition.Make(context, request);
        return formats.Any(format => format.Takes.Contains(LookOptions.WithDetail)) ? Details.AddTo(report, context, Library.Standard("lines")!) : report;
    }

    /// <summary>What a report knows of a book.</summary>
    public static ReportContext ContextOf(Book book, WorkingDay today, ILedger ledger) => new(
        book.Settings.Name, book.Settings.Currency, book.Settings.Calendar, book.Settings.Basis, today, ledger,
        name => LayoutFile.Find(name, Library.Of(book)))
    {
        Remittance = book.Settings.Remittance,
        Language = LookFiles.LanguageOf(book),
        LanguageOf = code => LookFiles.Find(code, Library.Of(book)),
    };

    /// <summary>Refuses options that a report does not have. Throws a <see cref="ProblemException"/> that says which it has.</summary>
    public static void RefuseWhatDoesNotApply(IEnumerable<string> names, ReportDefinition definition)
    {
        if (names.FirstOrDefault(name => !definition.Takes(name)) is { } name)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"--{name} does not apply to {definition.Key}.",
                $"It takes {Suggestion.Listed([.. definition.Options.Select(known => $"--{known.Name}"), "what says how a report looks"], "and")}.");
        }
    }

    /// <summary>What is typed, as texts by the names of options.</summary>
    public Dictionary<string, IReadOnlyList<string>> Typed(ParseResult result) => _options
        .Where(option => result.GetResult(option) is { Implicit: false })
        .ToDictionary(option => option.Name[2..], option => option switch
        {
            Option<bool> => (IReadOnlyList<string>)[result.GetValue<bool>(option.Name) ? "true" : "false"],
            Option<string?> when result.GetResult(option) is { Tokens.Count: 0 } => [ReportOptions.All.First(known => $"--{known.Name}" == option.Name).WhenBare!],
            Option<string[]> => result.GetValue<string[]>(option.Name) ?? [],
            _ => [result.GetValue<string?>(option.Name) ?? ""],
        });

    private static ReportDefinition Standard(string name) => Library.Standard(name) ?? throw new ProblemException(
        ProblemKind.NotFound, $"There is no standard report {name}.",
        Suggestion.DidYouMean(name, Catalogue.Standard.Select(report => report.Key)) ?? "vlei reports lists them.");

    /// <summary>What is kept, for completion: to complete a word is no occasion to complain.</summary>
    public static Library LibraryOf(CompletionContext context)
    {
        try
        {
            return Library.Of(BookOptions.BookIfAny(context.ParseResult));
        }
        catch (ProblemException)
        {
            return Library.Of(null);
        }
    }

    private static Argument Described(Argument argument)
    {
        argument.HelpName = "REPORT";
        argument.Description = "Which report; vlei reports lists them";
        argument.CompletionSources.Clear();
        argument.CompletionSources.Add(context => Catalogue.Names(LibraryOf(context)).Select(name => new CompletionItem(name)));
        return argument;
    }

    // The command line's options come from the catalogue; what their values mean is read in one place.
    private static Option CommandLineOption(ReportOption option)
    {
        var name = $"--{option.Name}";
        if (option.ValueName is null)
        {
            return new Option<bool>(name) { Description = option.Help };
        }

        Option made = option.Repeatable ? new Option<string[]>(name) : new Option<string?>(name);
        made.Description = option.OnlyWords ? $"{option.Help}: {Suggestion.Listed(option.Words, "or")}" : option.Help;
        made.HelpName = option.ValueName;
        made.Arity = option.WhenBare is not null ? ArgumentArity.ZeroOrOne : made.Arity;
        made.CompletionSources.Add([.. option.Words]);
        if (option == ReportOptions.Select)
        {
            made.CompletionSources.Add(context => LibraryOf(context).All(KeptKind.Selection).Select(file => new CompletionItem(file.Name)));
        }

        return made;
    }
}
