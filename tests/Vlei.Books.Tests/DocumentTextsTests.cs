using System.Text;
using CsCheck;
using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Tests;

/// <summary>What documents and lines say comes back as it was put, however it came in, and in the same bytes.</summary>
public sealed class DocumentTextsTests
{
    private static readonly Gen<string> Text =
        Gen.OneOf(Gen.Const(""), Gen.String[Gen.Char["abc ä€"], 1, 9], Gen.Int[1, 3].Select(n => $"INV-{n}"));

    private static readonly Gen<long?> Number = Gen.OneOf(
        Gen.Const((long?)null), Gen.Int[-2, 2].Select(number => (long?)number), Gen.Long.Select(number => (long?)number));

    private static readonly Gen<SaidLine> Said =
        Gen.Select(Gen.Int[1, 9], Number, Text).Select((number, price, memo) => new SaidLine(number, price, memo));

    private static readonly Gen<SaidDocument> Document = Gen.Select(
        Gen.Int[1, 1100], Text, Text, Number, Said.Array[0, 4],
        Gen.OneOf(Gen.Const(""), Gen.Const("""{"season":"high"}"""))).Select((key, number, memo, contact, lines, tags) =>
            new SaidDocument(key, number, memo, contact, [.. lines.DistinctBy(line => line.Number).OrderBy(line => line.Number)], tags));

    [Fact]
    public void Texts_come_back_as_they_were_put_whatever_was_there_before() => Gen.Select(
        Document.Array[0, 120], Document.Array[0, 40], Gen.Int[0, 5]).Sample((before, after, removed) =>
    {
        using var store = new MemoryStore().Write();
        var months = new WritableDerivedMonths(store);
        Write(months, [], [.. before.DistinctBy(document => document.Key)]);
        List<SaidDocument> changed = [.. after.DistinctBy(document => document.Key)];
        HashSet<int> stale = [.. changed.Select(document => document.Key), .. before.Select(document => document.Key).Take(removed)];
        Write(months, stale, changed);

        List<SaidDocument> expected =
            [.. changed, .. before.DistinctBy(document => document.Key).Where(document => !stale.Contains(document.Key))];
        var texts = new DocumentTexts(months);
        Assert.All(Enumerable.Range(1, 1100), key =>
            Assert.Equal(expected.Exists(document => document.Key == key), texts.StretchOf(key).Has(key % DocumentStretch.Size)));
        Assert.All(expected, document =>
        {
            string Of(string field) => texts.Of(document.Key, FieldOf(field)).Text ?? "";
            Assert.Equal(
                ($"D{document.Key}", document.Number, document.Memo, document.Contact, document.Tags),
                (Of("id"), Of("number"), Of("memo"), texts.Of(document.Key, FieldOf("contact")).Number,
                    texts.Of(document.Key, RecordTable.Tags).Text ?? ""));
            Assert.All(Enumerable.Range(1, 9), number => Assert.Equal(
                document.Lines.Where(line => line.Number == number).Select(line => (line.Price, line.Memo)).SingleOrDefault((null, "")),
                (texts.Of(document.Key, number, DocumentStretch.UnitPrice).Number,
                    texts.Of(document.Key, number, DocumentStretch.Memo).Text ?? "")));
        });

        using var other = new MemoryStore().Write();
        var atOnce = new WritableDerivedMonths(other);
        Write(atOnce, null, expected);
        Assert.Equal(atOnce.Fingerprints(DerivedKind.Texts), months.Fingerprints(DerivedKind.Texts));
    });

    private static RecordField FieldOf(string name) => RecordTables.Documents.Fields[RecordTables.Documents.IndexOf(name)];

    private static void Write(WritableDerivedMonths months, HashSet<int>? stale, IReadOnlyCollection<SaidDocument> documents)
    {
        var writer = new DocumentTextsWriter(months, stale);
        var derived = new DerivedDocument();
        foreach (var document in documents.OrderBy(document => document.Key))
        {
            derived.Begin(document.Key);
            derived.Fields.Clear();
            derived.Fields.SetTags(Encoding.UTF8.GetBytes(document.Tags));
            Put("id", $"D{document.Key}");
            Put("number", document.Number);
            Put("memo", document.Memo);
            if (document.Contact is { } contact)
            {
                derived.Fields.Set(RecordTables.Documents.IndexOf("contact"), contact);
            }

            foreach (var line in document.Lines)
            {
                derived.Add(
                    new Line(line.Number, default, Amount.Zero, default, 0, 0, 0, 1, 0), line.Price, Encoding.UTF8.GetBytes(line.Memo));
            }

            writer.Add(derived);
        }

        writer.Complete();

        void Put(string field, string text)
        {
            if (text.Length > 0)
            {
                derived.Fields.Set(RecordTables.Documents.IndexOf(field), Encoding.UTF8.GetBytes(text));
            }
        }
    }

    private sealed record SaidDocument(int Key, string Number, string Memo, long? Contact, SaidLine[] Lines, string Tags);

    private sealed record SaidLine(int Number, long? Price, string Memo);
}
