using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;

namespace Vlei.Core.Review;

/// <summary>A document as the review looks at it.</summary>
/// <param name="Place">Its place among all documents.</param>
/// <param name="Key">Its key.</param>
/// <param name="Date">Its date.</param>
/// <param name="Kind">The number of its kind.</param>
/// <param name="Contact">The key of the first contact on it, 0 for none.</param>
/// <param name="Total">The sum of its debits.</param>
/// <param name="Month">The lines of its month.</param>
/// <param name="First">Where its own begin.</param>
/// <param name="Count">How many they are.</param>
internal readonly record struct ReviewDocument(
    int Place, DocumentKey Key, DateOnly Date, int Kind, ContactKey Contact, Amount Total, ReviewLine[] Month, int First, int Count)
{
    /// <summary>Its lines.</summary>
    public ReadOnlySpan<ReviewLine> Lines => Month.AsSpan(First, Count);
}

/// <summary>A line as the review looks at it.</summary>
/// <param name="Account">The key of its account.</param>
/// <param name="Contact">The key of its contact, 0 for none.</param>
/// <param name="Amount">Debit positive.</param>
/// <param name="TaxCode">The key of its tax code, 0 for none.</param>
/// <param name="TaxPart">What it is to that tax.</param>
internal readonly record struct ReviewLine(AccountKey Account, ContactKey Contact, Amount Amount, int TaxCode, TaxPart TaxPart);

/// <summary>All documents up to the end of the days that are looked at, oldest first, and what they are called.</summary>
internal sealed class ReviewRecords
{
    private readonly RecordNames _contacts;
    private readonly Dictionary<AccountType, ControlHistory> _histories = [];

    /// <summary>Reads them.</summary>
    public ReviewRecords(TableContext context, DateRange range)
    {
        (Context, Range) = (context, range);
        Accounts = context.Ledger.Accounts.ToDictionary(account => account.Key);
        _contacts = context.Ledger.Names(RecordTables.Contacts);
        var (documents, arrays) = (new List<ReviewDocument>(), new PostingArrays());
        foreach (var (month, _) in context.Ledger.MonthSums(AccountingBasis.Accrual, new DateRange(DateOnly.MinValue, range.To)))
        {
            Add(month, documents, arrays);
        }

        Documents = documents;
        var first = documents.FindIndex(document => document.Date >= range.From);
        Within = first < 0 ? [] : documents.GetRange(first, documents.Count - first);
    }

    /// <summary>The book.</summary>
    public TableContext Context { get; }

    /// <summary>The days that are looked at.</summary>
    public DateRange Range { get; }

    /// <summary>The accounts, by key.</summary>
    public IReadOnlyDictionary<AccountKey, Account> Accounts { get; }

    /// <summary>The documents, oldest first.</summary>
    public IReadOnlyList<ReviewDocument> Documents { get; }

    /// <summary>Those of the days that are looked at.</summary>
    public IReadOnlyList<ReviewDocument> Within { get; }

    /// <summary>What was open on the accounts of receivables or payables, and what it was set against.</summary>
    public ControlHistory HistoryOf(AccountType type)
    {
        if (!_histories.TryGetValue(type, out var history))
        {
            _histories.Add(type, history = ControlHistory.Of(Context.Ledger, type, Range.To));
        }

        return history;
    }

    /// <summary>The id of a document.</summary>
    public string IdOf(ReviewDocument document) => Context.Ledger.Document(document.Key).Id;

    /// <summary>
    /// What a field says of some documents, without those of which it says nothing; read as it is gone through, so that of many no more
    /// than a few is held.
    /// </summary>
    /// <param name="field">The name of the field.</param>
    /// <param name="documents">The documents.</param>
    public IEnumerable<(ReviewDocument Document, string Text)> TextsOf(string field, IReadOnlyList<ReviewDocument> documents)
    {
        const int AtOnce = 1024;
        var described = RecordTables.Documents.Fields[RecordTables.Documents.IndexOf(field)];
        for (var first = 0; first < documents.Count; first += AtOnce)
        {
            var keys = new long[Math.Min(AtOnce, documents.Count - first)];
            for (var place = 0; place < keys.Length; place++)
            {
                keys[place] = documents[first + place].Key.Value;
            }

            var values = Context.Ledger.OfDocuments(described, keys);
            for (var place = 0; place < keys.Length; place++)
            {
                if (values[place].Text is { Length: > 0 } text)
                {
                    yield return (documents[first + place], text);
                }
            }
        }
    }

