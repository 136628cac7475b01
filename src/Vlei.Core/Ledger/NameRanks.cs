using System.Buffers.Binary;

namespace Vlei.Core.Ledger;

/// <summary>
/// The places of many names in their order. Names compared with each other would be read some fifteen times each: here each is turned
/// into bytes once, and eight of these are compared as one number.
/// </summary>
public static class NameRanks
{
    /// <summary>The place of each name in the order of names, equal ones together.</summary>
    public static int[] Of(ReadOnlySpan<string> names)
    {
        var (order, heads) = (new int[names.Length], new ulong[names.Length]);
        for (var name = 0; name < order.Length; name++)
        {
            order[name] = name;
        }

        var own = names.ToArray();
        if (TryFindHeads(names, heads))
        {
            Array.Sort(heads, order);
            for (int first = 0, next; first < order.Length; first = next)
            {
                next = first + 1;
                while (next < order.Length && heads[next] == heads[first])
                {
                    next++;
                }

                if (next - first > 1)
                {
                    order.AsSpan(first, next - first).Sort(Compare);
                }
            }
        }
        else
        {
            Array.Sort(order, Compare);
        }

        var ranks = new int[order.Length];
        for (var place = 1; place < order.Length; place++)
        {
            ranks[order[place]] = heads[place] == heads[place - 1] && Compare(order[place], order[place - 1]) == 0
                ? ranks[order[place - 1]] : place;
        }

        return ranks;

        int Compare(int one, int other) => CodeOrder.OfNames.Compare(own[one], own[other]);
    }

    // The first bytes of each name behind those that all begin with; false, and all alike, where not every name can be turned into bytes.
    private static bool TryFindHeads(ReadOnlySpan<string> names, Span<ulong> heads)
    {
        var longest = 0;
        foreach (var name in names)
        {
            longest = Math.Max(longest, CodeOrder.KeyLength(name));
        }

        // Turned into bytes twice, since to keep those of many names takes longer.
        var (own, first) = (new byte[longest + sizeof(ulong)], default(byte[]));
        var shared = 0;
        foreach (var name in names)
        {
            if (CodeOrder.WriteKey(name, own) is not (>= 0 and var length))
            {
                return false;
            }

            shared = first is null ? length : own.AsSpan(0, length).CommonPrefixLength(first.AsSpan(0, shared));
            first ??= own[..length];
        }

        for (var name = 0; name < names.Length; name++)
        {
            own.AsSpan(CodeOrder.WriteKey(names[name], own), sizeof(ulong)).Clear();
            heads[name] = BinaryPrimitives.ReadUInt64BigEndian(own.AsSpan(shared));
        }

        return true;
    }
}
