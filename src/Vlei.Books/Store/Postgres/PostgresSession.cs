using System.Data;
using Npgsql;

namespace Vlei.Books.Store.Postgres;

/// <summary>A connection to the server of a firm. Whatever goes wrong comes out as a problem that says what to do.</summary>
internal sealed class PostgresSession : IDisposable
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(100);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);

    private readonly NpgsqlDataSource _source;
    private NpgsqlConnection _connection;
    private NpgsqlTransaction? _transaction;
    private IsolationLevel _level;
    private Task? _sending;

    private PostgresSession(PostgresAddress address, NpgsqlDataSource source, NpgsqlConnection connection) =>
        (Address, _source, _connection) = (address, source, connection);

    /// <summary>Where it leads.</summary>
    public PostgresAddress Address { get; }

    /// <summary>How often something was sent and waited for.</summary>
    public int RoundTrips { get; private set; }

    /// <summary>
    /// What makes sure, where a connection was lost and there is another, that it shows the same; nothing where a lost connection is
    /// told.
    /// </summary>
    public Action? Renewed { get; set; }

    /// <summary>How many lists of rows have not come whole: they end with the connection.</summary>
    public int OpenRows { get; set; }

    /// <summary>Opens a connection. Throws a <see cref="Core.Problems.ProblemException"/> where the server does not let one in.</summary>
    public static PostgresSession Open(PostgresAddress address)
    {
        var text = new NpgsqlConnectionStringBuilder
        {
            Host = address.Host, Port = address.Port, Database = address.Database,
            SearchPath = $"\"{address.Schema.Replace("\"", "\"\"")}\"",
            Pooling = false, CommandTimeout = 0, ApplicationName = "vlei", SslMode = TlsOf(address), Enlist = false,
            GssEncryptionMode = GssEncryptionMode.Disable,
        };
        if (address.User is { } user)
        {
            text.Username = user;
        }

        var builder = new NpgsqlSlimDataSourceBuilder(text.ConnectionString);
        builder.EnableTransportSecurity();
        builder.EnableArrays();

        // Only types that every server has are asked for; to look for others would be most of the time of a small report.
        builder.ConfigureTypeLoading(types => types.EnableTypeLoading(enable: false));
        var source = builder.Build();
        try
        {
            return new PostgresSession(address, source, Connected(source));
        }
        catch (Exception cannot) when (IsOfServer(cannot))
        {
            source.Dispose();
            throw PostgresProblem.From(cannot, address);
        }
    }

    /// <summary>Begins a transaction; it is sent with what is asked first.</summary>
    public void Begin(IsolationLevel level) => (_level, _transaction) = (level, _connection.BeginTransaction(level));

    /// <summary>Makes everything that was written stay.</summary>
    public void Commit()
    {
        Settle();
        try
        {
            RoundTrips++;
            _transaction!.Commit();
        }
        catch (PostgresException refused)
        {
            throw PostgresProblem.From(refused, Address);
        }
        catch (Exception lost) when (IsOfServer(lost))
        {
            throw PostgresProblem.LostAtCommit(lost, Address);
        }
    }

    /// <summary>All rows that a query gives. Parameters are <c>$1</c>, <c>$2</c> and so on.</summary>
    public BufferedRows Query(string sql, params object[] parameters) => Asked(() =>
    {
        using var command = Command(sql, parameters);
        using var reader = command.ExecuteReader();
        return BufferedRows.Of(reader);
    });

    /// <summary>All rows of several queries, asked at once.</summary>
    public IReadOnlyList<BufferedRows> Queries(params IReadOnlyList<(string Sql, object[] Parameters)> queries) => Asked(() =>
    {
        using var batch = new NpgsqlBatch(_connection, _transaction);
        foreach (var (sql, parameters) in queries)
        {
            var command = new NpgsqlBatchCommand(sql);
            foreach (var parameter in parameters)
            {
                command.Parameters.Add(new NpgsqlParameter { Value = parameter });
            }

            batch.BatchCommands.Add(command);
        }

        using var reader = batch.ExecuteReader();
        var all = new List<BufferedRows>();
        do
        {
            all.Add(BufferedRows.Of(reader));
        }
        while (reader.NextResult());

        return all;
    });

    /// <summary>Runs what gives no rows, and says how many it was done to.</summary>
    public int Execute(string sql, params object[] parameters) => Asked(() =>
    {
        using var command = Command(sql, parameters);
        return command.ExecuteNonQuery();
    });

    /// <summary>
    /// Begins to send something while the caller goes on to make what is sent next; whatever else is asked waits for its end, and
    /// throws what it throws.
    /// </summary>
    public void SendMeanwhile(Action send)
    {
        Settle();
        _sending = Task.Run(send);
    }

    /// <summary>Sends bytes in the binary form that tables are filled from.</summary>
    public void Copy(string sql, ReadOnlyMemory<byte> bytes) => Asked(() =>
    {
        using var stream = _connection.BeginRawBinaryCopy(sql);
        stream.Write(bytes.Span);
        return 0;
    });

    /// <inheritdoc/>
    public void Dispose()
    {
        try
        {
            _sending?.ContinueWith(_ => { }, TaskScheduler.Default).Wait();
            _transaction?.Dispose();
            _connection.Dispose();
        }
        catch (Exception lost) when (IsOfServer(lost))
        {
            // The server gives up by itself what was not committed.
        }

        _source.Dispose();
    }

    private NpgsqlCommand Command(string sql, object[] parameters)
    {
        var command = new NpgsqlCommand(sql, _connection, _transaction);
        foreach (var parameter in parameters)
        {
            command.Parameters.Add(new NpgsqlParameter { Value = parameter });
        }

        return command;
    }

    // What is sent meanwhile asks too, and does not wait for itself.
    private void Settle()
    {
        if (_sending is { } sending && Task.CurrentId != sending.Id)
        {
            _sending = null;
            sending.GetAwaiter().GetResult();
        }
    }

    private T Asked<T>(Func<T> ask)
    {
        Settle();
        try
        {
            RoundTrips++;
            return ask();
        }
        catch (Exception lost) when (IsOfServer(lost) && Renewed is not null && OpenRows == 0 && _connection.State != ConnectionState.Open)
        {
            Renew(lost);
            return Asked(ask);
        }
        catch (Exception thrown) when (IsOfServer(thrown))
        {
            throw PostgresProblem.From(thrown, Address);
        }
    }

    // Once for each question; what cannot be had again is told as it was lost.
    private void Renew(Exception lost)
    {
        var renewed = Renewed!;
        Renewed = null;
        try
        {
            _connection.Dispose();
            _connection = Connected(_source);
            Begin(_level);
        }
        catch (Exception cannot) when (IsOfServer(cannot))
        {
            throw PostgresProblem.From(lost, Address);
        }

        renewed();
        Renewed = renewed;
    }

    // A server that starts, or has no connection free, is asked again for a little while.
    private static NpgsqlConnection Connected(NpgsqlDataSource source)
    {
        const string Starting = "57P03";
        const string TooMany = "53300";
        for (var waited = TimeSpan.Zero; ; waited += Pause)
        {
            try
            {
                return source.OpenConnection();
            }
            catch (PostgresException busy) when (busy.SqlState is Starting or TooMany && waited < Patience)
            {
                Thread.Sleep(Pause);
            }
        }
    }

    private static bool IsOfServer(Exception thrown) =>
        thrown is NpgsqlException or IOException or System.Net.Sockets.SocketException or TimeoutException;

    private static SslMode TlsOf(PostgresAddress address) => address.Tls switch
    {
        "disable" => SslMode.Disable,
        "allow" => SslMode.Allow,
        "prefer" => SslMode.Prefer,
        "require" => SslMode.Require,
        "verify-ca" => SslMode.VerifyCA,
        "verify-full" => SslMode.VerifyFull,
        _ => address.IsLocal ? SslMode.Prefer : SslMode.VerifyFull,
    };
}
