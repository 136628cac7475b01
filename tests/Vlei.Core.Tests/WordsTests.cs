using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Tests;

/// <summary>Words that are nearly right, days and moments that are or are not, and ids that never lose their number.</summary>
public class WordsTests
{
    private static readonly string[] Units = ["week", "month", "quarter", "year", "fiscal-quarter", "fiscal-year"];

    [Theory]
    [InlineData("mont", "month")]
    [InlineData("mnoth", "month")]
    [InlineData("MONTH", "month")]
    [InlineData("fiscal", "fiscal-quarter fiscal-year")]
    [InlineData("fiscal-yaer", "fiscal-year")]
    [InlineData("decade", "")]
    [InlineData("x", "")]
    [InlineData("", "")]
    public void The_nearest_words_are_named_and_no_others(string word, string nearest) =>
        Assert.Equal(nearest, string.Join(' ', Suggestion.Nearest(word, Units)));

    [Theory]
    [InlineData("", "a, b or c?", "a", "b", "c")]
    public void A_list_reads_as_a_sentence_has_it(string none, string three, params string[] words)
    {
        Assert.Equal(none, Suggestion.Listed([], "or"));
        Assert.Equal("a", Suggestion.Listed(words[..1], "or"));
        Assert.Equal("a and b", Suggestion.Listed(words[..2], "and"));
        Assert.Equal(three, Suggestion.Listed(words, "or") + "?");
    }

    [Theory]
    [InlineData("2026-03-15", true)]
    [InlineData("2024-02-29", true)]
    [InlineData("2026-02-29", false)]
    [InlineData("2026-3-15", false)]
    [InlineData("15-03-2026", false)]
    [InlineData("2026/03/15", false)]
    [InlineData("2026-03-15 ", false)]
    [InlineData("2026-03-15T09:30", true)]
    [InlineData("2026-03-15T09:30:59", true)]
    [InlineData("2026-03-15T09:30:59.123Z", true)]
    [InlineData("2026-03-15T23:59:60+02:00", true)]
    [InlineData("2026-03-15T09:30-11:30", true)]
    [InlineData("2026-03-15T24:00", false)]
    [InlineData("2026-03-15T09:60", false)]
    [InlineData("2026-03-15T09:30:61", false)]
    [InlineData("2026-03-15 09:30", false)]
    [InlineData("2026-03-15T9:30", false)]
    [InlineData("2026-03-15T09:30:", false)]
    [InlineData("2026-03-15T09:30+2", false)]
    [InlineData("2026-03-15T09:30Zulu", false)]
    [InlineData("", false)]
    public void A_moment_is_one_as_the_standard_writes_it(string text, bool isMoment) =>
        Assert.Equal(isMoment, IsoText.IsMoment(Encoding.UTF8.GetBytes(text)));

    [Fact]
    public void An_id_keeps_its_number_when_its_record_goes_and_comes_back()
    {
        var keys = new RecordKeys();
        keys.Restore("A", 1, known: true);
        keys.Restore("gone", 4, known: false);
        Assert.Equal((1, 0, 0), (keys.Find("A"u8), keys.Find("gone"u8), keys.Find("B"u8)));
        Assert.Equal(["A"], keys.Known);
        Assert.Equal((5, 4, 1), (keys.FindOrAdd("B"u8), keys.FindOrAdd("gone"u8), keys.FindOrAdd("A"u8)));
        Assert.Equal("gone", keys.IdOf(4));
        var long1 = Encoding.UTF8.GetBytes(new string('é', 500));
        Assert.Equal(keys.FindOrAdd(long1), keys.Find(long1));
    }

    [Fact]
    public void A_row_holds_what_was_put_in_until_it_is_filled_again()
    {
        var row = new RecordRow(RecordTables.Contacts);
        var (id, name, terms) = (
            RecordTables.Contacts.IndexOf("id"), RecordTables.Contacts.IndexOf("name"),
            RecordTables.Contacts.IndexOf("terms_days"));
        row.Set(id, "C1"u8);
        row.Set(name, Encoding.UTF8.GetBytes(new string('x', 5000)));
        row.Set(terms, 30);
        Assert.Equal(("C1", 5000, 30L), (row.String(id), row.Text(name).Length, row.Number(terms)));
        row.Clear();
        Assert.False(row.Has(id) || row.Has(name) || row.Has(terms) || row.IsBroken);
        Assert.Equal((0, 0L), (row.Text(id).Length, row.Number(terms)));
    }

    [Fact]
    public void Every_table_refers_only_to_itself_and_those_before_it()
    {
        var before = new HashSet<string>();
        foreach (var table in RecordTables.All)
        {
            before.Add(table.Name);
            Assert.All(
                table.Fields.Where(field => field.Target is not null),
                field => Assert.Contains(field.Target!, before));
            Assert.All(table.Fields, field => Assert.NotEmpty(field.Meaning));
            Assert.Equal(table.Fields.Count, table.Fields.Select(field => field.Name).Distinct().Count());
        }

        Assert.All(
            Enum.GetValues<AccountType>(),
            type => Assert.Equal(type, AccountTypes.FromName(AccountTypes.NameOf(type))));
    }
}
