namespace Vlei.Sample;

/// <summary>What it takes to keep the business going: premises, people, money and the owner.</summary>
internal sealed class Running(Workshop workshop, Contacts contacts, BoatBuilding building)
{
    private const long SmallestTransfer = 1000;
    private long _taxDue;

    /// <summary>Sets the business up on its first day.</summary>
    public void Open()
    {
        var opening = new Draft("opening", workshop.Today, null) { Memo = "Balances brought forward" };
        (string Account, long Amount)[] balances =
        [
            (Chart.Bank, 41_250_000), (Chart.Savings, 15_000_000), (Chart.PettyCash, 250_000), (Chart.Till, 120_000),
            ("1510", 96_000_000), ("1520", 31_500_000), ("1530", 22_800_000), ("1540", 28_900_000), ("1590", -37_400_000),
            ("1700", 7_600_000), (Chart.WorkshopLoan, -62_000_000), (Chart.VehicleLoan, -14_400_000),
            (Chart.Capital, -90_000_000),
        ];
        foreach (var (account, amount) in balances)
        {
            opening.Lines.Add(new DraftLine(account, amount));
        }

        opening.Lines.Add(new DraftLine("3900", -balances.Sum(balance => balance.Amount)));
        workshop.Ledger.Write(opening);
    }

    /// <summary>What happens in a day.</summary>
    public void Day()
    {
        switch (workshop.Today.Day)
        {
            case 1:
                Bill("rent", "6110", 3_800_000, "Rent", 7, Chart.Building);
                Bill("insurance", Chart.Insurance, 690_000, "Insurance premium", 14, null, taxFree: true);
                Bill("office", "6500", 215_000, "Software", 14, null);
                break;
            case 4:
                Bill("power", "6120", workshop.Dice.About(610_000, 20), "Electricity and water", 21, Chart.Building);
                break;
            case 7:
                Pay(Chart.PayrollTaxes, -workshop.Ledger.BalanceOf(Chart.PayrollTaxes), "Payroll taxes");
                break;
            case 10:
                Bill(
                    "marketing", Chart.Marketing, workshop.Dice.About(workshop.Today.Month is >= 9 or <= 2 ? 720_000 : 310_000, 25),
                    "Advertising", 30, Chart.Hire);
                break;
            case 14 or 28:
                Draw();
                break;
            case 15:
                if (workshop.Today.Month % 3 == 0)
                {
                    Bill("fees", "6700", 1_150_000, "Accounts and tax return", 30, null);
                }

                break;
            case 18:
                for (var jobs = workshop.Times(1300); jobs > 0; jobs--)
                {
                    Bill(
                        "subcontract", Chart.Subcontractors, workshop.Dice.About(840_000, 40), "Rigging and welding", 30,
                        Chart.Building, building.CurrentProject);
                }

                break;
            case 20:
                PayCard();
                break;
            case 25:
                PayWages();
                PayTax();
                break;
        }

        if (workshop.Today.AddDays(1).Day == 1)
        {
            EndMonth();
        }

        SpendSmall();
    }

    private void Bill(
        string supplies, string account, long amount, string memo, int terms, string? department, string? project = null,
        bool taxFree = false)
    {
        var supplier = workshop.Dice.Of(contacts.SuppliersOf(supplies));
        var bill = new Draft("bill", workshop.Today, supplier)
        {
            TermsDays = terms,
            Memo = memo,
            Reference = $"{workshop.Today:yyMM}-{workshop.Dice.Between(100, 999)}",
        };
        var gross = bill.Buy(
            new DraftLine(account, workshop.Grown(amount)) { Department = department, Project = project, Memo = memo }, taxFree);
        bill.Lines.Insert(0, new DraftLine(Chart.Payable, -gross));
        workshop.Owe(workshop.Ledger.Write(bill), supplier, gross, workshop.Today.AddDays(terms));
    }

    private void SpendSmall()
    {
        if (workshop.IsWorkday)
        {
            for (var times = workshop.Times(400); times > 0; times--)
            {
                var (account, amount, memo) = workshop.Dice.Of(new (string, long, string)[]
                {
                    ("6210", 145_000, "Diesel"), ("6210", 98_000, "Petrol"), ("6500", 62_000, "Stationery"),
                    ("6230", 230_000, "Trip to a customer"), ("6220", 310_000, "Trailer service"),
                });
                Spend(Chart.Card, account, workshop.Dice.About(workshop.Grown(amount), 30), memo);
            }

            for (var times = workshop.Times(330); times > 0; times--)
            {
                var (account, memo) = workshop.Dice.Of(new[] { ("6130", "Cleaning"), ("6750", "Tea and milk"), ("6130", "Light bulbs") });
                Spend(Chart.PettyCash, account, workshop.Dice.About(21_000, 50), memo);
            }
        }

        if (workshop.Ledger.BalanceOf(Chart.PettyCash) < 60_000)
        {
            Transfer(Chart.PettyCash, Chart.Bank, 240_000, "Petty cash topped up");
        }

        if (workshop.Today.DayOfWeek == DayOfWeek.Monday && workshop.Ledger.BalanceOf(Chart.Till) > 200_000)
        {
            Transfer(Chart.Bank, Chart.Till, (workshop.Ledger.BalanceOf(Chart.Till) - 120_000) / 1000 * 1000, "Till paid in");
        }
    }

    private void Spend(string money, string account, long net, string memo)
    {
        var expense = new Draft("expense", workshop.Today, null) { Memo = memo };
        var gross = expense.Buy(new DraftLine(account, net) { Memo = memo });
        expense.Lines.Insert(0, new DraftLine(money, -gross));
        workshop.Ledger.Write(expense);
    }

