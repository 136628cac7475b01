using System.Buffers.Binary;
using System.IO.Hashing;
using System.Runtime.InteropServices;
using Vlei.Books.Store;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Import;

/// <summary>
/// Imports documents with their lines, which may stand anywhere in their file. The files are read twice: first every
/// document gets its sum and its hash, and the lines of new ones are written; then the documents that are new or differ
/// are written, and the lines of those that differ. Between the two only some bytes per document are kept.
/// </summary>
internal sealed class DocumentImport(ImportSession session, Currency currency)
{
    private static readonly int Id = RecordTables.Documents.IndexOf("id");
    private static readonly int Contact = RecordTables.Documents.IndexOf("contact");
    private static readonly int LineDocument = RecordTables.Lines.IndexOf("document");
    private static readonly int LineNumber = RecordTables.Lines.IndexOf("line");
    private static readonly int LineAmount = RecordTables.Lines.IndexOf("amount");
    private static readonly int LineContact = RecordTables.Lines.IndexOf("contact");
    private static readonly int LineTaxCode = RecordTables.Lines.IndexOf("tax_code");
    private static readonly int LineTaxPart = RecordTables.Lines.IndexOf("tax_part");

    private readonly List<State> _states = [];
    private long _linesRead;

    /// <summary>The documents that are new, differ or are removed.</summary>
    public HashSet<int> Touched { get; } = [];

    /// <summary>Imports them; nothing is written where there is an error.</summary>
    public KeyedImport Run()
    {
        var keyed = new KeyedImport(session, RecordTables.Documents);
        ReadDocuments(keyed);
        ReadLines(keyed);
        CheckSums(keyed);
        if (session.Errors.Count > 0)
        {
            return keyed;
        }

        for (var key = 1; key < _states.Count; key++)
        {
            if (keyed.IsInSet(key) && keyed.Differs(key, HashOf(_states[key])))
            {
                Touched.Add(key);
            }
        }

        Write(keyed);
        Touched.UnionWith(keyed.RemoveMissing());
        return keyed;
    }

    private static ulong HashOf(in State state)
    {
        Span<byte> both = stackalloc byte[2 * sizeof(ulong)];
        BinaryPrimitives.WriteUInt64LittleEndian(both, state.Header);
        BinaryPrimitives.WriteUInt64LittleEndian(both[sizeof(ulong)..], state.Lines);
        return XxHash3.HashToUInt64(both);
    }

    private void ReadDocuments(KeyedImport keyed)
    {
        foreach (var row in session.Records.Read(RecordTables.Documents, session.Keys, session.Errors))
        {
            var key = keyed.Take(row);
            if (key > 0)
            {
                ref var state = ref StateOf(key);
                state.IsBroken = row.IsBroken;
                state.Header = session.Hash.Of(row, Id);
                state.Contact = (int)row.Number(Contact);
                session.Tell("reading documents.csv", keyed.Keys.Last);
            }
        }
    }

    private void ReadLines(KeyedImport keyed)
    {
        using var insert = InsertLines();
        foreach (var row in session.Records.Read(RecordTables.Lines, session.Keys, session.Errors))
        {
            session.Tell("reading lines.csv", ++_linesRead);
            var document = (int)row.Number(LineDocument);
            if (row.IsBroken)
            {
                StateOf(document).IsBroken = true;
                continue;
            }

            if (!keyed.IsInSet(document))
            {
                session.Errors.Add(
                    row, LineDocument, "the document is in the book, but not in documents.csv; a document comes with all its lines.");
                continue;
            }

            ref var state = ref StateOf(document);
            state.Count++;

            // Added up, so that it does not depend on where in the file the lines stand, only on their place.
            var place = Place(row, state.Count);
            state.Lines += session.Hash.Of(row, LineDocument, place, LineNumber);
            state.Sum += row.Number(LineAmount);
            if (session.CanWrite && !keyed.WasThere(document))
            {
                Insert(insert, row, document, place, state.Contact);
            }
        }
    }

    private void CheckSums(KeyedImport keyed)
    {
        if (_linesRead == 0 && session.Errors.Count > 0)
        {
            // The file itself could not be read: no document is to blame.
            return;
        }

        for (var key = 1; key < _states.Count; key++)
        {
            ref readonly var state = ref CollectionsMarshal.AsSpan(_states)[key];
            if (state.IsBroken)
            {
                continue;
            }

            if (keyed.IsInSet(key) && state.Count == 0)
            {
                Complain(keyed, key, "the document has no lines.");
            }
            else if (state.Sum != 0)
            {
                var sum = state.Sum > long.MaxValue || state.Sum < long.MinValue
                    ? "more than 64 bits hold"
                    : DecimalText.Write((long)state.Sum, currency.Decimals);
                Complain(keyed, key, $"the lines of the document sum to {sum}; expected 0, debits and credits alike.");
            }
        }
    }

    // Named by its id: the line of documents.csv that it stands on is known, and the id finds its lines.
    private void Complain(KeyedImport keyed, int key, string message) => session.Errors.Add(
        RecordTables.Documents.FileName, keyed.FileLine(key), 1, $"id \"{keyed.Keys.IdOf(key)}\": {message}");

    private void Write(KeyedImport keyed)
    {
        if (Touched.Count == 0)
        {
            return;
        }

        var silent = new RecordErrors();
        using var insertDocument = new RecordInsert(session.Database, RecordTables.Documents, "key", "added", "hash");
        foreach (var row in session.Records.Read(RecordTables.Documents, session.Keys, silent))
        {
            var key = keyed.Keys.Find(row.Text(Id));
            if (Touched.Contains(key))
            {
                keyed.Close(key);
                insertDocument.Insert(row, key, session.Revision, (long)HashOf(_states[key]));
                StateOf(key).Count = 0;
                session.Tell("writing documents", key);
            }
        }

        if (Touched.Any(keyed.WasThere))
        {
            WriteLines(keyed, silent);
        }
    }

    private void WriteLines(KeyedImport keyed, RecordErrors silent)
    {
        using var insert = InsertLines();
        foreach (var row in session.Records.Read(RecordTables.Lines, session.Keys, silent))
        {
            var document = (int)row.Number(LineDocument);
            if (keyed.WasThere(document) && Touched.Contains(document))
            {
                ref var state = ref StateOf(document);
                Insert(insert, row, document, Place(row, ++state.Count), state.Contact);
            }
        }
    }

    private RecordInsert InsertLines() => new(session.Database, RecordTables.Lines, "document", "added", "line");

    private void Insert(RecordInsert insert, RecordRow row, int document, long place, int contact)
    {
        if (!row.Has(LineContact) && contact != 0)
        {
            row.Set(LineContact, contact);
        }

        if (row.Has(LineTaxCode) && !row.Has(LineTaxPart))
        {
            row.Set(LineTaxPart, "base"u8);
        }

        try
        {
            insert.Insert(row, document, session.Revision, place);
        }
        catch (ConstraintException)
        {
            session.Errors.Add(row, LineNumber, $"line {place} of its document is there twice; places must differ.");
        }
    }

    private static long Place(RecordRow row, int count) => row.Has(LineNumber) ? row.Number(LineNumber) : count;

    private ref State StateOf(int key)
    {
        if (key >= _states.Count)
        {
            CollectionsMarshal.SetCount(_states, Math.Max(key + 1, Math.Min(2 * key, session.Keys["documents"].Last + 1)));
        }

        return ref CollectionsMarshal.AsSpan(_states)[key];
    }

    private struct State
    {
        public ulong Header;
        public ulong Lines;
        public Int128 Sum;
        public int Count;
        public bool IsBroken;
        public int Contact;
    }
}
