using System.Text;
using Vlei.Books.Files;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>A file that a person keeps.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Name">Its name, without the ending.</param>
/// <param name="Path">Where it is.</param>
/// <param name="Shelf">The folder that it belongs to.</param>
public sealed record KeptFile(KeptKind Kind, string Name, string Path, Shelf Shelf)
{
    /// <summary>The ending of all such files.</summary>
    public const string Ending = ".toml";

    private const int MostBytes = 1 << 20;
    private const int MostLetters = 64;

    /// <summary>
    /// Its text. Throws a <see cref="ProblemException"/> where it cannot be read, or is too large to be one of these files.
    /// </summary>
    public string Read() => Read(Path);

    /// <summary>
    /// The text of such a file. Throws a <see cref="ProblemException"/> where it cannot be read, or is too large to be one.
    /// </summary>
    public static string Read(string path)
    {
        try
        {
            var bytes = BoundedFile.Read(path, MostBytes, "A file of this kind is a page of text; is it another one?");
            return bytes.Length == 0
                ? throw new ProblemException(ProblemKind.BadData, $"{path} is empty.", "Write into it what it is to say, or remove it.")
                : new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes).TrimStart('\ufeff');
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException or DecoderFallbackException)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{path} cannot be read: {cannot.Message}", "It must be a text file in UTF-8.", cannot);
        }
    }

    /// <summary>
    /// Refuses a name that cannot be that of a file everywhere: it has letters, digits, <c>-</c>, <c>_</c> and <c>.</c>, and
    /// starts with a letter or a digit. Throws a <see cref="ProblemException"/>.
    /// </summary>
    /// <param name="kind">What it is to be the name of.</param>
    /// <param name="name">The name.</param>
    public static void CheckName(KeptKind kind, string name)
    {
        if (name.Length is 0 or > MostLetters || !char.IsLetterOrDigit(name[0]) || name.EndsWith('.')
            || !name.All(letter => char.IsLetterOrDigit(letter) || letter is '-' or '_' or '.'))
        {
            var shown = string.Concat(name.Take(MostLetters).Select(letter => char.IsControl(letter) ? '?' : letter));
            throw new ProblemException(
                ProblemKind.Usage, $"\"{shown}\" is no name for a {kind.Word}.",
                $"Start with a letter or a digit; letters, digits, - _ and . may follow, {MostLetters} in all.");
        }
    }

    /// <summary>
    /// Writes the file as a whole or not at all, and makes its folder where it is not there. Throws a
    /// <see cref="ProblemException"/> where it cannot.
    /// </summary>
    public void Write(string text)
    {
        try
        {
            Directory.CreateDirectory(System.IO.Path.GetDirectoryName(Path)!);
            WholeFile.Write(Path, stream => stream.Write(Encoding.UTF8.GetBytes(text)));
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{Path} cannot be written: {cannot.Message}", "Choose a place that you may write to.", cannot);
        }
    }
}
