using Vlei.Books;
using Vlei.Books.Store.Postgres;
using Vlei.Core.Problems;

namespace Vlei.Desk.Runs;

/// <summary>The books that a pattern means.</summary>
public static class BookSet
{
    private static readonly char[] Wildcards = ['*', '?'];

    /// <summary>
    /// The folders of the books that the patterns fit, or their addresses on a server, in their order, each once. What fits and
    /// is no book is told. Throws a
    /// <see cref="ProblemException"/> where a folder that is named is no book, or where nothing fits.
    /// </summary>
    public static IReadOnlyList<string> Of(IReadOnlyList<string> patterns, Action<string> say)
    {
        var books = patterns.SelectMany(pattern => Fitting(pattern, say)).Distinct(StringComparer.Ordinal).ToList();
        return books.Count > 0 ? books : throw new ProblemException(
            ProblemKind.NotFound, $"No book fits {string.Join(", ", patterns)}.",
            "Name folders of books, with quotes around what has a star: --books 'clients/*'.");
    }

    /// <summary>What a book that a pattern meant is called: its folder, or its name at an address.</summary>
    public static string NameOf(string book) => PostgresAddress.IsOne(book) ? PostgresAddress.Parse(book).OfBook().Book! : book;

    private static List<string> Fitting(string pattern, Action<string> say)
    {
        if (PostgresAddress.IsOne(pattern))
        {
            var address = PostgresAddress.Parse(pattern);
            return address.Book is not null ? [pattern]
                : [.. PostgresServer.Books(address).Select(book => address.With(book).Text)];
        }

        if (!pattern.AsSpan().ContainsAny(Wildcards))
        {
            return Book.IsBook(pattern) ? [pattern] : throw new ProblemException(
                ProblemKind.NotFound, $"{pattern} is no book: it has no book.toml.", "Name a folder that vlei init or vlei demo made.");
        }

        var folders = pattern.Split('/', StringSplitOptions.RemoveEmptyEntries).Aggregate(
            (IEnumerable<string>)[pattern.StartsWith('/') ? "/" : ""], (within, part) => within.SelectMany(folder => Within(folder, part)));
        return folders.Order(StringComparer.Ordinal).Where(folder =>
        {
            var isBook = Book.IsBook(folder);
            if (!isBook)
            {
                say($"{folder} is no book, and is passed over.");
            }

            return isBook;
        }).ToList();
    }

    private static IEnumerable<string> Within(string folder, string part)
    {
        if (!part.AsSpan().ContainsAny(Wildcards))
        {
            return [Path.Combine(folder, part)];
        }

        var at = folder.Length == 0 ? "." : folder;
        return Directory.Exists(at)
            ? Directory.EnumerateDirectories(at, part).Where(path => !Path.GetFileName(path).StartsWith('.'))
                .Select(path => Path.Combine(folder, Path.GetFileName(path)))
            : [];
    }
}
