using System.Data;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>What a login may do with a book.</summary>
public enum BookRight
{
    /// <summary>Nothing; it does not see it.</summary>
    None,

    /// <summary>Read it.</summary>
    Read,

    /// <summary>Read it and write to it.</summary>
    Write,
}

/// <summary>A firm's server as a whole: its tables, its books, and who may see them.</summary>
public static class PostgresServer
{
    private const string Shown = "accounts, accounts_keys, books, budgets, closed_periods, contacts, contacts_keys, departments, "
        + "departments_keys, derived_columns, derived_months, documents, documents_keys, import_counts, import_files, imports, items, "
        + "items_keys, lines, projects, projects_keys, settlements, tag_sets, tax_codes, tax_codes_keys";

    /// <summary>Makes the tables, or brings them forward; false where nothing was to be done.</summary>
    public static bool Init(PostgresAddress address)
    {
        using var session = PostgresSession.Open(address);
        return PostgresSteps.BringForward(session) > 0;
    }

    /// <summary>The names of the books that the login may see, in their order.</summary>
    public static IReadOnlyList<string> Books(PostgresAddress address)
    {
        using var session = PostgresSession.Open(address);
        var names = new List<string>();
        var rows = session.Query("SELECT name FROM books ORDER BY name COLLATE \"C\"");
        while (rows.Next())
        {
            names.Add(rows.Text(0));
        }

        return names;
    }

    /// <summary>What a book says of itself, as <c>book.toml</c> has it. Throws a problem where there is no such book.</summary>
    internal static string SettingsOf(PostgresAddress address)
    {
        using var session = PostgresSession.Open(address.OfBook());
        var rows = session.Query("SELECT settings FROM books WHERE name = $1", address.Book!);
        return rows.Next() ? rows.Text(0) : throw NoBook(address);
    }

    /// <summary>Adds an empty book. Throws a problem where there is one of that name.</summary>
    internal static void Add(PostgresAddress address, string settings)
    {
        if (!IsName(address.OfBook().Book!))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"\"{address.Book}\" is no name for a book on a server.",
                "Use letters, digits, dots, dashes and underscores, and begin with a letter or a digit.");
        }

        using var session = PostgresSession.Open(address);
        session.Begin(IsolationLevel.ReadCommitted);
        if (session.Execute("INSERT INTO books(name, settings) VALUES ($1, $2) ON CONFLICT DO NOTHING", address.Book!, settings) == 0)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"There is a book {address.Book} at {address.With(null)} already.",
                "Choose another name for it.");
        }

        session.Commit();
    }

    /// <summary>Takes a book away that nothing was written to.</summary>
    internal static void RemoveEmpty(PostgresAddress address)
    {
        using var session = PostgresSession.Open(address.OfBook());
        session.Execute(
            "DELETE FROM books b WHERE b.name = $1 AND NOT EXISTS (SELECT 1 FROM imports i WHERE i.book = b.book)", address.Book!);
    }

    /// <summary>Says what a login may do with a book. Throws a problem where there is no such book or login.</summary>
    public static void Grant(PostgresAddress address, string role, BookRight right)
    {
        using var session = PostgresSession.Open(address.OfBook());
        session.Begin(IsolationLevel.ReadCommitted);
        var known = session.Query("SELECT 1::bigint FROM pg_catalog.pg_roles WHERE rolname = $1", role);
        if (!known.Next())
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"The server has no login {role}.", $"Make it: createuser {role}");
        }

        var book = session.Query("SELECT book::bigint FROM books WHERE name = $1", address.Book!);
        var number = book.Next() ? book.Int(0) : throw NoBook(address);
        var (schema, login) = (PostgresText.Quoted(address.Schema), PostgresText.Quoted(role));
        if (right == BookRight.None)
        {
            session.Execute("DELETE FROM grants WHERE book = $1 AND role = $2::text::name", number, role);
        }
        else
        {
            session.Execute(
                "INSERT INTO grants(book, role, may_write) VALUES ($1, $2::text::name, $3) ON CONFLICT (book, role) DO UPDATE SET "
                    + "may_write = $3",
                number, role, right == BookRight.Write);
            session.Execute($"GRANT USAGE ON SCHEMA {schema} TO {login}");
            session.Execute($"GRANT SELECT ON steps, {Shown} TO {login}");
        }

        if (right == BookRight.Write)
        {
            session.Execute($"GRANT INSERT, UPDATE, DELETE ON {Shown.Replace("books, ", "", StringComparison.Ordinal)} TO {login}");
            session.Execute($"GRANT UPDATE (oldest_first, derived_format, hash_format) ON books TO {login}");
        }

        session.Commit();
    }

    private static ProblemException NoBook(PostgresAddress address) => new(
        ProblemKind.NotFound, $"There is no book {address.Book} at {address.With(null)}, or your login may not see it.",
        $"vlei store list '{address.With(null)}' lists those that it may see.");

    // It is the name of a folder too.
    private static bool IsName(string name) => name.Length is > 0 and <= 100 && char.IsLetterOrDigit(name[0])
        && name.All(letter => char.IsLetterOrDigit(letter) || letter is '.' or '-' or '_');
}
