using System.Buffers;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>Reads something off a row, which is large, and is not copied for that.</summary>
internal delegate TValue RowReading<T, out TValue>(in T row);

/// <summary>Which of two rows comes first: less than 0, 0 or more, as of numbers.</summary>
internal delegate int RowComparison<T>(in T left, in T right);

/// <summary>One column of the rows of a month, as the store keeps it.</summary>
/// <param name="Name">Its name in the store.</param>
/// <param name="Of">What it holds of a row.</param>
internal sealed record DerivedColumn<T>(string Name, RowReading<T, long> Of);

/// <summary>How rows of one type are kept: a whole number in each column.</summary>
/// <param name="Columns">The columns; the first is the day of the month.</param>
/// <param name="DayOf">The day that says which month a row belongs to.</param>
/// <param name="Join">A row from the first day of its month, the numbers of all rows by column, and its place.</param>
/// <param name="Order">
/// The one order of a month's rows. No two are equal in it, so the columns come out the same whichever way they were made.
/// </param>
/// <param name="Documents">The names of the columns that hold documents: what a row rests on.</param>
/// <param name="Sums">What a month's rows sum up to, as bytes; nothing where they are not summed up.</param>
internal sealed record DerivedColumns<T>(
    IReadOnlyList<DerivedColumn<T>> Columns, RowReading<T, DateOnly> DayOf, Func<DateOnly, long[][], int, T> Join,
    RowComparison<T> Order, IReadOnlyList<string> Documents, Func<ReadOnlySpan<T>, byte[]>? Sums = null)
{
    private readonly RowReading<T, long>[] _documents =
        [.. Columns.Where(column => Documents.Contains(column.Name)).Select(column => column.Of)];

    private readonly int _account = Columns.ToList().FindIndex(column => column.Name == "account");

    /// <summary>Each column of some rows, packed.</summary>
    public List<byte[]> Pack(ReadOnlySpan<T> rows)
    {
        var rented = ArrayPool<long>.Shared.Rent(rows.Length);
        var numbers = rented.AsSpan(0, rows.Length);
        var packed = new List<byte[]>(Columns.Count);
        foreach (var column in Columns)
        {
            for (var row = 0; row < numbers.Length; row++)
            {
                numbers[row] = column.Of(in rows[row]);
            }

            packed.Add(PackedNumbers.Pack(numbers));
        }

        ArrayPool<long>.Shared.Return(rented);
        return packed;
    }

    /// <summary>Adds the rows of a month to some.</summary>
    /// <param name="rows">The others.</param>
    /// <param name="month">The month.</param>
    /// <param name="count">How many they are.</param>
    /// <param name="fill">Fills in the numbers of a column, by its place.</param>
    /// <param name="accounts">Which accounts are wanted, by their keys; nothing for all of them.</param>
    public void Unpack(List<T> rows, YearMonth month, int count, Action<int, Memory<long>> fill, bool[]? accounts = null)
    {
        // The arrays are used again for each month: they are large, and new ones cost more than what is done with them.
        var columns = new long[Columns.Count][];
        for (var column = 0; column < columns.Length; column++)
        {
            columns[column] = ArrayPool<long>.Shared.Rent(count);
            fill(column, columns[column].AsMemory(0, count));
        }

        var of = accounts is null ? [] : columns[_account];
        rows.EnsureCapacity(rows.Count + count);
        for (var row = 0; row < count; row++)
        {
            if (accounts is null || accounts[of[row]])
            {
                rows.Add(Join(month.First, columns, row));
            }
        }

        Array.ForEach(columns, column => ArrayPool<long>.Shared.Return(column));
    }

    /// <summary>Whether a row rests on any of the documents.</summary>
    public bool RestsOn(in T row, HashSet<int> documents)
    {
        foreach (var document in _documents)
        {
            if (documents.Contains((int)document(row)))
            {
                return true;
            }
        }

        return false;
    }
}

