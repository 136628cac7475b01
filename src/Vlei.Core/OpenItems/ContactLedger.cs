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
    private readonly ReportContext _context;
    private readonly ControlHistory _history;
    private readonly DateRange _range;
    private readonly ContactLedgerWords _words;
    private readonly bool _withApplied;
    private readonly List<ContactLedgerRow> _rows = [];
    private ILookup<bool, OriginItem> _elsewhere = Array.Empty<OriginItem>().ToLookup(_ => true);

    /// <summary>An empty one.</summary>
    public ContactLedger(
        ReportContext context, ControlHistory history, DateRange range, ContactLedgerWords words, bool withApplied)
    {
        (_context, _history, _range, _words, _withApplied) = (context, history, range, words, withApplied);
        Columns = ColumnsOf();
    }

    /// <summary>The columns; the last is the balance.</summary>
    public FigureColumns<OwnFigure<ContactLedgerRow>> Columns { get; }

    /// <summary>The rows; texts are fetched for those that are looked at.</summary>
    public FigureRows<ContactLedgerRow> Rows
    {
        get
        {
            var rows = new FigureRows<ContactLedgerRow>();
            rows.AddMany(_rows.Count, place => RowOf(_rows[place]));
            return rows;
        }
    }

    /// <summary>
    /// Adds a contact, with its items in the order of their dates: a heading where it is one of several. Gives the balances
    /// at the start and at the end.
    /// </summary>
    public (Amount Opening, Amount Closing) Add(
        string id, Caption name, IReadOnlyList<int> items, Caption opening, Caption closing, bool isOneOfSeveral)
    {
        var (level, key) = isOneOfSeveral ? (1, $"({id})") : (0, "");
        if (isOneOfSeveral)
        {
            _rows.Add(new ContactLedgerRow(LedgerPart.Heading, 0, id, name, items, 0, 0, default, Amount.Zero));
        }

        var before = items.TakeWhile(item => _history[item].Date < _range.From).Count();
        var balance = Sum(items, before) + Elsewhere(isWithin: false);
        var (opened, own) =
            (balance, new ContactLedgerRow(
                LedgerPart.Document, level, id, "", items, 0, 0, default, Amount.Zero)
            {
                CountsIn = isOneOfSeveral ? $"closing{key}"
                    : null
            });
        _rows.Add(own with { Part = LedgerPart.Opening, Key = $"opening{key}", Label = opening, Count = before, Balance = balance });
        for (var place = before; place < items.Count; place++)
        {
            balance += _history[items[place]].Total;
            _rows.Add(own with { Count = place + 1, Item = items[place], Balance = balance });
            foreach (var applied in _withApplied ? _history.AppliedTo(items[place]) : ArraySegment<AppliedItem>.Empty)
            {
                _rows.Add(own with { Part = LedgerPart.Applied, Level = level + 1, Item = items[place], Applied = applied });
            }
        }

        _rows.Add(own with
        {
            Part = LedgerPart.Closing,
            Level = 0,
            Key = $"closing{key}",
            Label = closing,
            Count = items.Count,
            Balance = balance,
            CountsIn = ItemGroup.Total,
        });
        return (opened, balance);
    }

    /// <summary>
    /// Adds one contact alone, so that what is left at the end is what is open: what others paid for it, or it for others, is a
    /// row of its own. Gives the balance at the end.
    /// </summary>
    public Amount AddAlone(string id, ContactKey contact, IReadOnlyList<int> items, Caption opening, Caption elsewhere, Caption closing)
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
        var balance = _rows[^1].Balance + Elsewhere(isWithin: true);
        if (_elsewhere[true].Any())
        {
            _rows.Insert(
                _rows.Count - 1, _rows[^1] with { Part = LedgerPart.Elsewhere, Key = "elsewhere", Label = elsewhere, Balance = balance });
        }

        _rows[^1] = _rows[^1] with { Balance = balance };
        return balance;
    }

    /// <summary>Adds a heading that stands for nothing of the ledger itself.</summary>
    public void AddHeading(string key, Caption label) =>
        _rows.Add(new ContactLedgerRow(LedgerPart.Heading, 0, key, label, [], 0, 0, default, Amount.Zero));

    /// <summary>Adds a row of items of which some amount is open.</summary>
    public void AddOpen(string key, Caption label, Amount amount, IReadOnlyList<OriginItem> items) =>
        _rows.Add(new ContactLedgerRow(LedgerPart.Open, 1, key, label, [], 0, 0, default, amount) { Open = items });

    /// <summary>Adds the row that all contacts come to.</summary>
    public void AddTotal(Caption label, IReadOnlyList<int> items) => _rows.Add(
        new ContactLedgerRow(LedgerPart.Total, 0, ItemGroup.Total, label, items, items.Count, 0, default, Sum(items, items.Count)));

    private FigureColumns<OwnFigure<ContactLedgerRow>> ColumnsOf()
    {
        var columns = new FigureColumns<OwnFigure<ContactLedgerRow>>();
        Say("date", _words.Date, ColumnKind.Date, row => DateOf(row) is { } day ? Cell.Of(day) : Cell.Empty);
        Say("kind", _words.Kind, ColumnKind.Text, row => row.Part switch
        {
            LedgerPart.Document => Cell.Of(_words.KindOf(TextOf(row.Item).Kind)),
            LedgerPart.Applied => Cell.Of(_words.KindOf(TextOf(row.Applied.With).Kind)),
            _ => Cell.Empty,
        });
        Say("due", _words.Due, ColumnKind.Date, row =>
            row.Part == LedgerPart.Document && _history[row.Item].Total.Sign > 0 ? Cell.Of(_history[row.Item].Due) : Cell.Empty);
        Say("memo", _words.Memo, ColumnKind.Text, row => row.Part == LedgerPart.Document ? Cell.Of(TextOf(row.Item).Memo) : Cell.Empty);
        Add("charged", _words.Charged, row => Moved(row, 1), row => Behind(row, 1));
        Add("settled", _words.Settled, row => Moved(row, -1), row => Behind(row, -1));
        if (_withApplied)
        {
            Add(
                "applied", _words.Applied, row => row.Part == LedgerPart.Applied ? Applied(row) : null,
                row => [Whole(row.Item) with { Total = Applied(row) }]);
        }

        Add("balance", _words.Balance, row => row.Part == LedgerPart.Applied ? null : row.Balance, Behind);
        return columns;

        void Say(string key, string heading, ColumnKind kind, Func<ContactLedgerRow, Cell> of) =>
            columns.Add(new ReportColumn(key, heading, kind), OwnFigure<ContactLedgerRow>.Said(of));
        void Add(
            string key, string heading, Func<ContactLedgerRow, Amount?> of, Func<ContactLedgerRow, IEnumerable<OriginItem>> behind) =>
                columns.Add(
            ReportColumn.Sum(key, heading),
            OwnFigure<ContactLedgerRow>.Of(row => of(row)?.MinorUnits, (row, _, records) => records.Items.AddRange(behind(row))));
    }

    private DateOnly? DateOf(ContactLedgerRow row) => row.Part switch
    {
        LedgerPart.Opening => _range.From,
        LedgerPart.Document => _history[row.Item].Date,
        LedgerPart.Applied => row.Applied.Day,
        LedgerPart.Closing or LedgerPart.Total => _range.To,
        _ => null,
    };

    // What was charged with sign 1, what was settled with -1, both positive; what is neither is shown as settled.
    private Amount? Moved(ContactLedgerRow row, int sign)
    {
        return row.Part switch
        {
            LedgerPart.Document => OfSide(_history[row.Item].Total),
            LedgerPart.Elsewhere => OfSide(Elsewhere(isWithin: true)),
            LedgerPart.Closing or LedgerPart.Total => Within(row).Where(item => _history[item].Total.Sign == sign)
                .Aggregate(Amount.Zero, (sum, item) => sum + _history[item].Total.Magnitude),
            _ => null,
        };

        Amount? OfSide(Amount amount) => amount.Sign > 0 == sign > 0 ? amount.Magnitude : null;
    }

    private IEnumerable<OriginItem> Behind(ContactLedgerRow row, int sign) => row.Part switch
    {
        LedgerPart.Elsewhere => _elsewhere[true].Select(item => sign > 0 ? item : item with { Total = -item.Total }),
        LedgerPart.Document => [Absolute(row.Item)],
        _ => Within(row).Where(item => _history[item].Total.Sign == sign).Select(Absolute),
    };

    private IEnumerable<OriginItem> Behind(ContactLedgerRow row) => row.Part == LedgerPart.Open ? row.Open
        : row.Items.Take(row.Count).Select(Whole).Concat(_elsewhere[false])
            .Concat(row.Part is LedgerPart.Elsewhere or LedgerPart.Closing ? _elsewhere[true] : []);

    private OriginItem Whole(int item) => _history.OriginOf(item, null);

    private OriginItem Absolute(int item) => Whole(item) with { Total = _history[item].Total.Magnitude };

    private IEnumerable<int> Within(ContactLedgerRow row) => row.Items.Take(row.Count).Where(item => _history[item].Date >= _range.From);

    private Amount Applied(ContactLedgerRow row) => _history[row.Item].Total.Sign < 0 ? -row.Applied.Amount : row.Applied.Amount;

    private Amount Elsewhere(bool isWithin) => _elsewhere[isWithin].Aggregate(Amount.Zero, (sum, item) => sum + item.Total);

    private Amount Sum(IReadOnlyList<int> items, int count) =>
        items.Take(count).Aggregate(Amount.Zero, (sum, item) => sum + _history[item].Total);

    private FigureRow<ContactLedgerRow> RowOf(ContactLedgerRow row)
    {
        (string key, Caption label, RowKind kind) = row.Part switch
        {
            LedgerPart.Heading => (row.Key, row.Label, RowKind.Heading),
            LedgerPart.Document => ($"{row.Key}/{TextOf(row.Item).Id}", LabelOf(TextOf(row.Item)), RowKind.Record),
            LedgerPart.Applied => (
                $"{row.Key}/{TextOf(row.Item).Id}@{TextOf(row.Applied.With).Id}",
                $"{LabelOf(TextOf(row.Applied.With))}{(_context.Ledger.HasComputedSettlements ? " (computed)" : "")}", RowKind.Record),
            LedgerPart.Closing => (row.Key, row.Label, RowKind.Total),
            LedgerPart.Total => (row.Key, row.Label, RowKind.GrandTotal),
            LedgerPart.Open => (row.Key, row.Label, RowKind.Account),
            _ => (row.Key, row.Label, RowKind.Record),
        };
        return new FigureRow<ContactLedgerRow>(key, label, kind, row.Level, row) { CountsIn = row.CountsIn };
    }

    private DocumentText TextOf(int item) => _context.Ledger.Document(_history[item].Document);

    private static string LabelOf(DocumentText document) => document.Number.Length > 0 ? document.Number : document.Id;
}

