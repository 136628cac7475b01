using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Finds the contact, the item, the project, the department or the tax code that a file means by an id or a name, and gathers those that
/// the book does not have. Names are compared without regard to capitals, marks and blanks.
/// </summary>
internal sealed class NameFinder
{
    private const int LongestId = 40;

    private readonly RecordTable _table;
    private readonly Dictionary<(string Text, string Id), string> _found = [];
    private readonly HashSet<string> _ids;
    private readonly Dictionary<string, string> _byName = [];
    private readonly Dictionary<string, (string Name, string Detail, FilePoint At)> _added = [];

    /// <summary>Starts with the records of the book.</summary>
    public NameFinder(RecordTable table, IKnownRecords known)
    {
        _table = table;
        _ids = [.. known.Named(table).Select(record => record.Id)];
        foreach (var record in known.Named(table))
        {
            _byName.TryAdd(MapWords.Plain(record.Name), record.Id);
        }
    }

    /// <summary>Forgets what the last map called them.</summary>
    public void BeginFile() => _found.Clear();

    /// <summary>The id that a text means, a new one where there is none; empty for an empty text.</summary>
    /// <param name="text">A name, or an id.</param>
    /// <param name="id">The id, where it stands beside the name; else empty.</param>
    /// <param name="detail">What a new one is: the kind of a contact, the rate of a tax.</param>
    /// <param name="aliases">Which one a map says is meant.</param>
    /// <param name="at">Where it stands.</param>
    public string Find(string text, string id, string detail, IReadOnlyDictionary<string, string> aliases, FilePoint at)
    {
        if (text.Length + id.Length == 0)
        {
            return "";
        }

        // Two of one name are told apart by their ids; where there are none, the name says which is meant.
        if (!_found.TryGetValue((text, id), out var found))
        {
            var named = text.Length > 0 ? text : id;
            var meant = aliases.GetValueOrDefault(named) ?? (id.Length > 0 ? id : named);
            _found[(text, id)] = found = _ids.Contains(meant) ? meant
                : (id.Length > 0 ? null : _byName.GetValueOrDefault(MapWords.Plain(meant))) ?? Add(named, id, detail, at);
        }

        if (_added.TryGetValue(found, out var added) && added.Detail != detail && detail.Length > 0)
        {
            _added[found] = (added.Name, added.Detail.Length == 0 ? detail : Both(added.Detail, detail), added.At);
        }

        return found;
    }

    /// <summary>The new ones.</summary>
    public IEnumerable<NewRecord> New() => _added.Select(added => new NewRecord(
        _table, added.Key, added.Value.Name, added.Value.Detail, "", false, added.Value.At.File, added.Value.At.Line,
        added.Value.At.Column));

    // A customer that is a supplier too is both.
    private static string Both(string before, string now) => before is "customer" or "supplier" && now is "customer" or "supplier"
        ? before == now ? before : "both" : before;

    private string Add(string text, string id, string detail, FilePoint at)
    {
        var own = id.Length > 0 ? id : IdOf(text);
        for (var number = 2; !_ids.Add(own); number++)
        {
            own = $"{(id.Length > 0 ? id : IdOf(text))}-{number}";
        }

        _byName.TryAdd(MapWords.Plain(text), own);
        _added.Add(own, (text, detail, at));
        return own;
    }

    // A code is an id as it stands; a name becomes one of small letters, digits and dashes.
    private string IdOf(string text)
    {
        if (text.Length <= LongestId && !text.Any(char.IsWhiteSpace) && (text.Any(char.IsAsciiDigit) || _table == RecordTables.TaxCodes))
        {
            return text;
        }

        var id = new StringBuilder();
        foreach (var letter in MapWords.Plain(text))
        {
            id.Append(letter == ' ' ? '-' : letter);
        }

        return id.Length == 0 ? "unnamed" : id.ToString(0, Math.Min(LongestId, id.Length));
    }
}
