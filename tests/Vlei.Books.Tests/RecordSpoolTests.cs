using System.Text;
using CsCheck;
using Vlei.Books.Import;
using Vlei.Core.Ledger;

namespace Vlei.Books.Tests;

/// <summary>Records that wait are what they were, in whatever order they are taken out, small and large ones beside each other.</summary>
public sealed class RecordSpoolTests
{
    private static readonly RecordTable Table = RecordTables.Lines;

    [Fact]
    public void Records_come_out_as_they_went_in() => Gen.Select(
        Gen.Select(Gen.Int[0, 400_000], Gen.Int[0, 3], Gen.Long).Array[1, 12], Gen.Int[0, 1000]).Sample((records, seed) =>
    {
        var spool = new RecordSpool(Table);
        var row = new RecordRow(Table);
        var places = new long[records.Length];
        for (var place = 0; place < places.Length; place++)
        {
            Fill(row, records[place], place);
            places[place] = spool.Add(row);
        }

        var (found, expected) = (new RecordRow(Table), new RecordRow(Table));
        foreach (var place in Enumerable.Range(0, places.Length).OrderBy(place => ((place + 1) * 7919 * (seed + 1)) % 1009))
        {
            Fill(expected, records[place], place);
            foreach (var isLast in new[] { false, false, true })
            {
                spool.Read(places[place], found, isLast);
                Assert.Equal(Words(expected), Words(found));
            }
        }
    }, iter: 40);

    private static void Fill(RecordRow row, (int Length, int Which, long Amount) record, int place)
    {
        row.Clear();
        (row.File, row.FileLine) = (record.Which > 0 ? "lines.csv" : "more.csv", place + 2);
        row.Set(Table.IndexOf("amount"), record.Amount);
        if (record.Which != 1)
        {
            row.Set(Table.IndexOf("memo"), Encoding.UTF8.GetBytes(new string((char)('a' + (place % 26)), record.Length)));
        }

        if (record.Which > 1)
        {
            row.SetTags(Encoding.UTF8.GetBytes($$"""{"season":"{{record.Which}}"}"""));
        }
    }

    private static string Words(RecordRow row) => string.Join('|', Enumerable.Range(0, Table.Fields.Count)
        .Select(field => row.Has(field) ? Table.Fields[field].IsNumber ? $"{row.Number(field)}" : row.String(field) : "-")
        .Append(Encoding.UTF8.GetString(row.Tags)).Append(row.File).Append($"{row.FileLine}"));
}
