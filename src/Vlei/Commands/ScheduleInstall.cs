using System.CommandLine;
using System.ComponentModel;
using System.Diagnostics;
using System.IO.Hashing;
using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary>
/// <c>vlei schedule install</c>: a timer of systemd for the person, or a line of crontab (POSIX), that does what is due every five minutes.
/// </summary>
internal static class ScheduleInstall
{
    private const string Begin = "# vlei schedule ";

    /// <summary>Whether cron is to do it.</summary>
    public static Option<bool> Cron { get; } = new("--cron")
    {
        Description = "With install: a line of crontab, instead of a timer of systemd",
    };

    /// <summary>Whether what was installed is to be taken away.</summary>
    public static Option<bool> Remove { get; } = new("--remove")
    {
        Description = "With install: take away what was installed for these books",
    };

    /// <summary>Does it.</summary>
    public static int Run(ParseResult result)
    {
        // A pattern stays one, so that a book that is added later is looked at too.
        _ = ScheduleCommand.BooksOf(result);
        string[] books = result.GetValue(ScheduleCommand.OfBooks) is { Length: > 0 } patterns
            ? [.. patterns.SelectMany(pattern => new[] { "--books", Full(pattern) })]
            : ["--book", Full(BookOptions.Named(result) ?? BookOptions.OpenBook(result).Folder)];
        var name = "vlei-schedule-" + Convert.ToHexStringLower(XxHash32.Hash(Encoding.UTF8.GetBytes(string.Join('\n', books))));
        string[] command = [Environment.ProcessPath!, "schedule", "due", .. books];
        return result.GetValue(Cron) ? InCrontab(name, command, result.GetValue(Remove))
            : InSystemd(name, command, result.GetValue(Remove));
    }

    private static string Full(string path) =>
        path.Contains("://", StringComparison.Ordinal) ? path : Path.GetFullPath(path);

    private static int InCrontab(string name, string[] command, bool isRemoved)
    {
        var (_, there) = Start("crontab", ["-l"], null);
        var mark = Begin + name;
        var lines = there.Split('\n').ToList();
        if (lines.IndexOf(mark) is >= 0 and var place)
        {
            lines.RemoveRange(place, Math.Min(2, lines.Count - place));
        }
        else if (isRemoved)
        {
            throw new ProblemException(ProblemKind.NotFound, "The crontab has no line for these books.", "crontab -l shows it.");
        }

        // A percent sign is a line's end there.
        var text = string.Join('\n', lines).TrimEnd('\n');
        text = isRemoved ? text
            : $"{text}{(text.Length > 0 ? "\n" : "")}{mark}\n*/5 * * * "
                + $"* {string.Join(' ', command.Select(Quoted)).Replace("%", "\\%", StringComparison.Ordinal)}";
        var (status, said) = Start("crontab", ["-"], $"{text}\n");
        if (status != 0)
        {
            throw new ProblemException(ProblemKind.CannotWrite, $"crontab refuses it: {said.Trim()}", "May you use cron here?");
        }

        Terminal.Say(
            isRemoved ? "The line is taken out of the crontab." : "cron looks every five minutes for what is due; crontab -l shows it.");
        return ExitStatus.Done;
    }

    private static int InSystemd(string name, string[] command, bool isRemoved)
    {
        var config = Environment.GetEnvironmentVariable("XDG_CONFIG_HOME") is { Length: > 0 } said ? said
            : Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".config");
        var folder = Path.Combine(config, "systemd", "user");
        var (service, timer) = (Path.Combine(folder, $"{name}.service"), Path.Combine(folder, $"{name}.timer"));
        if (isRemoved)
        {
            if (!File.Exists(timer))
            {
                throw new ProblemException(ProblemKind.NotFound, $"There is no {timer}.", "Nothing is installed for these books.");
            }

            _ = Start("systemctl", ["--user", "disable", "--now", $"{name}.timer"], null);
            File.Delete(timer);
            File.Delete(service);
            Terminal.Say($"{timer} is removed.");
            return ExitStatus.Done;
        }

        _ = Directory.CreateDirectory(folder);
        File.WriteAllText(
            service,
            $"[Unit]\nDescription=Reports that are due\n\n[Service]\nType=oneshot\nExecStart={string.Join(' ', command.Select(InUnit))}\n"
                + "SuccessExitStatus=1 75\n");
        File.WriteAllText(
            timer,
            "[Unit]\nDescription=Looks every five minutes for reports that are due\n\n[Timer]\nOnCalendar=*:0/5\nPersistent=true\n\n"
                + "[Install]\nWantedBy=timers.target\n");
        var (reloaded, why) = Start("systemctl", ["--user", "daemon-reload"], null);
        var (enabled, whyNot) = reloaded != 0 ? (reloaded, why) : Start("systemctl", ["--user", "enable", "--now", $"{name}.timer"], null);
        if (enabled != 0)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{timer} is written, but systemd does not start it: {whyNot.Trim().ReplaceLineEndings(" ")}",
                "Try vlei schedule install --cron, or run vlei schedule due every five minutes by another means.");
        }

        Terminal.Say(
            $"{timer} looks every five minutes for what is due. So that it does while you are not logged in: loginctl enable-linger");
        return ExitStatus.Done;
    }

    private static string Quoted(string word) => $"'{word.Replace("'", "'\\''", StringComparison.Ordinal)}'";

    // systemd reads percent signs and dollars in a command as its own.
    private static string InUnit(string word) => "\"" + word.Replace("\\", "\\\\", StringComparison.Ordinal)
        .Replace("\"", "\\\"", StringComparison.Ordinal).Replace("%", "%%", StringComparison.Ordinal)
        .Replace("$", "$$", StringComparison.Ordinal) + "\"";

    private static (int Status, string Said) Start(string program, string[] words, string? input)
    {
        try
        {
            using var process = Process.Start(new ProcessStartInfo(program, words)
            {
                RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true, UseShellExecute = false,
            })!;
            var errors = process.StandardError.ReadToEndAsync();
            process.StandardInput.Write(input ?? "");
            process.StandardInput.Close();
            var said = process.StandardOutput.ReadToEnd();
            process.WaitForExit();
            return (process.ExitCode, process.ExitCode == 0 ? said : errors.GetAwaiter().GetResult());
        }
        catch (Win32Exception none)
        {
            return (none.NativeErrorCode, $"there is no program {program}.");
        }
    }
}
