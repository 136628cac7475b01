using System.Collections;
using System.Globalization;
using Vlei.Core.Problems;

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
        foreach (var (table, range) in _keys.Where(range => range.Value.IsUsed))
        {
            if (range.Least < 1 || range.Most > database.Number($"SELECT max(key) FROM {table}_keys WHERE key = "
                + $"(SELECT count(*) FROM {table}_keys)"))
            {
                throw Dangling($"{table}_keys");
            }
        }

        foreach (var revision in _revisions.Where(revision =>
            database.Number(string.Create(CultureInfo.InvariantCulture, $"SELECT 1 FROM imports WHERE revision = {revision}")) == 0))
        {
            throw Dangling($"imports, {revision}");
        }

        foreach (var (revision, (documents, lines)) in _versions)
        {
            for (var key = 0; key < lines.Length; key++)
            {
                if (lines[key] && !(key < documents.Length && documents[key]) && !HasVersion(key, revision))
                {
                    throw Dangling("documents");
                }
            }
        }
    }

    private bool HasVersion(int key, long revision) => database.Number(
        string.Create(CultureInfo.InvariantCulture, $"SELECT 1 FROM documents WHERE key = {key} AND added = {revision}")) == 1;

    private static ProblemException Dangling(string table) => StoreProblem.Damaged($"a row refers to one that is not in {table}");

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
        /// <summary>The least; of what nothing refers to, more than the highest.</summary>
        public long Least { get; private set; } = long.MaxValue;

        /// <summary>The highest.</summary>
        public long Most { get; private set; } = long.MinValue;

        /// <summary>Whether anything refers to it.</summary>
        public bool IsUsed => Most >= Least;

        /// <summary>Notes a reference.</summary>
        public void Note(long key)
        {
            Least = Math.Min(Least, key);
            Most = Math.Max(Most, key);
        }
    }
}
