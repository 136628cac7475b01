using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// The file of services in which people keep the addresses of their servers, as the libraries of PostgreSQL read it:
/// <c>PGSERVICEFILE</c>, else <c>~/.pg_service.conf</c>.
/// </summary>
internal static class PostgresService
{
    /// <summary>
    /// What it says of a service, by the names of its parameters; nothing where no service is named. Throws a
    /// <see cref="ProblemException"/> where there is no such service.
    /// </summary>
    public static IReadOnlyDictionary<string, string> Of(string? service)
    {
        var values = new Dictionary<string, string>(StringComparer.Ordinal);
        if (service is null)
        {
            return values;
        }

        var path = Environment.GetEnvironmentVariable("PGSERVICEFILE")
            ?? (PersonsFolder.Home is { } home ? Path.Combine(home, ".pg_service.conf") : "");
        var found = false;
        var isIn = false;
        foreach (var line in (File.Exists(path) ? File.ReadLines(path) : []).Select(line => line.Trim()))
        {
            if (line.StartsWith('['))
            {
                isIn = line == $"[{service}]";
                found |= isIn;
            }
            else if (isIn && !line.StartsWith('#') && line.Split('=', 2) is [var name, var value])
            {
                values.TryAdd(name.Trim(), value.Trim());
            }
        }

        return found ? values : throw new ProblemException(
            ProblemKind.NotFound, $"There is no service {service}{(path.Length > 0 ? $" in {path}" : "")}.",
            "Write [" + service + "] and its host, port, dbname and user into that file.");
    }
}
