using System.CommandLine;
using System.Security.Cryptography;
using System.Text;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Deliveries;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>In which format a report is written, and where to.</summary>
internal sealed class ReportDestination
{
    private readonly Option<string?> _format = new("--format")
    {
        Description = Suggestion.Listed([.. ReportFormat.All.Select(format => format.Name)], "or"),
        HelpName = "FORMAT",
    };

    private readonly Option<string[]> _to = new("--to")
    {
        Description = "The file, by its ending; FOLDER/: statements of account",
        HelpName = "FILE",
    };

    private readonly Option<string?> _print = PrintOption();

    private readonly Option<bool> _open = new("--open") { Description = "Open what was written on the desktop" };

    /// <summary>The option to print what is made.</summary>
    public static Option<string?> PrintOption() => new("--print")
    {
        Description = "Print it, on the usual printer or on this one", HelpName = "PRINTER", Arity = ArgumentArity.ZeroOrOne,
    };

    /// <summary>The printer that is meant, empty for the usual one; nothing where nothing is printed.</summary>
    public static string? PrinterIn(ParseResult result, Option<string?> print) =>
        result.GetResult(print) is { Implicit: false } ? result.GetValue(print) ?? "" : null;

    /// <summary>Adds the options to a command.</summary>
    public ReportDestination(Command command)
    {
        _format.CompletionSources.Add([.. ReportFormat.All.Select(format => format.Name)]);
        foreach (var option in Options)
        {
            command.Options.Add(option);
        }
    }

    private Option[] Options => [_format, _to, _print, _open, Destination.Overwrite];

    /// <summary>
    /// Where the report goes, and as what. Throws a <see cref="ProblemException"/> where there is no such format, where a
    /// format cannot go there, or where somebody's work would be written over.
    /// </summary>
    public IReadOnlyList<ReportTarget> TargetsOf(ParseResult result)
    {
        var paths = result.GetValue(_to) ?? [];
        var named = result.GetValue(_format) is { } name ? ReportFormat.Named("--format", [name])[0] : null;
        var folder = IsFolder(result);
        if (Contradiction(result, paths, named, folder) is var (problem, advice))
        {
            throw new ProblemException(ProblemKind.Usage, problem, advice);
        }

        if (!folder)
        {
            Array.ForEach(paths, path => Destination.RefuseForeign(result, path));
        }

        if (PrinterIn(result, _print) is { } printer)
        {
            var pages = new ReportTarget(null, ReportFormat.Named("--print", ["pdf"])[0]) { Printer = printer };
            return [.. paths.Select(path => new ReportTarget(path, named ?? FormatFor(path))), pages];
        }

        return paths.Length == 0 ? [new ReportTarget(null, named ?? ReportFormat.All[0])]
            : [.. paths.Select(path => new ReportTarget(path, named ?? (folder ? ReportFormat.All[0] : FormatFor(path))))];
    }

    /// <summary>The same, where the command has reports' options too: those that no format has that is written are refused.</summary>
    public IReadOnlyList<ReportTarget> TargetsOf(ParseResult result, ReportArguments arguments)
    {
        var targets = TargetsOf(result);
        TypedLooks.RefuseOfNoFormat(arguments.TypedNames(result), [.. targets.Select(target => target.Format)]);
        return targets;
    }

    /// <summary>Writes the report. The status says whether its checks hold.</summary>
    public int Write(ParseResult result, IReadOnlyList<ReportTarget> targets, Report report) => Write(result, targets, [report]);

