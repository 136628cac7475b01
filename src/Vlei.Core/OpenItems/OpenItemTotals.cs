using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>
/// What is open on each control account, month end by month end, worked out item by item: what each document put there
/// less what was set against it.
/// </summary>
public sealed class OpenItemTotals
{
    private static readonly PostingField[] Fields =
    [
        PostingField.Day, PostingField.Account, PostingField.Amount, PostingField.Document, PostingField.Settlement, PostingField.Contact,
    ];

    private readonly ILedger _ledger;
    private readonly HashSet<AccountKey> _control;
    private readonly Dictionary<DocumentKey, ControlItems> _itemsOf = [];
    private readonly Dictionary<(AccountingBasis, AccountKey Account), Amount> _totals = [];
    private readonly HashSet<(DocumentKey Document, AccountKey Account)> _immediate = [];

    private OpenItemTotals(ILedger ledger) => (_ledger, _control) = (ledger, [.. ledger.Accounts
        .Where(account => AccountTypes.ClassOf(account.Type) == AccountClass.Control).Select(account => account.Key)]);

    /// <summary>
    /// The totals per control account at the end of each month of the records. On the cash basis only documents that
    /// count at their own date have items: the others are there as they are settled, and then are no longer open.
    /// </summary>
    public static IEnumerable<(YearMonth Month, AccountingBasis Basis, AccountKey Account, Amount Open)> ByMonth(ILedger ledger)
    {
        var totals = new OpenItemTotals(ledger);
        if (ledger.Extent is not { } extent || totals._control.Count == 0)
        {
            yield break;
        }

        totals.FindImmediate(extent);
        var applications = new Queue<Application>(ledger.Applications(DateOnly.MaxValue).SelectMany(part => part));
        var last = applications.Select(application => application.Day).Append(extent.To).Max();
        for (var month = YearMonth.Of(extent.From); month.First <= last; month = month.Next)
        {
            totals.AddItems(month);
            while (applications.TryPeek(out var next) && next.Day <= month.Last)
            {
                totals.Settle(applications.Dequeue());
            }

            foreach (var basis in Enum.GetValues<AccountingBasis>())
            {
                foreach (var account in totals._control)
                {
                    yield return (month, basis, account, totals._totals.GetValueOrDefault((basis, account)));
                }
            }
        }
    }

    // On the cash basis, what no settlement released counts at its own date.
    private void FindImmediate(DateRange extent)
    {
        var arrays = new PostingArrays();
        foreach (var (month, _) in _ledger.MonthSums(AccountingBasis.Cash, extent))
        {
            var postings = _ledger.ReadMonth(AccountingBasis.Cash, month, Fields, arrays);
            for (var posting = 0; posting < postings.Count; posting++)
            {
                var account = (AccountKey)postings[PostingField.Account][posting];
                if (postings[PostingField.Settlement][posting] == 0 && _control.Contains(account))
                {
                    _immediate.Add(((DocumentKey)postings[PostingField.Document][posting], account));
                }
            }
        }
    }

    private void AddItems(YearMonth month)
    {
        if (!_ledger.MonthSums(AccountingBasis.Accrual, month.Range).Any())
        {
            return;
        }

        var postings = _ledger.ReadMonth(AccountingBasis.Accrual, month, Fields);
        for (var posting = 0; posting < postings.Count; posting++)
        {
            var account = (AccountKey)postings[PostingField.Account][posting];
            if (_control.Contains(account))
            {
                AddItem(
                    (DocumentKey)postings[PostingField.Document][posting], account, (ContactKey)postings[PostingField.Contact][posting],
                    new Amount(postings[PostingField.Amount][posting]));
            }
        }
    }

    private void AddItem(DocumentKey document, AccountKey account, ContactKey contact, Amount amount)
    {
        if (!_itemsOf.TryGetValue(document, out var items))
        {
            _itemsOf.Add(document, items = new ControlItems());
        }

        items.Add(new ControlItem(document, account, contact, amount));
        Move((document, account, contact), amount);
    }

    private void Settle(Application application)
    {
        Settle(application.From, application.FromContact);
        Settle(application.To, application.ToContact);

        void Settle(DocumentKey document, ContactKey contact)
        {
            var total = _itemsOf.TryGetValue(document, out var items) ? items.TotalOf(application.Account, contact) : Amount.Zero;
            Move((document, application.Account, contact), total.Sign > 0 ? -application.Amount : application.Amount);
        }
    }

    private void Move((DocumentKey Document, AccountKey Account, ContactKey Contact) item, Amount by)
    {
        Add(AccountingBasis.Accrual, item.Account, by);
        if (_immediate.Contains((item.Document, item.Account)))
        {
            Add(AccountingBasis.Cash, item.Account, by);
        }
    }

    private void Add(AccountingBasis basis, AccountKey account, Amount by) =>
        _totals[(basis, account)] = _totals.GetValueOrDefault((basis, account)) + by;
}
