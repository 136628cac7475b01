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
        var terms = TermsByAccount(part.Terms);
        var more = withMore && part.Source != PostingSource.Budget ? Explaining : [];
        PostingField[] fields = [.. Needed.Union(more).Union(part.Filter.Columns ?? [])];
        var arrays = part.Filter.IsEverything ? new PostingArrays() : null;
        foreach (var (month, sums) in Postings.Months(ledger, part.Source, part.Range))
        {
            if (sums is not null && !sums.Any(sum => TermsOf(terms, sum.Account.Value) is not null))
            {
                continue;
            }

            var days = part.Range.Intersect(month.Range);
            var postings = Postings.Read(ledger, part.Source, month, fields, arrays);
            var taken = part.Filter.TakenOf(postings, part.Source, month);
            var (dayOf, accounts, amounts) = (postings[PostingField.Day], postings[PostingField.Account], postings[PostingField.Amount]);
            var (documents, settlements) = (postings[PostingField.Document], postings[PostingField.Settlement]);
            var (lines, contacts) = (postings[PostingField.Line], postings[PostingField.Contact]);
            var end = postings.FirstFrom(days.To.Day + 1);
            for (var posting = postings.FirstFrom(days.From.Day); posting < end; posting++)
            {
                if (taken?[posting] == false || TermsOf(terms, accounts[posting]) is not { } counting)
                {
                    continue;
                }

                var place = new PostingPlace(
                    month.First.AddDays((int)dayOf[posting] - 1), (DocumentKey)documents[posting], (SettlementKey)settlements[posting],
                    (int)lines[posting]);
                if ((part.First is { } first && place.CompareTo(first) < 0) || (part.Last is { } last && place.CompareTo(last) > 0))
                {
                    continue;
                }

                var counted = Counted(counting, amounts[posting]);
                if (!counted.IsZero)
                {
                    int Key(PostingField field) => fields.Contains(field) ? (int)postings[field][posting] : 0;
                    var entry = new PostingEntry(
                        part.Source, place, (AccountKey)accounts[posting], (ContactKey)contacts[posting], counted);
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

    // A place for each account: every posting asks for those of its own.
    private static OriginTerm[]?[] TermsByAccount(IReadOnlyList<OriginTerm> terms)
    {
        var byAccount = new OriginTerm[]?[terms.Count == 0 ? 0 : terms.Max(term => term.Account.Value) + 1];
        foreach (var same in terms.GroupBy(term => term.Account.Value))
        {
            byAccount[same.Key] = [.. same];
        }

        return byAccount;
    }

    private static OriginTerm[]? TermsOf(OriginTerm[]?[] terms, long account) =>
        (ulong)account < (ulong)terms.Length ? terms[account] : null;

    private static Amount Counted(OriginTerm[] terms, long amount)
    {
        var sum = Amount.Zero;
        foreach (var term in terms)
        {
            sum += Counted(term, amount);
        }

        return sum;
    }

    private static Amount Counted(OriginTerm term, long amount) => new(checked(term.Sign * term.Side switch
    {
        PostingSide.Debit => Math.Max(amount, 0),
        PostingSide.Credit => Math.Max(-amount, 0),
        _ => amount,
    }));
}
