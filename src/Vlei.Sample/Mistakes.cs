namespace Vlei.Sample;

/// <summary>
/// What goes wrong in every set of books, planted at known places: documents entered late, a bill entered twice, petty
/// cash below zero, an expense on the wrong account, a debt that is never paid and written off.
/// </summary>
internal sealed class Mistakes(Workshop workshop, Contacts contacts, DateOnly today)
{
    private Owed? _hopeless;

    /// <summary>What happens in a day.</summary>
    public void Day()
    {
        if (workshop.Today == MonthsBefore(18))
        {
            LendToTheHopeless();
        }
        else if (workshop.Today == MonthsBefore(4) && _hopeless is { } debt)
        {
            WriteOff(debt);
        }
        else if (workshop.Today == MonthsBefore(3))
        {
            EnterTwice();
        }
        else if (workshop.Today == MonthsBefore(2))
        {
            EnterLate();
        }
        else if (workshop.Today == MonthsBefore(1))
        {
            PostWrongly();
        }
        else if (workshop.Today == today.AddDays(-12))
        {
            EmptyPettyCash();
        }
    }

    private DateOnly MonthsBefore(int months) => new DateOnly(today.Year, today.Month, 11).AddMonths(-months);

    private void LendToTheHopeless()
    {
        var customer = contacts.Customers[40];
        var invoice = new Draft("invoice", workshop.Today, customer) { TermsDays = 30, Memo = "New transom and keel" };
        var gross = invoice.Sell(new DraftLine(Chart.Repairs, 2_640_000)
        {
            Item = "LABOUR", Quantity = 44, UnitPrice = 60_000, Department = Chart.Repairing,
        });
        invoice.Lines.Insert(0, new DraftLine(Chart.Receivable, gross));
        _hopeless = workshop.Expect(workshop.Ledger.Write(invoice), customer, gross, workshop.Today.AddDays(30), null);
    }

    private void WriteOff(Owed debt)
    {
        var journal = new Draft("journal", workshop.Today, debt.Contact)
        {
            Memo = $"{debt.Document} written off",
            Reference = debt.Document,
        };
        var net = debt.Open * 100 / 115;
        journal.Lines.Add(new DraftLine(Chart.BadDebts, net) { TaxCode = "S15", TaxPart = "base" });
        journal.Lines.Add(new DraftLine(Chart.Tax, debt.Open - net) { TaxCode = "S15", TaxPart = "tax" });
        journal.Lines.Add(new DraftLine(Chart.Receivable, -debt.Open));
        workshop.Settle(workshop.Ledger.Write(journal), debt, debt.Open);
    }

    private void EnterTwice()
    {
        for (var time = 0; time < 2; time++)
        {
            EnterBill("resin", "5020", 1_386_000, "CR-20417", "Resin for the workshop", workshop.Today.AddDays(2 * time), null);
        }
    }

    private void EnterLate()
    {
        EnterBill("timber", "5010", 964_000, "LS-7731", "Larch, delivered last month", workshop.Today.AddMonths(-1), workshop.Today);
        EnterBill("power", "6120", 288_000, "RDC-0412", "Water, corrected meter", workshop.Today.AddDays(-34), workshop.Today.AddDays(3));
    }

    // Timber on the advertising account.
    private void PostWrongly() =>
        EnterBill("timber", Chart.Marketing, 2_215_000, "TFT-5526", "Oak, 40 planks", workshop.Today, null);

    private void EnterBill(string supplies, string account, long net, string reference, string memo, DateOnly date, DateOnly? entered)
    {
        var supplier = contacts.SuppliersOf(supplies)[0];
        var bill = new Draft("bill", date, supplier) { TermsDays = 30, Reference = reference, Memo = memo, EnteredOn = entered };
        var gross = bill.Buy(new DraftLine(account, net) { Memo = memo });
        bill.Lines.Insert(0, new DraftLine(Chart.Payable, -gross));
        workshop.Owe(workshop.Ledger.Write(bill), supplier, gross, date.AddDays(30));
    }

    private void EmptyPettyCash()
    {
        var expense = new Draft("expense", workshop.Today, null) { Memo = "Slipway winch, paid from petty cash" };
        var gross = expense.Buy(new DraftLine("6130", 310_000) { Memo = "Slipway winch" });
        expense.Lines.Insert(0, new DraftLine(Chart.PettyCash, -gross));
        workshop.Ledger.Write(expense);
    }
}
