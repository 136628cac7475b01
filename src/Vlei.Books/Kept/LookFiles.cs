using System.Buffers.Binary;
using Vlei.Books.Files;
using Vlei.Core.Languages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>
/// What the looks of a report rest on that is kept in files: pictures, and languages of one's own, which are files
/// <c>languages/CODE.po</c> where reports are kept.
/// </summary>
public static class LookFiles
{
    private const string Languages = "languages";
    private const string Ending = ".po";
    private const int MostLogoBytes = 4 << 20;
    private const int MostLogoDots = 5000;
    private const int MostTemplateBytes = 64 << 20;

    private static ReadOnlySpan<byte> PngMark => [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A];

    /// <summary>
    /// The looks with what they name. Throws a <see cref="ProblemException"/> where something that is named is not there, or is
    /// not what it should be.
    /// </summary>
    public static ReportLook Of(ReportLook look, Library library) => look with
    {
        Language = look.LanguageCode is { } code ? Language(code, library) : null,
        Logo = look.LogoFile is { } logo ? LogoIn(FileOf(logo, library) ?? throw Missing("logo", logo)) : null,
        TemplateFile = look.TemplateFile is { } template ? FileOf(template, library) ?? template : null,
    };

    /// <summary>
    /// What is typed, with files named as they are found from where it is kept, rather than from where the person is now.
    /// Throws a <see cref="ProblemException"/> where one is not there.
    /// </summary>
    /// <param name="typed">The options, as texts by their names.</param>
    /// <param name="folder">The folder that it is kept in.</param>
    public static Dictionary<string, IReadOnlyList<string>> Kept(
        IReadOnlyDictionary<string, IReadOnlyList<string>> typed, string folder) => typed.ToDictionary(
        pair => pair.Key,
        pair => IsOfFile(pair.Key) ? (IReadOnlyList<string>)[.. pair.Value.Select(file => FromFolder(pair.Key, file, folder))]
            : pair.Value);

    /// <summary>Whether an option names a file.</summary>
    public static bool IsOfFile(string option) => option == LookOptions.Logo.Name || option == LookOptions.Template.Name;

    private static string FromFolder(string option, string file, string folder)
    {
        if (!File.Exists(file) && File.Exists(Path.Combine(folder, file)))
        {
            return file;
        }

        var relative = File.Exists(file) ? Path.GetRelativePath(folder.Length == 0 ? "." : folder, file) : throw Missing(option, file);
        return relative.StartsWith("..", StringComparison.Ordinal) ? Path.GetFullPath(file) : relative;
    }

