using System.CommandLine;
using Spectre.Console;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>What is known of the place that output goes to, and the messages beside it.</summary>
internal static class Terminal
{
    private const int SecondsBeforeProgress = 1;
    private static readonly string[] LocaleVariables = ["LC_ALL", "LC_CTYPE", "LANG"];

    /// <summary>Whether what is longer than the terminal goes through no pager.</summary>
    public static Option<bool> NoPager { get; } = new("--no-pager")
    {
        Description = "Write to the terminal as it is, however long it is", Recursive = true,
    };

    /// <summary>Whether a pager may be used.</summary>
    public static bool UsesPager { get; set; } = true;

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

    /// <summary>Whether somebody is there to answer.</summary>
    public static bool CanAsk => !Console.IsInputRedirected && !Console.IsErrorRedirected;

    /// <summary>What a person answers to a question; empty where nothing is.</summary>
    public static string Ask(string question)
    {
        Console.Error.Write(CleanWriter.Clean($"{question}: "));
        return Console.ReadLine()?.Trim() ?? "";
    }

    /// <summary>Whether a person says yes to a question.</summary>
    public static bool Agrees(string question)
    {
        Console.Error.Write(CleanWriter.Clean($"{question} [y/n] "));
        return Console.ReadLine()?.Trim().ToLowerInvariant() is "y" or "yes";
    }

    /// <summary>Standard output, for lists of names and numbers.</summary>
    public static TextWriter Output() => new CleanWriter(new StreamWriter(OutputStream()));

    /// <summary>Standard output: through a pager where it is a terminal, and what is written does not fit on it.</summary>
    public static Stream OutputStream()
    {
        var output = Console.OpenStandardOutput();
        return Console.IsOutputRedirected || !UsesPager || Pager() is not { } pager || Console.WindowHeight is not (> 0 and var lines)
            ? output : new PagedOutput(output, pager, lines);
    }

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

    // Nothing where a person wants none: an empty name says so.
    private static string? Pager()
    {
        const string Usual = "less -FRSX";
        var named = Environment.GetEnvironmentVariable("VLEI_PAGER") ?? Environment.GetEnvironmentVariable("PAGER") ?? Usual;
        return named.Length == 0 || named == "cat" || !IsThere(named) ? null : named;
    }

    // A pager that is not there would take what is written with it.
    private static bool IsThere(string pager)
    {
        var program = pager.Split(' ').FirstOrDefault(word => word.Length > 0 && !word.Contains('=', StringComparison.Ordinal)) ?? "";
        return program.Contains('/', StringComparison.Ordinal) ? File.Exists(program)
            : (Environment.GetEnvironmentVariable("PATH") ?? "").Split(':').Any(folder => File.Exists(Path.Combine(folder, program)));
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
