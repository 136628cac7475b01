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

        var unfinished = $"{path}.{Environment.ProcessId}.tmp";
        try
        {
            using (var file = File.Create(unfinished))
            {
                write(file, new TextLook(null, Ascii: false, Bold: false));
            }

            File.Move(unfinished, path, overwrite: true);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            if (File.Exists(unfinished))
            {
                File.Delete(unfinished);
            }

            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} cannot be written: {cannot.Message}", "Choose a place that you may write to.", cannot);
        }
    }
}
