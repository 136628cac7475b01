using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>Imports budgets. One is known by what it is for: account, month, project and department.</summary>
internal static class BudgetImport
{
    private static readonly RecordTable Table = RecordTables.Budgets;
    private static readonly int Account = Table.IndexOf("account");
    private static readonly int Month = Table.IndexOf("month");
    private static readonly int Project = Table.IndexOf("project");
    private static readonly int Department = Table.IndexOf("department");

    /// <summary>Imports them.</summary>
    public static void Run(ImportSession session)
    {
        var counts = session.CountsOf(Table);
        var known = Load(session);
        var seen = new Dictionary<(long, string, long, long), long>();
        using var insert = new RecordInsert(session.Database, Table, "added", "hash");
        using var replace = session.Database.Prepare("UPDATE budgets SET replaced = ? WHERE key = ?");
        foreach (var row in session.Records.Read(Table, session.Keys, session.Errors))
        {
            if (row.IsBroken)
            {
                continue;
            }

            var what = (row.Number(Account), row.String(Month), row.Number(Project), row.Number(Department));
            if (!seen.TryAdd(what, row.FileLine))
            {
                session.Errors.Add(
                    row, Account, $"the account has a budget for {row.String(Month)} already, in line {seen[what]}; write one.");
                continue;
            }

            var hash = session.Hash.Of(row, -1);
            if (!known.Remove(what, out var before))
            {
                counts.Added++;
            }
            else if (before.Hash == hash)
            {
                counts.Unchanged++;
                continue;
            }
            else
            {
                counts.Changed++;
                replace.Bind(1, session.Revision).Bind(2, before.Key).Run();
            }

            if (session.CanWrite)
            {
                insert.Insert(row, session.Revision, (long)hash);
            }
        }

        foreach (var (_, key) in known.Values.Where(_ => session.Order.Complete))
        {
            counts.Removed++;
            replace.Bind(1, session.Revision).Bind(2, key).Run();
        }
    }

    private static Dictionary<(long, string, long, long), (ulong Hash, long Key)> Load(ImportSession session)
    {
        var known = new Dictionary<(long, string, long, long), (ulong, long)>();
        using var statement = session.Database.Prepare(
            "SELECT account, month, project, department, hash, key FROM budgets WHERE replaced IS NULL");
        while (statement.Step())
        {
            known.Add(
                (statement.Number(0), statement.Text(1), statement.Number(2), statement.Number(3)),
                ((ulong)statement.Number(4), statement.Number(5)));
        }

        return known;
    }
}
