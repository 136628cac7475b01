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
        Description = "The file to write, instead of standard output; for statements of account, a FOLDER/ for a file each",
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
        if (IsFolder(result))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{result.GetValue(_to)} is a folder, and this is one report.",
                "Name a file; a folder is for statements of account, a file each.");
        }

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

    /// <summary>Refuses its options where nothing is written that they could be about.</summary>
    public void RefuseIn(ParseResult result, string why)
    {
        if (new Option[] { _format, _to }.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } option)
        {
            throw new ProblemException(ProblemKind.Usage, $"{option.Name} {why}.", "Leave it out.");
        }
    }

    /// <summary>Whether <c>--to</c> names a folder, for a file each.</summary>
    public bool IsFolder(ParseResult result) =>
        result.GetValue(_to) is { } path && (path.EndsWith('/') || Directory.Exists(path));

    /// <summary>
    /// Writes several reports into the folder, a file each, and tells on standard error how many. The status says whether all
    /// checks hold.
    /// </summary>
    public int WriteEach(ParseResult result, ReportFormat format, IEnumerable<(string Name, Report Report)> reports)
    {
        var folder = result.GetRequiredValue(_to)!;
        try
        {
            Directory.CreateDirectory(folder);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} cannot be made: {cannot.Message}", "Choose a folder that you may write to.", cannot);
        }

        var (count, failed) = (0, new List<string>());
        foreach (var (name, report) in reports)
        {
            count++;
            Destination.Write(Path.Combine(folder, $"{FileNameOf(name)}.{format.Ending}"), (stream, look) => format.Write(report, stream, look));
            if (report.Checks.Any(check => !check.Ok))
            {
                failed.Add(name);
            }
        }

        Console.Error.WriteLine($"{count} {(count == 1 ? "file" : "files")} in {folder}");
        if (failed.Count > 0)
        {
            Console.Error.WriteLine($"A check failed in {string.Join(", ", failed)}.");
        }

        return failed.Count == 0 ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    // An id is a person's own choice of letters; a file's name is not.
    private static string FileNameOf(string name) => string.Concat(name.Select(letter =>
        char.IsLetterOrDigit(letter) || letter is '-' or '_' or '.' ? $"{letter}" : $"%{(int)letter:X2}")) is var safe && safe.StartsWith('.')
            ? $"_{safe}" : safe;

    /// <summary>The format that is asked for. Throws a <see cref="ProblemException"/> where there is no such.</summary>
    public ReportFormat FormatOf(ParseResult result)
    {
        if (result.GetValue(_format) is { } name)
        {
            return ReportFormat.Named("--format", [name])[0];
        }

        return result.GetValue(_to) is not { } path || IsFolder(result) ? ReportFormat.All[0] : FormatFor(path);
    }

    /// <summary>The format that the ending of a file says. Throws a <see cref="ProblemException"/> where it says none.</summary>
    public static ReportFormat FormatFor(string path)
    {
        var names = ReportFormat.All.Select(format => format.Name).ToList();
        return ReportFormat.ForFile(path) ?? throw new ProblemException(
            ProblemKind.Usage, $"The ending of {path} says no format.",
            $"End it in {Suggestion.Listed([.. ReportFormat.All.Select(format => $".{format.Ending}")], "or")}, or add --format {Suggestion.Listed(names, "or")}.");
    }
}
