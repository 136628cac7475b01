using System.Buffers.Binary;
using System.IO.Hashing;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books.Columns;

/// <summary>
/// The derived columns in the store: per basis and month one blob per column, and the month's sums per account beside
/// them. Every blob carries a checksum, so that damage is noticed when it is read and never shown as a figure.
/// </summary>
/// <param name="database">The file.</param>
/// <param name="written">
/// What the names of the tables that are written to begin with; where it is not empty, those hold what differs from the
/// file, and the names without it are views of both.
/// </param>
internal sealed class PostingStore(Database database, string written = "") : IDisposable
{
    private const int SumBytes = sizeof(int) + (2 * sizeof(long));

    private readonly Statement _months = database.Prepare("SELECT month FROM posting_months WHERE basis = ? ORDER BY month");

    private readonly Statement _count = database.Prepare("SELECT postings FROM posting_months WHERE basis = ? AND month = ?");

    private readonly Statement _column = database.Prepare(
        "SELECT data, checksum FROM posting_columns WHERE basis = ? AND month = ? AND name = ?");

    /// <summary>Whether there is no posting at all.</summary>
    public bool IsEmpty => database.Number("SELECT count(*) FROM posting_months") == 0;

    /// <summary>The months that have postings, oldest first.</summary>
    public List<YearMonth> Months(AccountingBasis basis)
    {
        var months = new List<YearMonth>();
        _months.Bind(1, (int)basis);
        while (_months.Step())
        {
            months.Add(YearMonth.FromNumber(_months.Int(0)));
        }

        return months;
    }

    /// <summary>The months that have anything, be it only a part of what they should have.</summary>
    public List<YearMonth> AllMonths(AccountingBasis basis)
    {
        var months = Months(basis).ToHashSet();
        using var statement = database.Prepare("SELECT DISTINCT month FROM posting_columns WHERE basis = ?");
        statement.Bind(1, (int)basis);
        while (statement.Step())
        {
            months.Add(YearMonth.FromNumber(statement.Int(0)));
        }

        return [.. months.Order()];
    }

    /// <summary>What a month holds, in few letters: equal only where columns and sums are equal, to the byte.</summary>
    public string Fingerprint(AccountingBasis basis, YearMonth month)
    {
        var hash = new XxHash3();
        using var statement = database.Prepare(
            "SELECT name, data, checksum FROM posting_columns WHERE basis = ?1 AND month = ?2 UNION ALL "
            + "SELECT 'sums ' || postings, sums, checksum FROM posting_months WHERE basis = ?1 AND month = ?2 ORDER BY 1");
        statement.Bind(1, (int)basis).Bind(2, month.Number);
        while (statement.Step())
        {
            hash.Append(statement.Bytes(0));
            hash.Append(statement.Bytes(1));
            hash.Append(BitConverter.GetBytes(statement.Number(2)));
        }

        return Convert.ToHexString(hash.GetCurrentHash());
    }

    /// <summary>The debits and credits per account of the months from the first to the last.</summary>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> Sums(AccountingBasis basis, YearMonth first, YearMonth last)
    {
        // A statement of its own: who reads the months may read others meanwhile, or stop before the last.
        using var statement = database.Prepare(
            "SELECT month, sums, checksum FROM posting_months WHERE basis = ? AND month BETWEEN ? AND ? ORDER BY month");
        statement.Bind(1, (int)basis).Bind(2, first.Number).Bind(3, last.Number);
        while (statement.Step())
        {
            var month = YearMonth.FromNumber(statement.Int(0));
            yield return (month, UnpackSums(basis, month, statement.Bytes(1), statement.Number(2)));
        }
    }

    /// <summary>One column of a month.</summary>
    public long[] Column(AccountingBasis basis, YearMonth month, PostingField field)
    {
        var count = Count(basis, month);
        _column.Bind(1, (int)basis).Bind(2, month.Number).Bind(3, PostingColumn.For(field).Name);
        if (!_column.Step())
        {
            return count == 0 ? [] : throw Damaged(basis, month);
        }

        var data = _column.Bytes(0);
        var whole = Checksum(data) == _column.Number(1) & PackedNumbers.TryUnpack(data, count, out var numbers);
        _column.Reset();
        return whole ? numbers : throw Damaged(basis, month);
    }

