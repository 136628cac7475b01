using System.Text;

namespace Vlei.Books.Kept;

/// <summary>
/// A file of lines in the person's own state folder, for all books; the XDG Base Directory Specification says where. It is
/// a convenience: what cannot be written is left out, and what cannot be read is not there.
/// </summary>
/// <param name="name">The name of the file.</param>
/// <param name="mostBytes">From which size on old lines are dropped.</param>
/// <param name="mostKept">How many lines stay then.</param>
internal sealed class StateFile(string name, int mostBytes, int mostKept)
{
    /// <summary>Its lines, the oldest first.</summary>
    public IReadOnlyList<string> Lines()
    {
        try
        {
            return PathOf() is { } path && File.Exists(path) ? File.ReadAllLines(path, Encoding.UTF8) : [];
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            return [];
        }
    }

    /// <summary>Adds lines, each with its end.</summary>
    public void Append(byte[] lines)
    {
        if (PathOf() is not { } path)
        {
            return;
        }

        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            if (new FileInfo(path) is { Exists: true } file && file.Length > mostBytes)
            {
                var unfinished = $"{path}.{Environment.ProcessId}.tmp";
                File.WriteAllLines(unfinished, Lines().TakeLast(mostKept));
                File.Move(unfinished, path, overwrite: true);
            }

            using var stream = new FileStream(path, FileMode.Append, FileAccess.Write, FileShare.Read);
            stream.Write(lines);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            // Somebody else is writing, or nobody may: what was asked is done all the same.
        }
    }

    private string? PathOf()
    {
        var (state, home) = (Environment.GetEnvironmentVariable("XDG_STATE_HOME"), Environment.GetEnvironmentVariable("HOME"));
        return state is { Length: > 0 } ? Path.Combine(state, "vlei", name)
            : home is { Length: > 0 } ? Path.Combine(home, ".local", "state", "vlei", name) : null;
    }
}
