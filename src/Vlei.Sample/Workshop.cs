namespace Vlei.Sample;

/// <summary>Something that is owed, to us or by us, until it is settled.</summary>
internal sealed class Owed(string document, string contact, long amount, DateOnly due)
{
    public string Document => document;

    public string Contact => contact;

    public DateOnly Due => due;

    /// <summary>What is still open.</summary>
    public long Open { get; set; } = amount;
}

/// <summary>What the activities of the business share: the day, the prices, the stock, who is owed what.</summary>
internal sealed class Workshop(SampleLedger ledger, Dice dice, DateOnly start, int scale)
{
    private const int InflationPerThousand = 55;
    private const int GrowthPerThousand = 60;

    private readonly Dictionary<string, (long Quantity, long Value)> _stock = [];
    private readonly PriorityQueue<(Owed Owed, long Amount), int> _receipts = new();
    private readonly SortedDictionary<string, List<Owed>> _bills = new(StringComparer.Ordinal);

    public SampleLedger Ledger => ledger;

    public Dice Dice => dice;

    /// <summary>The day that it is.</summary>
    public DateOnly Today { get; set; }

    /// <summary>How many times the demo's size, in thousandths.</summary>
    public int Scale => scale;

    /// <summary>Whether people work on that day.</summary>
    public bool IsWorkday => Today.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday);

    /// <summary>A price or a cost of the start, as it is by now: it grows a little every year.</summary>
    public long Grown(long amount)
    {
        for (var year = start.AddYears(1); year <= Today; year = year.AddYears(1))
        {
            amount += amount * InflationPerThousand / 1000;
        }

        return amount / 100 * 100;
    }

    /// <summary>How often something happens today that happened that many thousandths of a time in the demo's first year.</summary>
    public int Times(int thousandths)
    {
        var years = (Today.DayNumber - start.DayNumber) / 365;
        return dice.Times((long)thousandths * scale / 1000 * (1000 + (GrowthPerThousand * years)) / 1000);
    }

    /// <summary>How much of an item is there.</summary>
    public long OnHand(StockItem item) => _stock.GetValueOrDefault(item.Id).Quantity;

    /// <summary>Takes goods in.</summary>
    public void Receive(StockItem item, long quantity, long value)
    {
        var (had, worth) = _stock.GetValueOrDefault(item.Id);
        _stock[item.Id] = (had + quantity, worth + value);
    }

    /// <summary>Adds the lines that take goods out at their average cost; less, where there is not enough.</summary>
    public long Issue(Draft draft, StockItem item, long wanted, string department, string? project)
    {
        var (had, worth) = _stock.GetValueOrDefault(item.Id);
        var quantity = Math.Min(wanted, had);
        if (quantity <= 0)
        {
            return 0;
        }

        var cost = quantity == had ? worth : worth * quantity / had;
        _stock[item.Id] = (had - quantity, worth - cost);
        draft.Lines.Add(new DraftLine(item.CostAccount, cost)
        {
            Item = item.Id, Quantity = quantity, Department = department, Project = project,
        });
        draft.Lines.Add(new DraftLine(Chart.Inventory, -cost) { Item = item.Id, Quantity = -quantity });
        return quantity;
    }

    /// <summary>Expects a customer to pay, so many days after it is due; never, where that is nothing.</summary>
    public Owed Expect(string document, string contact, long amount, DateOnly due, int? daysLate)
    {
        var owed = new Owed(document, contact, amount, due);
        if (daysLate is { } late)
        {
            var part = amount > 500_000 && dice.Chance(80) ? amount * dice.Between(3, 7) / 10 : amount;
            _receipts.Enqueue((owed, part), due.AddDays(late).DayNumber);
            if (part < amount)
            {
                _receipts.Enqueue((owed, amount - part), due.AddDays(late + dice.Between(14, 45)).DayNumber);
            }
        }

        return owed;
    }

    /// <summary>Takes in what customers pay today.</summary>
    public void TakeReceipts()
    {
        while (_receipts.TryPeek(out var next, out var day) && day <= Today.DayNumber)
        {
            _receipts.Dequeue();
            var amount = Math.Min(next.Amount, next.Owed.Open);
            if (amount <= 0)
            {
                continue;
            }

            var receipt = new Draft("receipt", Today, next.Owed.Contact) { Reference = next.Owed.Document };
            receipt.Lines.Add(new DraftLine(Chart.Bank, amount));
            receipt.Lines.Add(new DraftLine(Chart.Receivable, -amount));
            Settle(ledger.Write(receipt), next.Owed, amount);
        }
    }

    /// <summary>Sets a document against what is owed.</summary>
    public void Settle(string document, Owed owed, long amount)
    {
        ledger.Settle(document, owed.Document, amount, Today);
        owed.Open -= amount;
    }

    /// <summary>Owes a supplier; it is paid with the first weekly run after it is due.</summary>
    public Owed Owe(string document, string contact, long amount, DateOnly due)
    {
        var owed = new Owed(document, contact, amount, due);
        if (!_bills.TryGetValue(contact, out var bills))
        {
            _bills.Add(contact, bills = []);
        }

        bills.Add(owed);
        return owed;
    }

    /// <summary>Pays the suppliers what is due: one payment each.</summary>
    public void PayBills()
    {
        foreach (var (contact, bills) in _bills)
        {
            var due = bills.Where(bill => bill.Due <= Today && bill.Open > 0).ToList();
            if (due.Count == 0)
            {
                continue;
            }

            var payment = new Draft("payment", Today, contact);
            var amount = due.Sum(bill => bill.Open);
            payment.Lines.Add(new DraftLine(Chart.Payable, amount));
            payment.Lines.Add(new DraftLine(Chart.Bank, -amount));
            var id = ledger.Write(payment);
            foreach (var bill in due)
            {
                Settle(id, bill, bill.Open);
            }

            bills.RemoveAll(bill => bill.Open == 0);
        }
    }
}
