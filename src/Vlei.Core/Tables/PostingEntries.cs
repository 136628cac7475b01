using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>Reads the postings behind figures.</summary>
internal static class PostingEntries
{
    private static readonly PostingField[] Needed =
    [
        PostingField.Day, PostingField.Account, PostingField.Amount, PostingField.Document, PostingField.Settlement,
        PostingField.Line, PostingField.Contact,
    ];

    // What a figure is explained by, besides.
    private static readonly PostingField[] Explaining =
        [PostingField.Item, PostingField.Project, PostingField.Department, PostingField.Quantity];

    /// <summary>The postings of a part of a figure, oldest first. Throws <see cref="OverflowException"/> where one does not fit.</summary>
    /// <param name="ledger">The records.</param>
    /// <param name="part">The part.</param>
    /// <param name="withMore">Whether items, projects, departments and quantities are wanted too.</param>
    public static IEnumerable<PostingEntry> Of(ILedger ledger, OriginPart part, bool withMore = false)
    {
        var terms = part.Terms.ToLookup(term => (long)term.Account.Value);
        var more = withMore && part.Source != PostingSource.Budget ? Explaining : [];
        PostingField[] fields = [.. Needed.Union(more).Union(part.Filter.Columns ?? [])];
        var arrays = part.Filter.IsEverything ? new PostingArrays() : null;
        foreach (var (month, sums) in Postings.Months(ledger, part.Source, part.Range))
        {
            if (sums is not null && !sums.Any(sum => terms.Contains(sum.Account.Value)))
            {
                continue;
            }

            var days = part.Range.Intersect(month.Range);
            var postings = Postings.Read(ledger, part.Source, month, fields, arrays);
            var taken = part.Filter.TakenOf(postings, part.Source, month);
            var (accounts, amounts) = (postings[PostingField.Account], postings[PostingField.Amount]);
            var end = postings.FirstFrom(days.To.Day + 1);
            for (var posting = postings.FirstFrom(days.From.Day); posting < end; posting++)
            {
                if (taken?[posting] == false || !terms.Contains(accounts[posting]))
                {
                    continue;
                }

                var place = new PostingPlace(
                    month.First.AddDays((int)postings[PostingField.Day][posting] - 1),
                    (DocumentKey)postings[PostingField.Document][posting], (SettlementKey)postings[PostingField.Settlement][posting],
                    (int)postings[PostingField.Line][posting]);
                if (place.CompareTo(part.First ?? place) < 0 || place.CompareTo(part.Last ?? place) > 0)
                {
                    continue;
                }

                var counted = terms[accounts[posting]]
                    .Aggregate(Amount.Zero, (sum, term) => sum + Counted(term, amounts[posting]));
                if (!counted.IsZero)
                {
                    int Key(PostingField field) => fields.Contains(field) ? (int)postings[field][posting] : 0;
                    var entry = new PostingEntry(
                        part.Source, place, (AccountKey)accounts[posting], (ContactKey)postings[PostingField.Contact][posting], counted);
                    yield return !withMore ? entry : entry with
                    {
                        Item = Key(PostingField.Item),
                        Project = Key(PostingField.Project),
                        Department = Key(PostingField.Department),
                        Quantity = fields.Contains(PostingField.Quantity)
                            ? Math.Abs(postings[PostingField.Quantity][posting]) * counted.Sign : 0,
                    };
                }
            }
        }
    }

    private static Amount Counted(OriginTerm term, long amount) => new(checked(term.Sign * term.Side switch
    {
        PostingSide.Debit => Math.Max(amount, 0),
        PostingSide.Credit => Math.Max(-amount, 0),
        _ => amount,
    }));
}
