using System.Data;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>Reads a book of a server within one transaction. What costs are the round trips, so much is asked for at once.</summary>
internal sealed class PostgresReading : IStoreReading
{
    // What so few records have is brought at once.
    private const int Few = 100;

    // From when to when a book goes stands in its first and its last month, and nearly every report asks for it.
    private const string DaysOfTheEnds =
        "SELECT c.kind::bigint, c.month::bigint, c.name, c.data, c.checksum FROM derived_columns c JOIN (SELECT m.book, m.kind, "
        + "min(m.month) AS first, max(m.month) AS last FROM derived_months m JOIN books b ON b.book = m.book WHERE b.name = $1 "
        + "AND m.kind IN (0, 1) GROUP BY m.book, m.kind) e ON e.book = c.book AND e.kind = c.kind AND c.month IN (e.first, e.last) "
        + "WHERE c.name = 'day'";

    private static readonly (string Sql, object[] Parameters) WholeRows = ("SET LOCAL cursor_tuple_fraction = 1", []);
    private static readonly (string Sql, object[] Parameters) WithoutCompiling = ("SET LOCAL jit = off", []);

    private readonly PostgresSession _session;
    private readonly int _book;
    private readonly ILookup<DerivedKind, (YearMonth Month, int Rows)> _months;
    private readonly PostgresColumns _columns;
    private int _cursors;

