using Spectre.Console;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>What is known of the place that output goes to, and the messages beside it.</summary>
internal static class Terminal
{
    private const int SecondsBeforeProgress = 1;
    private static readonly string[] LocaleVariables = ["LC_ALL", "LC_CTYPE", "LANG"];

    /// <summary>How text on standard output may look.</summary>
    public static Surface Look()
    {
        var colour = !Console.IsOutputRedirected && !IsSet("NO_COLOR")
            && Environment.GetEnvironmentVariable("TERM") is not (null or "dumb");
        return new Surface(Width(), !IsUtf8(), colour, ChartProgram.Beside);
    }

    /// <summary>How many columns standard output has; nothing where it has no end.</summary>
    public static int? Width()
    {
        var columns = int.TryParse(Environment.GetEnvironmentVariable("COLUMNS"), out var set) && set > 0 ? set : (int?)null;
        return Console.IsOutputRedirected ? columns : Console.WindowWidth is > 0 and var window ? window : columns;
    }

    /// <summary>Says something to the person, on standard error; where nobody listens there, what was done is done all the same.</summary>
    public static void Say(string message)
    {
        try
        {
            Console.Error.WriteLine(CleanWriter.Clean(message));
        }
        catch (Exception closed) when (closed is IOException or UnauthorizedAccessException)
        {
            // It is closed, or what it goes to is full.
        }
    }

    /// <summary>Standard output, for lists of names and numbers.</summary>
    public static TextWriter Output() => new CleanWriter(new StreamWriter(Console.OpenStandardOutput()));

    /// <summary>
    /// Does some work; where it takes longer than a second and standard error is a terminal, shows there how far it is.
    /// </summary>
    public static T WithProgress<T>(Func<Action<string, long>, T> work)
    {
        var latest = "working";
        void Tell(string what, long done) => latest = done > 0 ? $"{what}: {done:N0}" : what;
        if (Console.IsErrorRedirected)
        {
            return work(Tell);
        }

        var task = Task.Run(() => work(Tell));
        if (!((IAsyncResult)task).AsyncWaitHandle.WaitOne(TimeSpan.FromSeconds(SecondsBeforeProgress)))
        {
            var console = AnsiConsole.Create(new AnsiConsoleSettings
            {
                Out = new AnsiConsoleOutput(Console.Error), Interactive = InteractionSupport.Yes,
            });
            console.Status().Start(latest, status =>
            {
                while (!((IAsyncResult)task).AsyncWaitHandle.WaitOne(TimeSpan.FromMilliseconds(100)))
                {
                    status.Status(Markup.Escape(latest));
                }
            });
        }

        return task.GetAwaiter().GetResult();
    }

    private static bool IsSet(string name) => !string.IsNullOrEmpty(Environment.GetEnvironmentVariable(name));

    // As POSIX has it: the first of these that is set says how characters are written.
    private static bool IsUtf8()
    {
        var locale = LocaleVariables
            .Select(Environment.GetEnvironmentVariable).FirstOrDefault(value => !string.IsNullOrEmpty(value));
        return locale is not null
            && (locale.Contains("UTF-8", StringComparison.OrdinalIgnoreCase)
                || locale.Contains("utf8", StringComparison.OrdinalIgnoreCase));
    }
}
