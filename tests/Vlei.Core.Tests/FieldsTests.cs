using CsCheck;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>What lists of values mean, and what is taken and left out.</summary>
public class FieldsTests
{
    private static readonly FieldValue[] Values =
    [
        new("none", "none"), new("900", "Fees"), new("4000", "Sales"), new("4010", "Boats, built", "4000"), new("4011", "Oars", "4010"),
        new("4999", "Mooring"), new("50000", "Other sales"), new("A-2", "Marsh Lodge"), new("A-10", "Nokes and Co"),
    ];

    [Theory]
    [InlineData("4000", "4000 4010 4011")]
    [InlineData("sales", "4000 4010 4011")]
    [InlineData("4010", "4010 4011")]
    [InlineData("4000/4999", "4000 4010 4011 4999")]
    [InlineData("/4000", "900 4000")]
    [InlineData("4999/", "4999 50000 A-2 A-10")]
    [InlineData(">=4999", "4999 50000 A-2 A-10")]
    [InlineData(">4999", "50000 A-2 A-10")]
    [InlineData("<4000", "900")]
    [InlineData("<=4000", "900 4000")]
    [InlineData("A-2/A-9", "A-2")]
    [InlineData("a-*", "A-2 A-10")]
    [InlineData("*es", "900 4000 50000")]
    [InlineData("4*1", "4011")]
    [InlineData("4*1*", "4010 4011")]
    [InlineData("*", "900 4000 4010 4011 4999 50000 A-2 A-10")]
    [InlineData("none", "none")]
    [InlineData("none, 900 ,4999", "none 900 4999")]
    [InlineData("\"Boats, built\",900", "900 4010 4011")]
    [InlineData(" \"Boats, built\"", "4010 4011")]
    public void A_list_means(string list, string expected) => Assert.Equal(
        expected,
        string.Join(' ', Values.Zip(ValueList.Parse(list).MeantOf("account", Values)).Where(v => v.Second).Select(v => v.First.Id)));

    [Theory]
    [InlineData("M/N", "A-2 A-10 4999")]
    [InlineData("<g", "4010 900")]
    [InlineData(">=Nokes and Co", "A-10 4011 50000 4000")]
    public void Ranges_of_names_are_by_name(string list, string expected) => Assert.Equal(
        expected.Split(' ').Order(),
        Values.Zip(ValueList.Parse(list).NamedOf("account.name", Values, mayNameNone: false)).Where(v => v.Second)
            .Select(v => v.First.Id).Order());

    [Theory]
    [InlineData("", "has an empty place")]
    [InlineData("4000,", "has an empty place")]
    [InlineData("\"4000", "is not closed")]
    [InlineData("4001", "There is no account \"4001\".")]
    [InlineData("7*", "No account fits \"7*\".")]
    [InlineData("6000/6999", "No account fits \"6000/6999\".")]
    public void A_list_that_means_nothing_is_told(string list, string message) => Assert.Contains(
        message, Assert.Throws<ProblemException>(() => ValueList.Parse(list).MeantOf("account", Values)).Message);

    [Fact]
    public void What_is_taken_and_what_is_left_out_make_the_whole() => Gen.Select(
        RandomBook.Gen1, Choose.One("profit-loss", "balance-sheet", "cash-flow", "equity-movements", "working-capital", "trial-balance"),
        Choose.One("contact=A-1", "project=none,B-3", "tag.place=north", "kind=invoice", "item=B*", "account.type=income,bank,tax"),
        Gen.Enum<AccountingBasis>()).Sample((book, name, choice, basis) =>
    {
        Report Build(params FieldChoice[] choices) => Statements.Build(
            name, book,
            new ReportRequest
            {
                Basis = basis, Statement = new StatementRequest { Zeros = true },
                Period = new Calendar.OpenPeriod(null, null), Choices = choices
            });
        var (whole, only, rest) = (Build(), Build(FieldChoice.Parse(choice, false)), Build(FieldChoice.Parse(choice, true)));
        foreach (var row in only.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            var (all, other) = (whole.Rows.Single(r => r.Key == row.Key), rest.Rows.Single(r => r.Key == row.Key));
            Assert.Equal(all.Cells.Select(cell => cell.Units), row.Cells.Zip(other.Cells, (one, two) => one.Units + two.Units));
        }
    });

    [Fact]
    public void A_list_of_numbers_means_what_its_parts_mean() => Gen.Select(
        Gen.Int[-300, 300], Gen.Select(Gen.Int[0, 6], Gen.Int[-200, 200], Gen.Int[-200, 200]).Array[1, 4]).Sample((cents, parts) =>
    {
        string Text(int number) => (number / 100m).ToString("F2", System.Globalization.CultureInfo.InvariantCulture);
        var (texts, expected) = (new List<string>(), false);
        foreach (var (shape, low, high) in parts)
        {
            var (text, means) = shape switch
            {
                0 => (Text(low), cents == low),
                1 => ($"{Text(low)}/{Text(high)}", cents >= low && cents <= high),
                2 => ($"{Text(low)}/", cents >= low),
                3 => ($"/{Text(low)}", cents <= low),
                4 => ($">{Text(low)}", cents > low),
                5 => ($"<= {Text(low)}", cents <= low),
                _ => ($">={Text(low)}", cents >= low),
            };
            texts.Add(text);
            expected |= means;
        }

        var list = string.Join(" , ", texts);
        Assert.Equal(expected, ValueList.Parse(list).Takes("total", cents, 2));

        // What is taken and what is left out never have a number in common, and together have all of them.
        bool Taken(bool isExcept) => FieldChoice.Take(
            [FieldChoice.Parse($"total={list}", isExcept)], choice => choice.List.Takes("total", cents, 2));
        Assert.NotEqual(Taken(isExcept: false), Taken(isExcept: true));
    });
}
