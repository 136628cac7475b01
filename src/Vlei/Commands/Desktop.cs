using System.ComponentModel;
using System.Diagnostics;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary>The desktop that Vlei runs on, where there is one.</summary>
internal static class Desktop
{
    /// <summary>
    /// Has a file or a folder opened by what the person chose for its kind. Throws a <see cref="ProblemException"/> where
    /// there is nothing that opens files.
    /// </summary>
    public static void Open(string path)
    {
        var opener = Found("xdg-open") ?? throw new ProblemException(
            ProblemKind.NotFound, $"{path} is written; it cannot be opened: xdg-open is not here.",
            "Open it by hand, or install xdg-utils.");
        try
        {
            // What opens it goes on by itself, and says nothing where reports are read.
            using var opening = Process.Start(
                new ProcessStartInfo(opener, [Path.GetFullPath(path)]) { RedirectStandardOutput = true, UseShellExecute = false });
        }
        catch (Win32Exception cannot)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{path} is written; it cannot be opened: {cannot.Message}",
                "Open it by hand.", cannot);
        }
    }

    // In the folders of PATH that are named in full alone: what lies in the folder where somebody happens to be is not started.
    private static string? Found(string program) => (Environment.GetEnvironmentVariable("PATH") ?? "").Split(Path.PathSeparator)
        .Where(Path.IsPathFullyQualified).Select(folder => Path.Combine(folder, program)).FirstOrDefault(File.Exists);
}
