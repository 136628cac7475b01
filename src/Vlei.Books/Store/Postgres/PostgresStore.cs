using System.Data;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>The records of one book on a firm's server.</summary>
/// <param name="address">Where it is.</param>
internal sealed class PostgresStore(PostgresAddress address) : IBookStore
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan LongPatience = TimeSpan.FromMinutes(10);

    /// <inheritdoc/>
    public IStoreReading Read() => Opened(session => new PostgresReading(session, IsolationLevel.RepeatableRead));

    /// <inheritdoc/>
    public IStoreWriting Write(Action<string, long>? waiting = null) => Opened(session =>
    {
        Lock(session, waiting);
        return new PostgresWriting(session);
    });

    private T Opened<T>(Func<PostgresSession, T> begin)
    {
        var session = PostgresSession.Open(address.OfBook());
        try
        {
            return begin(session);
        }
        catch
        {
            session.Dispose();
            throw;
        }
    }

    // The connection holds the lock of the book until it ends, however it ends.
    private void Lock(PostgresSession session, Action<string, long>? waiting)
    {
        var rights = session.Query(
            "SELECT b.book::bigint, NOT row_security_active('books') OR b.book = ANY (writable_books()) FROM books b WHERE b.name = $1",
            address.Book!);
        var book = rights.Next() ? rights.Int(0) : 0;
        if (book > 0 && rights.Number(1) == 0)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"Your login may read the book {address.Book}, and not write to it.",
                $"Ask whoever looks after the server: vlei store grant '{address}' LOGIN write");
        }

        for (var waited = TimeSpan.Zero; ; waited += Pause)
        {
            var taken = session.Query("SELECT pg_try_advisory_lock(hashtext($1), $2)", address.Schema, book);
            if (taken.Next() && taken.Number(0) != 0)
            {
                return;
            }

            if (waited > (waiting is null ? Patience : LongPatience))
            {
                throw new ProblemException(
                    ProblemKind.TryAgain, "Another import is writing to this book.", "Try again when it is done.");
            }

            waiting?.Invoke("waiting for another import of this book, seconds", (long)waited.TotalSeconds);
            Thread.Sleep(Pause);
        }
    }
}
