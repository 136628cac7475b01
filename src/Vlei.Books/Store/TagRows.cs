using System.Text.Json;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>
/// The tags that a line has, with those of its document that it does not have itself, kept once for all lines that have
/// the same. A set that was ever written keeps its key, so that columns come out the same each time they are made.
/// </summary>
internal sealed class TagRows
{
    private readonly Database _database;
    private readonly Dictionary<string, int> _keys = new(StringComparer.Ordinal);
    private readonly Dictionary<(string Document, string Line), int> _found = [];

    /// <summary>Loads the sets that are known.</summary>
    public TagRows(Database database)
    {
        _database = database;
        using var statement = database.Prepare("SELECT key, tags FROM tag_sets");
        while (statement.Step())
        {
            _keys.Add(statement.Text(1), statement.Int(0));
        }
    }

    /// <summary>The sets by their keys; the first is the empty one.</summary>
    public static IReadOnlyList<IReadOnlyDictionary<string, string>> Read(Database database)
    {
        var sets = new List<IReadOnlyDictionary<string, string>> { Parse("") };
        using var statement = database.Prepare("SELECT key, tags FROM tag_sets ORDER BY key");
        while (statement.Step())
        {
            while (sets.Count < statement.Int(0))
            {
                sets.Add(sets[0]);
            }

            sets.Add(Parse(statement.Text(1)));
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
            using var insert = _database.Prepare("INSERT INTO tag_sets(key, tags) VALUES (?, ?)");
            insert.Bind(1, key).Bind(2, text).Run();
        }

        return key;
    }
}
