using System.Diagnostics;

namespace Vlei.Tests.Browsing;

/// <summary>A terminal of some size, through tmux, in which the program is driven by keys and read from the screen.</summary>
public sealed class TerminalSession : IDisposable
{
    private const string Session = "vlei";
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    private readonly string _socket;

    /// <summary>Starts the program in a folder of the tool.</summary>
    public TerminalSession(Tool tool, int columns, int lines, string arguments, string folder = "reedwater")
    {
        _socket = tool.PathOf("tmux");
        var start = new ProcessStartInfo("tmux",
        [
            "-S", _socket, "-f", "/dev/null", "new-session", "-d", "-s", Session, "-x", $"{columns}", "-y", $"{lines}",
            $"'{Tool.Binary}' {arguments}; echo \"left with $?\"; cat",
        ])
        { WorkingDirectory = tool.PathOf(folder) };
        Tool.SetUp(start, tool.Folder);
        Wait(start);
    }

    /// <summary>Types keys, as tmux names them, one after the other.</summary>
    public TerminalSession Type(params string[] keys)
    {
        Tmux(["send-keys", "-t", Session, "--", .. keys]);
        return this;
    }

    /// <summary>Types words as they are.</summary>
    public TerminalSession Write(string words)
    {
        Tmux(["send-keys", "-t", Session, "-l", "--", words]);
        return this;
    }

    /// <summary>Gives the terminal another size.</summary>
    public void Resize(int columns, int lines) => Tmux(["resize-window", "-t", Session, "-x", $"{columns}", "-y", $"{lines}"]);

    /// <summary>The lines of the screen, once something holds for them; fails where that never does.</summary>
    public string[] When(Func<string[], bool> holds)
    {
        // What is seen twice is not half drawn.
        var (waited, before) = (Stopwatch.StartNew(), "");
        while (true)
        {
            var seen = Tmux("capture-pane", "-p", "-t", Session).TrimEnd('\n');
            var lines = seen.Split('\n');
            if (seen == before && holds(lines))
            {
                return lines;
            }

            before = seen;

            Assert.True(waited.Elapsed < Longest, string.Join('\n', lines));
            Thread.Sleep(10);
        }
    }

    /// <summary>The lines of the screen, once one of them has some words.</summary>
    public string[] WhenItSays(string words) =>
        When(lines => lines.Any(line => line.Contains(words, StringComparison.Ordinal)));

    /// <summary>The command at the foot, which may go over several lines; empty where none stands there yet.</summary>
    public static string CommandOn(string[] lines) =>
        Array.FindLastIndex(lines, line => line.StartsWith("vlei ", StringComparison.Ordinal)) is >= 0 and var first
            ? string.Join(' ', lines[first..^1]) : "";

    /// <summary>Ends the terminal, and what still runs in it.</summary>
    public void Dispose() => Tmux("kill-server");

    private string Tmux(params string[] arguments) =>
        Wait(new ProcessStartInfo("tmux", ["-S", _socket, .. arguments]) { RedirectStandardOutput = true });

    private static string Wait(ProcessStartInfo start)
    {
        using var process = Process.Start(start)!;
        var output = start.RedirectStandardOutput ? process.StandardOutput.ReadToEnd() : "";
        process.WaitForExit();
        Assert.Equal(0, process.ExitCode);
        return output;
    }
}