    /// <summary>
    /// Refuses what somebody else's report would let in: what a library keeps names files of that library alone, whatever links say.
    /// Throws a <see cref="ProblemException"/> where it names another.
    /// </summary>
    /// <param name="options">What the report says, with files in full.</param>
    /// <param name="file">Where it is kept.</param>
    public static void RefuseOutside(IReadOnlyDictionary<string, IReadOnlyList<string>> options, KeptFile file)
    {
        if (file.Shelf.Word != Shelf.OfLibrary)
        {
            return;
        }

        var home = Path.GetFullPath(file.Shelf.Folder).TrimEnd('/') + "/";
        foreach (var named in options.Where(option => IsOfFile(option.Key)).SelectMany(option => option.Value))
        {
            var real = File.Exists(named) && File.ResolveLinkTarget(named, returnFinalTarget: true) is { } target ? target.FullName : named;
            if (!real.StartsWith(home, StringComparison.Ordinal))
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{file.Path} names {named}, which is not in the library.",
                    $"Put it into {file.Shelf.Folder}, and name it as seen from there.");
            }
        }
    }

    /// <summary>The language of a code. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public static Language Language(string code, Library library) => Find(code, library) ?? throw new ProblemException(
        ProblemKind.Usage, $"There is no language \"{code}\".",
        Suggestion.DidYouMean(code, Known(library))
            ?? $"There are {Suggestion.Listed(Known(library), "and")}; another is a file {Languages}/{code}{Ending} in the book's folder.");

    /// <summary>The language of a book. Throws a <see cref="ProblemException"/> where it names one that there is not.</summary>
    public static Language LanguageOf(Book book) => Find(book.Settings.Language, Library.Of(book)) ?? throw new ProblemException(
        ProblemKind.BadConfiguration, $"{book.PathOf("book.toml")}: there is no language \"{book.Settings.Language}\".",
        $"Write {Suggestion.Listed([.. Known(Library.Of(book)).Select(code => $"\"{code}\"")], "or")}; another is a "
            + $"file {Languages}/CODE{Ending} in the book's folder.");

    /// <summary>The language of a code; nothing where there is none.</summary>
    public static Language? Find(string code, Library library)
    {
        var own = code.All(char.IsAsciiLetterOrDigit)
            ? library.Shelves.Select(shelf => Path.Combine(shelf.Folder, Languages, code + Ending)).FirstOrDefault(File.Exists) : null;
        return own is not null ? Core.Languages.Language.Read(code, KeptFile.Read(own), own) : Core.Languages.Language.Find(code);
    }

    /// <summary>The codes of the languages that there are.</summary>
    public static IReadOnlyList<string> Known(Library library) =>
    [
        .. Core.Languages.Language.Standard.Concat(
            library.Shelves.Select(shelf => Path.Combine(shelf.Folder, Languages)).Where(Directory.Exists)
            .SelectMany(folder => Directory.EnumerateFiles(folder, "*" + Ending))
            .Select(path => Path.GetFileNameWithoutExtension(path))).Distinct(),
    ];

    // Where the person is, else where what names it is kept.
    private static string? FileOf(string file, Library library) =>
        library.Shelves.Select(shelf => Path.Combine(shelf.Folder, file)).Prepend(file).FirstOrDefault(File.Exists);

    private static ProblemException Missing(string option, string file) => new(
        ProblemKind.NotFound, $"--{option}: there is no file {file}.", "Write its path as seen from here or from the book's folder.");

    /// <summary>
    /// The looks with the workbook that they name. Throws a <see cref="ProblemException"/> where it is not there, or cannot be
    /// read.
    /// </summary>
    public static ReportLook WithTemplate(ReportLook look)
    {
        if (look.TemplateFile is not { } path)
        {
            return look;
        }

        try
        {
            return look with
            {
                Template = new ReportTemplate(
                    path, BoundedFile.Read(path, MostTemplateBytes, "Take out of it what the report does not need.")),
            };
        }
        catch (Exception missing) when (missing is FileNotFoundException or DirectoryNotFoundException)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"--template: there is no file {path}.",
                "Write its path as seen from here or from the book's folder.", missing);
        }
        catch (Exception unreadable) when (unreadable is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{path} is no workbook that can be read: {unreadable.Message}",
                "Take a workbook that was written with --to FILE.xlsx and given other looks, saved as .xlsx.", unreadable);
        }
    }

    private static ReportLogo LogoIn(string path)
    {
        var bytes = BoundedFile.Read(path, MostLogoBytes, "Make the picture smaller; 600 dots across are plenty.");
        const int PngHead = 24;
        var logo = bytes.Length > PngHead && bytes.AsSpan().StartsWith(PngMark)
            ? new ReportLogo(
                bytes, IsPng: true, BinaryPrimitives.ReadInt32BigEndian(bytes.AsSpan(16)),
                BinaryPrimitives.ReadInt32BigEndian(bytes.AsSpan(20)))
            : SizeOfJpeg(bytes, path) is var (width, height) ? new ReportLogo(bytes, IsPng: false, width, height) : null;
        return logo is { Width: > MostLogoDots } or { Height: > MostLogoDots }
            ? throw new ProblemException(
                ProblemKind.BadData, $"{path} is {logo.Width} by {logo.Height} dots.",
                "Make the picture smaller; 600 dots across are plenty.")
            : logo is { Width: > 0, Height: > 0 } ? logo
            : throw new ProblemException(ProblemKind.BadData, $"{path} is no picture that is known.", "Save it as PNG or JPEG.");
    }

    // The size stands in the frame header, behind any number of other segments (ITU T.81, annex B).
    private static (int Width, int Height)? SizeOfJpeg(ReadOnlySpan<byte> bytes, string path)
    {
        const int ColoursOfPrinters = 4;
        if (bytes.Length < 4 || bytes[0] != 0xFF || bytes[1] != 0xD8)
        {
            return null;
        }

        for (var at = 2; at + 9 < bytes.Length && bytes[at] == 0xFF;)
        {
            var marker = bytes[at + 1];
            if (marker is >= 0xC0 and <= 0xCF and not (0xC4 or 0xC8 or 0xCC))
            {
                return bytes[at + 9] != ColoursOfPrinters
                    ? (BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 7)..]), BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 5)..]))
                    : throw new ProblemException(
                        ProblemKind.BadData, $"{path} is in the colours of printers (CMYK), which screens show as others.",
                        "Save it in the colours of screens (RGB).");
            }

            at += 2 + BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 2)..]);
        }

        return null;
    }
}
