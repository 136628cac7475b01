using System.Runtime.InteropServices;

namespace Vlei.Commands;

/// <summary>Signals that would end the program where an error can be told and things be put back.</summary>
internal static partial class Signals
{
    // POSIX has the names; these are their numbers on Linux.
    private const int FileTooLarge = 25;
    private const nint Ignore = 1;

    /// <summary>A file that may not grow further is an error like a full disk, and no end without a word.</summary>
    public static void Quieten() => _ = Handle(FileTooLarge, Ignore);

    [LibraryImport("libc", EntryPoint = "signal")]
    private static partial nint Handle(int signal, nint handler);
}