/// <summary>The columns of each type of row.</summary>
internal static class DerivedColumns
{
    /// <summary>Postings, in the order of <see cref="PostingField"/>.</summary>
    public static DerivedColumns<Posting> Postings { get; } = new(
        [
            new("day", (in posting) => posting.Day.Day),
            new("account", (in posting) => posting.Line.Account.Value),
            new("amount", (in posting) => posting.Line.Amount.MinorUnits),
            new("document", (in posting) => posting.Document.Value),
            new("settlement", (in posting) => posting.Settlement.Value),
            new("line", (in posting) => posting.Line.Number),
            new("contact", (in posting) => posting.Line.Contact.Value),
            new("item", (in posting) => posting.Line.Item),
            new("project", (in posting) => posting.Line.Project),
            new("department", (in posting) => posting.Line.Department),
            new("kind", (in posting) => posting.Line.Kind),
            new("tags", (in posting) => posting.Line.Tags),
            new("quantity", (in posting) => posting.Line.Quantity),
            new("tax-code", (in posting) => posting.Line.TaxCode),
            new("tax-part", (in posting) => (long)posting.Line.TaxPart),
        ],
        (in posting) => posting.Day,
        (first, columns, row) => new Posting(
            first.AddDays((int)columns[0][row] - 1),
            (DocumentKey)columns[3][row],
            new Line(
                (int)columns[5][row], (AccountKey)columns[1][row], new Amount(columns[2][row]), (ContactKey)columns[6][row],
                (int)columns[7][row], (int)columns[8][row], (int)columns[9][row], (int)columns[10][row], (int)columns[11][row],
                columns[12][row], (int)columns[13][row], (TaxPart)columns[14][row]),
            (SettlementKey)columns[4][row]),
        (in left, in right) =>
        {
            var order = left.Day.CompareTo(right.Day);
            order = order != 0 ? order : left.Document.CompareTo(right.Document);
            order = order != 0 ? order : left.Settlement.CompareTo(right.Settlement);
            return order != 0 ? order : left.Line.Number.CompareTo(right.Line.Number);
        },
        ["document"],
        MonthSums.Pack);

    /// <summary>What documents put on control accounts.</summary>
    public static DerivedColumns<ControlItem> Items { get; } = new(
        [
            new("day", (in item) => item.Date.Day),
            new("document", (in item) => item.Document.Value),
            new("account", (in item) => item.Account.Value),
            new("contact", (in item) => item.Contact.Value),
            new("amount", (in item) => item.Total.MinorUnits),
            new("days", (in item) => item.Due.DayNumber - item.Date.DayNumber),
            new("kind", (in item) => item.Kind),
        ],
        (in item) => item.Date,
        (first, columns, row) =>
        {
            var date = first.AddDays((int)columns[0][row] - 1);
            return new ControlItem(
                (DocumentKey)columns[1][row], (AccountKey)columns[2][row], (ContactKey)columns[3][row], new Amount(columns[4][row]),
                date, date.AddDays((int)columns[5][row]), (int)columns[6][row]);
        },
        (in left, in right) =>
        {
            var order = left.Date.CompareTo(right.Date);
            order = order != 0 ? order : left.Document.CompareTo(right.Document);
            order = order != 0 ? order : left.Account.CompareTo(right.Account);
            return order != 0 ? order : left.Contact.CompareTo(right.Contact);
        },
        ["document"]);

    /// <summary>What is set against what.</summary>
    public static DerivedColumns<Application> Applications { get; } = new(
        [
            new("day", (in application) => application.Day.Day),
            new("settlement", (in application) => application.Settlement.Value),
            new("amount", (in application) => application.Amount.MinorUnits),
            new("account", (in application) => application.Account.Value),
            new("from", (in application) => application.From.Value),
            new("from-contact", (in application) => application.FromContact.Value),
            new("to", (in application) => application.To.Value),
            new("to-contact", (in application) => application.ToContact.Value),
        ],
        (in application) => application.Day,
        (first, columns, row) => new Application(
            (SettlementKey)columns[1][row], first.AddDays((int)columns[0][row] - 1), new Amount(columns[2][row]),
            (AccountKey)columns[3][row], (DocumentKey)columns[4][row], (ContactKey)columns[5][row], (DocumentKey)columns[6][row],
            (ContactKey)columns[7][row]),
        (in left, in right) =>
        {
            var order = left.Day.CompareTo(right.Day);
            return order != 0 ? order : left.Settlement.CompareTo(right.Settlement);
        },
        ["from", "to"]);
}
