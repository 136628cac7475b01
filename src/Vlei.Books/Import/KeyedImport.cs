using System.Runtime.InteropServices;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>
/// The history of records that are known by an id: gives new ids their numbers, and closes the version that a changed
/// or a removed record had.
/// </summary>
internal sealed class KeyedImport
{
    private readonly RecordTable _table;
    private readonly RecordCounts _counts;
    private readonly List<ulong> _hashes;
    private readonly List<RecordPlace> _places = [];
    private readonly ImportSession _session;

    /// <summary>Loads what is there.</summary>
    public KeyedImport(ImportSession session, RecordTable table)
    {
        (_session, _table) = (session, table);
        _counts = session.CountsOf(table);
        _hashes = session.LoadKeys(table);
        Before = _hashes.Count - 1;
        Keys = session.Keys[table.Name];
    }

    /// <summary>The table's ids.</summary>
    public RecordKeys Keys { get; }

    /// <summary>The highest number before the import.</summary>
    public int Before { get; }

    /// <summary>Whether the record of that number was there before the import.</summary>
    public bool WasThere(int key) => key < _hashes.Count && _hashes[key] != 0;

    /// <summary>
    /// The number of the record's id; 0 where it has none, or, with an error, where the set has the id already.
    /// </summary>
    public int Take(RecordRow row)
    {
        var id = _table.IndexOf(_table.Id!);
        if (!row.Has(id))
        {
            return 0;
        }

        var key = Keys.FindOrAdd(row.Text(id));
        if (!IsInSet(key))
        {
            if (key >= _places.Count)
            {
                CollectionsMarshal.SetCount(_places, key + 1);
            }

            _places[key] = new RecordPlace(row.File, row.FileLine);
            if (key > Before && _session.CanWrite)
            {
                _session.Store.AddId(_table, key, row.Text(id));
            }

            return key;
        }

        _session.Errors.Add(
            row, id, $"{_table.Id} \"{row.String(id)}\" is there twice, first in line {_places[key].Line}; ids must differ.");
        return 0;
    }

    /// <summary>Whether the set has the record.</summary>
    public bool IsInSet(int key) => key < _places.Count && _places[key].File is not null;

    /// <summary>Where the record starts; the first line of the table's own file where the set does not have it.</summary>
    public RecordPlace PlaceOf(int key) => IsInSet(key) ? _places[key] : new RecordPlace(_table.FileName, 1);

    /// <summary>Whether the record differs from what is there, and counts it.</summary>
    public bool Differs(int key, ulong hash)
    {
        if (!WasThere(key))
        {
            _counts.Added++;
            return true;
        }

        if (_hashes[key] == hash)
        {
            _counts.Unchanged++;
            return false;
        }

        _counts.Changed++;
        return true;
    }

    /// <summary>Closes the version that was there, if any; a new version may follow.</summary>
    public void Close(int key)
    {
        if (key <= Before)
        {
            _session.Store.Close(_table, key, _session.Revision);
        }
    }

    /// <summary>The records that were removed.</summary>
    public HashSet<int> Removed { get; } = [];

    /// <summary>Removes, from a book that a complete set is imported into, the records that the set does not have.</summary>
    public IReadOnlyCollection<int> RemoveMissing() => _session.Order.Complete ? RemoveMissing(_ => true) : [];

    /// <summary>Removes those records that the set does not have and that are of a part of which it has all.</summary>
    public IReadOnlyCollection<int> RemoveMissing(Func<int, bool> isOfPart)
    {
        var removed = Removed;
        for (var key = 1; key <= Before; key++)
        {
            if (WasThere(key) && !IsInSet(key) && isOfPart(key))
            {
                _session.Store.Close(_table, key, _session.Revision);
                removed.Add(key);
            }
        }

        _counts.Removed += removed.Count;
        return removed;
    }
}
