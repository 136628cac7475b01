using System.Collections.Concurrent;
using Vlei.Core;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>
/// Everything that is kept under a name, as a book sees it: its own first, then what the folder that <c>book.toml</c> names
/// has, then what the person keeps for all books, and what is standard last.
/// </summary>
public sealed class Library
{
    private readonly ConcurrentDictionary<(string Folder, KeptKind Kind), IReadOnlyList<KeptFile>>? _files;
    private readonly ConcurrentDictionary<string, KeptReport>? _reports;

    private Library(IReadOnlyList<Shelf> shelves, bool isStill = false)
    {
        Shelves = shelves;
        if (isStill)
        {
            (_files, _reports) = (new(), new(StringComparer.Ordinal));
        }
    }

    /// <summary>The folders, in the order in which they are asked.</summary>
    public IReadOnlyList<Shelf> Shelves { get; }

    /// <summary>
    /// The library as a book sees it; without a book, what the person keeps for all books. Throws a
    /// <see cref="ProblemException"/> where the book names a folder that is not there.
    /// </summary>
    public static Library Of(Book? book)
    {
        var shelves = new List<Shelf>();
        if (book is not null)
        {
            shelves.Add(new Shelf("book", book.PathOf("")));
            if (book.Settings.Library is { } named)
            {
                var folder = book.PathOf(named);
                shelves.Add(Directory.Exists(folder) ? new Shelf(Shelf.OfLibrary, folder) : throw new ProblemException(
                    ProblemKind.BadConfiguration, $"{book.PathOf("book.toml")}: there is no library {folder}.",
                    "Make the folder, or take the line library = … out."));
            }
        }

        if (UserFolder() is { } own)
        {
            shelves.Add(new Shelf("user", own));
        }

        return new Library(shelves);
    }

    /// <summary>
    /// The same as it is when it is first asked for: each folder is listed once, and each report is read once. A run sees one state
    /// of it.
    /// </summary>
    public Library Still() => new(Shelves, isStill: true);

    /// <summary>The standard report or table of that name; nothing where there is none.</summary>
    public static ReportDefinition? Standard(string name) => StandardReports.Find(name) ?? ReportFile.Standard(name);

    /// <summary>The shelf of that word. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public Shelf ShelfOf(string word) => Shelves.FirstOrDefault(shelf => shelf.Word == word) ?? throw new ProblemException(
        ProblemKind.NotFound, word == Shelf.OfLibrary ? "The book has no library." : $"There is no place for what is kept by the {word}.",
        word == Shelf.OfLibrary ? "Write library = \"FOLDER\" into book.toml, seen from the book's folder."
            : "Set XDG_CONFIG_HOME or HOME.");

    /// <summary>The file of that name; nothing where there is none.</summary>
    public KeptFile? Find(KeptKind kind, string name) =>
        Shelves.SelectMany(shelf => FilesOf(shelf, kind)).FirstOrDefault(file => file.Name == name);

    /// <summary>All files of a kind; of those with the same name the one that counts.</summary>
    public IReadOnlyList<KeptFile> All(KeptKind kind) =>
        [.. Shelves.SelectMany(shelf => FilesOf(shelf, kind)).DistinctBy(file => file.Name)
            .OrderBy(file => file.Name, StringComparer.Ordinal)];

    /// <summary>
    /// The report of that name, kept or standard; nothing where there is none. Throws where its file is not as it should be.
    /// </summary>
    public ReportDefinition? FindReport(string name) =>
        Find(KeptKind.Report, name) is { } file ? Read(file).Definition : Standard(name);

    /// <summary>
    /// Reads a kept report. What it is made from is the standard report of that name, without what the book says of it, or
    /// another kept one. Throws a <see cref="ProblemException"/> where the file is not as it should be.
    /// </summary>
    public KeptReport Read(KeptFile file) =>
        _reports is null ? Read(file, file.Read()) : _reports.GetOrAdd(file.Path, _ => Read(file, file.Read()));

    /// <summary>The same, with other text than the file has.</summary>
    public KeptReport Read(KeptFile file, string text) => Read(file, text, []);

    /// <summary>Whether a report is a kept one that says one of these options itself, or is made from one that does.</summary>
    public bool Says(string name, params ReadOnlySpan<ReportOption> options)
    {
        if (Find(KeptKind.Report, name) is not { } file)
        {
            return false;
        }

        var report = Read(file);
        foreach (var option in options)
        {
            if (report.Own.ContainsKey(option.Name))
            {
                return true;
            }
        }

        return Standard(report.From) is null && Says(report.From, options);
    }

    /// <summary>
    /// The selection of that name. Throws a <see cref="ProblemException"/> where there is none, or its file is not as it should
    /// be.
    /// </summary>
    public SavedSelection Selection(string name) => SelectionFile.Read(Named(KeptKind.Selection, name));

    /// <summary>The file of that name. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public KeptFile Named(KeptKind kind, string name) => Find(kind, name) ?? throw new ProblemException(
        ProblemKind.NotFound, $"There is no {kind.Word} {name}.",
        Suggestion.DidYouMean(name, All(kind).Select(file => file.Name))
        ?? (All(kind) is { Count: > 0 } known ? Suggestion.ThereAre([.. known.Select(file => file.Name)])
            : $"Write it to {kind.Folder}/NAME.toml in the book's folder."));

    private KeptReport Read(KeptFile file, string text, IReadOnlyList<string> above)
    {
        var report = ReportFile.Read(text, file.Name, file.Path, from => SourceOf(file, from, above), () => NamesOfReports);
        LookFiles.RefuseOutside(report.Own, file);
        return report;
    }

    private ReportDefinition? SourceOf(KeptFile file, string from, IReadOnlyList<string> above)
    {
        if (Standard(from) is { } standard)
        {
            return standard;
        }

        IReadOnlyList<string> names = [.. above, file.Name];
        return names.Contains(from)
            ? throw new ProblemException(
                ProblemKind.BadData, $"{file.Path}: the report is made from itself: {string.Join(", from ", [.. names, from])}.",
                "Let one of them be made from a standard report.")
            : Find(KeptKind.Report, from) is { } source ? Read(source, source.Read(), names).Definition : null;
    }

    /// <summary>The names of all reports and tables, standard and kept.</summary>
    public IEnumerable<string> NamesOfReports => StandardReports.All.Select(report => report.Key).Concat(ReportFile.StandardNames)
        .Concat(All(KeptKind.Report).Select(known => known.Name));

    private IReadOnlyList<KeptFile> FilesOf(Shelf shelf, KeptKind kind) =>
        _files is null ? shelf.All(kind) : _files.GetOrAdd((shelf.Folder, kind), _ => shelf.All(kind));

    private static string? UserFolder()
    {
        var config = Environment.GetEnvironmentVariable("XDG_CONFIG_HOME");
        return Path.IsPathFullyQualified(config ?? "") ? Path.Combine(config!, "vlei")
            : PersonsFolder.Home is { } home ? Path.Combine(home, ".config", "vlei") : null;
    }
}
