using Vlei.Core.Problems;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>Where a report goes: standard output, or a file that is there as a whole or not at all.</summary>
internal static class Destination
{
    /// <summary>Writes to the file, or to standard output where none is named.</summary>
    public static void Write(string? path, Action<Stream, TextLook> write)
    {
        if (path is null)
        {
            using var output = new BufferedStream(Console.OpenStandardOutput(), 1 << 16);
            write(output, Terminal.Look());
            return;
        }

        var named = new FileInfo(path);
        var target = named.LinkTarget is null ? named : named.ResolveLinkTarget(returnFinalTarget: true) as FileInfo ?? named;

        // A pipe or a device, which say that they are empty, is written as it is: a file in its place would take it away
        // from everybody.
        var direct = target.Exists ? target.Length == 0 : target != named;
        var unfinished = direct ? path : $"{target.FullName}.{Environment.ProcessId}.tmp";
        try
        {
            using (var file = new FileStream(unfinished, direct ? FileMode.Open : FileMode.Create, FileAccess.Write))
            {
                write(file, new TextLook(null, Ascii: false, Bold: false));
            }

            if (!direct)
            {
                File.Move(unfinished, target.FullName, overwrite: true);
            }
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            if (!direct && File.Exists(unfinished))
            {
                File.Delete(unfinished);
            }

            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} cannot be written: {cannot.Message}", "Choose a place that you may write to.", cannot);
        }
    }
}
