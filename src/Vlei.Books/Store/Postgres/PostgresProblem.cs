using Npgsql;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>Turns what a server answers, or does not, into problems that say what to do.</summary>
internal static class PostgresProblem
{
    /// <summary>The problem behind what was thrown while something was asked of a server.</summary>
    public static ProblemException From(Exception thrown, PostgresAddress address) => thrown switch
    {
        PostgresException { SqlState: var state } said => Said(state, said, address),
        _ => new ProblemException(
            ProblemKind.TryAgain, $"The server at {Place(address)} does not answer: {Reason(thrown)}",
            "Check that it runs and can be reached, then try again.",
            thrown),
    };

    /// <summary>The connection went while the last word was said: nobody knows whether it was heard.</summary>
    public static ProblemException LostAtCommit(Exception thrown, PostgresAddress address) => new(
        ProblemKind.TryAgain, $"The server at {Place(address)} was lost just when everything was to be kept; it may be kept or not.",
        "Do the same again: what is in the book already is not taken in twice.", thrown);

    private static ProblemException Said(string state, PostgresException said, PostgresAddress address) => state switch
    {
        "28000" or "28P01" => new(
            ProblemKind.NotFound, $"The server at {Place(address)} does not let you in: {said.MessageText}.",
            "Check the login, and its password in ~/.pgpass or PGPASSWORD.", said),
        "3D000" => new(
            ProblemKind.NotFound, $"There is no database {address.Database} at {Place(address)}.",
            $"Make it: createdb {address.Database}", said),
        "3F000" or "42P01" => NoStore(address),
        "42501" => new(
            ProblemKind.CannotWrite, $"Your login may not do that: {said.MessageText}.",
            $"Ask whoever looks after the server: vlei store grant '{address}' LOGIN write", said),
        "53300" => new(
            ProblemKind.TryAgain, $"The server at {Place(address)} has no connection free: {said.MessageText}.", "Try again.", said),
        "53100" or "53200" or "53000" => new(
            ProblemKind.CannotWrite, $"The server has no room left ({said.MessageText}); the book is as it was.",
            "Make room, then try again.", said),
        _ when state.StartsWith("08", StringComparison.Ordinal) || state.StartsWith("57P", StringComparison.Ordinal) => new(
            ProblemKind.TryAgain, $"The server at {Place(address)} ended the connection; the book is as it was.", "Try again.", said),
        _ when state.StartsWith("23", StringComparison.Ordinal) || state.StartsWith("XX", StringComparison.Ordinal) => StoreProblem.Damaged(
            said.MessageText),
        _ => new(ProblemKind.CannotWrite, $"The server answers: {said.MessageText} ({state}).", "Ask whoever looks after it.", said),
    };

    /// <summary>There are no tables of this program.</summary>
    public static ProblemException NoStore(PostgresAddress address) => new(
        ProblemKind.NotFound, $"There is no store of books at {address.With(null)}, or your login may not see it.",
        $"Whoever owns the database makes it: vlei store init '{address.With(null)}'");

    private static string Place(PostgresAddress address) => address.Host.StartsWith('/') ? address.Host : $"{address.Host}:{address.Port}";

    private static string Reason(Exception thrown) => (thrown.InnerException ?? thrown).Message.TrimEnd('.') + ".";
}
