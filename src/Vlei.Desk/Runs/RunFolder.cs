using System.Runtime.InteropServices;
using System.Security.Cryptography;
using Vlei.Books.Files;
using Vlei.Core.Problems;

namespace Vlei.Desk.Runs;

/// <summary>
/// Where a group is produced for a period: <c>out/GROUP/PERIOD</c>. What is produced is gathered beside it and put in its
/// place as a whole, so that the folder holds one run or another, never a mixture and never half of one; what a person put
/// there, or changed there, is kept. Two runs of a group take turns, and each first clears up after one that was killed.
/// </summary>
public sealed partial class RunFolder : IDisposable
{
    private const string StagingEnding = ".new";
    private const string OldEnding = ".old";
    private const int AtWorkingDirectory = -100;
    private const uint Exchange = 2;

    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    // A link is not ours, and leads elsewhere.
    private static readonly EnumerationOptions OurFiles = new()
    {
        RecurseSubdirectories = true, AttributesToSkip = FileAttributes.ReparsePoint,
    };

    private readonly FileTurn _turn;
    private readonly string _folder;
    private readonly string _period;
    private readonly Action<string> _say;

    private RunFolder(FileTurn turn, string folder, string period, Action<string> say) =>
        (_turn, _folder, _period, _say) = (turn, folder, period, say);

    /// <summary>The folder that the run is for.</summary>
    public string Final => Path.Combine(_folder, _period);

    /// <summary>The folder in which it is gathered.</summary>
    public string Staging => Path.Combine(_folder, $".{_period}{StagingEnding}");

    /// <summary>The periods that the group was produced for, by the names of their folders.</summary>
    public IEnumerable<string> Periods => Directory.EnumerateDirectories(_folder).Select(path => Path.GetFileName(path)!)
        .Where(name => !name.StartsWith('.')).Order(StringComparer.Ordinal);

