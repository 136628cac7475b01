using System.Diagnostics;

namespace Vlei.Tests.Documents;

/// <summary>Runs programs that are not ours, on what ours wrote.</summary>
internal static class Shell
{
    /// <summary>What it prints; fails the test where it fails.</summary>
    public static string Run(string folder, string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments)
        {
            WorkingDirectory = folder,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["HOME"] = folder;
        using var process = Process.Start(start)!;
        var messages = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        Assert.True(process.ExitCode == 0, $"{program} {string.Join(' ', arguments)}: {process.ExitCode}\n{messages.Result}\n{output}");
        return output;
    }
}
