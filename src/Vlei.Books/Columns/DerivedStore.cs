using System.Buffers;
using System.Buffers.Binary;
using System.IO.Hashing;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books.Columns;

/// <summary>
/// The derived columns in the store: per kind and month one blob per column, and beside them the month's sums per account
/// where they are postings. Every blob carries a checksum, so that damage is noticed when it is read and never shown as a figure.
/// </summary>
/// <param name="database">The file.</param>
/// <param name="written">
/// What the names of the tables that are written to begin with; where it is not empty, those hold what differs from the
/// file, and the names without it are views of both.
/// </param>
internal sealed class DerivedStore(Database database, string written = "") : IDisposable
{
    private const int SumBytes = sizeof(int) + (2 * sizeof(long));

    private readonly Statement _months = database.Prepare("SELECT month FROM derived_months WHERE kind = ? ORDER BY month");

    private readonly Statement _count = database.Prepare("SELECT rows FROM derived_months WHERE kind = ? AND month = ?");

    private readonly Statement _column = database.Prepare(
        "SELECT data, checksum FROM derived_columns WHERE kind = ? AND month = ? AND name = ?");

    /// <summary>Whether nothing is derived yet.</summary>
    public bool IsEmpty => database.Number("SELECT count(*) FROM derived_months") == 0;

    /// <summary>The months that have rows, oldest first.</summary>
    public List<YearMonth> Months(DerivedKind kind)
    {
        var months = new List<YearMonth>();
        _months.Bind(1, (int)kind);
        while (_months.Step())
        {
            months.Add(YearMonth.FromNumber(_months.Int(0)));
        }

        return months;
    }

    /// <summary>The months that have anything, be it only a part of what they should have.</summary>
    public List<YearMonth> AllMonths(DerivedKind kind)
    {
        var months = Months(kind).ToHashSet();
        using var statement = database.Prepare("SELECT DISTINCT month FROM derived_columns WHERE kind = ?");
        statement.Bind(1, (int)kind);
        while (statement.Step())
        {
            months.Add(YearMonth.FromNumber(statement.Int(0)));
        }

        return [.. months.Order()];
    }

    /// <summary>What a month holds, in few letters: equal only where columns and sums are equal, to the byte.</summary>
    public string Fingerprint(DerivedKind kind, YearMonth month)
    {
        var hash = new XxHash3();
        using var statement = database.Prepare(
            "SELECT name, data, checksum FROM derived_columns WHERE kind = ?1 AND month = ?2 UNION ALL "
            + "SELECT 'sums ' || rows, sums, checksum FROM derived_months WHERE kind = ?1 AND month = ?2 ORDER BY 1");
        statement.Bind(1, (int)kind).Bind(2, month.Number);
        while (statement.Step())
        {
            hash.Append(statement.Bytes(0));
            hash.Append(statement.Bytes(1));
            hash.Append(BitConverter.GetBytes(statement.Number(2)));
        }

        return Convert.ToHexString(hash.GetCurrentHash());
    }

    /// <summary>The debits and credits per account of the months from the first to the last.</summary>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> Sums(DerivedKind kind, YearMonth first, YearMonth last)
    {
        // A statement of its own: who reads the months may read others meanwhile, or stop before the last.
        using var statement = database.Prepare(
            "SELECT month, sums, checksum FROM derived_months WHERE kind = ? AND month BETWEEN ? AND ? ORDER BY month");
        statement.Bind(1, (int)kind).Bind(2, first.Number).Bind(3, last.Number);
        while (statement.Step())
        {
            var month = YearMonth.FromNumber(statement.Int(0));
            yield return (month, UnpackSums(kind, month, statement.Bytes(1), statement.Number(2)));
        }
    }

    /// <summary>One column of a month.</summary>
    public long[] Column(DerivedKind kind, YearMonth month, string name)
    {
        var numbers = new long[Count(kind, month)];
        Column(kind, month, name, numbers);
        return numbers;
    }

    private void Column(DerivedKind kind, YearMonth month, string name, Span<long> numbers)
    {
        _column.Bind(1, (int)kind).Bind(2, month.Number).Bind(3, name);
        if (!_column.Step())
        {
            if (!numbers.IsEmpty)
            {
                throw Damaged(kind, month);
            }

            return;
        }

        var data = _column.Bytes(0);
        var whole = Checksum(data) == _column.Number(1) & PackedNumbers.TryUnpack(data, numbers);
        _column.Reset();
        if (!whole)
        {
            throw Damaged(kind, month);
        }
    }

    /// <summary>All rows of a month, in order.</summary>
    public List<T> Read<T>(DerivedKind kind, YearMonth month, DerivedColumns<T> shape)
    {
        var rows = new List<T>();
        Read(kind, month, shape, rows);
        return rows;
    }

