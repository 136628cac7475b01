using System.Buffers.Binary;

namespace Vlei.Core.Ledger;

/// <summary>
/// The places of many names in their order. Compared with each other, each would be read some fifteen times: here each is turned into
/// bytes, and eight of these are compared as one number; of names that have those alike, the next eight.
/// </summary>
public sealed class NameRanks
{
    private readonly string[] _names;
    private readonly int[] _order;
    private readonly ulong[] _heads;
    private readonly byte[] _key;

    // Of each place, whether what stands there may be equal to what stands before it.
    private readonly bool[] _mayBeEqual;

    private NameRanks(string[] names)
    {
        (_names, _order) = (names, [.. Enumerable.Range(0, names.Length)]);
        (_heads, _mayBeEqual) = (new ulong[names.Length], new bool[names.Length]);
        _key = new byte[names.Select(CodeOrder.KeyLength).Append(0).Max() + (2 * sizeof(ulong))];
        if (!TrySort(0, names.Length, 0))
        {
            SortByNames(0, names.Length);
        }
    }

    /// <summary>The place of each name in the order of names, equal ones together.</summary>
    public static int[] Of(string[] names)
    {
        var (sorted, ranks) = (new NameRanks(names), new int[names.Length]);
        for (var place = 1; place < ranks.Length; place++)
        {
            var (one, before) = (sorted._order[place], sorted._order[place - 1]);
            ranks[one] = sorted._mayBeEqual[place] && sorted.Compare(one, before) == 0 ? ranks[before] : place;
        }

        return ranks;
    }

    private int Compare(int one, int other) => CodeOrder.OfNames.Compare(_names[one], _names[other]);

    private void SortByNames(int first, int end)
    {
        _order.AsSpan(first..end).Sort(Compare);
        _mayBeEqual.AsSpan((first + 1)..end).Fill(true);
    }

    // Names that are alike in their bytes up to one; false where there is one that cannot be turned into bytes.
    private bool TrySort(int first, int end, int from)
    {
        for (var place = first; place < end; place++)
        {
            if (CodeOrder.WriteKey(_names[_order[place]], _key) is not (>= 0 and var length))
            {
                return false;
            }

            _key.AsSpan(length, sizeof(ulong)).Clear();
            _heads[place] = BinaryPrimitives.ReadUInt64BigEndian(_key.AsSpan(from));
        }

        _heads.AsSpan(first..end).Sort(_order.AsSpan(first..end));
        for (int place = first, next; place < end; place = next)
        {
            for (next = place + 1; next < end && _heads[next] == _heads[place];)
            {
                next++;
            }

            if (next - place > 1 && (byte)_heads[place] == 0)
            {
                SortByNames(place, next);
            }
            else if (next - place > 1)
            {
                _ = TrySort(place, next, from + sizeof(ulong));
            }
        }

        return true;
    }
}
