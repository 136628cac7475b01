using Vlei.Core.Problems;

namespace Vlei.Books.Files;

/// <summary>A file that is read whole, and is small: a pipe would be waited for, a device read without end.</summary>
public static class BoundedFile
{
    /// <summary>
    /// Its bytes. Throws a <see cref="ProblemException"/> where it is no regular file or is too large, and an
    /// <see cref="IOException"/> or an <see cref="UnauthorizedAccessException"/> where it cannot be read.
    /// </summary>
    /// <param name="path">Where it is.</param>
    /// <param name="most">How many bytes it may have.</param>
    /// <param name="tooLarge">What is advised where it has more.</param>
    public static byte[] Read(string path, int most, string tooLarge)
    {
        if (FileState.Of(path) is { IsRegular: false } there)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{path} is {(there.IsFolder ? "a folder" : "a pipe or a device")}, and no file.", "Name a file.");
        }

        const int Mebibyte = 1 << 20;
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        if (file.Length > most)
        {
            throw new ProblemException(ProblemKind.BadData, $"{path} is larger than {most / Mebibyte} MiB.", tooLarge);
        }

        var bytes = new byte[file.Length];
        file.ReadExactly(bytes);
        return bytes;
    }
}
