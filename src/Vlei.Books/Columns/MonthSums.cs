using System.Buffers.Binary;
using System.Runtime.InteropServices;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>The debits and credits per account of a month's postings, as bytes: per account its key, its debits, its credits.</summary>
internal static class MonthSums
{
    private const int SumBytes = sizeof(int) + (2 * sizeof(long));

    /// <summary>Packs them.</summary>
    public static byte[] Pack(ReadOnlySpan<Posting> postings)
    {
        var byAccount = new Dictionary<int, (Amount Debit, Amount Credit)>();
        foreach (ref readonly var posting in postings)
        {
            ref var sums = ref CollectionsMarshal.GetValueRefOrAddDefault(byAccount, posting.Line.Account.Value, out _);
            var amount = posting.Line.Amount;
            sums = amount.Sign > 0 ? (sums.Debit + amount, sums.Credit) : (sums.Debit, sums.Credit - amount);
        }

        var bytes = new byte[byAccount.Count * SumBytes];
        var place = bytes.AsSpan();
        foreach (var (account, (debit, credit)) in byAccount.OrderBy(sums => sums.Key))
        {
            BinaryPrimitives.WriteInt32LittleEndian(place, account);
            BinaryPrimitives.WriteInt64LittleEndian(place[sizeof(int)..], debit.MinorUnits);
            BinaryPrimitives.WriteInt64LittleEndian(place[(sizeof(int) + sizeof(long))..], credit.MinorUnits);
            place = place[SumBytes..];
        }

        return bytes;
    }

    /// <summary>Unpacks them; false where the bytes cannot be any.</summary>
    public static bool TryUnpack(ReadOnlySpan<byte> bytes, out AccountSum[] sums)
    {
        sums = new AccountSum[bytes.Length / SumBytes];
        for (var index = 0; index < sums.Length; index++)
        {
            var place = bytes[(index * SumBytes)..];
            sums[index] = new AccountSum(
                new AccountKey(BinaryPrimitives.ReadInt32LittleEndian(place)),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[sizeof(int)..])),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[(sizeof(int) + sizeof(long))..])));
        }

        return bytes.Length % SumBytes == 0;
    }
}
