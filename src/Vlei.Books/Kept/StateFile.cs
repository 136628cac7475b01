using System.Text;
using Vlei.Books.Files;

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
            if (PathOf() is not { } path || !File.Exists(path))
            {
                return [];
            }

            using var reader = new StreamReader(Opened(path, FileMode.Open, FileAccess.Read), Encoding.UTF8);
            return reader.ReadToEnd().Split('\n', StringSplitOptions.RemoveEmptyEntries);
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
                var kept = string.Concat(Lines().TakeLast(mostKept).Select(line => $"{line}\n"));
                WholeFile.Write(path, stream => stream.Write(Encoding.UTF8.GetBytes(kept)));
            }

            using var stream = Opened(path, FileMode.Append, FileAccess.Write);
            stream.Write(lines);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            // Nobody may write there, or somebody never ends: what was asked is done all the same.
        }
    }

    // Others that write at the same time, as reports that are made together do, are done at once, however busy the machine is.
    private static FileStream Opened(string path, FileMode mode, FileAccess access)
    {
        const int MostTries = 500;
        const int Milliseconds = 10;
        for (var tries = 1; ; tries++)
        {
            try
            {
                return new FileStream(path, mode, access, FileShare.Read);
            }
            catch (IOException) when (tries < MostTries && File.Exists(path))
            {
                Thread.Sleep(Milliseconds);
            }
        }
    }

    private string? PathOf()
    {
        var state = Environment.GetEnvironmentVariable("XDG_STATE_HOME");
        return Path.IsPathFullyQualified(state ?? "") ? Path.Combine(state!, "vlei", name)
            : PersonsFolder.Home is { } home ? Path.Combine(home, ".local", "state", "vlei", name) : null;
    }
}
