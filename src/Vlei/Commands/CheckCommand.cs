using System.CommandLine;
using Vlei.Books;

namespace Vlei.Commands;

/// <summary><c>vlei check</c>: everything that should tie, ties.</summary>
internal static class CheckCommand
{
    private static readonly Option<bool> Rebuild = new("--rebuild")
    {
        Description = "Make the derived columns anew from the records first",
    };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("check", "Prove that everything in the book that should tie does")
        {
            Examples = [("vlei check", "check the book here"), ("vlei check --rebuild", "mend damaged columns")],
        };
        command.Options.Add(Rebuild);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var book = BookOptions.OpenBook(result);
        if (result.GetValue(Rebuild))
        {
            Terminal.WithProgress(progress =>
            {
                BookCheck.Rebuild(book, progress);
                return true;
            });
        }

        var checks = Terminal.WithProgress(progress => BookCheck.Run(book, progress));
        using var output = new StreamWriter(Console.OpenStandardOutput());
        foreach (var check in checks)
        {
            output.WriteLine($"{(check.Ok ? "ok    " : "FAILED")}  {check.Name}");
            foreach (var fault in check.Faults)
            {
                output.WriteLine($"        {fault}");
            }
        }

        return checks.All(check => check.Ok) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }
}
