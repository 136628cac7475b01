using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>One column of the postings of a month, as the store keeps it.</summary>
/// <param name="Name">Its name in the store.</param>
/// <param name="Of">What it holds of a posting.</param>
internal sealed record PostingColumn(string Name, Func<Posting, long> Of)
{
    private static readonly PostingColumn[] Columns =
    [
        new("day", posting => posting.Day.Day),
        new("account", posting => posting.Line.Account),
        new("amount", posting => posting.Line.Amount.MinorUnits),
        new("document", posting => posting.Document),
        new("settlement", posting => posting.Settlement),
        new("line", posting => posting.Line.Number),
        new("contact", posting => posting.Line.Contact),
        new("item", posting => posting.Line.Item),
        new("project", posting => posting.Line.Project),
        new("department", posting => posting.Line.Department),
        new("kind", posting => posting.Line.Kind),
        new("tags", posting => posting.Line.Tags),
    ];

    /// <summary>All of them, in the order of <see cref="PostingField"/>, which is also that of <see cref="Join"/>.</summary>
    public static IReadOnlyList<PostingColumn> All => Columns;

    /// <summary>The column of a field.</summary>
    public static PostingColumn For(PostingField field) => Columns[(int)field];

    /// <summary>A posting from its numbers, in the order of <see cref="All"/>.</summary>
    public static Posting Join(DateOnly firstOfMonth, ReadOnlySpan<long[]> columns, int index) => new(
        firstOfMonth.AddDays((int)columns[0][index] - 1),
        (int)columns[3][index],
        new Line(
            (int)columns[5][index], (int)columns[1][index], new Amount(columns[2][index]), (int)columns[6][index],
            (int)columns[7][index], (int)columns[8][index], (int)columns[9][index], (int)columns[10][index],
            (int)columns[11][index]),
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
