using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>Imports the tables that documents refer to: accounts, contacts, items and the like.</summary>
internal static class MasterImport
{
    /// <summary>Imports one of them; on which line each stands goes to <paramref name="fileLines"/>.</summary>
    public static void Run(ImportSession session, RecordTable table, Dictionary<int, long>? fileLines)
    {
        using var keyed = new KeyedImport(session, table);
        using var insert = new RecordInsert(session.Database, table, "key", "added", "hash");
        var id = table.IndexOf(table.Id!);

        // Ids are known before anything is looked up: a parent may stand behind its children, and what refers to a
        // record with another mistake in it is not wrong for that.
        foreach (var known in session.Records.ReadIds(table))
        {
            keyed.Keys.FindOrAdd(known);
        }

        foreach (var row in session.Records.Read(table, session.Keys, session.Errors))
        {
            var key = keyed.Take(row);
            if (key == 0 || row.IsBroken)
            {
                continue;
            }

            fileLines?.Add(key, row.FileLine);
            var hash = session.Hash.Of(row, id);
            if (keyed.Differs(key, hash) && session.CanWrite)
            {
                keyed.Close(key);
                insert.Insert(row, key, session.Revision, (long)hash);
            }

            session.Tell($"reading {table.FileName}", keyed.Keys.Last);
        }

        keyed.RemoveMissing();
    }
}
