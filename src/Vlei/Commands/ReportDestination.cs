using System.CommandLine;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>In which format a report is written, and where to.</summary>
internal sealed class ReportDestination
{
    private readonly Option<string?> _format = new("--format")
    {
        Description = $"{Suggestion.Listed([.. ReportFormat.All.Select(format => format.Name)], "or")} (else by the ending of --to, else text)",
        HelpName = "FORMAT",
    };

    private readonly Option<string?> _to = new("--to")
    {
        Description = "The file to write, instead of standard output",
        HelpName = "FILE",
    };

    /// <summary>Adds the options to a command.</summary>
    public ReportDestination(Command command)
    {
        _format.CompletionSources.Add([.. ReportFormat.All.Select(format => format.Name)]);
        command.Options.Add(_format);
        command.Options.Add(_to);
    }

    /// <summary>Writes the report. The status says whether its checks hold.</summary>
    public int Write(ParseResult result, ReportFormat format, Report report) => Write(result, format, [report]);

    /// <summary>Writes several reports, one after the other.</summary>
    public int Write(ParseResult result, ReportFormat format, IReadOnlyList<Report> reports)
    {
        Destination.Write(result.GetValue(_to), (stream, look) =>
        {
            foreach (var report in reports)
            {
                if (report != reports[0])
                {
                    stream.WriteByte((byte)'\n');
                }

                format.Write(report, stream, look);
            }
        });
        return reports.All(report => report.Checks.All(check => check.Ok)) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    /// <summary>The format that is asked for. Throws a <see cref="ProblemException"/> where there is no such.</summary>
    public ReportFormat FormatOf(ParseResult result)
    {
        var names = ReportFormat.All.Select(format => format.Name).ToList();
        if (result.GetValue(_format) is { } name)
        {
            return ReportFormat.All.FirstOrDefault(format => format.Name == name) ?? throw new ProblemException(
                ProblemKind.Usage, $"--format does not take \"{name}\".",
                Suggestion.DidYouMean(name, names) ?? $"It takes {Suggestion.Listed(names, "or")}.");
        }

        return result.GetValue(_to) is not { } path ? ReportFormat.All[0]
            : ReportFormat.ForFile(path) ?? throw new ProblemException(
                ProblemKind.Usage, $"The ending of {path} says no format.",
                $"End it in .txt, .csv or .json, or add --format {Suggestion.Listed(names, "or")}.");
    }
}
