using System.Net;
using System.Net.Sockets;
using Vlei.Books.Store;
using Vlei.Books.Store.Postgres;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Tests;

/// <summary>A firm's server: who sees what, and what happens where something breaks.</summary>
public sealed class ServerTests(TestFirm server) : IClassFixture<TestFirm>, IDisposable
{
    private readonly TestBooks _books = new();

    [Fact]
    public void A_login_sees_the_books_that_were_granted_to_it_and_no_row_of_others()
    {
        var (own, other) = (NewBook("own", "anna", BookRight.Write), NewBook("other", "ben", BookRight.Read));
        var set = _books.Set("set", 4, 30);
        TestBooks.Take(On(own, "anna"), set, false);
        TestBooks.Take(On(other, "owner"), set, false);
        PostgresServer.Grant(server.Address("owner", other), "anna", BookRight.Read);
        PostgresServer.Grant(server.Address("owner", other), "anna", BookRight.None);

        Assert.Contains(own, PostgresServer.Books(server.Address("anna")));
        Assert.DoesNotContain(other, PostgresServer.Books(server.Address("anna")));
        Assert.Equal(ProblemKind.NotFound, Refused(() => On(other, "anna").Store.Read()).Kind);
        Assert.Equal(ProblemKind.NotFound, Refused(() => On(own, "ben").Store.Read()).Kind);
        foreach (var table in new[] { "lines", "documents", "contacts", "derived_columns", "imports", "books" })
        {
            Assert.Equal("0", Sql("anna", $"SELECT count(*) FROM {table} WHERE book = {NumberOf(other)}"));
            Assert.NotEqual("0", Sql("anna", $"SELECT count(*) FROM {table} WHERE book = {NumberOf(own)}"));
        }

        // Nor by writing: what is not seen is not touched, and nothing can be put there.
        Assert.Equal(
            Sql("anna", "SELECT count(*) FROM lines"),
            Sql("anna", "WITH u AS (UPDATE lines SET memo = 'x' RETURNING 1) SELECT count(*) FROM u"));
        Assert.Contains("row-level security", Sql("anna", $"INSERT INTO tag_sets SELECT {NumberOf(other)}, 1, '{{}}'"));
        Assert.Contains("permission denied", Sql("anna", "SELECT * FROM grants"));

        Assert.Equal(ProblemKind.CannotWrite, Refused(() => On(other, "ben").Store.Write()).Kind);
        Assert.Equal(
            ProblemKind.CannotWrite, Refused(() => PostgresServer.Grant(server.Address("anna", own), "ben", BookRight.Write)).Kind);
        Assert.Equal(ProblemKind.CannotWrite, Refused(() => PostgresServer.Add(server.Address("anna", "mine"), "")).Kind);
    }

    [Fact]
    public void A_server_that_is_killed_in_the_middle_leaves_the_book_as_it_was()
    {
        var book = On(NewBook("killed", "anna", BookRight.Write), "anna");
        var (first, second) = (_books.Set("first", 5, 40), _books.Set("second", 6, 9_000));
        TestBooks.Take(book, first, false);
        var before = TestBooks.Reports(book, 1);
        foreach (var stage in new[] { "reading lines.csv", "deriving postings" })
        {
            var isKilled = false;
            var lost = Refused(() => TestBooks.Import(book, second, (what, _) =>
            {
                if (what == stage && !isKilled)
                {
                    isKilled = true;
                    server.Kill();
                }
            }));
            Assert.Equal(ProblemKind.TryAgain, lost.Kind);
            server.Start();
            Assert.Equal(before, TestBooks.Reports(book, 1));
        }

        TestBooks.Take(book, second, false);
        Assert.Equal([], BookCheck.Run(book, (_, _) => { }).SelectMany(result => result.Faults));
    }

    [Fact]
    public void An_import_that_lost_its_answer_finds_out_on_the_next_try()
    {
        var name = NewBook("lost", "anna", BookRight.Write);
        using var wire = new CuttingWire(server.Port);
        var far = server.Address("anna", name) with { Port = wire.Port };
        var set = _books.Set("set", 7, 30);
        var lost = Refused(() => TestBooks.Import(_books.BookOn(new PostgresStore(far)), set, (_, _) => { }));
        Assert.Equal(ProblemKind.TryAgain, lost.Kind);
        Assert.True(lost.Message.Contains("it may be kept or not", StringComparison.Ordinal), $"{lost}");
        Assert.StartsWith(": ", TestBooks.Take(On(name, "anna"), set, false));
    }