    /// <summary>
    /// Takes the folder for a run, waiting for another run of the same group to be done with it. Throws a
    /// <see cref="ProblemException"/> where it cannot be made, or where the other does not come to an end.
    /// </summary>
    public static RunFolder Take(string produced, string group, string period, Action<string> say)
    {
        var folder = Path.Combine(produced, group);
        try
        {
            Directory.CreateDirectory(folder);
            var run = new RunFolder(
                FileTurn.Take(folder, Patience, () => say($"Waiting for another run of {group}.")), folder, period, say);
            run.ClearUp();
            Directory.CreateDirectory(run.Staging);
            return run;
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} cannot be written: {cannot.Message}",
                "Make room, or let the book's folder be written to.", cannot);
        }
    }

    /// <summary>The path of a file of an earlier run.</summary>
    public string PathIn(string period, string name) => Path.Combine(_folder, period, name);

    /// <summary>The sum by which a file is known again.</summary>
    public static string SumOf(string path)
    {
        using var stream = File.OpenRead(path);
        return Convert.ToHexStringLower(SHA256.HashData(stream));
    }

    /// <summary>
    /// Takes along what an earlier run made in other formats, as long as nobody has changed it. Gives the files, with their sums.
    /// </summary>
    /// <param name="before">The run that is there now; nothing where there is none.</param>
    /// <param name="endings">The endings of the formats that are made anew.</param>
    public IReadOnlyList<(string Name, string Sum)> Carried(RunRecord? before, IReadOnlyCollection<string> endings)
    {
        var carried = new List<(string, string)>();
        foreach (var (name, sum) in before?.Files ?? new Dictionary<string, string>())
        {
            var path = Path.Combine(Final, name);
            if (name == Path.GetFileName(name) && !endings.Any(ending => name.EndsWith($".{ending}", StringComparison.Ordinal))
                && FileState.Of(path) is { IsRegular: true }
                && SumOf(path) == sum)
            {
                File.Copy(path, Path.Combine(Staging, name));
                carried.Add((name, sum));
            }
        }

        return carried;
    }

    /// <summary>
    /// Puts what was gathered in the place of what there is, which is left as it is where it says the same already. Says what a person
    /// had changed and where it is kept.
    /// </summary>
    /// <param name="before">The run that is there now; nothing where there is none.</param>
    public void Commit(RunRecord? before)
    {
        try
        {
            if (Directory.Exists(Final))
            {
                if (IsThereAlready())
                {
                    return;
                }

                KeepWhatIsNotOurs(before);
            }

            foreach (var path in Directory.EnumerateFiles(Staging, "*", OurFiles))
            {
                using var file = File.OpenHandle(path, FileMode.Open, FileAccess.ReadWrite);
                RandomAccess.FlushToDisk(file);
            }

            if (!Directory.Exists(Final))
            {
                Directory.Move(Staging, Final);
            }
            else if (RenameAt(AtWorkingDirectory, Staging, AtWorkingDirectory, Final, Exchange) == 0)
            {
                Directory.Delete(Staging, recursive: true);
            }
            else
            {
                // Where the file system cannot exchange two folders; a run that is killed between is mended by the next.
                var old = Path.Combine(_folder, $".{_period}{OldEnding}");
                Directory.Move(Final, old);
                Directory.Move(Staging, Final);
                Directory.Delete(old, recursive: true);
            }
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{Final} cannot be written: {cannot.Message}", "What was there is as it was.", cannot);
        }
    }

    /// <summary>Gives the folder free, without what was gathered and not put in its place.</summary>
    public void Dispose()
    {
        if (Directory.Exists(Staging))
        {
            Directory.Delete(Staging, recursive: true);
        }

        _turn.Dispose();
    }

    private void ClearUp()
    {
        foreach (var left in Directory.EnumerateDirectories(_folder, ".*"))
        {
            var name = Path.GetFileName(left);
            if (name.EndsWith(OldEnding, StringComparison.Ordinal) && Path.Combine(_folder, name[1..^OldEnding.Length]) is var final
                && !Directory.Exists(final))
            {
                Directory.Move(left, final);
            }
            else if (name.EndsWith(OldEnding, StringComparison.Ordinal) || name.EndsWith(StagingEnding, StringComparison.Ordinal))
            {
                Directory.Delete(left, recursive: true);
            }
        }
    }

    // What a run leaves for the next one is among it, so that no file is there that this one would not have made.
    private bool IsThereAlready() => Directory.EnumerateFiles(Staging, "*", OurFiles)
        .All(path => Path.Combine(Final, Path.GetRelativePath(Staging, path)) is var there
            && FileState.Of(there) is { IsRegular: true } && SumOf(there) == SumOf(path));

    // What is in a folder of the run that is there now, from where it is to where it is to be.
    private void KeepWhatIsNotOurs(RunRecord? before, string from = "", string to = "")
    {
        foreach (var entry in new DirectoryInfo(Path.Combine(Final, from)).EnumerateFileSystemInfos())
        {
            var (name, wanted) = (Path.Combine(from, entry.Name), Path.Combine(to, entry.Name));
            if (name == RunRecord.Folder)
            {
                continue;
            }

            if (entry.LinkTarget is { } target)
            {
                var link = FreeFor(name, wanted, kept => new FileInfo(kept).LinkTarget == target);
                _ = new FileInfo(link) is { LinkTarget: null } ? File.CreateSymbolicLink(link, target) : null;
            }
            else if (entry is DirectoryInfo)
            {
                var folder = FreeFor(name, wanted, Directory.Exists);
                KeepWhatIsNotOurs(before, name, Path.GetRelativePath(Staging, Directory.CreateDirectory(folder).FullName));
            }
            else if (FileState.Of(entry.FullName) is { IsRegular: false })
            {
                throw new IOException($"{Path.Combine(Final, name)} is a pipe or a device; take it out of the folder.");
            }
            else if (SumOf(entry.FullName) is var sum && before?.Files.GetValueOrDefault(name) != sum)
            {
                var file = FreeFor(name, wanted, kept => File.Exists(kept) && SumOf(kept) == sum);
                File.Copy(entry.FullName, file, overwrite: true);
            }
        }
    }

    // Where something is kept: in its place, if that is free or has the same already; else beside it, which is said.
    private string FreeFor(string name, string wanted, Func<string, bool> isTheSame)
    {
        var kept = Path.Combine(Staging, wanted);
        for (var number = 1; Path.Exists(kept) && !isTheSame(kept); number++)
        {
            kept = Path.Combine(
                Staging, Path.ChangeExtension(wanted, $".edited{(number == 1 ? "" : $"-{number}")}{Path.GetExtension(wanted)}"));
        }

        if (Path.GetRelativePath(Staging, kept) is var other && other != wanted)
        {
            _say($"{Path.Combine(Final, name)} was edited; what it said is in {other}.");
        }

        return kept;
    }

    [LibraryImport("libc", EntryPoint = "renameat2", SetLastError = true, StringMarshalling = StringMarshalling.Utf8)]
    private static partial int RenameAt(int fromFolder, string from, int toFolder, string to, uint flags);
}
