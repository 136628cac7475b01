using System.CommandLine;
using System.CommandLine.Completions;
using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>
/// Reports as the command line asks for them: which, with which options, of which book. Every command that builds reports
/// has these arguments.
/// </summary>
internal sealed class ReportArguments
{
    private readonly Func<ParseResult, IReadOnlyList<string>> _named;

    private readonly Option<string?> _revision = new("--revision")
    {
        Description = "The records as they stood after import N, or at the end of a day", HelpName = "N|DATE",
    };

    private readonly List<Option> _options = [.. ReportOptions.All.Select(CommandLineOption)];

    /// <summary>Adds them to a command.</summary>
    /// <param name="command">The command.</param>
    /// <param name="isOfOne">Whether it takes exactly one report, as of any revision; else it takes any number.</param>
    public ReportArguments(Command command, bool isOfOne = true)
    {
        Argument reports;
        if (isOfOne)
        {
            var one = new Argument<string>("REPORT") { HelpName = "REPORT" };
            (reports, _named) = (one, result => [result.GetRequiredValue(one)]);
        }
        else
        {
            var many = new Argument<string[]>("REPORT") { HelpName = "REPORT", Arity = ArgumentArity.ZeroOrMore };
            (reports, _named) = (many, result => result.GetValue(many) ?? []);
        }

        reports.Description = "Which report; vlei reports lists them";
        reports.CompletionSources.Clear();
        reports.CompletionSources.Add(_ => Catalogue.All.Select(report => new CompletionItem(report.Key, detail: report.Title)));
        command.Arguments.Add(reports);
        foreach (var option in _options)
        {
            command.Options.Add(option);
        }

        if (isOfOne)
        {
            command.Options.Add(_revision);
        }
    }

    /// <summary>The reports that are asked for. Throws where there is no such, or where an option does not apply to one.</summary>
    public IReadOnlyList<ReportDefinition> Definitions(ParseResult result)
    {
        var definitions = _named(result).Select(Named).ToList();
        if (definitions.Count == 0 && _options.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } option)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{option.Name} is for reports, and none is named.", "Name a report, as profit-loss, or leave it out.");
        }

        foreach (var definition in definitions)
        {
            RefuseWhatDoesNotApply(result, definition, _options);
        }

        return definitions;
    }

    /// <summary>What is asked of one of them.</summary>
    public ReportRequest Request(ParseResult result, ReportDefinition definition, Book book) => RequestText.Read(
        RequestText.Merged(definition.Defaults, Typed(result)), BookOptions.TodayOf(result, book.Settings), book.Settings.Calendar,
        book.Settings.Currency);

    /// <summary>
    /// Opens the records that the report is asked of, and hands over what is needed to build it. Throws a
    /// <see cref="ProblemException"/> where the arguments make no sense.
    /// </summary>
    public T With<T>(ParseResult result, Func<ReportDefinition, ReportContext, ReportRequest, T> use)
    {
        var definition = Definitions(result)[0];
        var book = BookOptions.OpenBook(result);
        var request = Request(result, definition, book);
        using var ledger = result.GetValue(_revision) is { } revision
            ? LedgerReader.Open(book, Revisions.Find(book, revision))
            : LedgerReader.Open(book);
        try
        {
            return use(definition, ContextOf(book, BookOptions.TodayOf(result, book.Settings), ledger), request);
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{definition.Title}: a sum is larger than 64 bits hold.", "Look for an amount with too many digits.", tooLarge);
        }
    }

    /// <summary>What a report knows of a book.</summary>
    public static ReportContext ContextOf(Book book, DateOnly today, ILedger ledger) => new(
        book.Settings.Name, book.Settings.Currency, book.Settings.Calendar, book.Settings.Basis, today, ledger,
        name => LayoutFile.Find(name, book.Folder))
    {
        Remittance = book.Settings.Remittance,
        Language = book.Settings.Language,
    };

    private static ReportDefinition Named(string key) => Catalogue.Find(key) ?? throw new ProblemException(
        ProblemKind.NotFound,
        $"There is no report {key}.",
        Suggestion.DidYouMean(key, Catalogue.All.Select(report => report.Key)) ?? "vlei reports lists them.");

    private static void RefuseWhatDoesNotApply(ParseResult result, ReportDefinition definition, List<Option> options)
    {
        foreach (var option in options.Where(option => result.GetResult(option) is { Implicit: false }))
        {
            if (!definition.Options.Any(known => $"--{known.Name}" == option.Name))
            {
                throw new ProblemException(
                    ProblemKind.Usage,
                    $"{option.Name} does not apply to {definition.Key}.",
                    $"It takes {Suggestion.Listed([.. definition.Options.Select(known => $"--{known.Name}")], "and")}.");
            }
        }
    }

    // What is typed, by the names of the options.
    private Dictionary<string, IReadOnlyList<string>> Typed(ParseResult result) => _options
        .Where(option => result.GetResult(option) is { Implicit: false })
        .ToDictionary(option => option.Name[2..], option => option switch
        {
            Option<bool> => (IReadOnlyList<string>)[result.GetValue<bool>(option.Name) ? "true" : "false"],
            Option<string[]> => result.GetValue<string[]>(option.Name) ?? [],
            _ => [result.GetValue<string?>(option.Name) ?? ""],
        });

    // The command line's options come from the catalogue; what their values mean is read in one place above.
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
        made.CompletionSources.Add([.. option.Words]);
        return made;
    }
}
