using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What the columns of a contact's ledger are called.</summary>
internal sealed record ContactLedgerWords(
    string Date, string Kind, string Due, string Memo, string Charged, string Settled, string Applied, string Balance,
    Func<string, string> KindOf);

/// <summary>
/// The documents of contacts in a period, between the balance at its start and the one at its end; below each, where it is
/// asked for, what was set against it by the end of the period.
/// </summary>
internal sealed class ContactLedger
{
    private enum Part
    {
        Heading,
        Opening,
        Document,
        Applied,
        Elsewhere,
        Closing,
        Total,
    }

    private readonly ReportContext _context;
    private readonly ControlHistory _history;
    private readonly DateRange _range;
    private readonly ContactLedgerWords _words;
    private readonly bool _withApplied;
    private readonly List<Plan> _plans = [];
    private ILookup<bool, OriginItem> _elsewhere = Array.Empty<OriginItem>().ToLookup(_ => true);

    /// <summary>An empty one.</summary>
    public ContactLedger(
        ReportContext context, ControlHistory history, DateRange range, ContactLedgerWords words, bool withApplied)
    {
        (_context, _history, _range, _words, _withApplied) = (context, history, range, words, withApplied);
        Columns =
        [
            new("date", words.Date, ColumnKind.Date), new("kind", words.Kind, ColumnKind.Text),
            new("due", words.Due, ColumnKind.Date), new("memo", words.Memo, ColumnKind.Text),
            new("charged", words.Charged, ColumnKind.Money), new("settled", words.Settled, ColumnKind.Money),
            .. withApplied ? new[] { new ReportColumn("applied", words.Applied, ColumnKind.Money) } : [],
            new("balance", words.Balance, ColumnKind.Money),
        ];
    }

    /// <summary>The columns.</summary>
    public IReadOnlyList<ReportColumn> Columns { get; }

    /// <summary>The rows; texts are fetched for those that are looked at.</summary>
    public IReadOnlyList<ReportRow> Rows => new RowList(_plans.Count, place => RowOf(_plans[place]));

    /// <summary>
    /// Adds a contact, with its items in the order of their dates: a heading where it is one of several. Gives the balances
    /// at the start and at the end.
    /// </summary>
    public (Amount Opening, Amount Closing) Add(string id, string name, IReadOnlyList<int> items, string opening, string closing, bool isOneOfSeveral)
    {
        var level = isOneOfSeveral ? 1 : 0;
        if (isOneOfSeveral)
        {
            _plans.Add(new Plan(Part.Heading, 0, id, name, items, 0, 0, default, Amount.Zero));
        }

        var before = items.TakeWhile(item => _history[item].Date < _range.From).Count();
        var balance = Sum(items, before) + Elsewhere(isWithin: false);
        var opened = balance;
        var key = isOneOfSeveral ? $"({id})" : "";
        _plans.Add(new Plan(Part.Opening, level, $"opening{key}", opening, items, before, 0, default, balance));
        for (var place = before; place < items.Count; place++)
        {
            balance += _history[items[place]].Total;
            _plans.Add(new Plan(Part.Document, level, id, "", items, place + 1, items[place], default, balance));
            foreach (var applied in _withApplied ? _history.AppliedTo(items[place]) : [])
            {
                _plans.Add(new Plan(Part.Applied, level + 1, id, "", items, 0, items[place], applied, Amount.Zero));
            }
        }

        _plans.Add(new Plan(Part.Closing, 0, $"closing{key}", closing, items, items.Count, 0, default, balance));
        return (opened, balance);
    }

    /// <summary>
    /// Adds one contact alone, so that what is left at the end is what is open: what others paid for it, or it for others, is a
    /// row of its own. Gives the balance at the end.
    /// </summary>
    public Amount AddAlone(string id, int contact, IReadOnlyList<int> items, string opening, string elsewhere, string closing)
    {
        _elsewhere = items.SelectMany(item => _history.AppliedTo(item).Where(applied => _history[applied.With].Contact != contact)
                .Select(applied => _history.OriginOf(applied.With, null) with
                {
                    Date = applied.Day,
                    Total = _history[item].Total.Sign < 0 ? applied.Amount : -applied.Amount,
                    Settlements = [],
                }))
            .ToLookup(applied => applied.Date >= _range.From);
        Add(id, "", items, opening, closing, isOneOfSeveral: false);
        var moved = Elsewhere(isWithin: true);
        if (_elsewhere[true].Any())
        {
            _plans.Insert(_plans.Count - 1, _plans[^1] with { Part = Part.Elsewhere, Key = "elsewhere", Label = elsewhere, Balance = _plans[^1].Balance + moved });
        }

        _plans[^1] = _plans[^1] with { Balance = _plans[^1].Balance + moved };
        return _plans[^1].Balance;
    }

    /// <summary>Adds the row that all contacts come to.</summary>
    public void AddTotal(string label, IReadOnlyList<int> items) =>
        _plans.Add(new Plan(Part.Total, 0, "total", label, items, items.Count, 0, default, Sum(items, items.Count)));

