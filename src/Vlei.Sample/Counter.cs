namespace Vlei.Sample;

/// <summary>Repairs, rentals and the shop: what brings money in from day to day, with its season.</summary>
internal sealed class Counter(Workshop workshop, Contacts contacts)
{
    // By month of the year, in thousandths: the lake is full at the turn of the year.
    private static readonly int[] Season = [2200, 1500, 1300, 1150, 500, 320, 380, 520, 900, 1150, 1450, 2500];
    private static readonly int[] RepairSeason = [800, 800, 900, 1000, 1050, 1100, 1250, 1500, 1400, 1100, 850, 600];
    private static readonly (string Item, long Price)[] Hire = [("HIREROW", 42_000), ("HIRECANOE", 36_000), ("HIRESAIL", 78_000)];


    /// <summary>What happens in a day.</summary>
    public void Day()
    {
        if (workshop.IsWorkday)
        {
            for (var repairs = workshop.Times(560 * RepairSeason[Month] / 1000); repairs > 0; repairs--)
            {
                Repair();
            }
        }

        for (var guests = workshop.Times(430 * Season[Month] / 1000 * (workshop.IsWorkday ? 3 : 8) / 4); guests > 0; guests--)
        {
            Rent();
        }

        if (workshop.Today.DayOfWeek is not (DayOfWeek.Monday or DayOfWeek.Tuesday))
        {
            for (var sales = workshop.Times(650 + (350 * Season[Month] / 1000)); sales > 0; sales--)
            {
                Sell();
            }
        }

        if (workshop.Today.AddDays(1).Day == 1)
        {
            foreach (var lodge in contacts.Lodges)
            {
                for (var accounts = Math.Max(1, workshop.Times(1000)); accounts > 0; accounts--)
                {
                    HireOnAccount(lodge);
                }
            }
        }
    }

    private int Month => workshop.Today.Month - 1;

    private void Repair()
    {
        var customer = workshop.Dice.Of(contacts.Customers);
        var disputed = workshop.Dice.Chance(12);
        var invoice = new Draft("invoice", workshop.Today, customer)
        {
            TermsDays = 30, Disputed = disputed,
            Memo = disputed ? "Customer says the leak is still there" : workshop.Dice.Of(
                ["Hull repair", "Winter overhaul", "Engine service", "Varnish and paint", "Keel and rudder", "Rigging check"]),
        };
        var hours = workshop.Dice.Between(3, 22);
        var rate = workshop.Grown(54_000);
        var gross = invoice.Sell(new DraftLine(Chart.Repairs, hours * rate)
        {
            Item = "LABOUR", Quantity = hours, UnitPrice = rate, Department = Chart.Repairing,
        });
        if (workshop.Dice.Chance(600))
        {
            gross += SellGoods(invoice, workshop.Dice.Of([Chart.Stock[3], Chart.Stock[5], Chart.Stock[13]]),
                workshop.Dice.Between(1, 3), Chart.Repairs, Chart.Repairing);
        }

        invoice.Lines.Insert(0, new DraftLine(Chart.Receivable, gross));
        var id = workshop.Ledger.Write(invoice);
        int? late = disputed || workshop.Dice.Chance(12) ? null : workshop.Dice.Between(-20, 8) + (customer[^1] == '7' ? 45 : 0);
        var owed = workshop.Expect(id, customer, gross, workshop.Today.AddDays(30), late);
        if (workshop.Dice.Chance(30))
        {
            Credit(customer, owed, Math.Min(rate, hours * rate / 2));
        }

    }

    private void Credit(string customer, Owed owed, long net)
    {
        var credit = new Draft("credit-note", workshop.Today, customer) { Reference = owed.Document, Memo = "An hour less" };
        var gross = credit.Buy(new DraftLine(Chart.Repairs, net) { Item = "LABOUR", Department = Chart.Repairing });
        for (var line = 0; line < credit.Lines.Count; line++)
        {
            credit.Lines[line] = credit.Lines[line] with { TaxCode = "S15" };
        }

        credit.Lines.Insert(0, new DraftLine(Chart.Receivable, -gross));
        workshop.Settle(workshop.Ledger.Write(credit), owed, gross);
    }

    private void Rent()
    {
        var sale = new Draft("cash-sale", workshop.Today, null)
        {
            Memo = "Boat hire", Season = Season[Month] >= 1000 ? "high" : "low",
        };
        var gross = AddHire(sale, workshop.Dice.Between(1, 4));
        AddMoney(sale, gross);
        workshop.Ledger.Write(sale);
    }

    private void HireOnAccount(string lodge)
    {
        var invoice = new Draft("invoice", workshop.Today, lodge)
        {
            TermsDays = 14, Memo = $"Boats hired in {workshop.Today:MMMM}", Season = Season[Month] >= 1000 ? "high" : "low",
        };
        var gross = AddHire(invoice, Math.Max(2, workshop.Dice.Between(8, 18) * Season[Month] / 1000));
        invoice.Lines.Insert(0, new DraftLine(Chart.Receivable, gross));
        var id = workshop.Ledger.Write(invoice);
        workshop.Expect(id, lodge, gross, workshop.Today.AddDays(14), workshop.Dice.Between(-4, 20));
    }

    private long AddHire(Draft draft, int days)
    {
        var gross = 0L;
        var (item, price) = workshop.Dice.Of(Hire);
        var rate = workshop.Grown(price);
        gross += draft.Sell(new DraftLine(Chart.Rentals, days * rate)
        {
            Item = item, Quantity = days, UnitPrice = rate, Department = Chart.Hire,
        });
        return gross;
    }

    private void Sell()
    {
        var sale = new Draft("cash-sale", workshop.Today, null) { Memo = "Shop" };
        var gross = 0L;
        var goods = Chart.Stock.Where(item => item.Price > 0 && item.Price < 1_000_000).ToList();
        for (var items = workshop.Dice.Between(1, 3); items > 0; items--)
        {
            gross += SellGoods(sale, workshop.Dice.Of(goods), workshop.Dice.Between(1, 2), Chart.Shop, Chart.Hire);
        }

        if (workshop.Dice.Chance(12))
        {
            gross += SellGoods(sale, Chart.Stock[workshop.Dice.Between(6, 7)], 1, Chart.Shop, Chart.Hire);
        }

        if (gross > 0)
        {
            AddMoney(sale, gross);
            workshop.Ledger.Write(sale);
        }
    }

    private long SellGoods(Draft draft, StockItem item, int wanted, string income, string department)
    {
        var quantity = workshop.Issue(draft, item, wanted, department, null);
        var price = workshop.Grown(item.Price);
        return quantity == 0 ? 0 : draft.Sell(new DraftLine(income, quantity * price)
        {
            Item = item.Id, Quantity = quantity, UnitPrice = price, Department = department,
        });
    }

    // Three in four pay by card, straight into the bank.
    private void AddMoney(Draft draft, long gross) =>
        draft.Lines.Insert(0, new DraftLine(workshop.Dice.Chance(750) ? Chart.Bank : Chart.Till, gross));
}
