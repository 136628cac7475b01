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
    /// <summary>Its key.</summary>
    public int Key { get; private set; }

    /// <summary>The day by which it should be settled, where it says one.</summary>
    public DateOnly? Due { get; private set; }

    /// <summary>In how many days it is due, where it says that.</summary>
    public int? TermsDays { get; private set; }

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
        using var rows = store.Rows(new RecordQuery(
            RecordTables.Documents, RecordQuery.Key, "kind", RecordQuery.Tags, "due", "terms_days")
        {
            Standing = standing, Keys = keys,
        });
        using var lines = store.Rows(new RecordQuery(
            RecordTables.Lines, "document", "line", "account", "amount", "contact", "item", "project", "department", RecordQuery.Tags,
            "quantity", "tax_code", "tax_part")
        {
            Standing = standing, Keys = keys,
        });
        var hasLine = lines.Next();
        while (rows.Next())
        {
            var (kind, own) = (DocumentKinds.NumberOf(rows.Text(1)), rows.Text(2));
            document.Begin(
                rows.Int(0), IsoText.TryDay(rows.Bytes(3), out var due) ? due : null, rows.IsNull(4) ? null : rows.Int(4));
            for (; hasLine && lines.Int(0) == document.Key; hasLine = lines.Next())
            {
                document.Lines.Add(new Line(
                    lines.Int(1), new AccountKey(lines.Int(2)), new Amount(lines.Number(3)), new ContactKey(lines.Int(4)),
                    lines.Int(5), lines.Int(6), lines.Int(7), kind, tags.KeyOf(own, lines.IsNull(8) ? "" : lines.Text(8)),
                    lines.Number(9), lines.Int(10), PartOf(!lines.IsNull(10), lines.Bytes(11))));
            }

            yield return document;
        }
    }

    /// <summary>Which part of a tax a line is; none where it has no tax code.</summary>
    public static TaxPart PartOf(bool hasTaxCode, ReadOnlySpan<byte> part) =>
        !hasTaxCode ? TaxPart.None : part.SequenceEqual("tax"u8) ? TaxPart.Tax : TaxPart.Base;

    /// <summary>Begins another document, without lines.</summary>
    public void Begin(int key, DateOnly? due, int? termsDays)
    {
        (Key, Due, TermsDays) = (key, due, termsDays);
        Lines.Clear();
    }
}

/// <summary>Documents that have just come in, so that nobody needs to ask the store for them.</summary>
internal interface IDocumentsAtHand
{
    /// <summary>Whether the document is among them.</summary>
    bool Has(int document);

    /// <summary>Those of the keys, in their order.</summary>
    IEnumerable<DerivedDocument> Documents(IReadOnlyList<int> keys, TagSets tags);
}