/// <summary>What a row of a contact's ledger is.</summary>
internal enum LedgerPart
{
    /// <summary>A heading.</summary>
    Heading,

    /// <summary>The balance at the start.</summary>
    Opening,

    /// <summary>A document.</summary>
    Document,

    /// <summary>What was set against the document above it.</summary>
    Applied,

    /// <summary>What others paid for the contact, or it for others.</summary>
    Elsewhere,

    /// <summary>The balance at the end.</summary>
    Closing,

    /// <summary>What is open in a class of lateness.</summary>
    Open,

    /// <summary>What all contacts come to.</summary>
    Total,
}

/// <summary>A row, and of its contact's items how many have passed when it stands.</summary>
/// <param name="Part">What it is.</param>
/// <param name="Level">How far it is indented.</param>
/// <param name="Key">Its key; of a document, the contact's.</param>
/// <param name="Label">What stands before its figures, where that is no document.</param>
/// <param name="Items">The contact's items.</param>
/// <param name="Count">How many have passed.</param>
/// <param name="Item">The item, of a document.</param>
/// <param name="Applied">What was set against it.</param>
/// <param name="Balance">The balance after it.</param>
internal readonly record struct ContactLedgerRow(
    LedgerPart Part, int Level, string Key, Caption Label, IReadOnlyList<int> Items, int Count, int Item, AppliedItem Applied,
    Amount Balance)
{
    /// <summary>The total that it counts in.</summary>
    public string? CountsIn { get; init; }

    /// <summary>The documents behind what is open.</summary>
    public IReadOnlyList<OriginItem> Open { get; init; } = [];
}