    /// <summary>The items behind a figure; nothing where there is none.</summary>
    public CellOrigin? OriginOf(int row, int column)
    {
        var plan = _plans[row];
        if (CellsOf(plan)[column].Units is not { } units || Columns[column].Kind != ColumnKind.Money)
        {
            return null;
        }

        IEnumerable<OriginItem> items = plan.Part == Part.Applied
            ? [Whole(plan.Item) with { Total = Applied(plan) }]
            : Columns[column].Key switch
            {
                "balance" => plan.Items.Take(plan.Count).Select(Whole).Concat(_elsewhere[false])
                    .Concat(plan.Part is Part.Elsewhere or Part.Closing ? _elsewhere[true] : []),
                var key when plan.Part == Part.Elsewhere => _elsewhere[true].Select(item => key == "charged" ? item : item with { Total = -item.Total }),
                _ when plan.Part == Part.Document => [Absolute(plan.Item)],
                var key => Within(plan).Where(item => _history[item].Total.Sign == (key == "charged" ? 1 : -1)).Select(Absolute),
            };
        return new CellOrigin(new Amount(units), []) { Items = [.. items] };
    }

    private OriginItem Whole(int item) => _history.OriginOf(item, null);

    private OriginItem Absolute(int item) => Whole(item) with { Total = _history[item].Total.Magnitude };

    private IEnumerable<int> Within(Plan plan) => plan.Items.Take(plan.Count).Where(item => _history[item].Date >= _range.From);

    private Amount Applied(Plan plan) => _history[plan.Item].Total.Sign < 0 ? -plan.Applied.Amount : plan.Applied.Amount;

    private Amount Elsewhere(bool isWithin) => _elsewhere[isWithin].Aggregate(Amount.Zero, (sum, item) => sum + item.Total);

    private Amount Sum(IReadOnlyList<int> items, int count) =>
        items.Take(count).Aggregate(Amount.Zero, (sum, item) => sum + _history[item].Total);

    private ReportRow RowOf(Plan plan)
    {
        var (key, label, kind) = plan.Part switch
        {
            Part.Heading => (plan.Key, plan.Label, RowKind.Heading),
            Part.Document => ($"{plan.Key}/{TextOf(plan.Item).Id}", LabelOf(TextOf(plan.Item)), RowKind.Record),
            Part.Applied => (
                $"{plan.Key}/{TextOf(plan.Item).Id}@{TextOf(plan.Applied.With).Id}", $"{LabelOf(TextOf(plan.Applied.With))}{(_context.Ledger.HasComputedSettlements ? " (computed)" : "")}", RowKind.Record),
            Part.Closing => (plan.Key, plan.Label, RowKind.Total),
            Part.Total => (plan.Key, plan.Label, RowKind.GrandTotal),
            _ => (plan.Key, plan.Label, RowKind.Record),
        };
        return new ReportRow(key, label, kind, plan.Level, CellsOf(plan));
    }

    private Cell[] CellsOf(Plan plan)
    {
        var (date, kind, due, memo) = (Cell.Empty, Cell.Empty, Cell.Empty, Cell.Empty);
        var (charged, settled, applied, balance) = (Cell.Empty, Cell.Empty, Cell.Empty, Cell.Of(plan.Balance));
        switch (plan.Part)
        {
            case Part.Heading:
                balance = Cell.Empty;
                break;
            case Part.Opening:
                date = Cell.Of(_range.From);
                break;
            case Part.Document:
                var (item, text) = (_history[plan.Item], TextOf(plan.Item));
                (date, kind, memo) = (Cell.Of(item.Date), Cell.Of(_words.KindOf(text.Kind)), Cell.Of(text.Memo));
                due = item.Total.Sign > 0 ? Cell.Of(item.Due) : Cell.Empty;
                (charged, settled) = item.Total.Sign > 0 ? (Cell.Of(item.Total), Cell.Empty) : (Cell.Empty, Cell.Of(-item.Total));
                break;
            case Part.Elsewhere:
                var moved = Elsewhere(isWithin: true);
                (charged, settled) = moved.Sign > 0 ? (Cell.Of(moved), Cell.Empty) : (Cell.Empty, Cell.Of(-moved));
                break;
            case Part.Applied:
                (date, kind) = (Cell.Of(plan.Applied.Day), Cell.Of(_words.KindOf(TextOf(plan.Applied.With).Kind)));
                (applied, balance) = (Cell.Of(Applied(plan)), Cell.Empty);
                break;
            default:
                date = Cell.Of(_range.To);
                charged = Cell.Of(SumOf(plan, 1));
                settled = Cell.Of(SumOf(plan, -1));
                break;
        }

        return [date, kind, due, memo, charged, settled, .. _withApplied ? new[] { applied } : [], balance];
    }

    private Amount SumOf(Plan plan, int sign) => Within(plan).Where(item => _history[item].Total.Sign == sign)
        .Aggregate(Amount.Zero, (sum, item) => sum + _history[item].Total.Magnitude);

    private DocumentText TextOf(int item) => _context.Ledger.Document(_history[item].Document);

    private static string LabelOf(DocumentText document) => document.Number.Length > 0 ? document.Number : document.Id;

    // A row, and of its contact's items how many have passed when it stands.
    private sealed record Plan(
        Part Part, int Level, string Key, string Label, IReadOnlyList<int> Items, int Count, int Item, AppliedItem Applied, Amount Balance);
}
