using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>One column of the postings of a month, as the store keeps it.</summary>
/// <param name="Name">Its name in the store.</param>
/// <param name="Of">What it holds of a posting.</param>
internal sealed record PostingColumn(string Name, Func<Posting, long> Of)
{
    /// <summary>The day of the month.</summary>
    public static readonly PostingColumn Day = new("day", posting => posting.Day.Day);

    /// <summary>The account.</summary>
    public static readonly PostingColumn Account = new("account", posting => posting.Line.Account);

    /// <summary>The amount, debit positive.</summary>
    public static readonly PostingColumn Amount = new("amount", posting => posting.Line.Amount.MinorUnits);

    /// <summary>The document.</summary>
    public static readonly PostingColumn Document = new("document", posting => posting.Document);

    /// <summary>All of them; the order is that of <see cref="Join"/>.</summary>
    public static readonly IReadOnlyList<PostingColumn> All =
    [
        Day, Account, Amount, Document,
        new("settlement", posting => posting.Settlement),
        new("line", posting => posting.Line.Number),
        new("contact", posting => posting.Line.Contact),
        new("item", posting => posting.Line.Item),
        new("project", posting => posting.Line.Project),
        new("department", posting => posting.Line.Department),
    ];

    /// <summary>A posting from its numbers, in the order of <see cref="All"/>.</summary>
    public static Posting Join(DateOnly firstOfMonth, ReadOnlySpan<long[]> columns, int index) => new(
        firstOfMonth.AddDays((int)columns[0][index] - 1),
        (int)columns[3][index],
        new Line(
            (int)columns[5][index], (int)columns[1][index], new Amount(columns[2][index]), (int)columns[6][index],
            (int)columns[7][index], (int)columns[8][index], (int)columns[9][index]),
        (int)columns[4][index]);

    /// <summary>
    /// The one order of a month's postings: by day, document, settlement and line. No two postings are equal in it, so
    /// the columns come out the same whichever way they were made.
    /// </summary>
    public static int Compare(in Posting left, in Posting right)
    {
        var order = left.Day.CompareTo(right.Day);
        order = order != 0 ? order : left.Document.CompareTo(right.Document);
        order = order != 0 ? order : left.Settlement.CompareTo(right.Settlement);
        return order != 0 ? order : left.Line.Number.CompareTo(right.Line.Number);
    }
}
