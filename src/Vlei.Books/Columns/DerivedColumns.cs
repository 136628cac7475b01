using System.Buffers;
using System.Runtime.InteropServices;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>Reads something off a row, which is large, and is not copied for that.</summary>
internal delegate TValue RowReading<T, out TValue>(in T row);

/// <summary>Which of two rows comes first: less than 0, 0 or more, as of numbers.</summary>
internal delegate int RowComparison<T>(in T left, in T right);

/// <summary>Makes the rows of a month of its columns, which are at least as long.</summary>
internal delegate void RowJoining<T>(DateOnly first, long[][] columns, Span<T> rows);

/// <summary>Fills in the numbers that rows have in a column.</summary>
internal delegate void ColumnFilling(int column, Span<long> numbers);

/// <summary>One column of the rows of a month, as the store keeps it.</summary>
/// <param name="Name">Its name in the store.</param>
/// <param name="Of">What it holds of a row.</param>
internal sealed record DerivedColumn<T>(string Name, RowReading<T, long> Of);

/// <summary>How rows of one type are kept: a whole number in each column.</summary>
/// <param name="Columns">The columns; the first is the day of the month.</param>
/// <param name="DayOf">The day that says which month a row belongs to.</param>
/// <param name="Join">Makes rows of the first day of their month and the numbers of each by column.</param>
/// <param name="Order">
/// The one order of a month's rows. No two are equal in it, so the columns come out the same whichever way they were made.
/// </param>
/// <param name="Documents">The names of the columns that hold documents: what a row rests on.</param>
/// <param name="Sums">What a month's rows sum up to, as bytes; nothing where they are not summed up.</param>
internal sealed record DerivedColumns<T>(
    IReadOnlyList<DerivedColumn<T>> Columns, RowReading<T, DateOnly> DayOf, RowJoining<T> Join,
    RowComparison<T> Order, IReadOnlyList<string> Documents, Func<ReadOnlySpan<T>, byte[]>? Sums = null)
{
    private readonly RowReading<T, long>[] _documents =
        [.. Columns.Where(column => Documents.Contains(column.Name)).Select(column => column.Of)];

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
    /// <param name="fill">Fills in the numbers of a column.</param>
    public void Unpack(List<T> rows, YearMonth month, int count, ColumnFilling fill)
    {
        // The arrays are used again for each month: they are large, and new ones cost more than what is done with them.
        var columns = Array.ConvertAll(new long[Columns.Count][], _ => ArrayPool<long>.Shared.Rent(count));
        for (var column = 0; column < columns.Length; column++)
        {
            fill(column, columns[column].AsSpan(0, count));
        }

        var first = rows.Count;
        CollectionsMarshal.SetCount(rows, first + count);
        Join(month.First, columns, CollectionsMarshal.AsSpan(rows)[first..]);
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
        (first, columns, rows) =>
        {
            for (var row = 0; row < rows.Length; row++)
            {
                rows[row] = new Posting(
                    first.AddDays((int)columns[0][row] - 1),
                    (DocumentKey)columns[3][row],
                    new Line(
                        (int)columns[5][row], (AccountKey)columns[1][row], new Amount(columns[2][row]), (ContactKey)columns[6][row],
                        (int)columns[7][row], (int)columns[8][row], (int)columns[9][row], (int)columns[10][row], (int)columns[11][row],
                        columns[12][row], (int)columns[13][row], (TaxPart)columns[14][row]),
                    (SettlementKey)columns[4][row]);
            }
        },
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
        (first, columns, rows) =>
        {
            var (day, document, account, contact) = (columns[0], columns[1], columns[2], columns[3]);
            var (amount, days, kind) = (columns[4], columns[5], columns[6]);
            for (var row = 0; row < rows.Length; row++)
            {
                var date = first.AddDays((int)day[row] - 1);
                rows[row] = new ControlItem(
                    (DocumentKey)document[row], (AccountKey)account[row], (ContactKey)contact[row], new Amount(amount[row]),
                    date, date.AddDays((int)days[row]), (int)kind[row]);
            }
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
        (first, columns, rows) =>
        {
            var (day, settlement, amount, account) = (columns[0], columns[1], columns[2], columns[3]);
            var (from, fromContact, to, toContact) = (columns[4], columns[5], columns[6], columns[7]);
            for (var row = 0; row < rows.Length; row++)
            {
                rows[row] = new Application(
                    (SettlementKey)settlement[row], first.AddDays((int)day[row] - 1), new Amount(amount[row]), (AccountKey)account[row],
                    (DocumentKey)from[row], (ContactKey)fromContact[row], (DocumentKey)to[row], (ContactKey)toContact[row]);
            }
        },
        (in left, in right) =>
        {
            var order = left.Day.CompareTo(right.Day);
            return order != 0 ? order : left.Settlement.CompareTo(right.Settlement);
        },
        ["from", "to"]);
}
