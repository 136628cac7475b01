using System.Buffers;
using System.Globalization;
using System.IO.Hashing;
using System.Numerics;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Columns;

/// <summary>
/// The derived months as rows: per kind and month one blob per column, and beside them the month's sums per account
/// where they are postings. Every blob carries a checksum, so that damage is noticed when it is read and never shown as a figure.
/// </summary>
/// <param name="months">Where they are.</param>
internal class DerivedMonths(IMonths months)
{
    // How many rows each month has, which every column that is read asks for.
    private readonly SortedDictionary<YearMonth, int>?[] _counts =
        new SortedDictionary<YearMonth, int>?[Enum.GetValues<DerivedKind>().Length];

    /// <summary>The months that have rows, oldest first.</summary>
    public List<YearMonth> Months(DerivedKind kind) => [.. CountsOf(kind).Keys];

    /// <summary>How many rows a month has.</summary>
    public int Count(DerivedKind kind, YearMonth month) => CountsOf(kind).GetValueOrDefault(month);

    /// <summary>The debits and credits per account of the months from the first to the last.</summary>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> Sums(DerivedKind kind, YearMonth first, YearMonth last) =>
        months.Heads(kind, first, last).Select(head => (head.Month, UnpackSums(kind, head)));

    /// <summary>One column of a month.</summary>
    public long[] Column(DerivedKind kind, YearMonth month, string name)
    {
        // It is filled as a whole: months are read by the dozen, and what they are read into is a good part of the work.
        var numbers = GC.AllocateUninitializedArray<long>(Count(kind, month));
        Column(kind, month, name, numbers);
        return numbers;
    }

    /// <summary>Reads one column of a month into some numbers, as many as it has rows.</summary>
    public void Column(DerivedKind kind, YearMonth month, string name, Span<long> numbers) => Column(kind, month, name, [], numbers);

    /// <summary>What some rows of a month, by their places, have in a column.</summary>
    public long[] Column(DerivedKind kind, YearMonth month, string name, int[] places)
    {
        var numbers = new long[places.Length];
        Column(kind, month, name, places, numbers);
        return numbers;
    }

    /// <summary>Reads what some rows of a month, by their places, have in a column; all rows where there are none.</summary>
    public void Column<T>(DerivedKind kind, YearMonth month, string name, ReadOnlySpan<int> places, Span<T> numbers)
        where T : unmanaged, IBinaryInteger<T>
    {
        if (!PackedNumbers.TryUnpack(Data(kind, month, name), Count(kind, month), places, numbers))
        {
            throw Damaged(kind, month);
        }
    }

    /// <summary>Says which rows of a month are of accounts that are wanted, by their places, and gives how many they are.</summary>
    public int Wanted(DerivedKind kind, YearMonth month, bool[] accounts, Span<int> places)
    {
        var rented = ArrayPool<int>.Shared.Rent(Count(kind, month));
        var of = rented.AsSpan(0, Count(kind, month));
        Column(kind, month, "account", [], of);
        var wanted = 0;
        for (var row = 0; row < of.Length; row++)
        {
            places[wanted] = row;
            wanted += accounts[of[row]] ? 1 : 0;
        }

        ArrayPool<int>.Shared.Return(rented);
        return wanted;
    }

    /// <summary>A column of words; nothing where it is not there.</summary>
    /// <param name="kind">What says them.</param>
    /// <param name="place">The stretch of documents, or the table.</param>
    /// <param name="name">The name of the column.</param>
    /// <param name="bytes">How many bytes it is.</param>
    public WordColumn? Words(DerivedKind kind, YearMonth place, string name, out int bytes)
    {
        if (!months.TryColumn(kind, place, name, out var data, out var checksum))
        {
            bytes = 0;
            return null;
        }

        bytes = data.Length;
        return Checksum(data) == checksum && WordColumn.TryRead(data) is { } column ? column : throw Damaged(kind, place);
    }

    /// <summary>The rows of a month.</summary>
    public List<T> Read<T>(DerivedKind kind, YearMonth month, DerivedColumns<T> shape)
    {
        var rows = new List<T>();
        Read(kind, month, shape, rows);
        return rows;
    }

