using System.Runtime.InteropServices;

namespace Vlei.Core.Ledger;

/// <summary>
/// What the records of a table are called, by their keys; a key that no record has is called nothing. Of many records few are shown:
/// words are made when they are asked for.
/// </summary>
public sealed class RecordNames
{
    private readonly Func<int, bool> _isNameShared;
    private readonly Lazy<IReadOnlyList<int>> _places;

    /// <summary>Names that are known.</summary>
    /// <param name="table">The table.</param>
    /// <param name="ids">The ids, by key.</param>
    /// <param name="names">The names, by key.</param>
    /// <param name="isNameShared">Whether another record has the name of that one too.</param>
    /// <param name="places">Gives the place of each among what is shown of all, equal ones together.</param>
    public RecordNames(
        RecordTable table, IReadOnlyList<string> ids, IReadOnlyList<string> names, Func<int, bool> isNameShared,
        Func<IReadOnlyList<int>> places)
    {
        (Ids, Names, _isNameShared, _places) = (ids, names, isNameShared, new(places));
        Shown = new WordsByKey(ids.Count, key => ids[key].Length == 0 ? ""
            : table.Id == "code" ? $"{ids[key]} {names[key]}"
            : isNameShared(key) ? $"{names[key]} ({ids[key]})"
            : names[key]);
    }

    /// <summary>The ids.</summary>
    public IReadOnlyList<string> Ids { get; }

    /// <summary>The names; empty for a record that has none.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>
    /// What is shown: tax codes are known by their codes; of the others, those that share a name are told apart by their ids.
    /// </summary>
    public IReadOnlyList<string> Shown { get; }

    /// <summary>The place of what is shown of each among what is shown of all, in the order of names, equal ones together.</summary>
    public IReadOnlyList<int> Places => _places.Value;

    /// <summary>All records, by key.</summary>
    public IEnumerable<NamedRecord> All
    {
        get
        {
            for (var key = 0; key < Ids.Count; key++)
            {
                if (Ids[key].Length > 0)
                {
                    yield return new NamedRecord(key, Ids[key], Names[key]);
                }
            }
        }
    }

    /// <summary>Names of records.</summary>
    /// <param name="table">The table.</param>
    /// <param name="records">The records, by key.</param>
    public static RecordNames Of(RecordTable table, IReadOnlyList<NamedRecord> records)
    {
        var count = records.Count == 0 ? 1 : records[^1].Key + 1;
        var (ids, names, isShared) = (new string[count], new string[count], new bool[count]);
        Array.Fill(ids, "");
        Array.Fill(names, "");
        var firsts = new Dictionary<string, int>(records.Count, StringComparer.Ordinal);
        foreach (var (key, id, name) in records)
        {
            (ids[key], names[key]) = (id, name);
            ref var first = ref CollectionsMarshal.GetValueRefOrAddDefault(firsts, name, out isShared[key]);
            isShared[first] |= isShared[key];
            first = key;
        }

        RecordNames? own = null;
        return own = new RecordNames(table, ids, names, key => isShared[key], () => NameRanks.Of([.. own!.Shown]));
    }

    /// <summary>The id of a record; empty where there is none.</summary>
    public string IdOf(int key) => key < Ids.Count ? Ids[key] : "";

    /// <summary>The name of a record; empty where there is none, or it has none.</summary>
    public string NameOf(int key) => key < Names.Count ? Names[key] : "";

    /// <summary>Whether another record has the name of that one too.</summary>
    public bool IsNameShared(int key) => _isNameShared(key);
}