    [Fact]
    public void A_reading_that_lost_its_connection_goes_on_as_long_as_the_book_is_the_same()
    {
        var name = NewBook("again", "anna", BookRight.Write);
        TestBooks.Take(On(name, "anna"), _books.Set("first", 10, 40), false);
        using var whole = On(name, "anna").Store.Read();
        var expected = whole.Imports()[0].Files;
        using var reading = On(name, "anna").Store.Read();
        using var other = On(name, "anna").Store.Read();
        foreach (var _ in new[] { 1, 2 })
        {
            EndConnections();
            Assert.Equal(expected, reading.Imports()[0].Files);
        }

        // Rows that have not come whole end with it, and are told.
        using (reading.Rows(new RecordQuery(RecordTables.Documents, "id")))
        {
            EndConnections();
            Assert.Equal(ProblemKind.TryAgain, Refused(() => reading.Imports()).Kind);
        }

        Assert.Equal(expected, other.Imports()[0].Files);

        TestBooks.Take(On(name, "anna"), _books.Set("second", 11, 3_000), false);
        EndConnections();
        Assert.Contains("imported into since", Refused(() => other.Imports()).Message);
    }

    [Fact]
    public void A_full_disk_is_told_and_leaves_the_book_as_it_was()
    {
        Assert.SkipUnless(Environment.UserName == "root", "Only root can make a small disk.");
        var disk = Directory.CreateDirectory(Path.Combine(server.Folder, "disk")).FullName;
        TestServer.Run("mount", "-t", "tmpfs", "-o", "size=16m,mode=777", "none", disk);
        try
        {
            TestServer.Run("chown", "postgres", disk);
            server.Sql($"CREATE TABLESPACE small LOCATION '{disk}'");
            server.Sql("CREATE DATABASE small TABLESPACE small");
            var address = server.Address("owner") with { Database = "small" };
            PostgresServer.Init(address);
            PostgresServer.Add(address.With("b"), "");
            var book = _books.BookOn(new PostgresStore(address.With("b")));
            TestBooks.Take(book, _books.Set("first", 8, 30), false);
            var full = Refused(() => TestBooks.Import(book, _books.Set("second", 9, 20_000), (_, _) => { }));
            Assert.Equal(ProblemKind.CannotWrite, full.Kind);
            Assert.Contains("no room left", full.Message);
            using var reading = book.Store.Read();
            Assert.Equal(1, reading.State.Revision);
        }
        finally
        {
            server.Sql("DROP DATABASE IF EXISTS small");
            server.Sql("DROP TABLESPACE IF EXISTS small");
            TestServer.Run("umount", disk);
        }
    }

    [Fact]
    public void Readers_do_not_wait_for_an_import_and_see_all_of_it_or_nothing()
    {
        var name = NewBook("read", "anna", BookRight.Write);
        var (first, second) = (_books.Set("first", 10, 40), _books.Set("second", 11, 3_000));
        TestBooks.Take(On(name, "anna"), first, false);
        using var isTaken = new CancellationTokenSource();
        var readers = Enumerable.Range(0, 8).Select(_ => Task.Run(() =>
        {
            var seen = new HashSet<(long, string)>();
            while (!isTaken.IsCancellationRequested)
            {
                using var reader = LedgerReader.Open(On(name, "anna"));
                seen.Add((reader.Revision, TestBooks.Report(On(name, "anna"), "trial-balance", ("period", "2020/2030"))));
            }

            return seen;
        })).ToList();
        TestBooks.Take(On(name, "anna"), second, false);
        isTaken.Cancel();
        var all = readers.SelectMany(reader => reader.Result).Select(one => one.Item2).Distinct().ToList();
        Assert.InRange(all.Count, 1, 2);
        Assert.Contains(TestBooks.Report(On(name, "anna"), 1, "trial-balance", ("period", "2020/2030")), all);
    }

    [Theory]
    [InlineData("balance-sheet", "2026-06-30", "accrual")]
    [InlineData("profit-loss", "2024/2026", "cash")]
    public void A_statement_asks_the_server_three_times_whatever_its_size(string report, string period, string basis)
    {
        var name = NewBook("asked", "anna", BookRight.Write);
        TestBooks.Take(On(name, "anna"), _books.Set("set", 14, 300), false);
        var store = new WatchedStore(new PostgresStore(server.Address("anna", name)));
        _ = TestBooks.Report(_books.BookOn(store), report, ("period", period), ("basis", basis), ("by", "month"));
        Assert.InRange(store.Last!.RoundTrips, 1, 3);
    }

    [Fact]
    public void Another_import_of_the_same_book_waits_and_says_so()
    {
        var name = NewBook("busy", "anna", BookRight.Write);
        var set = _books.Set("set", 12, 20);
        var writing = On(name, "anna").Store.Write();
        var said = new List<string>();
        TestBooks.Import(On(name, "anna"), set, (what, _) =>
        {
            said.Add(what);
            writing.Dispose();
        });
        Assert.StartsWith("waiting for another import", said[0]);
    }

