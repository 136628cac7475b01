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
        try
        {
            // What opens it goes on by itself, and says nothing where reports are read.
            using var opening = Process.Start(
                new ProcessStartInfo("xdg-open", [Path.GetFullPath(path)]) { RedirectStandardOutput = true, UseShellExecute = false });
        }
        catch (Win32Exception missing)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{path} is written; it cannot be opened: xdg-open is not here.",
                "Open it by hand, or install xdg-utils.", missing);
        }
    }
}
