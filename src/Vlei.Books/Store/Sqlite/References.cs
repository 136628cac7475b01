using System.Collections;
using System.Globalization;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// What rows that are written refer to, so that nothing is kept that refers to nothing. SQLite would look up each reference of each row,
/// which is two thirds of what an import costs it; here, whoever commits asks once. Keys are given one after the other and never taken
/// back: what refers to one up to the last refers to something.
/// </summary>
/// <param name="database">Where the rows are written.</param>
internal sealed class References(Database database)
{
    private readonly Dictionary<string, KeyRange> _keys = new(StringComparer.Ordinal);
    private readonly Dictionary<long, (BitArray Documents, BitArray Lines)> _versions = [];
    private readonly HashSet<long> _revisions = [];
    private (long Revision, BitArray Documents, BitArray Lines)? _last;

    /// <summary>What is noted of references to a table.</summary>
    public KeyRange To(string table)
    {
        if (!_keys.TryGetValue(table, out var range))
        {
            _keys[table] = range = new KeyRange();
        }

        return range;
    }

    /// <summary>Notes that something belongs to an import.</summary>
    public void NoteImport(long revision) => _revisions.Add(revision);

    /// <summary>Notes a version of a document.</summary>
    public void NoteDocument(int key, long revision) => Set(BitsOf(revision).Documents, key);

    /// <summary>Notes a line of a version of a document.</summary>
    public void NoteLine(int document, long revision) => Set(BitsOf(revision).Lines, document);

    /// <summary>Throws a problem where a row refers to one that is not there.</summary>
    public void Check()
    {
        if (_keys.Any(range => !range.Value.IsUpTo(LastKey(range.Key))) || _revisions.Any(revision => !Has(revision))
            || _versions.Values.Any(LacksADocument))
        {
            // SQLite knows which; what lines say besides their document is not among what it looks at.
            using var dangling = database.Prepare("PRAGMA foreign_key_check");
            throw StoreProblem.Damaged(dangling.Next()
                ? $"a row of {dangling.Text(0)} refers to one that is not in {dangling.Text(2)}"
                : "a line refers to what is not in the book");
        }
    }

    private long LastKey(string table) => database.Number($"SELECT max(key) FROM {table}_keys");

    private bool Has(long revision) => database.Number(
        string.Create(CultureInfo.InvariantCulture, $"SELECT count(*) FROM imports WHERE revision = {revision}")) == 1;

    // Lines come with the version of their document that they belong to.
    private static bool LacksADocument((BitArray Documents, BitArray Lines) version)
    {
        for (var key = 0; key < version.Lines.Length; key++)
        {
            if (version.Lines[key] && !(key < version.Documents.Length && version.Documents[key]))
            {
                return true;
            }
        }

        return false;
    }

    private (BitArray Documents, BitArray Lines) BitsOf(long revision)
    {
        if (_last is { } last && last.Revision == revision)
        {
            return (last.Documents, last.Lines);
        }

        if (!_versions.TryGetValue(revision, out var bits))
        {
            _versions[revision] = bits = (new BitArray(0), new BitArray(0));
            _revisions.Add(revision);
        }

        _last = (revision, bits.Documents, bits.Lines);
        return bits;
    }

    private static void Set(BitArray bits, int key)
    {
        if (key >= bits.Length)
        {
            bits.Length = Math.Max(2 * bits.Length, key + 1);
        }

        bits[key] = true;
    }

    /// <summary>The least and the highest key that anything refers to.</summary>
    internal sealed class KeyRange
    {
        private long _least = long.MaxValue;
        private long _most;

        /// <summary>Whether all of it lies between the first key and the last.</summary>
        public bool IsUpTo(long last) => _least >= 1 && _most <= last;

        /// <summary>Notes a reference.</summary>
        public void Note(long key)
        {
            _least = Math.Min(_least, key);
            _most = Math.Max(_most, key);
        }
    }
}
