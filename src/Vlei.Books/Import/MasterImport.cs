using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>Imports the tables that documents refer to: accounts, contacts, items and the like.</summary>
internal static class MasterImport
{
    /// <summary>Imports one of them; where each stands goes to <paramref name="places"/>.</summary>
    public static void Run(ImportSession session, RecordTable table, Dictionary<int, RecordPlace>? places)
    {
        var keyed = new KeyedImport(session, table);
        foreach (var row in session.Records.Read(table, session.Keys, session.Errors))
        {
            var key = keyed.Take(row);
            if (key == 0 || row.IsBroken)
            {
                continue;
            }

            places?.Add(key, new RecordPlace(row.File, row.FileLine));
            var hash = session.Hash.Of(row);
            if (keyed.Differs(key, hash) && session.CanWrite)
            {
                keyed.Close(key);
                session.Store.Add(row, key, session.Revision, hash);
            }

            session.Tell($"reading {table.FileName}", keyed.Keys.Last);
        }

        keyed.RemoveMissing();
    }
}
