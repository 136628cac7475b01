using System.Numerics;
using System.Text;
using CsCheck;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Tests;

/// <summary>Minor units: read and written exactly, rounded half to even, never wrapped.</summary>
public class MoneyTests
{
    private static readonly Gen<Int128> GenWide =
        Gen.Select(Gen.Long, Gen.Long[-1_000_000, 1_000_000]).Select((a, b) => (Int128)a * b);

    [Fact]
    public void A_quotient_is_the_nearest_whole_number_and_the_even_one_of_two() =>
        Gen.Select(GenWide, Gen.Long[1, 2_000_000], Gen.Bool).Sample((numerator, size, negative) =>
        {
            var denominator = negative ? -size : size;
            var quotient = (BigInteger)numerator / denominator;
            if (BigInteger.Abs(quotient) > long.MaxValue / 2)
            {
                return;
            }

            var rounded = Rounding.Divide(numerator, denominator);
            var twiceOff = BigInteger.Abs(((BigInteger)rounded * denominator) - (BigInteger)numerator) * 2;
            Assert.True(twiceOff < size || (twiceOff == size && rounded % 2 == 0));
        });

    [Fact]
    public void What_is_written_is_read_back() =>
        Gen.Select(Gen.Long, Gen.Int[0, 6]).Sample((units, decimals) =>
        {
            if (units == long.MinValue)
            {
                return;
            }

            var text = DecimalText.Write(units, decimals);
            var result = DecimalText.Read(Encoding.UTF8.GetBytes(text), decimals, out var read);
            Assert.Equal((DecimalTextResult.Read, units), (result, read));
            Assert.Equal(decimals, text.Contains('.') ? text.Length - text.IndexOf('.') - 1 : 0);
        });

    [Theory]
    [InlineData("12", 2, DecimalTextResult.Read, 1200)]
    [InlineData("-0.5", 2, DecimalTextResult.Read, -50)]
    [InlineData("12.3400", 2, DecimalTextResult.Read, 1234)]
    [InlineData("0012.30", 2, DecimalTextResult.Read, 1230)]
    [InlineData("92233720368547758.07", 2, DecimalTextResult.Read, long.MaxValue)]
    [InlineData("92233720368547758.08", 2, DecimalTextResult.TooLarge, 0)]
    [InlineData("12.345", 2, DecimalTextResult.TooManyDecimals, 0)]
    [InlineData("12.5", 0, DecimalTextResult.TooManyDecimals, 0)]
    [InlineData("1,234.00", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("1.234,00", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("1.2.3", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("+1", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("1e3", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData(".5", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("5.", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData(" 5", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("--5", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("٥", 2, DecimalTextResult.NotANumber, 0)]
    [InlineData("", 2, DecimalTextResult.NotANumber, 0)]
    public void A_number_is_exactly_one_or_refused(string text, int decimals, DecimalTextResult result, long units)
    {
        Assert.Equal(result, DecimalText.Read(Encoding.UTF8.GetBytes(text), decimals, out var read));
        Assert.Equal(units, result == DecimalTextResult.Read ? read : 0);
    }

    [Theory]
    [InlineData(1, 3, 333333L)]
    [InlineData(-2, 3, -666667L)]
    [InlineData(1, 8_000_000, 0L)]
    [InlineData(3, 8_000_000, 0L)]
    [InlineData(5, 0, null)]
    [InlineData(0, 5, 0L)]
    [InlineData(5, -5, -1000000L)]
    public void A_percentage_has_four_decimals_and_none_of_nothing(long part, long whole, long? expected) =>
        Assert.Equal(expected, Percentage.Of(new Amount(part), new Amount(whole))?.TenThousandths);

    [Fact]
    public void Sums_that_do_not_fit_throw()
    {
        var most = new Amount(long.MaxValue);
        Assert.Throws<OverflowException>(() => most + new Amount(1));
        Assert.Throws<OverflowException>(() => -most - new Amount(2));
        Assert.Throws<OverflowException>(() => -new Amount(long.MinValue));
        Assert.Throws<OverflowException>(() => Percentage.Of(most, new Amount(1)));
    }

    [Theory]
    [InlineData("zar", "ZAR", 2)]
    [InlineData("JPY", "JPY", 0)]
    [InlineData("KWD", "KWD", 3)]
    public void A_currency_has_the_decimals_of_the_standard(string code, string found, int decimals)
    {
        Assert.True(Currency.TryFind(code, out var currency));
        Assert.Equal((found, decimals), (currency.Code, currency.Decimals));
    }

    [Theory]
    [InlineData("ZAX")]
    [InlineData("R Z")]
    [InlineData("")]
    public void What_is_no_currency_is_not_found(string code) => Assert.False(Currency.TryFind(code, out _));

    [Fact]
    public void Codes_are_ordered_by_the_value_of_their_digits()
    {
        string[] codes = ["1000", "900", "A10", "A9", "1000-2", "1000-10", "01000", "B"];
        Assert.Equal(
            ["900", "01000", "1000", "1000-2", "1000-10", "A9", "A10", "B"],
            codes.Order(CodeOrder.Instance));
    }

    [Fact]
    public void Names_have_the_places_that_comparing_them_gives()
    {
        var part = Choose.One("a", "A", "b", "_", " ", "-", "é", "É", "0", "00", "7", "07", "10", "9", "~", "/", ":", "Lake ", "ÿ", "ſ");
        var name = part.Array[0, 7].Select(string.Concat);
        Gen.Select(name.Array[0, 12], Choose.One("", "", "\u26F5", "\U0001F6F6", "\u0001")).Sample((some, odd) =>
        {
            string[] names = [.. some, odd + "Bo"];
            var ranks = NameRanks.Of(names);
            Assert.All(names.Index(), one => Assert.All(names.Index(), other => Assert.Equal(
                Math.Sign(CodeOrder.OfNames.Compare(one.Item, other.Item)), Math.Sign(ranks[one.Index] - ranks[other.Index]))));
        });
    }
}