    /// <summary>Adds the rows of a month to some.</summary>
    /// <param name="kind">What they are.</param>
    /// <param name="month">The month.</param>
    /// <param name="shape">Their columns.</param>
    /// <param name="rows">The others.</param>
    /// <param name="accounts">Which accounts are wanted, by their keys; nothing for all of them.</param>
    public void Read<T>(DerivedKind kind, YearMonth month, DerivedColumns<T> shape, List<T> rows, bool[]? accounts = null)
    {
        if (Count(kind, month) is not (> 0 and var count))
        {
            return;
        }

        var places = accounts is null ? [] : ArrayPool<int>.Shared.Rent(count);
        var wanted = accounts is null ? count : Wanted(kind, month, accounts, places);
        shape.Unpack(rows, month, wanted, (column, numbers) =>
            Column(kind, month, shape.Columns[column].Name, wanted < count ? places.AsSpan(0, wanted) : [], numbers));
        if (accounts is not null)
        {
            ArrayPool<int>.Shared.Return(places);
        }
    }

    /// <summary>
    /// What each month of a kind holds, in few letters: equal only where columns and sums are equal, to the byte; of those too
    /// that have only a part of what they should have.
    /// </summary>
    public IEnumerable<(YearMonth Month, string Fingerprint)> Fingerprints(DerivedKind kind)
    {
        foreach (var month in months.AllMonths(kind))
        {
            var hash = new XxHash3();
            foreach (var column in months.Columns(kind, month))
            {
                Append(hash, column.Name, column.Data, column.Checksum);
            }

            foreach (var head in months.Heads(kind, month, month))
            {
                Append(hash, $"sums {head.Rows}", head.Sums, head.Checksum);
            }

            yield return (month, Convert.ToHexString(hash.GetCurrentHash()));
        }
    }

    /// <summary>The name of a kind, for people.</summary>
    public static string NameOf(DerivedKind kind) => Enum.GetName(kind)!.ToLowerInvariant();

    /// <summary>The checksum of a blob.</summary>
    protected static long Checksum(ReadOnlySpan<byte> data) => (long)XxHash3.HashToUInt64(data);

    /// <summary>The months of a kind that have rows, and how many.</summary>
    protected SortedDictionary<YearMonth, int> CountsOf(DerivedKind kind) =>
        _counts[(int)kind] ??= new SortedDictionary<YearMonth, int>(
            months.Months(kind).ToDictionary(month => month.Month, month => month.Rows));

    private static void Append(XxHash3 hash, string name, byte[] data, long checksum)
    {
        hash.Append(System.Text.Encoding.UTF8.GetBytes(name));
        hash.Append(data);
        hash.Append(BitConverter.GetBytes(checksum));
    }

    /// <summary>What a month is called, for people; of texts, the documents that stand there, and of names, the table.</summary>
    public static string InWords(DerivedKind kind, YearMonth month) => kind switch
    {
        DerivedKind.Texts => string.Create(
            CultureInfo.InvariantCulture,
            $"documents {Math.Max(1, month.Index * DocumentStretch.Size)} to {((month.Index + 1) * DocumentStretch.Size) - 1} (texts)"),
        DerivedKind.Names => $"{NameColumns.TableAt(month).Name.Replace('_', ' ')} ({NameOf(kind)})",
        _ => $"{month} ({NameOf(kind)})",
    };

    /// <summary>That columns are not what was written.</summary>
    public static ProblemException Damaged(DerivedKind kind, YearMonth month) => new(
        ProblemKind.BadData,
        $"The derived columns of {InWords(kind, month)} are damaged; the records are not.",
        "Run: vlei check --rebuild");

    // A month without rows has no columns.
    private ReadOnlySpan<byte> Data(DerivedKind kind, YearMonth month, string name) =>
        months.TryColumn(kind, month, name, out var data, out var checksum)
            ? Checksum(data) == checksum ? data : throw Damaged(kind, month)
        : Count(kind, month) == 0 ? [] : throw Damaged(kind, month);

    private static AccountSum[] UnpackSums(DerivedKind kind, MonthHead head) =>
        Checksum(head.Sums) == head.Checksum && MonthSums.TryUnpack(head.Sums, out var sums) ? sums : throw Damaged(kind, head.Month);
}
