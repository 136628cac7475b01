using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Vlei.Books.Columns;

/// <summary>
/// A column of whole numbers as bytes, each as wide as the widest needs: 0 (all are zero), 1, 2, 4 or 8 bytes, signed,
/// little-endian, as the processors that the program is built for have them. The width is the length over the count, so nothing
/// else is stored.
/// </summary>
internal static class PackedNumbers
{
    /// <summary>Packs the numbers.</summary>
    public static byte[] Pack(ReadOnlySpan<long> numbers)
    {
        // What a number takes besides its sign, of all of them together.
        var (any, digits) = (0L, 0L);
        foreach (var number in numbers)
        {
            any |= number;
            digits |= number ^ (number >> 63);
        }

        return any == 0 ? []
            : digits <= sbyte.MaxValue ? Narrow<sbyte>(numbers)
            : digits <= short.MaxValue ? Narrow<short>(numbers)
            : digits <= int.MaxValue ? Narrow<int>(numbers)
            : MemoryMarshal.AsBytes(numbers).ToArray();
    }

    /// <summary>Unpacks as many numbers as there is room for; false where the bytes cannot be that many.</summary>
    public static bool TryUnpack(ReadOnlySpan<byte> bytes, Span<long> numbers) => TryUnpack(bytes, numbers.Length, [], numbers);

    /// <summary>Unpacks some of the numbers; false where the bytes cannot be as many as are said, or are wider than asked for.</summary>
    /// <param name="bytes">All of them.</param>
    /// <param name="count">How many they are.</param>
    /// <param name="places">Which of them; all where there are none.</param>
    /// <param name="numbers">Where they are put, one for each place.</param>
    public static bool TryUnpack<T>(ReadOnlySpan<byte> bytes, int count, ReadOnlySpan<int> places, Span<T> numbers)
        where T : unmanaged, IBinaryInteger<T>
    {
        var width = count == 0 ? 0 : bytes.Length / count;
        if (width * count != bytes.Length || width > Unsafe.SizeOf<T>())
        {
            return false;
        }

        switch (width)
        {
            case 0:
                numbers.Clear();
                return true;
            case 1:
                Widen(MemoryMarshal.Cast<byte, sbyte>(bytes), places, numbers);
                return true;
            case 2:
                Widen(MemoryMarshal.Cast<byte, short>(bytes), places, numbers);
                return true;
            case 4:
                Widen(MemoryMarshal.Cast<byte, int>(bytes), places, numbers);
                return true;
            case 8:
                Widen(MemoryMarshal.Cast<byte, long>(bytes), places, numbers);
                return true;
            default:
                return false;
        }
    }

    private static byte[] Narrow<T>(ReadOnlySpan<long> numbers)
        where T : unmanaged, IBinaryInteger<T>
    {
        var bytes = new byte[numbers.Length * T.Zero.GetByteCount()];
        var narrow = MemoryMarshal.Cast<byte, T>(bytes.AsSpan());
        for (var index = 0; index < narrow.Length; index++)
        {
            narrow[index] = T.CreateTruncating(numbers[index]);
        }

        return bytes;
    }

    // One loop per width: reports read millions of these.
    private static void Widen<T, TWide>(ReadOnlySpan<T> narrow, ReadOnlySpan<int> places, Span<TWide> numbers)
        where T : unmanaged, IBinaryInteger<T>
        where TWide : unmanaged, IBinaryInteger<TWide>
    {
        for (var index = 0; places.IsEmpty && index < numbers.Length; index++)
        {
            numbers[index] = TWide.CreateTruncating(narrow[index]);
        }

        for (var index = 0; index < places.Length; index++)
        {
            numbers[index] = TWide.CreateTruncating(narrow[places[index]]);
        }
    }
}
