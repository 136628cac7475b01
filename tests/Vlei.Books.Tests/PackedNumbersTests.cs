using CsCheck;
using Vlei.Books.Columns;

namespace Vlei.Books.Tests;

/// <summary>Columns of whole numbers come out of their bytes as they went in: all of them, and some.</summary>
public class PackedNumbersTests
{
    private static readonly Gen<long> GenNumber = Gen.OneOf(
        Gen.Const(0L), Gen.Long[sbyte.MinValue, sbyte.MaxValue], Gen.Long[short.MinValue, short.MaxValue],
        Gen.Long[int.MinValue, int.MaxValue], Gen.Long);

    [Fact]
    public void All_numbers_and_any_of_them_come_out_as_they_went_in() =>
        Gen.Select(GenNumber.Array[0, 60], Gen.Int[0, 59].Array[0, 20], Gen.Int[1, 3]).Sample((numbers, wanted, cut) =>
        {
            var bytes = PackedNumbers.Pack(numbers);
            int[] places = [.. wanted.Where(place => place < numbers.Length)];
            var (all, some) = (new long[numbers.Length], new long[places.Length]);
            Assert.True(PackedNumbers.TryUnpack(bytes, all));
            Assert.True(PackedNumbers.TryUnpack(bytes, numbers.Length, places, some));
            Assert.Equal(numbers, all);
            Assert.Equal(places.Select(place => numbers[place]), some);

            // Into narrower ones they come where they fit, and are refused where they do not.
            var narrow = new int[numbers.Length];
            Assert.Equal(
                Array.TrueForAll(numbers, number => number == (int)number),
                PackedNumbers.TryUnpack(bytes, numbers.Length, [], narrow.AsSpan()));
            Assert.Equal(numbers.Select(number => bytes.Length > numbers.Length * sizeof(int) ? 0 : (int)number), narrow);

            // Fewer bytes than there must be are no column.
            if (cut < numbers.Length && bytes.Length > 0)
            {
                Assert.False(PackedNumbers.TryUnpack(bytes.AsSpan(cut), all));
                Assert.False(PackedNumbers.TryUnpack(bytes.AsSpan(cut), numbers.Length, places, some));
            }
        });
}
