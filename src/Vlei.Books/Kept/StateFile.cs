using System.Text;
using Vlei.Books.Files;
using Vlei.Core.Problems;

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
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    /// <summary>Its lines, the oldest first.</summary>
    public IReadOnlyList<string> Lines()
    {
        try
        {
            if (PathOf() is not { } path || !File.Exists(path))
            {
                return [];
            }

            return File.ReadAllText(path, Encoding.UTF8).Split('\n', StringSplitOptions.RemoveEmptyEntries);
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
            // Of several that add lines at once, as reports that are made together do, none is lost.
            using var turn = FileTurn.Take(Path.GetDirectoryName(path)!, Patience);
            if (new FileInfo(path) is { Exists: true } file && file.Length > mostBytes)
            {
                var kept = string.Concat(Lines().TakeLast(mostKept).Select(line => $"{line}\n"));
                WholeFile.Write(path, stream => stream.Write(Encoding.UTF8.GetBytes(kept)));
            }

            File.AppendAllBytes(path, lines);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException or ProblemException)
        {
            // Nobody may write there, or somebody never ends: what was asked is done all the same.
        }
    }

    private string? PathOf()
    {
        var state = Environment.GetEnvironmentVariable("XDG_STATE_HOME");
        return Path.IsPathFullyQualified(state ?? "") ? Path.Combine(state!, "vlei", name)
            : PersonsFolder.Home is { } home ? Path.Combine(home, ".local", "state", "vlei", name) : null;
    }
}