    [Fact]
    public void A_book_goes_there_and_back_with_all_its_history()
    {
        var path = Path.Combine(_books.Folder, "here");
        var here = Book.Create(path, _books.BookOn(new MemoryStore()).Settings);
        var set = _books.Set("set", 13, 60);
        TestBooks.Take(here, _books.Altered(set, "first", 1), false);
        TestBooks.Take(here, set, false);
        TestBooks.Take(here, _books.Altered(set, "third", 2), true);
        Revisions.Close(
            here, new Core.Calendar.DateRange(new DateOnly(2026, 1, 1), new DateOnly(2026, 3, 31)), DateTimeOffset.UnixEpoch, "Anna");
        var there = server.Address("owner", $"there-{Guid.NewGuid():N}").Text;
        StoreCopy.Run(here, there, (_, _) => { });
        StoreCopy.Run(Book.Open(there), Path.Combine(_books.Folder, "back"), (_, _) => { });
        var back = Book.Open(Path.Combine(_books.Folder, "back"));
        Assert.Equal([], StoreCopy.Differences(here, Book.Open(there)));
        Assert.Equal([], StoreCopy.Differences(here, back));
        Assert.Equal(TestBooks.Reports(here, 2), TestBooks.Reports(back, 2));
        Assert.Equal(ProblemKind.CannotWrite, Refused(() => StoreCopy.Run(here, there, (_, _) => { })).Kind);
        TestBooks.Take(back, set, false);
        Assert.Contains("documents", StoreCopy.Differences(here, back));
    }

    public void Dispose() => _books.Dispose();

    private static ProblemException Refused(Func<object> act) => Assert.Throws<ProblemException>(() => _ = act());

    private static ProblemException Refused(Action act) => Assert.Throws<ProblemException>(act);

    private string NewBook(string name, string login, BookRight right)
    {
        var own = $"{name}-{Guid.NewGuid():N}";
        PostgresServer.Add(server.Address("owner", own), "");
        PostgresServer.Grant(server.Address("owner", own), login, right);
        return own;
    }

    private void EndConnections() =>
        server.Sql("SELECT count(pg_terminate_backend(pid, 5000)) FROM pg_stat_activity WHERE application_name = 'vlei'");

    private Book On(string book, string login) => _books.BookOn(new PostgresStore(server.Address(login, book)));

    private string NumberOf(string book) => server.Sql($"SELECT book FROM vlei.books WHERE name = '{book}'").Trim();

    private string Sql(string login, string sql) => TestServer.Run(
        "sh", "-c",
        $"psql -h 127.0.0.1 -p {server.Port} -U {login} -At -c 'SET search_path TO vlei' -c \"$0\" firm 2>&1 | grep -v '^SET$' || true",
        sql).Trim();

    /// <summary>A store of which the last reading is known.</summary>
    private sealed class WatchedStore(PostgresStore store) : IBookStore
    {
        public PostgresReading? Last { get; private set; }

        public IStoreReading Read() => Last = (PostgresReading)store.Read();

        public IStoreWriting Write(Action<string, long>? waiting = null) => store.Write(waiting);
    }

    /// <summary>A wire to the server that is cut when something is to be kept: the server hears it, and its answer is lost.</summary>
    private sealed class CuttingWire : IDisposable
    {
        private readonly TcpListener _listener = new(IPAddress.Loopback, 0);

        public CuttingWire(int port)
        {
            _listener.Start();
            _ = Task.Run(() =>
            {
                while (true)
                {
                    var near = _listener.AcceptTcpClient();
                    _ = Task.Run(() => Carry(near, port));
                }
            });
        }

        public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

        public void Dispose() => _listener.Dispose();

        private static void Carry(TcpClient near, int port)
        {
            using var far = new TcpClient("127.0.0.1", port);
            var isCut = false;
            _ = Task.Run(() => Pass(far.GetStream(), near.GetStream(), _ => !isCut));
            Pass(near.GetStream(), far.GetStream(), said =>
            {
                isCut = said.IndexOf("COMMIT\0"u8) >= 0;
                return true;
            });

            void Pass(NetworkStream from, NetworkStream to, Func<ReadOnlySpan<byte>, bool> goesOn)
            {
                var bytes = new byte[1 << 16];
                for (int read; (read = from.Read(bytes)) > 0 && goesOn(bytes.AsSpan(0, read));)
                {
                    to.Write(bytes, 0, read);
                    if (isCut)
                    {
                        // Heard before it is cut.
                        Thread.Sleep(TimeSpan.FromMilliseconds(300));
                        near.Close();
                        return;
                    }
                }
            }
        }
    }
}