    /// <summary>What a contact is called.</summary>
    public string NameOf(ContactKey contact) => _contacts.NameOf(contact.Value);

    /// <summary>An account in words.</summary>
    public string AccountInWords(AccountKey account) => $"{Accounts[account].Code} {Accounts[account].Name}";

    /// <summary>An amount in words.</summary>
    public string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, Context.Currency.Decimals);

    /// <summary>What documents are, so that a change of any of them is noticed.</summary>
    public static long FingerprintOf(params IEnumerable<ReviewDocument> documents) => Finding.FingerprintOf(documents.SelectMany(document =>
        document.Lines.ToArray()
            .SelectMany(line => new[] { line.Account.Value, line.Contact.Value, line.Amount.MinorUnits, line.TaxCode })
            .Concat([document.Key.Value, document.Date.DayNumber, document.Kind])));

    /// <summary>A finding about one document.</summary>
    public Finding Of(string kind, ReviewDocument document, string reason) => IdOf(document) is var id
        ? new Finding(kind, $"{kind}/{id}", document.Date, reason, ShowLines(document.Date, id), FingerprintOf(document))
        {
            Document = document.Key, Contact = document.Contact, Amount = document.Total,
        }
        : throw new InvalidOperationException();

    /// <summary>The lines of documents of some days.</summary>
    public static FindingRecords ShowLines(DateOnly day, params string[] ids) => ShowLines(new DateRange(day, day), ids);

    /// <summary>The same of several days.</summary>
    public static FindingRecords ShowLines(DateRange days, params string[] ids) =>
        new("lines", "period", $"{PeriodText.Iso(days.From)}{(days.Days == 1 ? "" : $"/{PeriodText.Iso(days.To)}")}",
            $"document={string.Join(',', ids)}");

    private void Add(YearMonth month, List<ReviewDocument> documents, PostingArrays arrays)
    {
        PostingField[] fields =
        [
            PostingField.Day, PostingField.Document, PostingField.Account, PostingField.Contact, PostingField.Amount, PostingField.Kind,
            PostingField.TaxCode, PostingField.TaxPart,
        ];
        var postings = Context.Ledger.ReadMonth(AccountingBasis.Accrual, month, fields, arrays);
        var end = month.Range.To <= Range.To ? postings.Count : postings.FirstFrom(Range.To.Day + 1);
        var (days, keys, kinds) = (postings[PostingField.Day], postings[PostingField.Document], postings[PostingField.Kind]);
        var lines = LinesOf(postings, end);
        for (var first = 0; first < end;)
        {
            var (next, total, contact) = (first, Amount.Zero, default(ContactKey));
            for (; next < end && keys[next] == keys[first] && days[next] == days[first]; next++)
            {
                total += lines[next].Amount.Sign > 0 ? lines[next].Amount : Amount.Zero;
                contact = contact.IsNone ? lines[next].Contact : contact;
            }

            documents.Add(new ReviewDocument(
                documents.Count, (DocumentKey)keys[first], month.First.AddDays((int)days[first] - 1), (int)kinds[first], contact, total,
                lines, first, next - first));
            first = next;
        }
    }

    private static ReviewLine[] LinesOf(PostingMonth postings, int count)
    {
        var (accounts, contacts, amounts) = (
            postings[PostingField.Account], postings[PostingField.Contact], postings[PostingField.Amount]);
        var (codes, parts) = (postings[PostingField.TaxCode], postings[PostingField.TaxPart]);
        var lines = new ReviewLine[count];
        for (var place = 0; place < count; place++)
        {
            lines[place] = new ReviewLine(
                (AccountKey)accounts[place], (ContactKey)contacts[place], new Amount(amounts[place]), (int)codes[place],
                (TaxPart)parts[place]);
        }

        return lines;
    }
}
