using System.Text;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Books.Store;
using Vlei.Books.Store.Postgres;
using Vlei.Books.Store.Sqlite;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>A book: a folder with <c>book.toml</c> and the records.</summary>
public sealed class Book
{
    private const string FileName = "book.toml";
    private const string Here = ".";

    /// <summary>The name of the file with its records, where they are in its folder.</summary>
    internal const string RecordsName = "records.db";

    private const string PromisesName = "promises.csv";
    private const string MarksName = "review.csv";
    private const string DifferencesName = "differences.csv";

    // A new book is its owner's alone.
    private const UnixFileMode OfOwner = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;

    private Book(string folder, BookSettings settings, IBookStore? store = null)
    {
        (Folder, Settings) = (folder, settings);
        Store = store ?? (settings.Store is { } address
            ? new PostgresStore(PostgresAddress.Parse(address)) : new SqliteStore(PathOf(RecordsName)));
    }

    /// <summary>Where it is.</summary>
    public string Folder { get; }

    /// <summary>What <c>book.toml</c> says.</summary>
    public BookSettings Settings { get; }

    /// <summary>When what it says of itself was written, in universal time; nothing where nobody knows.</summary>
    internal DateTime? SettingsWrittenAt => IsBook(Folder) && Settings.Store is null ? File.GetLastWriteTimeUtc(PathOf(FileName)) : null;

    /// <summary>What holds its records.</summary>
    internal IBookStore Store { get; }

    /// <summary>Where what contacts have committed to is noted.</summary>
    internal string PromisesPath => PathOf(PromisesName);

    /// <summary>Where it is noted what was said about findings of the review.</summary>
    internal string MarksPath => PathOf(MarksName);

    /// <summary>Where it is noted what imports did not prove.</summary>
    internal string DifferencesPath => PathOf(DifferencesName);

    /// <summary>The path of something in its folder.</summary>
    public string PathOf(string name) => Folder == Here ? name : Path.Combine(Folder, name);

    /// <summary>
    /// Whether a file is one of a book itself: what it says, its records, what is noted in it, or what is kept in it.
    /// </summary>
    /// <param name="path">The full path of the file.</param>
    public static bool HasAsItsOwn(string path)
    {
        var (folder, name) = (Path.GetDirectoryName(path) ?? "", Path.GetFileName(path));
        return (IsBook(folder)
            && (name is FileName or PromisesName or MarksName or DifferencesName || name.StartsWith(RecordsName, StringComparison.Ordinal)))
            || (name.EndsWith(KeptFile.Ending, StringComparison.Ordinal)
                && KeptKind.All.Any(kind => kind.Folder == Path.GetFileName(folder))
                && IsBook(Path.GetDirectoryName(folder) ?? ""));
    }

    /// <summary>Whether the folder is a book.</summary>
    public static bool IsBook(string folder) => File.Exists(Path.Combine(folder, FileName));

    /// <summary>
    /// What <c>book.toml</c> says, as text, without where the records are. Throws a <see cref="ProblemException"/> where it cannot be
    /// read.
    /// </summary>
    internal string SettingsText() => BookFile.WithoutStore(
        IsBook(Folder) ? File.ReadAllText(PathOf(FileName)) : PostgresServer.SettingsOf(PostgresAddress.Parse(Settings.Store!)));

    /// <summary>
    /// Opens the book in <paramref name="folder"/>, or at an address on a server, or, where none is named, in the nearest folder
    /// upwards from here. Throws a <see cref="ProblemException"/> where there is none.
    /// </summary>
    public static Book Open(string? folder)
    {
        if (folder is not null && PostgresAddress.IsOne(folder))
        {
            // What is kept of it, and what is made of it, is in a folder of its name.
            var address = PostgresAddress.Parse(folder).OfBook();
            var settings = BookFile.Parse(PostgresServer.SettingsOf(address), Path.Combine(address.Book!, FileName));
            return new Book(address.Book!, settings with { Store = folder });
        }

        if (folder is not null)
        {
            return IsBook(folder) ? Read(folder) : throw new ProblemException(
                ProblemKind.NotFound,
                Directory.Exists(folder) ? $"{folder} is no book: it has no {FileName}." : $"There is no folder {folder}.",
                "Name a folder that vlei init or vlei demo made.");
        }

        return Read(Nearest() ?? throw new ProblemException(
            ProblemKind.NotFound,
            "There is no book here.",
            "Go into a book's folder, name one with --book DIR, or make one: vlei demo, or vlei init DIR."));
    }

    /// <summary>Whether this folder, or one above it, is a book.</summary>
    public static bool IsHere() => Nearest() is not null;

    /// <summary>Makes an empty book. Throws a <see cref="ProblemException"/> where there is one already.</summary>
    public static Book Create(string folder, BookSettings settings)
    {
        if (string.IsNullOrWhiteSpace(folder))
        {
            throw new ProblemException(ProblemKind.Usage, "The folder has no name.", "Name the folder to make.");
        }

        var records = Path.Combine(folder, RecordsName);
        if (IsBook(folder) || (File.Exists(records) && !IsUnused(records)))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} is a book already.", "Choose another folder, or remove that one first.");
        }

        try
        {
            // What says that it is a book is written first, so that there is room for it, and is put there last: what was begun and
            // not ended is begun again.
            MakeFolder(folder);
            File.Delete(records);
            using var file = WholeFile.Begin(Path.Combine(folder, FileName), isPrivate: true);
            file.Stream.Write(Encoding.UTF8.GetBytes(BookFile.Write(settings)));
            file.Stream.Flush(flushToDisk: true);
            if (settings.Store is { } address)
            {
                PostgresServer.Add(PostgresAddress.Parse(address), BookFile.Write(settings with { Store = null }));
            }
            else
            {
                SqliteStore.Create(records, writing => Upkeep.Adopt(writing, settings, (_, _) => { }));
            }

            file.Commit();
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} cannot be made: {cannot.Message}", "Choose a folder that you may write to.", cannot);
        }

        return Read(folder);
    }

    /// <summary>Makes the folder of a book, for nobody but its owner.</summary>
    internal static void MakeFolder(string folder) => Directory.CreateDirectory(folder, OfOwner);

    /// <summary>Makes a folder a book, whose records are there.</summary>
    internal static void WriteSettings(string folder, string text) => WholeFile.Write(
        Path.Combine(folder, FileName), stream => stream.Write(Encoding.UTF8.GetBytes(text)), isPrivate: true);

    /// <summary>A book whose records are in some store of their own, as tests have it.</summary>
    internal static Book On(IBookStore store, string folder, BookSettings settings) => new(folder, settings, store);

    // Made and never imported into, as an interrupted beginning leaves it.
    private static bool IsUnused(string records)
    {
        using var reading = new SqliteStore(records).Read();
        return reading.State.Revision == 0;
    }

    private static string? Nearest()
    {
        for (var upwards = new DirectoryInfo(Directory.GetCurrentDirectory()); upwards is not null; upwards = upwards.Parent)
        {
            if (IsBook(upwards.FullName))
            {
                return Path.GetRelativePath(Directory.GetCurrentDirectory(), upwards.FullName);
            }
        }

        return null;
    }

    private static Book Read(string folder) => new(folder, BookFile.Read(Path.Combine(folder, FileName)));
}