    /// <summary>Writes several reports, one after the other.</summary>
    public int Write(ParseResult result, IReadOnlyList<ReportTarget> targets, IReadOnlyList<Report> reports)
    {
        if (IsFolder(result))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{targets[0].Path} is a folder, and this is one report.",
                "Name a file; a folder is for statements of account, a file each.");
        }

        WriteTo(targets, reports[0].Title, (target, stream, surface) => target.Format.WriteAll(reports, stream, surface));
        Open(result, targets);
        return reports.All(report => report.Checks.All(check => check.Ok)) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    /// <summary>Writes a page of panels.</summary>
    public int WritePage(ParseResult result, IReadOnlyList<ReportTarget> targets, Page page)
    {
        foreach (var target in targets)
        {
            PageFormats.RefuseOther(page.Key, target.Format);
        }

        WriteTo(targets, page.Title, (target, stream, surface) => PageFormats.Write(page, target.Format, stream, surface));
        Open(result, targets);
        return ExitStatus.Done;
    }

    /// <summary>Whether something is said of where it goes, or as what.</summary>
    public bool IsTyped(ParseResult result) => Array.Exists(Options, option => result.GetResult(option) is { Implicit: false });

    /// <summary>Refuses its options where nothing is written that they could be about.</summary>
    public void RefuseIn(ParseResult result, string why)
    {
        if (Options.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } option)
        {
            throw new ProblemException(ProblemKind.Usage, $"{option.Name} {why}.", "Leave it out.");
        }
    }

    /// <summary>Whether <c>--to</c> names a folder, for a file each.</summary>
    public bool IsFolder(ParseResult result) => result.GetValue(_to) is { } paths && Array.Exists(paths, IsFolder);

    /// <summary>
    /// Writes several reports into the folder, a file each, and tells on standard error how many. The status says whether all
    /// checks hold.
    /// </summary>
    public int WriteEach(ParseResult result, ReportTarget target, IEnumerable<(string Name, Report Report)> reports)
    {
        var (folder, format) = (target.Path!, target.Format);
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
        Destination.WriteEach(reports.Select(one =>
        {
            count++;
            var path = Path.Combine(folder, $"{FileNameOf(one.Name)}.{format.Ending}");
            Destination.RefuseForeign(result, path);
            if (one.Report.Checks.Any(check => !check.Ok))
            {
                failed.Add(one.Name);
            }

            return (path, (Action<Stream, Surface>)((stream, look) => format.Write(one.Report, stream, look)));
        }));
        Open(result, [target]);
        Terminal.Say($"{count} {(count == 1 ? "file" : "files")} in {folder}");
        if (failed.Count > 0)
        {
            Terminal.Say($"A check failed in {string.Join(", ", failed)}.");
        }

        return failed.Count == 0 ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    // An id is a person's own choice of letters; a file's name is not. No two ids have the same, however long they are.
    private static string FileNameOf(string name)
    {
        const int MostBytes = 180;
        const int MostLetters = 40;
        var safe = string.Concat(name.Select((letter, place) =>
            char.IsLetterOrDigit(letter) || letter is '-' or '_' || (letter == '.' && place > 0) ? $"{letter}" : $"%{(int)letter:X2}"));
        return Encoding.UTF8.GetByteCount(safe) <= MostBytes ? safe
            : $"{safe[..MostLetters]}%{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(name)))}";
    }

    /// <summary>The format that the ending of a file says. Throws a <see cref="ProblemException"/> where it says none.</summary>
    public static ReportFormat FormatFor(string path)
    {
        var names = ReportFormat.All.Select(format => format.Name).ToList();
        return ReportFormat.ForFile(path) ?? throw new ProblemException(
            ProblemKind.Usage, $"The ending of {path} says no format.",
            $"End it in {Suggestion.Listed([.. ReportFormat.All.Select(format => $".{format.Ending}")], "or")}, or add "
                + $"--format {Suggestion.Listed(names, "or")}.");
    }

    private static void WriteTo(IReadOnlyList<ReportTarget> targets, string title, Action<ReportTarget, Stream, Surface> write)
    {
        foreach (var target in targets)
        {
            if (target.Printer is { } printer)
            {
                using var pages = new MemoryStream();
                write(target, pages, Surface.OfFile(ChartProgram.Beside));
                PrinterRoute.Print(printer, title, pages.ToArray());
            }
            else
            {
                Destination.Write(target.Path, (stream, look) => write(target, stream, look));
            }
        }
    }

    private static bool IsFolder(string path) => path.EndsWith('/') || Directory.Exists(path);

    private (string Problem, string Advice)? Contradiction(ParseResult result, string[] paths, ReportFormat? named, bool folder) =>
        paths.Length > 1 && named is not null
            ? ("--format is for one file, and --to names several.", "Leave --format out: the ending of each file says its format.")
        : paths.Length == 0 && named is { IsBinary: true } && !Console.IsOutputRedirected
            ? ($"{named.Name} is for a file, and this is a terminal.", "Add --to FILE.")
        : result.GetResult(_print) is { Implicit: false } && folder ? ("--print is for one report, and --to is a folder.", "Print one.")
        : result.GetResult(_print) is { Implicit: false } && named is not null && paths.Length == 0
            ? ("--format is for a file, and the printer takes pages.", "Leave it out, or add --to FILE.")
        : Array.Exists(paths, string.IsNullOrWhiteSpace) ? ("--to names no file.", "Name one: --to report.pdf.")
        : paths.Contains("-")
            ? ("--to - names no file.", "Leave --to out: a report goes to standard output then, in the format that --format says.")
        : paths.Length > 1 && folder ? ("--to names a folder and something else.", "Name the folder alone, or files.")
        : paths.GroupBy(Path.GetFullPath).FirstOrDefault(same => same.Count() > 1) is { } twice
            ? ($"--to names {twice.First()} twice.", "Name each file once.")
        : result.GetValue(Destination.Overwrite) && paths.Length == 0
            ? ("--overwrite is for a file, and none is written.", "Add --to FILE.")
        : result.GetValue(_open) && paths.Length == 0 ? ("--open is for a file, and none is written.", "Add --to FILE.")
        : null;

    private void Open(ParseResult result, IReadOnlyList<ReportTarget> targets)
    {
        if (result.GetValue(_open))
        {
            foreach (var target in targets)
            {
                Desktop.Open(target.Path!);
            }
        }
    }
}