    /// <summary>Adds all rows of a month, in order, to others.</summary>
    public void Read<T>(DerivedKind kind, YearMonth month, DerivedColumns<T> shape, List<T> rows)
    {
        // The arrays are used again for each month: they are large, and new ones cost more than what is done with them.
        var count = Count(kind, month);
        var columns = new long[shape.Columns.Count][];
        for (var column = 0; column < columns.Length; column++)
        {
            columns[column] = ArrayPool<long>.Shared.Rent(count);
            Column(kind, month, shape.Columns[column].Name, columns[column].AsSpan(0, count));
        }

        rows.EnsureCapacity(rows.Count + count);
        for (var row = 0; row < count; row++)
        {
            rows.Add(shape.Join(month.First, columns, row));
        }

        foreach (var column in columns)
        {
            ArrayPool<long>.Shared.Return(column);
        }
    }

    /// <summary>Puts a month's rows, in order, in the place of what was there; without any, the month goes.</summary>
    public void Write<T>(DerivedKind kind, YearMonth month, T[] rows, DerivedColumns<T> shape)
    {
        var key = $"kind = {(int)kind} AND month = {month.Number}";
        database.Execute($"DELETE FROM {written}derived_columns WHERE {key}; DELETE FROM {written}derived_months WHERE {key}");
        if (rows.Length == 0 && written.Length == 0)
        {
            return;
        }

        using var insertColumn = database.Prepare(
            $"INSERT INTO {written}derived_columns(kind, month, name, data, checksum) VALUES (?, ?, ?, ?, ?)");
        var numbers = new long[rows.Length];
        foreach (var column in shape.Columns)
        {
            for (var row = 0; row < numbers.Length; row++)
            {
                numbers[row] = column.Of(rows[row]);
            }

            var data = PackedNumbers.Pack(numbers);
            insertColumn.Bind(1, (int)kind).Bind(2, month.Number).Bind(3, column.Name).BindBlob(4, data)
                .Bind(5, Checksum(data)).Run();
        }

        using var insertMonth = database.Prepare(
            $"INSERT INTO {written}derived_months(kind, month, rows, sums, checksum) VALUES (?, ?, ?, ?, ?)");
        var sums = rows is Posting[] postings ? PackSums(postings) : [];
        insertMonth.Bind(1, (int)kind).Bind(2, month.Number).Bind(3, rows.Length).BindBlob(4, sums)
            .Bind(5, Checksum(sums)).Run();
    }

    /// <summary>Throws all of it away.</summary>
    public void Clear() => database.Execute("DELETE FROM derived_columns; DELETE FROM derived_months");

    /// <inheritdoc/>
    public void Dispose()
    {
        _months.Dispose();
        _count.Dispose();
        _column.Dispose();
    }

    /// <summary>The name of a kind, for people.</summary>
    public static string NameOf(DerivedKind kind) => Enum.GetName(kind)!.ToLowerInvariant();

    private static long Checksum(ReadOnlySpan<byte> data) => (long)XxHash3.HashToUInt64(data);

    private static ProblemException Damaged(DerivedKind kind, YearMonth month) => new(
        ProblemKind.BadData,
        $"The derived columns of {month} ({NameOf(kind)}) are damaged; the records are not.",
        "Run: vlei check --rebuild");

    /// <summary>How many rows a month has.</summary>
    public int Count(DerivedKind kind, YearMonth month)
    {
        _count.Bind(1, (int)kind).Bind(2, month.Number);
        var count = _count.Step() ? _count.Int(0) : 0;
        _count.Reset();
        return count;
    }

    private static byte[] PackSums(ReadOnlySpan<Posting> postings)
    {
        var byAccount = new SortedDictionary<int, (Amount Debit, Amount Credit)>();
        foreach (ref readonly var posting in postings)
        {
            var (debit, credit) = byAccount.GetValueOrDefault(posting.Line.Account.Value);
            var amount = posting.Line.Amount;
            byAccount[posting.Line.Account.Value] = amount.Sign > 0 ? (debit + amount, credit) : (debit, credit - amount);
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

    private static AccountSum[] UnpackSums(DerivedKind kind, YearMonth month, ReadOnlySpan<byte> bytes, long checksum)
    {
        if (Checksum(bytes) != checksum || bytes.Length % SumBytes != 0)
        {
            throw Damaged(kind, month);
        }

        var sums = new AccountSum[bytes.Length / SumBytes];
        for (var index = 0; index < sums.Length; index++)
        {
            var place = bytes[(index * SumBytes)..];
            sums[index] = new AccountSum(
                new AccountKey(BinaryPrimitives.ReadInt32LittleEndian(place)),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[sizeof(int)..])),
                new Amount(BinaryPrimitives.ReadInt64LittleEndian(place[(sizeof(int) + sizeof(long))..])));
        }

        return sums;
    }
}
