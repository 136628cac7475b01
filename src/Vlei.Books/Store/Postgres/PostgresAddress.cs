using System.Globalization;
using System.Net;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// Where books are on a server: an address as the libraries of PostgreSQL have it, <c>postgresql://host:port/database?book=name</c>.
/// It never has a password in it: that is looked up where those libraries look for it.
/// </summary>
/// <param name="Text">The address as a person wrote it.</param>
/// <param name="Host">The host, or the folder of a socket.</param>
/// <param name="Port">The port.</param>
/// <param name="Database">The database.</param>
/// <param name="User">The login; nothing where the environment says it.</param>
/// <param name="Schema">The schema of the firm.</param>
/// <param name="Tls">How the connection is secured, in the words of <c>sslmode</c>; nothing where nothing is said.</param>
/// <param name="Book">The book; nothing where all are meant.</param>
public sealed record PostgresAddress(
    string Text, string Host, int Port, string Database, string? User, string Schema, string? Tls, string? Book)
{
    private const string Scheme = "postgresql://";
    private const int UsualPort = 5432;
    private static readonly string[] Parameters = ["book", "host", "schema", "service", "sslmode"];
    private static readonly string[] TlsModes = ["disable", "allow", "prefer", "require", "verify-ca", "verify-full"];

    /// <summary>Whether nobody can listen between here and the server: it is on this machine.</summary>
    public bool IsLocal => Host.StartsWith('/') || Host == "localhost"
        || (IPAddress.TryParse(Host, out var ip) && IPAddress.IsLoopback(ip));

    /// <summary>Whether a text is meant as an address.</summary>
    public static bool IsOne(string text) => text.StartsWith(Scheme, StringComparison.Ordinal);

    /// <summary>Reads an address. Throws a <see cref="ProblemException"/> where it is none, or has a password in it.</summary>
    public static PostgresAddress Parse(string text)
    {
        if (!IsOne(text) || !Uri.TryCreate(text, UriKind.Absolute, out var uri))
        {
            throw Wrong($"{text} is no address of a server.");
        }

        if (uri.UserInfo.Contains(':'))
        {
            throw new ProblemException(
                ProblemKind.Usage, "An address has no password in it.",
                "Keep it in ~/.pgpass (PGPASSFILE), or in PGPASSWORD for one command.");
        }

        var said = ParametersOf(uri);
        var service = PostgresService.Of(said.GetValueOrDefault("service") ?? Variable("PGSERVICE"));
        string? Known(string? own, string inService, string variable) =>
            own is { Length: > 0 } ? own : service.GetValueOrDefault(inService) ?? Variable(variable);
        var port = uri.Port > 0 ? uri.Port.ToString(CultureInfo.InvariantCulture) : Known(null, "port", "PGPORT");
        var tls = said.GetValueOrDefault("sslmode") ?? service.GetValueOrDefault("sslmode") ?? Variable("PGSSLMODE");
        return new PostgresAddress(
            text, said.GetValueOrDefault("host") ?? Known(uri.Host, "host", "PGHOST") ?? "localhost",
            port is null ? UsualPort : int.TryParse(port, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number
                : throw Wrong($"\"{port}\" is no port."),
            Known(Uri.UnescapeDataString(uri.AbsolutePath.TrimStart('/')), "dbname", "PGDATABASE")
                ?? throw Wrong($"{text} names no database."),
            Known(Uri.UnescapeDataString(uri.UserInfo), "user", "PGUSER"),
            said.GetValueOrDefault("schema") ?? "vlei",
            tls is null || TlsModes.Contains(tls) ? tls : throw Wrong($"There is no sslmode {tls}."),
            said.GetValueOrDefault("book"));
    }

    /// <summary>The same. Throws a <see cref="ProblemException"/> where it names no book.</summary>
    public PostgresAddress OfBook() => Book is not null ? this : throw new ProblemException(
        ProblemKind.Usage, $"{Text} names no book.", $"Write {With("NAME").Text}");

    /// <summary>The same of another book, or of all of them where none is named.</summary>
    public PostgresAddress With(string? book)
    {
        var (place, question) = (Text, "");
        if (Text.Split('?', 2) is [var before, var after])
        {
            (place, question) =
                (before, string.Join('&', after.Split('&').Where(part => !part.StartsWith("book=", StringComparison.Ordinal))));
        }

        var own = book is null ? "" : $"book={Uri.EscapeDataString(book)}";
        var all = string.Join('&', new[] { question, own }.Where(part => part.Length > 0));
        return this with { Text = all.Length > 0 ? $"{place}?{all}" : place, Book = book };
    }

    /// <summary>The address as a person wrote it.</summary>
    public override string ToString() => Text;

    private static Dictionary<string, string> ParametersOf(Uri uri)
    {
        var said = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var part in uri.Query.TrimStart('?').Split('&', StringSplitOptions.RemoveEmptyEntries))
        {
            var (name, value) = part.Split('=', 2) is [var one, var two] ? (one, Uri.UnescapeDataString(two)) : (part, "");
            if (!Parameters.Contains(name) || value.Length == 0)
            {
                throw new ProblemException(
                    ProblemKind.Usage, value.Length == 0 ? $"{name} has no value in the address." : $"An address has no {name}.",
                    Suggestion.DidYouMean(name, Parameters) ?? $"Expected {Suggestion.Listed(Parameters, "or")}.");
            }

            said[name] = value;
        }

        return said;
    }

    private static string? Variable(string name) => Environment.GetEnvironmentVariable(name) is { Length: > 0 } value ? value : null;

    private static ProblemException Wrong(string message) =>
        new(ProblemKind.Usage, message, "Write it as postgresql://host/database?book=name.");
}
