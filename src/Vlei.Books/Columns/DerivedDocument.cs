using System.Text;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>
/// What months are derived from of one document. One instance is filled again for every document, so that a million of them leave
/// nothing behind.
/// </summary>
internal sealed class DerivedDocument
{
    private static readonly int Due = RecordTables.Documents.IndexOf("due");
    private static readonly int TermsDays = RecordTables.Documents.IndexOf("terms_days");
    private static readonly int Kind = RecordTables.Documents.IndexOf("kind");

    private readonly List<(long? Price, int MemoEnd)> _texts = [];
    private byte[] _memos = new byte[1024];

    /// <summary>Its key.</summary>
    public int Key { get; private set; }

    /// <summary>The day by which it should be settled, where it says one.</summary>
    public DateOnly? DueDay => IsoText.TryDay(Fields.Text(Due), out var due) ? due : null;

    /// <summary>In how many days it is due, where it says that.</summary>
    public int? DueAfter => Fields.Has(TermsDays) ? (int)Fields.Number(TermsDays) : null;

    /// <summary>The number of its kind.</summary>
    public int KindNumber => DocumentKinds.NumberOf(Fields.String(Kind));

    /// <summary>All that it says itself.</summary>
    public RecordRow Fields { get; } = new(RecordTables.Documents);

    /// <summary>Its lines, in their order.</summary>
    public List<Line> Lines { get; } = [];

    /// <summary>The documents with their lines, in the order of their keys; all of them where none are named.</summary>
    public static IEnumerable<DerivedDocument> Read(
        IStoreReading store, Standing standing, IReadOnlyList<int>? keys, TagSets tags)
    {
        if (keys?.Count == 0)
        {
            yield break;
        }

        var document = new DerivedDocument();
        using var rows = store.Rows(RecordRows.AllOf(RecordTables.Documents, RecordQuery.Key) with
        {
            AllVersions = false,
            Standing = standing,
            Keys = keys,
        });
        using var lines = store.Rows(new RecordQuery(
            RecordTables.Lines, "document", "line", "account", "amount", "contact", "item", "project", "department", RecordQuery.Tags,
            "quantity", "tax_code", "tax_part", "unit_price", "memo")
        {
            Standing = standing, Keys = keys,
        });
        var hasLine = lines.Next();
        while (rows.Next())
        {
            document.Begin(rows.Int(0));
            RecordRows.Fill(document.Fields, rows, 1);
            var (kind, own) = (document.KindNumber, Encoding.UTF8.GetString(document.Fields.Tags));
            for (; hasLine && lines.Int(0) == document.Key; hasLine = lines.Next())
            {
                var line = new Line(
                    lines.Int(1), new AccountKey(lines.Int(2)), new Amount(lines.Number(3)), new ContactKey(lines.Int(4)),
                    lines.Int(5), lines.Int(6), lines.Int(7), kind, tags.KeyOf(own, lines.IsNull(8) ? "" : lines.Text(8)),
                    lines.Number(9), lines.Int(10), PartOf(!lines.IsNull(10), lines.Bytes(11)));
                document.Add(line, lines.IsNull(12) ? null : lines.Number(12), lines.Bytes(13));
            }

            yield return document;
        }
    }

    /// <summary>Which part of a tax a line is; none where it has no tax code.</summary>
    public static TaxPart PartOf(bool hasTaxCode, ReadOnlySpan<byte> part) =>
        !hasTaxCode ? TaxPart.None : part.SequenceEqual("tax"u8) ? TaxPart.Tax : TaxPart.Base;

    /// <summary>Begins another document, without lines; its fields are to be filled.</summary>
    public void Begin(int key)
    {
        Key = key;
        Lines.Clear();
        _texts.Clear();
    }

    /// <summary>Adds a line, with what it says besides.</summary>
    public void Add(Line line, long? unitPrice, ReadOnlySpan<byte> memo)
    {
        var start = _texts.Count == 0 ? 0 : _texts[^1].MemoEnd;
        if (start + memo.Length > _memos.Length)
        {
            Array.Resize(ref _memos, Math.Max(2 * _memos.Length, start + memo.Length));
        }

        memo.CopyTo(_memos.AsSpan(start));
        _texts.Add((unitPrice, start + memo.Length));
        Lines.Add(line);
    }

    /// <summary>The price of one that a line says, where it does.</summary>
    public long? UnitPriceOf(int line) => _texts[line].Price;

    /// <summary>The note of a line; empty where it has none.</summary>
    public ReadOnlySpan<byte> MemoOf(int line) => _memos.AsSpan((line == 0 ? 0 : _texts[line - 1].MemoEnd).._texts[line].MemoEnd);
}

/// <summary>Documents that have just come in and are not in the store yet.</summary>
internal interface IDocumentsAtHand
{
    /// <summary>Whether the document is among them.</summary>
    bool Has(int document);

    /// <summary>The date of one that is.</summary>
    DateOnly DateOf(int document);

    /// <summary>
    /// Those of the keys, in their order. As they go by they may be written into the store: whoever goes through them once need not
    /// read them again, and the store works meanwhile. They are not at hand any more then.
    /// </summary>
    IEnumerable<DerivedDocument> Documents(IReadOnlyList<int> keys, TagSets tags, bool isWritten);
}
