using System.Text;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// What records that others refer to are called, in columns by their keys: nearly every list asks for it, and for its order, and
/// there may be tens of thousands of them.
/// </summary>
internal static class NameColumns
{
    private const string Id = "id", Name = "name", Place = "place", Shared = "shared";

    /// <summary>The tables that have such columns. What accounts are is asked for whole.</summary>
    public static IEnumerable<RecordTable> Tables => RecordTables.Lists.Where(table => table != RecordTables.Accounts);

    /// <summary>Puts what the records of some tables are called in the place of what was there.</summary>
    /// <param name="months">Where it goes.</param>
    /// <param name="tables">The tables.</param>
    /// <param name="store">The records.</param>
    /// <param name="standing">Which versions of them are seen.</param>
    public static void Write(
        WritableDerivedMonths months, IEnumerable<RecordTable> tables, IStoreReading store, Standing standing = default)
    {
        var (ids, words, shared) = (new WordColumnWriter(), new WordColumnWriter(), new WordColumnWriter());
        foreach (var table in tables)
        {
            var records = new List<NamedRecord>();
            using (var rows = store.Rows(new RecordQuery(table, RecordQuery.Key, table.Id!, "name") { Standing = standing }))
            {
                while (rows.Next())
                {
                    records.Add(new NamedRecord(rows.Int(0), rows.Text(1), rows.IsNull(2) ? "" : rows.Text(2)));
                }
            }

            var names = RecordNames.Of(table, records);
            foreach (var (key, id, name) in records)
            {
                ids.Put(key, Encoding.UTF8.GetBytes(id));
                if (name.Length > 0)
                {
                    words.Put(key, Encoding.UTF8.GetBytes(name));
                }

                if (names.IsNameShared(key))
                {
                    shared.Put(key, 1);
                }
            }

            months.Write(
                DerivedKind.Names, PlaceOf(table), records.Count == 0 ? 0 : names.Ids.Count,
                [
                    (Id, ids.Take()), (Name, words.Take()), (Place, PackedNumbers.Pack([.. names.Places])),
                    (Shared, shared.Take()),
                ]);
        }
    }

    /// <summary>What the records of a table are called. Throws a problem where that is damaged.</summary>
    public static RecordNames Read(DerivedMonths months, RecordTable table)
    {
        var (place, count) = (PlaceOf(table), months.Count(DerivedKind.Names, PlaceOf(table)));
        WordColumn? Column(string name) => count == 0 ? null
            : months.Words(DerivedKind.Names, place, name, out _) ?? throw DerivedMonths.Damaged(DerivedKind.Names, place);
        var (ids, names, shared) = (Column(Id), Column(Name), Column(Shared));
        return new RecordNames(
            table, new WordsByKey(Math.Max(1, count), key => ids?[key].Text ?? ""),
            new WordsByKey(Math.Max(1, count), key => names?[key].Text ?? ""), key => shared?.IsSaid(key) == true,
            () => Array.ConvertAll(months.Column(DerivedKind.Names, place, Place), rank => (int)rank));
    }

    /// <summary>The table whose names are kept where other kinds of what is derived have a month.</summary>
    public static RecordTable TableAt(YearMonth place) => RecordTables.All[place.Index];

    private static YearMonth PlaceOf(RecordTable table) => new(RecordTables.All.ToList().IndexOf(table));
}
