using System.Text;

namespace Vlei.Core.Ledger;

/// <summary>
/// The ids of one table and the numbers by which the store knows them. A number is given once and never changes, so
/// what refers to a record goes on to when the record itself changes. An id is <em>known</em> while there is a record
/// of it; the number of a removed record is kept for the case that it comes back.
/// </summary>
public sealed class RecordKeys
{
    private const int Short = 128;

    private readonly Dictionary<string, int> _keys;
    private readonly Dictionary<string, int>.AlternateLookup<ReadOnlySpan<char>> _byText;
    private readonly List<bool> _known = [false];

    // What was looked up last: the lines of a document name it one after the other.
    private readonly byte[] _last = new byte[Short];
    private int _lastLength = -1;
    private int _lastKey;

    /// <summary>Starts without any id.</summary>
    public RecordKeys()
    {
        _keys = new Dictionary<string, int>(StringComparer.Ordinal);
        _byText = _keys.GetAlternateLookup<ReadOnlySpan<char>>();
    }

    /// <summary>Whether a file of the table could not be read, so that an id that is not known may well be right.</summary>
    public bool IsIncomplete { get; set; }

    /// <summary>The ids that are known.</summary>
    public IEnumerable<string> Known => _keys.Where(pair => _known[pair.Value]).Select(pair => pair.Key);

    /// <summary>The highest number given.</summary>
    public int Last => _known.Count - 1;

    /// <summary>Takes over a number that the store gave earlier; in ascending order.</summary>
    public void Restore(string id, int key, bool known)
    {
        while (_known.Count < key)
        {
            _known.Add(false);
        }

        _keys.Add(id, key);
        _known.Add(known);
    }

    /// <summary>Whether there is a record of that number.</summary>
    public bool IsKnown(int key) => _known[key];

    /// <summary>The id of that number. Looks through all of them: for messages, not for loops.</summary>
    public string IdOf(int key) => _keys.First(pair => pair.Value == key).Key;

    /// <summary>The number of the id, or 0 where it is not known.</summary>
    public int Find(ReadOnlySpan<byte> id) => Lookup(id) is var key && _known[key] ? key : 0;

    /// <summary>The number of the id, a new one where it never had one; from here on it is known.</summary>
    public int FindOrAdd(ReadOnlySpan<byte> id)
    {
        var key = Lookup(id);
        if (key == 0)
        {
            key = _known.Count;
            _keys.Add(Encoding.UTF8.GetString(id), key);
            _known.Add(true);
        }

        _known[key] = true;
        return key;
    }

    private int Lookup(ReadOnlySpan<byte> id)
    {
        if (id.Length == _lastLength && id.SequenceEqual(_last.AsSpan(0, _lastLength)))
        {
            return _lastKey;
        }

        var most = Encoding.UTF8.GetMaxCharCount(id.Length);
        var text = most <= Short ? stackalloc char[Short] : new char[most];
        var length = Encoding.UTF8.GetChars(id, text);
        if (!_byText.TryGetValue(text[..length], out var key))
        {
            return 0;
        }

        if (id.TryCopyTo(_last))
        {
            (_lastLength, _lastKey) = (id.Length, key);
        }

        return key;
    }
}
