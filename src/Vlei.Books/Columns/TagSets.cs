using System.Text.Json;
using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// The tags that a line has, with those of its document that it does not have itself, kept once for all lines that have
/// the same. A set that was ever written keeps its key, so that columns come out the same each time they are made.
/// </summary>
/// <param name="store">What is read.</param>
/// <param name="keep">What is done with a set that is new; nothing where nothing is written.</param>
internal sealed class TagSets(IStoreReading store, Action<int, string>? keep = null)
{
    private readonly Dictionary<string, int> _keys = store.TagSets().ToDictionary(set => set.Tags, set => set.Key, StringComparer.Ordinal);
    private readonly Dictionary<(string Document, string Line), int> _found = [];

    /// <summary>The sets by their keys; the first is the empty one.</summary>
    public IReadOnlyList<IReadOnlyDictionary<string, string>> ByKey()
    {
        var sets = new List<IReadOnlyDictionary<string, string>> { Parse("") };
        foreach (var (tags, key) in _keys.OrderBy(set => set.Value))
        {
            while (sets.Count < key)
            {
                sets.Add(sets[0]);
            }

            sets.Add(Parse(tags));
        }

        return sets;
    }

    /// <summary>The tags that a record's text has; none where it is empty.</summary>
    public static SortedDictionary<string, string> Parse(string json)
    {
        try
        {
            return TagText.Read(json);
        }
        catch (JsonException)
        {
            throw StoreProblem.Damaged("tags are no JSON object of texts");
        }
    }

    /// <summary>The key of the tags of a line, together with those of its document; 0 where there are none.</summary>
    public int KeyOf(string document, string line)
    {
        if (document.Length == 0 && line.Length == 0)
        {
            return 0;
        }

        if (!_found.TryGetValue((document, line), out var key))
        {
            _found[(document, line)] = key = Keep(document, line);
        }

        return key;
    }

    private int Keep(string document, string line)
    {
        var tags = Parse(document);
        foreach (var (name, value) in Parse(line))
        {
            tags[name] = value;
        }

        var text = System.Text.Encoding.UTF8.GetString(TagText.Write(tags));
        if (!_keys.TryGetValue(text, out var key))
        {
            _keys[text] = key = _keys.Count == 0 ? 1 : _keys.Values.Max() + 1;
            keep?.Invoke(key, text);
        }

        return key;
    }
}
