using Vlei.Core.Problems;

namespace Vlei.Books.Files;

/// <summary>
/// A folder that is there as a whole or not at all: it is made beside its place, under a name that nobody can foresee, and then put
/// there. What was begun and not ended is in nobody's way.
/// </summary>
public static class WholeFolder
{
    /// <summary>
    /// Makes a folder. Throws a <see cref="ProblemException"/> where there is something in its place already, or where it cannot be
    /// made; then there is nothing of it.
    /// </summary>
    /// <param name="folder">Where; nothing is there yet, or an empty folder.</param>
    /// <param name="make">Makes it in the place that it is given.</param>
    public static void Make(string folder, Action<string> make)
    {
        if (string.IsNullOrWhiteSpace(folder) || File.Exists(folder)
            || (Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any()))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} is there already, and is not empty.", "Choose another folder.");
        }

        var place = Path.GetFullPath(folder).TrimEnd(Path.DirectorySeparatorChar);
        var unfinished = Path.Combine(Path.GetDirectoryName(place) ?? "/", $".vlei-{Guid.NewGuid():N}.tmp");
        try
        {
            make(unfinished);
            if (Directory.Exists(place))
            {
                Directory.Delete(place);
            }

            Directory.Move(unfinished, place);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} cannot be made: {cannot.Message.Replace(unfinished, folder, StringComparison.Ordinal)}",
                "Choose a place that you may write to, with room for it.", cannot);
        }
        finally
        {
            if (Directory.Exists(unfinished))
            {
                Directory.Delete(unfinished, recursive: true);
            }
        }
    }
}
