using Vlei.Books.Store;
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
        var last = session.Store.LastKey(Table);
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

            var hash = session.Hash.Of(row);
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
                session.Store.Close(Table, before.Key, session.Revision);
            }

            if (session.CanWrite)
            {
                session.Store.Add(row, ++last, session.Revision, hash);
            }
        }

        foreach (var (_, key) in known.Values.Where(_ => session.Order.Complete))
        {
            counts.Removed++;
            session.Store.Close(Table, key, session.Revision);
        }
    }

    private static Dictionary<(long, string, long, long), (ulong Hash, int Key)> Load(ImportSession session)
    {
        var known = new Dictionary<(long, string, long, long), (ulong, int)>();
        using var rows = session.Store.Rows(new RecordQuery(
            Table, "account", "month", "project", "department", RecordQuery.Hash, RecordQuery.Key));
        while (rows.Next())
        {
            known.Add((rows.Number(0), rows.Text(1), rows.Number(2), rows.Number(3)), ((ulong)rows.Number(4), rows.Int(5)));
        }

        return known;
    }
}