    private void PayWages()
    {
        var batch = $"PAY-{workshop.Today:yyyy-MM}";
        var owed = 0L;
        for (var times = Math.Max(1, workshop.Scale / 1000); times > 0; times--)
        {
            for (var worker = 0; worker < Chart.Workers.Length; worker++)
            {
                owed += PayWorker(worker, batch);
            }
        }

        var payment = new Draft("payment", workshop.Today, null) { Memo = "Wages paid out", Batch = batch };
        payment.Lines.Add(new DraftLine(Chart.WagesOwed, owed));
        payment.Lines.Add(new DraftLine(Chart.Bank, -owed));
        workshop.Ledger.Write(payment);
    }

    private long PayWorker(int worker, string batch)
    {
        var (_, monthly, account, department) = Chart.Workers[worker];
        var pay = workshop.Grown(monthly);
        var (withheld, onTop) = (pay * 18 / 100, pay * 4 / 100);
        var journal = new Draft("journal", workshop.Today, $"E{worker + 1:D2}")
        {
            Batch = batch,
            Memo = $"Pay for {workshop.Today:MMMM yyyy}",
        };
        var project = account == Chart.DirectWages && department == Chart.Building ? building.CurrentProject : null;
        journal.Lines.Add(new DraftLine(account, pay) { Department = department, Project = project });
        journal.Lines.Add(new DraftLine(Chart.EmployerTaxes, onTop) { Department = department });
        journal.Lines.Add(new DraftLine(Chart.PayrollTaxes, -withheld - onTop));
        journal.Lines.Add(new DraftLine(Chart.WagesOwed, -(pay - withheld)));
        workshop.Ledger.Write(journal);
        return pay - withheld;
    }

    private void PayTax()
    {
        if (workshop.Today.Month % 2 == 0)
        {
            Pay(Chart.Tax, _taxDue, "Sales tax of two months");
        }
    }

    private void PayCard()
    {
        var owed = -workshop.Ledger.BalanceOf(Chart.Card);
        if (owed > 0)
        {
            Transfer(Chart.Card, Chart.Bank, owed, "Card statement");
        }
    }

    // The owner takes more out as the business grows, and less in the lean months.
    private void Draw() => Pay(
        Chart.Drawings, workshop.Grown(workshop.Today.Month is >= 5 and <= 8 ? 1_500_000 : 2_100_000), "Owner's drawings");

    private void Pay(string account, long amount, string memo)
    {
        if (amount > 0)
        {
            Transfer(account, Chart.Bank, amount, memo, "payment");
        }
    }

    private void Transfer(string to, string from, long amount, string memo, string kind = "transfer")
    {
        if (amount < SmallestTransfer)
        {
            return;
        }

        var transfer = new Draft(kind, workshop.Today, null) { Memo = memo };
        transfer.Lines.Add(new DraftLine(to, amount));
        transfer.Lines.Add(new DraftLine(from, -amount));
        workshop.Ledger.Write(transfer);
    }

    private void EndMonth()
    {
        if (workshop.Today.Month % 2 == 1)
        {
            _taxDue = -workshop.Ledger.BalanceOf(Chart.Tax);
        }

        Repay(Chart.WorkshopLoan, 620_000, 98);
        Repay(Chart.VehicleLoan, 310_000, 105);
        Spend(Chart.Bank, "6600", workshop.Dice.About(84_000, 20), "Account fees");
        Transfer(Chart.Savings, Chart.InterestReceived, workshop.Ledger.BalanceOf(Chart.Savings) * 5 / 1200, "Interest", "journal");
        var depreciation = new Draft("journal", workshop.Today, null) { Memo = $"Depreciation for {workshop.Today:MMMM yyyy}" };
        depreciation.Lines.Add(new DraftLine(Chart.Depreciation, 1_070_000));
        depreciation.Lines.Add(new DraftLine("1590", -1_070_000));
        workshop.Ledger.Write(depreciation);
        var spare = workshop.Ledger.BalanceOf(Chart.Bank) - 60_000_000;
        Transfer(Chart.Savings, Chart.Bank, Math.Min(spare, 20_000_000) / 100_000 * 100_000, "To savings");
        var missing = 8_000_000 - workshop.Ledger.BalanceOf(Chart.Bank);
        Transfer(
            Chart.Bank, Chart.Savings, Math.Min(missing, workshop.Ledger.BalanceOf(Chart.Savings)) / 100_000 * 100_000, "From savings");
        if (workshop.Today.Month == 5)
        {
            SellOldBoat();
        }
    }

    private void Repay(string loan, long principal, int perMille)
    {
        var owed = -workshop.Ledger.BalanceOf(loan);
        if (owed <= 0)
        {
            return;
        }

        var interest = owed * perMille / 12_000;
        var paid = Math.Min(principal, owed);
        var payment = new Draft("payment", workshop.Today, null) { Memo = "Loan instalment" };
        payment.Lines.Add(new DraftLine(loan, paid));
        payment.Lines.Add(new DraftLine(Chart.InterestPaid, interest));
        payment.Lines.Add(new DraftLine(Chart.Bank, -paid - interest));
        workshop.Ledger.Write(payment);
    }

    private void SellOldBoat()
    {
        var sale = new Draft("cash-sale", workshop.Today, workshop.Dice.Of(contacts.Customers)) { Memo = "Old hire boat sold" };
        var price = workshop.Dice.About(1_800_000, 20);
        sale.Lines.Add(new DraftLine(Chart.Bank, price));
        sale.Lines.Add(new DraftLine("1530", -1_200_000));
        sale.Lines.Add(new DraftLine(Chart.GainOnSale, 1_200_000 - price));
        workshop.Ledger.Write(sale);
    }
}