    /// <summary>All postings of a month, in order.</summary>
    public Posting[] Read(AccountingBasis basis, YearMonth month)
    {
        var columns = Enum.GetValues<PostingField>().Select(field => Column(basis, month, field)).ToArray();
        var postings = new Posting[columns[0].Length];
        for (var index = 0; index < postings.Length; index++)
        {
            postings[index] = PostingColumn.Join(month.First, columns, index);
        }

        return postings;
    }

    /// <summary>Puts a month's postings, in order, in the place of what was there; without any, the month goes.</summary>
    public void Write(AccountingBasis basis, YearMonth month, ReadOnlySpan<Posting> postings)
    {
        var key = $"basis = {(int)basis} AND month = {month.Number}";
        database.Execute($"DELETE FROM {written}posting_columns WHERE {key}; DELETE FROM {written}posting_months WHERE {key}");
        if (postings.IsEmpty && written.Length == 0)
        {
            return;
        }

        using var insertColumn = database.Prepare(
            $"INSERT INTO {written}posting_columns(basis, month, name, data, checksum) VALUES (?, ?, ?, ?, ?)");
        var numbers = new long[postings.Length];
        foreach (var column in PostingColumn.All)
        {
            for (var index = 0; index < numbers.Length; index++)
            {
                numbers[index] = column.Of(postings[index]);
            }

            var data = PackedNumbers.Pack(numbers);
            insertColumn.Bind(1, (int)basis).Bind(2, month.Number).Bind(3, column.Name).BindBlob(4, data)
                .Bind(5, Checksum(data)).Run();
        }

        using var insertMonth = database.Prepare(
            $"INSERT INTO {written}posting_months(basis, month, postings, sums, checksum) VALUES (?, ?, ?, ?, ?)");
        var sums = PackSums(postings);
        insertMonth.Bind(1, (int)basis).Bind(2, month.Number).Bind(3, postings.Length).BindBlob(4, sums)
            .Bind(5, Checksum(sums)).Run();
    }

    /// <summary>Throws all of it away.</summary>
    public void Clear() => database.Execute("DELETE FROM posting_columns; DELETE FROM posting_months");

    /// <inheritdoc/>
    public void Dispose()
    {
        _months.Dispose();
        _count.Dispose();
        _column.Dispose();
    }

    private static long Checksum(ReadOnlySpan<byte> data) => (long)XxHash3.HashToUInt64(data);

    private static ProblemException Damaged(AccountingBasis basis, YearMonth month) => new(
        ProblemKind.BadData,
        $"The derived columns of {month} ({AccountingBases.NameOf(basis)}) are damaged; the records are not.",
        "Run: vlei check --rebuild");

    private int Count(AccountingBasis basis, YearMonth month)
    {
        _count.Bind(1, (int)basis).Bind(2, month.Number);
        var count = _count.Step() ? _count.Int(0) : 0;
        _count.Reset();
        return count;
    }

    private static byte[] PackSums(ReadOnlySpan<Posting> postings)
    {
        var byAccount = new SortedDictionary<int, (Amount Debit, Amount Credit)>();
        foreach (ref readonly var posting in postings)
        {
            var (debit, credit) = byAccount.GetValueOrDefault(posting.Line.Account);
            var amount = posting.Line.Amount;
            byAccount[posting.Line.Account] = amount.Sign > 0 ? (debit + amount, credit) : (debit, credit - amount);
        }

        var bytes = new byte[byAccount.Count * SumBytes];
        var place = bytes.AsSpan();
        foreach (var (account, (debit, credit)) in byAccount)
        {
            BinaryPrimitives.WriteInt32LittleEndian(place, account);
            BinaryPrimitives.WriteInt64LittleEndian(place[sizeof(int)..], debit.MinorUnits);
            BinaryPrimitives.WriteInt64LittleEndian(place[(sizeof(int) + sizeof(long))..], credit.MinorUnits);
            place = place[SumBytes..];
        }

        return bytes;
    }

    private static AccountSum[] UnpackSums(AccountingBasis basis, YearMonth month, ReadOnlySpan<byte> bytes, long checksum)
    {
        if (Checksum(bytes) != checksum || bytes.Length % SumBytes != 0)
        {
            throw Damaged(basis, month);
        }

        var sums = new AccountSum[bytes.Length / SumBytes];
        for (var index = 0; index < sums.Length; index++)
        {
            var place = bytes[(index * SumBytes)..];
            sums[index] = new AccountSum(
                BinaryPrimitives.ReadInt32LittleEndian(place),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[sizeof(int)..])),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[(sizeof(int) + sizeof(long))..])));
        }

        return sums;
    }
}
