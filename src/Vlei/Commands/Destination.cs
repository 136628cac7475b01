using System.Collections.Concurrent;
using System.CommandLine;
using System.Runtime.ExceptionServices;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>Where a report goes: standard output, or a file that is there as a whole or not at all.</summary>
internal static class Destination
{
    /// <summary>Whether files that Vlei did not write may be written over.</summary>
    public static readonly Option<bool> Overwrite = new("--overwrite")
    {
        Description = "Also where the file is not as Vlei wrote it",
    };

    /// <summary>
    /// Refuses to write over what is somebody's work: a file that Vlei did not write, or that was changed since. Throws a
    /// <see cref="ProblemException"/> then, unless <see cref="Overwrite"/> is given; a file of a book is refused in any case.
    /// </summary>
    public static void RefuseForeign(ParseResult result, string path)
    {
        if (Book.HasAsItsOwn(Target(path).FullName))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} is a file of a book, and nothing else is written over it.", "Choose another name.");
        }

        if (!result.GetValue(Overwrite) && Target(path) is { Exists: true, Length: > 0 } there && !IsOurs(there.FullName))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} is there already, and is not as Vlei wrote it.",
                "Choose another name, or add --overwrite.");
        }
    }

    /// <summary>Writes to the file, or to standard output where none is named.</summary>
    public static void Write(string? path, Action<Stream, Surface> write)
    {
        if (path is null)
        {
            using var output = new BufferedStream(Terminal.OutputStream(), 1 << 16);
            write(output, Terminal.Look());
            return;
        }

        WriteEach([(path, write)]);
    }

    /// <summary>Writes files, some at a time, so that the disk can do those together.</summary>
    public static void WriteEach(IEnumerable<(string Path, Action<Stream, Surface> Write)> files)
    {
        const int AtOnce = 64;
        foreach (var some in files.Chunk(AtOnce))
        {
            var (begun, done) = (new List<(string Named, WholeFile File)>(), new ConcurrentQueue<string>());
            try
            {
                foreach (var (path, write) in some)
                {
                    Told(path, () =>
                    {
                        begun.Add((path, WholeFile.Begin(path)));
                        write(begun[^1].File.Stream, Surface.OfFile(ChartProgram.Beside));
                    });
                }

                Together(begun, one =>
                {
                    Told(one.Named, one.File.Commit);
                    if (one.File.IsRegular)
                    {
                        done.Enqueue(Path.GetFullPath(one.File.Path));
                    }
                });
            }
            finally
            {
                // Also where another could not be written: what is there may be written again.
                if (!done.IsEmpty)
                {
                    WrittenFiles.Note([.. done]);
                }

                begun.ForEach(one => one.File.Dispose());
            }
        }
    }

    private static void Together<T>(List<T> all, Action<T> done)
    {
        try
        {
            _ = Parallel.ForEach(all, done);
        }
        catch (AggregateException several)
        {
            ExceptionDispatchInfo.Throw(several.InnerExceptions[0]);
        }
    }

    // That a file would be larger than files may be is not told as a fault of writing.
    private static void Told(string path, Action write)
    {
        try
        {
            write();
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException
            or ArgumentOutOfRangeException { ParamName: "value" })
        {
            throw cannot is DirectoryNotFoundException
                ? new ProblemException(
                    ProblemKind.CannotWrite, $"{path} cannot be written: there is no folder {Path.GetDirectoryName(path)}.",
                    "Make the folder first, or choose another.", cannot)
                : new ProblemException(
                    ProblemKind.CannotWrite, $"{path} cannot be written: {cannot.Message}", "Choose a place that you may write to.",
                    cannot);
        }
    }

    // What cannot be read was not left by this person's Vlei.
    private static bool IsOurs(string path)
    {
        try
        {
            return WrittenFiles.IsOurs(path);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    private static FileInfo Target(string path)
    {
        var named = new FileInfo(path);
        return named.LinkTarget is null ? named : named.ResolveLinkTarget(returnFinalTarget: true) as FileInfo ?? named;
    }
}