    /// <summary>Begins to read. Throws a problem where there is no such book, or the login may not see it.</summary>
    public PostgresReading(PostgresSession session, IsolationLevel level)
    {
        _session = session;
        session.Begin(level);
        var name = session.Address.Book!;
        var (state, months, days) = session.Queries(
            WholeRows, WithoutCompiling,
            ("SELECT (SELECT max(step) FROM steps)::bigint, b.book::bigint, b.oldest_first, b.derived_format, b.hash_format, "
                + "(SELECT coalesce(max(i.revision), 0) FROM imports i WHERE i.book = b.book) FROM books b WHERE b.name = $1", [name]),
            ("SELECT m.kind::bigint, m.month::bigint, m.rows::bigint FROM derived_months m JOIN books b ON b.book = m.book "
                + "WHERE b.name = $1 ORDER BY m.kind, m.month", [name]),
            (DaysOfTheEnds, [name])) is [var one, var two, var three] ? (one, two, three) : default;
        if (!state.Next())
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"There is no book {name} at {session.Address.With(null)}, or your login may not see it.",
                $"Ask whoever looks after the server: vlei store grant '{session.Address}' LOGIN read");
        }

        PostgresSteps.RefuseOther(state.Int(0), session.Address);
        _book = state.Int(1);
        State = new StoreState(state.Number(5), new MadeHow(state.Number(2) != 0, state.Int(3), state.Int(4)));
        var found = new List<(DerivedKind Kind, YearMonth Month, int Rows)>();
        while (months.Next())
        {
            found.Add(((DerivedKind)months.Int(0), YearMonth.FromNumber(months.Int(1)), months.Int(2)));
        }

        _months = found.ToLookup(month => month.Kind, month => (month.Month, month.Rows));
        _columns = new PostgresColumns(session, _book, kind => [.. _months[kind].Select(month => month.Month)]);
        _columns.Take(days);
        if (level == IsolationLevel.RepeatableRead)
        {
            session.Renewed = RefuseOther;
        }
    }

    /// <inheritdoc/>
    public StoreState State { get; }

    /// <summary>How often the server was asked and waited for.</summary>
    public int RoundTrips => _session.RoundTrips;

    /// <summary>The number of the book.</summary>
    public int Book => _book;

    /// <inheritdoc/>
    public IRows Rows(RecordQuery query)
    {
        var (sql, parameters) = PostgresText.Select(query);
        object[] all = [_book, .. parameters];
        return query.Most is not null || query.Keys?.Count <= Few ? _session.Query(sql, all)
            : new PostgresRows(_session, ++_cursors, sql, all);
    }

    /// <inheritdoc/>
    public IRows Ids(RecordTable table) => new PostgresRows(
        _session, ++_cursors, $"SELECT key::bigint, id FROM {table.Name}_keys WHERE book = $1 ORDER BY key", [_book]);

    /// <inheritdoc/>
    public int LastKey(RecordTable table)
    {
        var rows = _session.Query(
            $"SELECT coalesce(max(key), 0)::bigint FROM {(table.Id is null ? table.Name : $"{table.Name}_keys")} WHERE book = $1", _book);
        return rows.Next() ? rows.Int(0) : 0;
    }

    /// <inheritdoc/>
    public HashSet<int> ChangedSince(RecordTable table, long revision)
    {
        var keys = new HashSet<int>();
        var rows = _session.Query(
            $"SELECT key::bigint FROM {table.Name} WHERE book = $1 AND (added > $2 OR replaced > $2)", _book, revision);
        while (rows.Next())
        {
            keys.Add(rows.Int(0));
        }

        return keys;
    }

    /// <inheritdoc/>
    public IReadOnlyList<(int Key, string Tags)> TagSets() =>
        All("SELECT key::bigint, tags FROM tag_sets WHERE book = $1 ORDER BY key", row => (row.Int(0), row.Text(1)));

    /// <inheritdoc/>
    public IReadOnlyList<StoredImport> Imports()
    {
        var files = All(
            "SELECT revision, path, sha256, bytes FROM import_files WHERE book = $1 ORDER BY revision, place",
            row => (Revision: row.Number(0), File: new RecordFile(row.Text(1), row.Text(2), row.Number(3))))
            .ToLookup(file => file.Revision, file => file.File);
        var counts = All(
            "SELECT revision, kind, added, changed, unchanged, removed FROM import_counts WHERE book = $1 "
                + "ORDER BY revision, kind COLLATE \"C\"",
            row => (Revision: row.Number(0), Counts: new StoredCounts(
                row.Text(1), row.Number(2), row.Number(3), row.Number(4), row.Number(5))))
            .ToLookup(count => count.Revision, count => count.Counts);
        return All(
            "SELECT revision, at, by, complete FROM imports WHERE book = $1 ORDER BY revision",
            row => new StoredImport(
                row.Number(0), StoreProblem.MomentOf(row.Text(1)), row.Text(2), row.Number(3) != 0,
                [.. files[row.Number(0)]], [.. counts[row.Number(0)]]));
    }

    /// <inheritdoc/>
    public IReadOnlyList<ClosedPeriod> ClosedPeriods() => All(
        "SELECT first_day, last_day, revision, at, by FROM closed_periods WHERE book = $1 "
            + "ORDER BY first_day COLLATE \"C\", last_day COLLATE \"C\"",
        row =>
        {
            _ = IsoText.TryDay(row.Bytes(0), out var from) & IsoText.TryDay(row.Bytes(1), out var to);
            return new ClosedPeriod(new DateRange(from, to), row.Number(2), StoreProblem.MomentOf(row.Text(3)), row.Text(4));
        });

    /// <inheritdoc/>
    public IReadOnlyList<string> Faults(int most)
    {
        var references = RecordTables.All.SelectMany(table => table.Fields, (table, field) => (Table: table.Name, Field: field))
            .Where(one => one.Field.Target is not null)
            .Select(one => (one.Table, Of: $"{one.Field.Target}_keys",
                Sql: $"SELECT 1 FROM {one.Table} t WHERE t.book = $1 AND "
                    + $"t.{PostgresText.Quoted(one.Field.Name)} IS NOT NULL AND NOT EXISTS "
                    + $"(SELECT 1 FROM {one.Field.Target}_keys k WHERE k.book = t.book AND k.key = "
                    + $"t.{PostgresText.Quoted(one.Field.Name)})"))
            .Append((Table: "lines", Of: "documents",
                Sql: "SELECT 1 FROM lines t WHERE t.book = $1 AND NOT EXISTS "
                    + "(SELECT 1 FROM documents d WHERE d.book = t.book AND d.key = t.document AND d.added = t.added)"))
            .ToList();
        var found = _session.Queries(
            [
                (PostgresText.PlanForMany, []), .. references.Select(one => ($"{one.Sql} LIMIT 1", new object[] { _book })),
                (PostgresText.PlanForFew, []),
            ]);
        return [.. references.Where((_, place) => found[place].Next())
            .Select(one => $"a row of {one.Table} refers to one that is not in {one.Of}").Take(most)];
    }

    /// <inheritdoc/>
    public IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind) => [.. _months[kind]];

    /// <inheritdoc/>
    public IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last)
    {
        var heads = new List<MonthHead>();
        var rows = _session.Query(
            "SELECT month::bigint, rows::bigint, sums, checksum FROM derived_months WHERE book = $1 AND kind = $2 "
                + "AND month BETWEEN $3 AND $4 ORDER BY month",
            _book, (int)kind, first.Number, last.Number);
        while (rows.Next())
        {
            heads.Add(new MonthHead(YearMonth.FromNumber(rows.Int(0)), rows.Int(1), rows.Blob(2), rows.Number(3)));
        }

        return heads;
    }

    /// <inheritdoc/>
    public IReadOnlyList<YearMonth> AllMonths(DerivedKind kind)
    {
        var months = new List<YearMonth>();
        var rows = _session.Query(
            "SELECT month::bigint FROM derived_months WHERE book = $1 AND kind = $2 UNION "
                + "SELECT month::bigint FROM derived_columns WHERE book = $1 AND kind = $2 ORDER BY 1",
            _book, (int)kind);
        while (rows.Next())
        {
            months.Add(YearMonth.FromNumber(rows.Int(0)));
        }

        return months;
    }

    /// <inheritdoc/>
    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum) =>
        _columns.TryColumn(kind, month, name, out data, out checksum);

    /// <inheritdoc/>
    public IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month)
    {
        var columns = new List<MonthColumn>();
        var rows = _session.Query(
            "SELECT name, data, checksum FROM derived_columns WHERE book = $1 AND kind = $2 AND month = $3 ORDER BY name COLLATE \"C\"",
            _book, (int)kind, month.Number);
        while (rows.Next())
        {
            columns.Add(new MonthColumn(rows.Text(0), rows.Blob(1), rows.Number(2)));
        }

        return columns;
    }

    /// <inheritdoc/>
    public void Dispose() => _session.Dispose();

    // Rows go by revision and stay, and months are those of the last one: the same revision shows the same.
    private void RefuseOther()
    {
        var rows = _session.Queries(
            WholeRows, WithoutCompiling, ("SELECT coalesce(max(revision), 0) FROM imports WHERE book = $1", [_book]))[0];
        if (!rows.Next() || rows.Number(0) != State.Revision)
        {
            throw new ProblemException(
                ProblemKind.TryAgain, "The connection was lost, and the book was imported into since.", "Do the same again.");
        }
    }

    private List<T> All<T>(string sql, Func<IRows, T> read)
    {
        var all = new List<T>();
        var rows = _session.Query(sql, _book);
        while (rows.Next())
        {
            all.Add(read(rows));
        }

        return all;
    }
}
