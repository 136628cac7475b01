using System.Runtime.InteropServices;
using System.Text;
using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Import;

/// <summary>
/// Imports documents with their lines, which may stand anywhere in their file. Both files are read once, and what they say is kept
/// packed; then the documents that are new or differ go by once, in the order of their keys, each with its lines: they are written,
/// and months are derived from them.
/// </summary>
internal sealed class DocumentImport(ImportSession session, Currency currency) : IDocumentsAtHand
{
    private static readonly RecordTable Table = RecordTables.Documents;
    private static readonly int Contact = Table.IndexOf("contact");
    private static readonly int Date = Table.IndexOf("date");
    private static readonly int LineDocument = RecordTables.Lines.IndexOf("document");
    private static readonly int LineNumber = RecordTables.Lines.IndexOf("line");
    private static readonly int LineAccount = RecordTables.Lines.IndexOf("account");
    private static readonly int LineAmount = RecordTables.Lines.IndexOf("amount");
    private static readonly int LineContact = RecordTables.Lines.IndexOf("contact");
    private static readonly int LineItem = RecordTables.Lines.IndexOf("item");
    private static readonly int LineProject = RecordTables.Lines.IndexOf("project");
    private static readonly int LineDepartment = RecordTables.Lines.IndexOf("department");
    private static readonly int LineQuantity = RecordTables.Lines.IndexOf("quantity");
    private static readonly int LineUnitPrice = RecordTables.Lines.IndexOf("unit_price");
    private static readonly int LineMemo = RecordTables.Lines.IndexOf("memo");
    private static readonly int LineTaxCode = RecordTables.Lines.IndexOf("tax_code");
    private static readonly int LineTaxPart = RecordTables.Lines.IndexOf("tax_part");

    private readonly List<State> _states = [];
    private readonly List<LinePlace> _lines = [];
    private readonly RecordSpool _documentSpool = new(Table);
    private readonly RecordSpool _lineSpool = new(RecordTables.Lines);
    private readonly RecordRow _document = new(Table);
    private readonly RecordRow _line = new(RecordTables.Lines);
    private readonly KeyedImport _keyed = new(session, Table);
    private long _linesRead;

    /// <summary>The documents that are new, differ or are removed.</summary>
    public IEnumerable<int> Touched => Enumerable.Range(0, _states.Count).Where(IsTouched);

    /// <summary>How many they are.</summary>
    public int TouchedCount { get; private set; }

    /// <summary>
    /// Reads them, and finds those that are new or differ, which are at hand then to be written, and those that are removed.
    /// </summary>
    public KeyedImport Run()
    {
        ReadDocuments();
        ReadLines();
        PutLinesInOrder();
        CheckSums();
        if (session.Errors.Count > 0)
        {
            return _keyed;
        }

        for (var key = 1; key < _states.Count; key++)
        {
            // What was not there differs, whatever it says.
            if (_keyed.IsInSet(key) && _keyed.Differs(key, _keyed.WasThere(key) ? HashOf(key) : 0))
            {
                Touch(key);
            }
        }

        foreach (var key in session.Order.CompleteFor is { } days
            ? _keyed.RemoveMissing(DocumentsOf(days).Contains) : _keyed.RemoveMissing())
        {
            Touch(key);
        }

        return _keyed;
    }

    /// <summary>Whether a document is new, differs or is removed.</summary>
    public bool IsTouched(int key) => key < _states.Count && _states[key].IsTouched;

    private void Touch(int key)
    {
        StateOf(key).IsTouched = true;
        TouchedCount++;
    }

    // The documents that the book has of some days.
    private HashSet<int> DocumentsOf(DateRange days)
    {
        var documents = new HashSet<int>();
        using var rows = session.Store.Rows(new RecordQuery(Table, RecordQuery.Key, "date"));
        while (rows.Next())
        {
            if (IsoText.TryDay(rows.Bytes(1), out var day) && day >= days.From && day <= days.To)
            {
                documents.Add(rows.Int(0));
            }
        }

        return documents;
    }

    /// <inheritdoc/>
    public bool Has(int document) => IsTouched(document) && _states[document].IsRead;

    /// <inheritdoc/>
    public DateOnly DateOf(int document) => _states[document].Date;

    /// <inheritdoc/>
    public IEnumerable<DerivedDocument> Documents(IReadOnlyList<int> keys, TagSets tags, bool isWritten)
    {
        var document = new DerivedDocument();
        foreach (var key in keys)
        {
            document.Begin(key);
            _documentSpool.Read(_states[key].Place, document.Fields, isLast: isWritten);
            if (isWritten)
            {
                _keyed.Close(key);
                session.Hash.Begin(document.Fields);
            }

            AddLines(document, tags, isWritten);
            if (isWritten)
            {
                session.Store.Add(document.Fields, key, session.Revision, session.Hash.End());
            }

            yield return document;
        }
    }

    private void AddLines(DerivedDocument document, TagSets tags, bool isWritten)
    {
        var state = _states[document.Key];
        var (kind, own) = (document.KindNumber, Encoding.UTF8.GetString(document.Fields.Tags));
        for (var line = state.First; line < state.First + state.Count; line++)
        {
            var number = _lines[line].Number;
            ReadLine(line, state.Contact, isLast: isWritten);
            if (isWritten)
            {
                session.Hash.Add(_line, number);
                session.Store.AddLine(_line, document.Key, session.Revision, number);
            }

            var posted = new Line(
                number, new AccountKey((int)_line.Number(LineAccount)), new Amount(_line.Number(LineAmount)),
                new ContactKey((int)_line.Number(LineContact)), (int)_line.Number(LineItem), (int)_line.Number(LineProject),
                (int)_line.Number(LineDepartment), kind, tags.KeyOf(own, Encoding.UTF8.GetString(_line.Tags)),
                _line.Number(LineQuantity), (int)_line.Number(LineTaxCode),
                DerivedDocument.PartOf(_line.Has(LineTaxCode), _line.Text(LineTaxPart)));
            document.Add(posted, _line.Has(LineUnitPrice) ? _line.Number(LineUnitPrice) : null, _line.Text(LineMemo));
        }
    }

