using System.Globalization;
using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Problems;

namespace Vlei.Core.Tests;

/// <summary>Formulas as columns and layouts have them, and lists of days.</summary>
public class FormulaTests
{
    private static readonly Dictionary<string, decimal?> Values = new()
    {
        ["amount"] = 12.5m,
        ["unit-price"] = -3m,
        ["tag.x y"] = 4m,
        ["nothing"] = null,
        ["zero"] = 0m,
    };

    // A formula as it is typed, and what it comes to, worked out beside it.
    private static Gen<(string Text, decimal? Value)> Formulas(int depth) => depth == 0
        ? Gen.OneOf(
            Gen.Int[0, 99_999].Select(number => ((number / 100m).ToString(CultureInfo.InvariantCulture), (decimal?)(number / 100m))),
            Choose.One("amount", "unit-price", "\"tag.x y\"", "nothing", "zero").Select(name => (name, Values[name.Trim('"')])))
        : Gen.Select(Formulas(depth - 1), Formulas(0), Choose.One('+', '-', '*', '/'), Gen.Bool, (left, right, sign, isTight) => (
            isTight && sign != '-' ? $"({left.Text}){sign}({right.Text})" : $"({left.Text}) {sign} {right.Text}",
            sign switch
            {
                '+' => left.Value + right.Value,
                '-' => left.Value - right.Value,
                '*' => left.Value * right.Value,
                _ =>
                right.Value == 0 ? null : left.Value / right.Value
            }));

    [Fact]
    public void A_formula_comes_to_what_it_says() => Formulas(4).Sample(formula =>
    {
        var read = Formula.Parse(formula.Text);
        Assert.NotNull(read);
        Assert.Equal(formula.Value, read.ValueOf(name => Values[name]));
        Assert.All(read.Names, named => Assert.Equal(named.Name, formula.Text.Substring(named.Place, named.Name.Length)));
    }, iter: 2000);

    [Theory]
    [InlineData("1 + 2 * 3", 7)]
    [InlineData("(1 + 2) * 3", 9)]
    [InlineData("10 - 2 - 3", 5)]
    [InlineData("100 / 5 / 2", 10)]
    [InlineData("-2 * 3", -6)]
    [InlineData("amount*2", 25)]
    [InlineData("unit-price - 1", -4)]
    public void Products_come_before_sums_and_what_stands_first_is_done_first(string text, int value) =>
        Assert.Equal(value, Formula.Parse(text)!.ValueOf(name => Values[name]));

    [Theory]
    [InlineData("")]
    [InlineData("amount +")]
    [InlineData("* amount")]
    [InlineData("(amount")]
    [InlineData("amount)")]
    [InlineData("amount amount")]
    [InlineData("\"amount")]
    [InlineData("amount ^ 2")]
    public void What_is_no_formula_is_none(string text) => Assert.Null(Formula.Parse(text));

    [Fact]
    public void Brackets_have_an_end() => Gen.Int[1, 30_000].Sample(depth => Assert.Equal(
        depth <= 64, Formula.Parse($"{new string('(', depth)}amount{new string(')', depth)}") is not null), iter: 60);

    [Theory]
    [InlineData("2026-05", "2026-05-01 2026-05-31", "2026-04-30 2026-06-01")]
    [InlineData("2026-05-03/2026-05-05", "2026-05-03 2026-05-05", "2026-05-02 2026-05-06")]
    [InlineData("/2025", "1999-01-01 2025-12-31", "2026-01-01")]
    [InlineData("2026-Q2/", "2026-04-01 2030-01-01", "2026-03-31")]
    [InlineData(">2026-05", "2026-06-01", "2026-05-31")]
    [InlineData(">=2026-05", "2026-05-01", "2026-04-30")]
    [InlineData("<2026-05", "2026-04-30", "2026-05-01")]
    [InlineData("<=2026-05", "2026-05-31", "2026-06-01")]
    [InlineData("last-month,today", "2026-05-15 2026-06-30", "2026-06-29")]
    [InlineData("fy2026", "2025-03-01 2026-02-28", "2026-03-01")]
    public void A_list_of_days_has_periods_ranges_and_comparisons(string list, string within, string without)
    {
        bool Takes(string day) => ValueList.Parse(list).Takes(
            DateOnly.Parse(day, CultureInfo.InvariantCulture),
            text => PeriodGrammar.Parse(text, new DateOnly(2026, 6, 30), new FiscalCalendar(3)));
        Assert.All(within.Split(' '), day => Assert.True(Takes(day), day));
        Assert.All(without.Split(' '), day => Assert.False(Takes(day), day));
        Assert.Throws<ProblemException>(
            () => ValueList.Parse("last-moon").Takes(default, text => PeriodGrammar.Parse(text, default, new FiscalCalendar(3))));
    }
}
