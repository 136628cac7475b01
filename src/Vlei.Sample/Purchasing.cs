namespace Vlei.Sample;

/// <summary>Buys stock when it runs low, sends some of it back, and pays the suppliers every Friday.</summary>
internal sealed class Purchasing(Workshop workshop, Contacts contacts)
{
    /// <summary>What happens in a day.</summary>
    public void Day()
    {
        if (workshop.IsWorkday)
        {
            foreach (var item in Chart.Stock)
            {
                var level = (long)item.Order * Math.Max(1000, workshop.Scale) / 1000;
                if (workshop.OnHand(item) < level && workshop.Dice.Chance(350))
                {
                    Buy(item, level);
                }
            }
        }

        if (workshop.Today.DayOfWeek == DayOfWeek.Friday)
        {
            workshop.PayBills();
        }
    }

    private void Buy(StockItem item, long level)
    {
        // A larger workshop has more of them, not larger ones: its documents are many.
        var orders = Math.Max(1, level / item.Order);
        for (var order = 0L; order < orders; order++)
        {
            BuyOnce(item);
        }
    }

    private void BuyOnce(StockItem item)
    {
        var supplier = workshop.Dice.Of(contacts.SuppliersOf(item.Supplies));
        var cost = workshop.Dice.About(workshop.Grown(item.Cost), 4);
        var bill = new Draft("bill", workshop.Today, supplier)
        {
            TermsDays = 30, Reference = $"{supplier}-{workshop.Dice.Between(10000, 99999)}",
        };
        var gross = bill.Buy(new DraftLine(Chart.Inventory, item.Order * cost)
        {
            Item = item.Id, Quantity = item.Order, UnitPrice = cost,
        });
        bill.Lines.Insert(0, new DraftLine(Chart.Payable, -gross));
        var id = workshop.Ledger.Write(bill);
        workshop.Receive(item, item.Order, item.Order * cost);
        var owed = workshop.Owe(id, supplier, gross, workshop.Today.AddDays(30));
        if (workshop.Dice.Chance(40))
        {
            Return(item, supplier, cost, owed);
        }
    }

    // Some are set against the bill, some in part, some wait for the supplier's answer.
    private void Return(StockItem item, string supplier, long cost, Owed owed)
    {
        var quantity = Math.Max(1, item.Order / 8);
        var back = new Draft("purchase-return", workshop.Today, supplier) { Reference = owed.Document, Memo = "Damaged on arrival" };
        workshop.Receive(item, -quantity, -quantity * cost);
        var gross = quantity * cost + DraftLines.TaxOn(quantity * cost, zeroRated: false);
        back.Lines.Add(new DraftLine(Chart.Payable, gross));
        _ = back.Buy(new DraftLine(Chart.Inventory, -quantity * cost) { Item = item.Id, Quantity = -quantity, UnitPrice = cost });
        var id = workshop.Ledger.Write(back);
        var settled = workshop.Dice.Between(1, 4) switch { 1 => 0, 2 => gross / 2, _ => gross };
        if (settled > 0)
        {
            workshop.Settle(id, owed, settled);
        }
    }
}
