using System.CommandLine;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>What a command is for, what it takes, and command lines that work.</summary>
internal static class CommandHelp
{
    private static readonly (ReportQuestion Question, string Heading)[] Questions =
    [
        (ReportQuestion.Days, "Which days?"), (ReportQuestion.Records, "Which records?"), (ReportQuestion.Groups, "Grouped how?"),
        (ReportQuestion.Beside, "Beside what?"), (ReportQuestion.Columns, "Which columns?"),
        (ReportQuestion.Rows, "Which rows, once added up?"), (ReportQuestion.Order, "In which order?"),
        (ReportQuestion.Look, "Looking how?"),
    ];

    /// <summary>Writes it.</summary>
    public static void Write(DocumentedCommand command, HelpPage page)
    {
        page.Paragraph($"{command.Description}.");
        page.Paragraph($"Usage: {UsageOf(command)}");
        page.Pairs("What it takes:", [.. command.Arguments.Where(argument => !argument.Hidden)
            .Select(argument => (argument.Name, argument.Description ?? ""))]);
        var own = command.Options.Where(option => !option.Hidden && !command.OfReports.Contains(option)).ToList();
        if (command.ExplainsReports)
        {
            Options(page, ReportOptions.All);
            var others = command.OfReports.Where(option => ReportOptions.All.All(known => $"--{known.Name}" != option.Name));
            page.Pairs("Going where?", PairsOf(own.Concat(others)), isTight: true, WidthOf(ReportOptions.All));
            page.Paragraph("vlei show REPORT --help tells which a report takes; vlei help periods, selecting, columns, "
                + "formulas, comparing, looks explain their values.");
        }
        else
        {
            page.Pairs("Options:", PairsOf(own));
            if (command.OfReports.Count > 0)
            {
                page.Words(
                    "Options of the report, as vlei show --help explains them:",
                    string.Join(' ', command.OfReports.Select(option => option.Name)));
            }
        }

        page.Examples(command.Examples);
        page.Paragraph("Everywhere: --book DIR, --clock DATE, --no-pager. vlei help lists more to read.");
    }

    /// <summary>Options of reports, under the questions that they answer.</summary>
    /// <param name="page">Where they are written.</param>
    /// <param name="options">The options.</param>
    /// <param name="defaultOf">What stands where one is not typed; nothing where that goes without saying.</param>
    public static void Options(
        HelpPage page, IReadOnlyCollection<ReportOption> options, Func<ReportOption, string?>? defaultOf = null)
    {
        var (isFirst, named) = (true, WidthOf(options));
        foreach (var (question, heading) in Questions)
        {
            page.Pairs(
                heading,
                [.. options.Where(option => option.Question == question).Select(option => (
                    TypedAs(option), defaultOf?.Invoke(option) is { } usual ? $"{option.Summary}; here {usual}" : option.Summary))],
                isTight: !isFirst, named);
            isFirst = false;
        }
    }

    private static List<(string Name, string Meaning)> PairsOf(IEnumerable<Option> options) =>
        [.. options.Select(option => ($"{option.Name}{(option.HelpName is { } value ? $" {value}" : "")}", option.Description ?? ""))];

    private static int WidthOf(IReadOnlyCollection<ReportOption> options) => options.Max(option => TypedAs(option).Length);

    private static string TypedAs(ReportOption option) => option.ValueName is { } value ? $"--{option.Name} {value}" : $"--{option.Name}";

    private static string UsageOf(DocumentedCommand command) => string.Concat(
        $"vlei {command.Name}", string.Concat(command.Arguments.Select(UsageOf)), command.Options.Count > 0 ? " [OPTION]…" : "");

    private static string UsageOf(Argument argument)
    {
        var name = argument.Arity.MaximumNumberOfValues > 1 ? $"{argument.Name}…" : argument.Name;
        return argument.Arity.MinimumNumberOfValues == 0 ? $" [{name}]" : $" {name}";
    }
}
