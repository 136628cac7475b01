namespace Vlei.Core.Ledger;

/// <summary>
/// Whole numbers in as few bytes as they need: seven bits a byte, the lowest first; numbers near zero are short, whatever their sign.
/// </summary>
public static class PackedNumber
{
    /// <summary>The most bytes that one takes.</summary>
    public const int Longest = 10;

    /// <summary>Puts a number at the start of some bytes, and leaves those behind it.</summary>
    public static void Put(ref Span<byte> bytes, long number)
    {
        var place = 0;
        var rest = (ulong)((number << 1) ^ (number >> 63));
        for (; rest >= 0x80; rest >>= 7)
        {
            bytes[place++] = (byte)(rest | 0x80);
        }

        bytes[place++] = (byte)rest;
        bytes = bytes[place..];
    }

    /// <summary>Takes the number at the start of some bytes, and leaves those behind it.</summary>
    public static long Take(ref ReadOnlySpan<byte> bytes)
    {
        var (place, shift, number) = (0, 0, 0UL);
        for (; bytes[place] >= 0x80; shift += 7)
        {
            number |= (ulong)(bytes[place++] & 0x7F) << shift;
        }

        number |= (ulong)bytes[place++] << shift;
        bytes = bytes[place..];
        return (long)(number >> 1) ^ -(long)(number & 1);
    }
}
