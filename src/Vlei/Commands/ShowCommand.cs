using System.CommandLine;
using System.Globalization;
using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary><c>vlei show</c>: builds a report and writes it.</summary>
internal static class ShowCommand
{
    private static readonly Argument<string> Report = new("REPORT")
    {
        Description = "Which report; vlei reports lists them", HelpName = "REPORT",
    };

    private static readonly Option<string?> Format = new("--format")
    {
        Description = $"{Suggestion.Listed([.. ReportFormat.All.Select(format => format.Name)], "or")} (else by the ending of --to, else text)",
        HelpName = "FORMAT",
    };

    private static readonly Option<string?> To = new("--to")
    {
        Description = "The file to write, instead of standard output",
        HelpName = "FILE",
    };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var options = ReportOptions.All.Select(CommandLineOption).ToList();
        var command = new DocumentedCommand("show", "Build a report")
        {
            Examples =
            [
                .. StandardReports.All.SelectMany(report => report.Examples.Select(example =>
                    ($"vlei show {report.Key} {example.Options}", example.Meaning))),
            ],
        };
        Report.CompletionSources.Clear();
        Report.CompletionSources.Add(_ => StandardReports.All.Select(report =>
            new System.CommandLine.Completions.CompletionItem(report.Key, detail: report.Title)));
        command.Arguments.Add(Report);
        foreach (var option in options)
        {
            command.Options.Add(option);
        }

        Format.CompletionSources.Add([.. ReportFormat.All.Select(format => format.Name)]);
        command.Options.Add(Format);
        command.Options.Add(To);
        command.SetAction(result => Run(result, options));
        return command;
    }

    private static int Run(ParseResult result, List<Option> options)
    {
        var key = result.GetRequiredValue(Report);
        var definition = StandardReports.Find(key) ?? throw new ProblemException(
            ProblemKind.NotFound,
            $"There is no report {key}.",
            Suggestion.DidYouMean(key, StandardReports.All.Select(report => report.Key)) ?? "vlei reports lists them.");
        var format = FormatOf(result);
        RefuseWhatDoesNotApply(result, definition, options);
        var book = BookOptions.OpenBook(result);
        var today = BookOptions.TodayOf(result, book.Settings);
        var request = ReadRequest(result, today, book.Settings.Calendar);
        using var ledger = LedgerReader.Open(book);
        var report = definition.Build(
            new ReportContext(
                book.Settings.Name, book.Settings.Currency, book.Settings.Calendar, book.Settings.Basis, today, ledger),
            request);
        Destination.Write(result.GetValue(To), (stream, look) => format.Write(report, stream, look));
        return report.Checks.All(check => check.Ok) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

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

    private static ReportRequest ReadRequest(ParseResult result, DateOnly today, FiscalCalendar calendar) => new()
    {
        Period = PeriodOf(result) is { } period ? PeriodGrammar.Parse(period, today, calendar) : null,
        Basis = One(result, ReportOptions.Basis) is { } basis
            ? (AccountingBasis)IndexOf(ReportOptions.Basis, basis, AccountingBases.Names) : null,
        By = One(result, ReportOptions.By) is { } unit
            ? (TimeUnit)IndexOf(ReportOptions.By, unit, FiscalCalendar.UnitNames) : null,
        Compare = [.. Many(result, ReportOptions.Compare).Select(with => Comparison.Parse(with, today, calendar))],
        Change = result.GetValue<bool>($"--{ReportOptions.Change.Name}"),
        Percent = [.. Many(result, ReportOptions.Percent).SelectMany(list => list.Split(','))
            .Select(of => (PercentOf)IndexOf(ReportOptions.Percent, of, ReportOptions.Percent.Words))],
        Zeros = result.GetValue<bool>($"--{ReportOptions.Zeros.Name}"),
        Depth = One(result, ReportOptions.Depth) is { } depth ? DepthOf(depth) : null,
        Title = One(result, ReportOptions.Title),
    };

    // One or the other: a moment is the end of a period.
    private static string? PeriodOf(ParseResult result) =>
        (One(result, ReportOptions.Period), One(result, ReportOptions.AsOf)) is var (period, moment) && period is not null && moment is not null
            ? throw new ProblemException(
                ProblemKind.Usage, "--period and --as-of both say when.", "Give one of them; with --by, --period.")
            : period ?? moment;

    private static string? One(ParseResult result, ReportOption option) => result.GetValue<string?>($"--{option.Name}");

    private static string[] Many(ParseResult result, ReportOption option) =>
        result.GetValue<string[]?>($"--{option.Name}") ?? [];

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

    private static int DepthOf(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var depth)
            ? depth
            : throw new ProblemException(
                ProblemKind.Usage, $"--depth does not take \"{text}\".", "It takes a whole number: 0 for totals alone, 1, 2 …");

    private static ReportFormat FormatOf(ParseResult result)
    {
        var names = ReportFormat.All.Select(format => format.Name).ToList();
        if (result.GetValue(Format) is { } name)
        {
            return ReportFormat.All.FirstOrDefault(format => format.Name == name) ?? throw new ProblemException(
                ProblemKind.Usage, $"--format does not take \"{name}\".",
                Suggestion.DidYouMean(name, names) ?? $"It takes {Suggestion.Listed(names, "or")}.");
        }

        return result.GetValue(To) is not { } path ? ReportFormat.All[0]
            : ReportFormat.ForFile(path) ?? throw new ProblemException(
                ProblemKind.Usage, $"The ending of {path} says no format.",
                $"End it in .txt, .csv or .json, or add --format {Suggestion.Listed(names, "or")}.");
    }

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
