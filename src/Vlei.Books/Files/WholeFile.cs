using System.Collections.Concurrent;
using System.Security.Cryptography;

namespace Vlei.Books.Files;

/// <summary>
/// A file that is there as a whole or not at all: it is written beside its place, under a name that nobody can foresee, is on the
/// disk before it takes its place, and keeps the permissions of the one that was there. A link stays one, and what it leads to is
/// written. What is no regular file, as a pipe or a device, is written as it is: a file in its place would take it away from
/// everybody.
/// </summary>
public sealed class WholeFile : IDisposable
{
    private const string Beginning = ".vlei-";
    private const string Ending = ".tmp";
    private const int RandomBytes = 8;
    private const int BufferBytes = 1 << 16;

    private static readonly TimeSpan Stale = TimeSpan.FromDays(1);
    private static readonly ConcurrentDictionary<string, bool> Cleared = new(StringComparer.Ordinal);

    private readonly string? _unfinished;
    private bool _isDone;

    private WholeFile(string path, string? unfinished, FileStream stream) => (Path, _unfinished, Stream) = (path, unfinished, stream);

    /// <summary>Where it is, behind any link.</summary>
    public string Path { get; }

    /// <summary>What is written into it.</summary>
    public FileStream Stream { get; }

    /// <summary>Whether it is a regular file, rather than a pipe or a device.</summary>
    public bool IsRegular => _unfinished is not null;

    /// <summary>
    /// Begins to write a file. Throws an <see cref="IOException"/> or an <see cref="UnauthorizedAccessException"/> where it
    /// cannot.
    /// </summary>
    /// <param name="path">Where.</param>
    /// <param name="isPrivate">Whether nobody else may read it, where it is not there yet.</param>
    public static WholeFile Begin(string path, bool isPrivate = false)
    {
        var target = Behind(path);
        var there = FileState.Of(target);
        if (there is { IsRegular: false, IsFolder: false })
        {
            return new WholeFile(target, null, new FileStream(target, FileMode.Open, FileAccess.Write, FileShare.ReadWrite));
        }

        if (there is { IsFolder: true })
        {
            throw new IOException("It is a folder.");
        }

        var folder = System.IO.Path.GetDirectoryName(System.IO.Path.GetFullPath(target))!;
        ClearStale(folder);
        var name = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(RandomBytes));
        var unfinished = System.IO.Path.Combine(folder, $"{Beginning}{name}{Ending}");
        var stream = new FileStream(unfinished, new FileStreamOptions
        {
            Mode = FileMode.CreateNew, Access = FileAccess.Write, BufferSize = BufferBytes,
            UnixCreateMode = there?.Mode ?? (isPrivate ? UnixFileMode.UserRead | UnixFileMode.UserWrite : null),
        });
        return new WholeFile(target, unfinished, stream);
    }

    /// <summary>Writes a whole file. Throws as <see cref="Begin"/> does.</summary>
    /// <param name="path">Where.</param>
    /// <param name="write">What is written.</param>
    /// <param name="isPrivate">Whether nobody else may read it, where it is not there yet.</param>
    public static void Write(string path, Action<Stream> write, bool isPrivate = false)
    {
        using var file = Begin(path, isPrivate);
        write(file.Stream);
        file.Commit();
    }

    /// <summary>Puts it in its place. Throws as <see cref="Begin"/> does; then what was there is as it was.</summary>
    public void Commit()
    {
        Stream.Flush(flushToDisk: IsRegular);
        if (_unfinished is not null)
        {
            // What the mask of the process took from the permissions of the old file is given back.
            if (FileState.Of(Path) is { } there && there.Mode != File.GetUnixFileMode(Stream.SafeFileHandle))
            {
                File.SetUnixFileMode(Stream.SafeFileHandle, there.Mode);
            }

            Stream.Dispose();
            File.Move(_unfinished, Path, overwrite: true);
        }

        _isDone = true;
    }

    /// <summary>Lets go of it; what was not put in its place is gone.</summary>
    public void Dispose()
    {
        try
        {
            Stream.Dispose();
        }
        catch (Exception cannot) when (!_isDone && cannot is IOException or UnauthorizedAccessException or ArgumentOutOfRangeException)
        {
            // What is not kept need not be written to its end.
        }

        if (!_isDone && _unfinished is not null)
        {
            File.Delete(_unfinished);
        }
    }

    private static string Behind(string path) => new FileInfo(path) is { LinkTarget: not null } link
        ? (link.ResolveLinkTarget(returnFinalTarget: true) ?? link).FullName : path;

    // What a killed process left is taken away, once for each folder: somebody else may be writing now.
    private static void ClearStale(string folder)
    {
        if (!Cleared.TryAdd(folder, true) || !Directory.Exists(folder))
        {
            return;
        }

        foreach (var left in Directory.EnumerateFiles(folder, $"{Beginning}*{Ending}"))
        {
            if (DateTime.UtcNow - File.GetLastWriteTimeUtc(left) > Stale)
            {
                File.Delete(left);
            }
        }
    }
}
