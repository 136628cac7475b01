using System.CommandLine;
using System.CommandLine.Completions;
using System.Globalization;
using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.OpenItems;
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
        reports.CompletionSources.Add(_ => StandardReports.All.Select(report => new CompletionItem(report.Key, detail: report.Title)));
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

    /// <summary>What is asked of them.</summary>
    public static ReportRequest Request(ParseResult result, Book book) =>
        ReadRequest(result, BookOptions.TodayOf(result, book.Settings), book.Settings);

    /// <summary>
    /// Opens the records that the report is asked of, and hands over what is needed to build it. Throws a
    /// <see cref="ProblemException"/> where the arguments make no sense.
    /// </summary>
    public T With<T>(ParseResult result, Func<ReportDefinition, ReportContext, ReportRequest, T> use)
    {
        var definition = Definitions(result)[0];
        var book = BookOptions.OpenBook(result);
        var request = Request(result, book);
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

    private static ReportDefinition Named(string key) => StandardReports.Find(key) ?? throw new ProblemException(
        ProblemKind.NotFound,
        $"There is no report {key}.",
        Suggestion.DidYouMean(key, StandardReports.All.Select(report => report.Key)) ?? "vlei reports lists them.");

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

    private static ReportRequest ReadRequest(ParseResult result, DateOnly today, BookSettings settings) => new()
    {
        Period = PeriodOf(result) is { } period ? PeriodGrammar.Parse(period, today, settings.Calendar) : null,
        Basis = One(result, ReportOptions.Basis) is { } basis
            ? (AccountingBasis)IndexOf(ReportOptions.Basis, basis, AccountingBases.Names) : null,
        By = One(result, ReportOptions.By) is { } what ? SpreadOf(what) : null,
        Compare = [.. Many(result, ReportOptions.Compare).Select(with => Comparison.Parse(with, today, settings.Calendar))],
        Change = result.GetValue<bool>($"--{ReportOptions.Change.Name}"),
        Percent = [.. Many(result, ReportOptions.Percent).SelectMany(list => list.Split(','))
            .Select(of => (PercentOf)IndexOf(ReportOptions.Percent, of, ReportOptions.Percent.Words))],
        Choices =
        [
            .. Many(result, ReportOptions.Only).Select(text => FieldChoice.Parse(text, isExcept: false)),
            .. Many(result, ReportOptions.Except).Select(text => FieldChoice.Parse(text, isExcept: true)),
        ],
        Where = Many(result, ReportOptions.Where),
        Columns = [.. Many(result, ReportOptions.Columns).SelectMany(list => ColumnText.Parse(ReportOptions.Columns.Name, list))],
        GroupBy = Names(result, ReportOptions.GroupBy),
        Totals = One(result, ReportOptions.Total) is { } totals ? ColumnText.Parse(ReportOptions.Total.Name, totals) : [],
        Rows = Names(result, ReportOptions.Rows),
        Across = One(result, ReportOptions.Across),
        Measures = One(result, ReportOptions.Measure) is { } measures ? ColumnText.Parse(ReportOptions.Measure.Name, measures) : [],
        IsDirect = One(result, ReportOptions.Method) is { } method
            && IndexOf(ReportOptions.Method, method, ReportOptions.Method.Words) == 1,
        Layout = One(result, ReportOptions.Layout),
        Limits = One(result, ReportOptions.Limits) is { } limits ? AgingBuckets.Parse(limits) : null,
        AgesByDocument = One(result, ReportOptions.AgeBy) is { } age && IndexOf(ReportOptions.AgeBy, age, ReportOptions.AgeBy.Words) == 1,
        KeepsUnappliedApart = result.GetValue<bool>($"--{ReportOptions.Unapplied.Name}"),
        Detail = result.GetValue<bool>($"--{ReportOptions.Detail.Name}"),
        Summary = result.GetValue<bool>($"--{ReportOptions.Summary.Name}"),
        Sort = One(result, ReportOptions.Sort) is { } sort ? SortOrder.Parse(sort) : [],
        Top = One(result, ReportOptions.Top) is { } top ? NumberOf(ReportOptions.Top, top, 1, "1 or more") : null,
        Money = One(result, ReportOptions.Money) is { } money ? AmountText.Read(ReportOptions.Money.Name, money, settings.Currency) : null,
        AsUsual = result.GetValue<bool>($"--{ReportOptions.AsUsual.Name}"),
        Zeros = result.GetValue<bool>($"--{ReportOptions.Zeros.Name}"),
        Depth = One(result, ReportOptions.Depth) is { } depth ? NumberOf(ReportOptions.Depth, depth, 0, "0 for totals alone, 1, 2 …") : null,
        Title = One(result, ReportOptions.Title),
    };

    private static Spread SpreadOf(string what)
    {
        var unit = FiscalCalendar.UnitNames.ToList().FindIndex(name => name.Equals(what, StringComparison.OrdinalIgnoreCase));
        return unit >= 0 ? Spread.Of((TimeUnit)unit) : Spread.Of(what);
    }

    // One or the other: a moment is the end of a period.
    private static string? PeriodOf(ParseResult result) =>
        (One(result, ReportOptions.Period), One(result, ReportOptions.AsOf)) is var (period, moment) && period is not null && moment is not null
            ? throw new ProblemException(
                ProblemKind.Usage, "--period and --as-of both say when.", "Give one of them; with --by, --period.")
            : period ?? moment;

    private static string? One(ParseResult result, ReportOption option) => result.GetValue<string?>($"--{option.Name}");

    private static string[] Many(ParseResult result, ReportOption option) =>
        result.GetValue<string[]?>($"--{option.Name}") ?? [];

    private static IReadOnlyList<string> Names(ParseResult result, ReportOption option) => One(result, option) is { } list
        ? [.. ColumnText.Parse(option.Name, list).Select(column => column.Text)] : [];

    private static int IndexOf(ReportOption option, string word, IReadOnlyList<string> words)
    {
        for (var index = 0; index < words.Count; index++)
        {
            if (words[index].Equals(word, StringComparison.OrdinalIgnoreCase))
            {
                return index;
            }
        }

        throw new ProblemException(
            ProblemKind.Usage,
            $"--{option.Name} does not take \"{word}\".",
            Suggestion.DidYouMean(word, words) ?? $"It takes {Suggestion.Listed(words, "or")}.");
    }

    private static int NumberOf(ReportOption option, string text, int least, string hint) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number >= least
            ? number
            : throw new ProblemException(
                ProblemKind.Usage, $"--{option.Name} does not take \"{text}\".", $"It takes a whole number: {hint}.");

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