    private void ReadDocuments()
    {
        foreach (var row in session.Records.Read(Table, session.Keys, session.Errors))
        {
            var key = _keyed.Take(row);
            if (key > 0)
            {
                ref var state = ref StateOf(key);
                (state.IsRead, state.IsBroken) = (true, row.IsBroken);
                state.Place = _documentSpool.Add(row);
                state.Contact = (int)row.Number(Contact);
                _ = IsoText.TryDay(row.Text(Date), out state.Date);
                session.Tell("reading documents.csv", _keyed.Keys.Last);
            }
        }
    }

    private void ReadLines()
    {
        foreach (var row in session.Records.Read(RecordTables.Lines, session.Keys, session.Errors))
        {
            session.Tell("reading lines.csv", ++_linesRead);
            var document = (int)row.Number(LineDocument);
            if (row.IsBroken)
            {
                StateOf(document).IsBroken = true;
                continue;
            }

            if (!_keyed.IsInSet(document))
            {
                session.Errors.Add(
                    row, LineDocument, "the document is in the book, but not in documents.csv; a document comes with all its lines.");
                continue;
            }

            ref var state = ref StateOf(document);
            state.Count++;
            state.Sum += row.Number(LineAmount);
            var number = row.Has(LineNumber) ? (int)row.Number(LineNumber) : state.Count;
            _lines.Add(new LinePlace(document, number, _lineSpool.Add(row)));
        }
    }

    // Most files have them in order already.
    private void PutLinesInOrder()
    {
        var lines = CollectionsMarshal.AsSpan(_lines);
        for (var line = 1; line < lines.Length; line++)
        {
            if (lines[line - 1].CompareTo(lines[line]) > 0)
            {
                lines.Sort();
                break;
            }
        }

        for (var line = 0; line < _lines.Count; line++)
        {
            var (document, number, place) = _lines[line];
            if (line == 0 || _lines[line - 1].Document != document)
            {
                StateOf(document).First = line;
            }
            else if (_lines[line - 1].Number == number)
            {
                _lineSpool.Read(place, _line, isLast: false);
                session.Errors.Add(_line, LineNumber, $"line {number} of its document is there twice; places must differ.");
            }
        }
    }

    private void CheckSums()
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

            if (_keyed.IsInSet(key) && state.Count == 0)
            {
                Complain(key, "the document has no lines.");
            }
            else if (state.Sum != 0)
            {
                var sum = state.Sum > long.MaxValue || state.Sum < long.MinValue
                    ? "more than 64 bits hold"
                    : DecimalText.Write((long)state.Sum, currency.Decimals);
                Complain(key, $"the lines of the document sum to {sum}; expected 0, debits and credits alike.");
            }
        }
    }

    // Named by its id: the line that it stands on is known, and the id finds its lines.
    private void Complain(int key, string message)
    {
        var (file, line) = _keyed.PlaceOf(key);
        session.Errors.Add(file, line, 1, $"id \"{_keyed.Keys.IdOf(key)}\": {message}");
    }

    private ulong HashOf(int key)
    {
        var state = _states[key];
        _documentSpool.Read(state.Place, _document, isLast: false);
        session.Hash.Begin(_document);
        for (var line = state.First; line < state.First + state.Count; line++)
        {
            ReadLine(line, state.Contact, isLast: false);
            session.Hash.Add(_line, _lines[line].Number);
        }

        return session.Hash.End();
    }

    private void ReadLine(int line, int contact, bool isLast)
    {
        _lineSpool.Read(_lines[line].Place, _line, isLast);
        Complete(_line, contact);
    }

    // What a line leaves to be understood: the contact of its document, and that it is what the tax is counted from.
    private static void Complete(RecordRow row, int contact)
    {
        if (!row.Has(LineContact) && contact != 0)
        {
            row.Set(LineContact, contact);
        }

        if (row.Has(LineTaxCode) && !row.Has(LineTaxPart))
        {
            row.Set(LineTaxPart, "base"u8);
        }
    }

    private ref State StateOf(int key)
    {
        if (key >= _states.Count)
        {
            CollectionsMarshal.SetCount(_states, Math.Max(key + 1, Math.Min(2 * key, session.Keys["documents"].Last + 1)));
        }

        return ref CollectionsMarshal.AsSpan(_states)[key];
    }

    /// <summary>A line: its document, its place in it, and where it is kept.</summary>
    private readonly record struct LinePlace(int Document, int Number, long Place) : IComparable<LinePlace>
    {
        public int CompareTo(LinePlace other)
        {
            var order = Document.CompareTo(other.Document);
            order = order != 0 ? order : Number.CompareTo(other.Number);
            return order != 0 ? order : Place.CompareTo(other.Place);
        }
    }

    private struct State
    {
        public Int128 Sum;
        public long Place;
        public int First;
        public int Count;
        public int Contact;
        public DateOnly Date;
        public bool IsRead;
        public bool IsBroken;
        public bool IsTouched;
    }
}
