using System.Buffers.Binary;

namespace Vlei.Books.Columns;

/// <summary>
/// A column of whole numbers as bytes, each as wide as the widest needs: 0 (all are zero), 1, 2, 4 or 8 bytes, signed,
/// little-endian. The width is the length over the count, so nothing else is stored.
/// </summary>
internal static class PackedNumbers
{
    /// <summary>Packs the numbers.</summary>
    public static byte[] Pack(ReadOnlySpan<long> numbers)
    {
        var (least, most) = (0L, 0L);
        foreach (var number in numbers)
        {
            least = Math.Min(least, number);
            most = Math.Max(most, number);
        }

        var width = least == 0 && most == 0 ? 0
            : least >= sbyte.MinValue && most <= sbyte.MaxValue ? 1
            : least >= short.MinValue && most <= short.MaxValue ? 2
            : least >= int.MinValue && most <= int.MaxValue ? 4
            : 8;
        var bytes = new byte[numbers.Length * width];
        for (var index = 0; index < numbers.Length && width > 0; index++)
        {
            var place = bytes.AsSpan(index * width);
            switch (width)
            {
                case 1:
                    place[0] = (byte)(sbyte)numbers[index];
                    break;
                case 2:
                    BinaryPrimitives.WriteInt16LittleEndian(place, (short)numbers[index]);
                    break;
                case 4:
                    BinaryPrimitives.WriteInt32LittleEndian(place, (int)numbers[index]);
                    break;
                default:
                    BinaryPrimitives.WriteInt64LittleEndian(place, numbers[index]);
                    break;
            }
        }

        return bytes;
    }

    /// <summary>Unpacks <paramref name="count"/> numbers; false where the bytes cannot be that many.</summary>
    public static bool TryUnpack(ReadOnlySpan<byte> bytes, int count, out long[] numbers)
    {
        numbers = new long[count];
        if (bytes.IsEmpty || count == 0)
        {
            return bytes.IsEmpty;
        }

        var width = bytes.Length / count;
        if (width * count != bytes.Length || width is not (1 or 2 or 4 or 8))
        {
            return false;
        }

        for (var index = 0; index < count; index++)
        {
            var place = bytes[(index * width)..];
            numbers[index] = width switch
            {
                1 => (sbyte)place[0],
                2 => BinaryPrimitives.ReadInt16LittleEndian(place),
                4 => BinaryPrimitives.ReadInt32LittleEndian(place),
                _ => BinaryPrimitives.ReadInt64LittleEndian(place),
            };
        }

        return true;
    }
}
