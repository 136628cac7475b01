using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books;

/// <summary>Finds what is not as it was at an earlier import.</summary>
internal static class RecordChanges
{
    /// <summary>The documents and settlements that differ between the records of then and those of now.</summary>
    public static List<RecordChange> Since(Database database, long revision) =>
        [.. Documents(database, revision), .. Settlements(database, revision)];

    /// <summary>What the imports up to one did to documents, in their order.</summary>
    public static IEnumerable<DocumentVersion> VersionsUpTo(Database database, long revision)
    {
        const string Debits = "(SELECT sum(l.amount) FROM lines l WHERE l.document = d.key AND l.added = d.added AND l.amount > 0)";
        const string Again = "EXISTS (SELECT 1 FROM documents o WHERE o.key = d.key AND o.";
        using var statement = database.Prepare(
            $"SELECT d.key, k.id, d.kind, d.date, {Debits}, CASE WHEN {Again}replaced = d.added) THEN 1 ELSE 0 END, d.added, i.at, i.by "
            + $"FROM documents d JOIN documents_keys k ON k.key = d.key JOIN imports i ON i.revision = d.added WHERE d.added <= {revision} "
            + $"UNION ALL SELECT d.key, k.id, d.kind, d.date, {Debits}, 2, d.replaced, i.at, i.by "
            + "FROM documents d JOIN documents_keys k ON k.key = d.key JOIN imports i ON i.revision = d.replaced "
            + $"WHERE d.replaced <= {revision} AND NOT {Again}added = d.replaced) ORDER BY 7, 1");
        while (statement.Step())
        {
            yield return new DocumentVersion(
                new DocumentKey(statement.Int(0)), statement.Text(1), DocumentKinds.NumberOf(statement.Text(2)), DayIn(statement, 3)!.Value,
                new Amount(statement.Number(4)), (ChangeKind)statement.Int(5), statement.Number(6),
                Revisions.MomentOf(statement.Text(7)), statement.Text(8));
        }
    }

    private static IEnumerable<RecordChange> Documents(Database database, long revision)
    {
        const string Debits =
            "(SELECT sum(l.amount) FROM lines l WHERE l.document = {0}.key AND l.added = {0}.added AND l.amount > 0)";
        using var statement = database.Prepare(
            $"SELECT k.id, b.date, n.date, coalesce(n.kind, b.kind), coalesce(n.number, b.number, ''), "
            + $"{string.Format(null, Debits, "b")}, {string.Format(null, Debits, "n")} "
            + $"FROM (SELECT DISTINCT key FROM documents WHERE added > {revision} OR replaced > {revision}) c "
            + "JOIN documents_keys k ON k.key = c.key "
            + $"LEFT JOIN documents b ON b.key = c.key AND {new Standing(revision).Of("b")} "
            + $"LEFT JOIN documents n ON n.key = c.key AND {Standing.Now.Of("n")} "
            + "WHERE b.hash IS NOT n.hash ORDER BY c.key");
        while (statement.Step())
        {
            var (was, now) = (DayIn(statement, 1), DayIn(statement, 2));
            yield return new RecordChange(
                was is null ? ChangeKind.Added : now is null ? ChangeKind.Removed : ChangeKind.Changed,
                statement.Text(0), was, now, statement.Text(3), statement.Text(4),
                new Amount(statement.Number(5)), new Amount(statement.Number(6)));
        }
    }

    // What was taken away and put back the same is no change.
    private static IEnumerable<RecordChange> Settlements(Database database, long revision)
    {
        var (before, now) = (Read(database, new Standing(revision), revision), Read(database, Standing.Now, revision));
        foreach (var (settlement, count) in now)
        {
            for (var more = count - before.GetValueOrDefault(settlement); more > 0; more--)
            {
                yield return new RecordChange(
                    ChangeKind.Settled, settlement.Id, null, settlement.Day, "", "", Amount.Zero, settlement.Amount);
            }
        }

        foreach (var (settlement, count) in before)
        {
            for (var more = count - now.GetValueOrDefault(settlement); more > 0; more--)
            {
                yield return new RecordChange(
                    ChangeKind.Unsettled, settlement.Id, settlement.Day, null, "", "", settlement.Amount, Amount.Zero);
            }
        }
    }

    // Only those that an import since has touched, or whose documents have moved: their day is the latest of all three.
    private static Dictionary<(string Id, DateOnly Day, Amount Amount), int> Read(
        Database database, Standing standing, long revision)
    {
        var settlements = new Dictionary<(string, DateOnly, Amount), int>();
        using var statement = database.Prepare(
            "SELECT fk.id || ' with ' || tk.id, max(coalesce(s.date, f.date), f.date, t.date), s.amount FROM settlements s "
            + $"JOIN documents f ON f.key = s.\"from\" AND {standing.Of("f")} JOIN documents t ON t.key = s.\"to\" AND {standing.Of("t")} "
            + "JOIN documents_keys fk ON fk.key = f.key JOIN documents_keys tk ON tk.key = t.key "
            + $"WHERE {standing.Of("s")} AND s.key IN (SELECT key FROM settlements WHERE added > {revision} OR replaced > {revision} "
            + "UNION SELECT x.key FROM settlements x JOIN documents d ON d.key IN (x.\"from\", x.\"to\") "
            + $"AND d.replaced > {revision}) ORDER BY s.key");
        while (statement.Step())
        {
            var key = (statement.Text(0), DayIn(statement, 1)!.Value, new Amount(statement.Number(2)));
            settlements[key] = settlements.GetValueOrDefault(key) + 1;
        }

        return settlements;
    }

    private static DateOnly? DayIn(Statement statement, int column) =>
        IsoText.TryDay(statement.Bytes(column), out var day) ? day : null;
}
