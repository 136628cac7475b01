using Vlei.Core.Ledger;
using Vlei.Records;

namespace Vlei.Sample;

/// <summary>Boats built to order: a deposit, stage invoices, and material out of stock while they grow.</summary>
internal sealed class BoatBuilding(Workshop workshop, Contacts contacts, RecordSetWriter writer)
{
    private const int FewestWorkdaysBetweenOrders = 20;
    private const int MostWorkdaysBetweenOrders = 34;
    private const int DaysBetweenIssues = 12;
    private static readonly (int Share, int At)[] Stages = [(40, 35), (30, 70), (30, 100)];

    private readonly List<Boat> _boats = [];
    private int _built;
    private int _untilNextOrder;

    /// <summary>A boat that is being built today, for the wages of those who build it.</summary>
    public string? CurrentProject => _boats.Count == 0 ? null : workshop.Dice.Of(_boats).Project;

    /// <summary>What happens in a day.</summary>
    public void Day()
    {
        if (!workshop.IsWorkday)
        {
            return;
        }

        for (_untilNextOrder -= workshop.Scale; _untilNextOrder <= 0;)
        {
            Order();
            _untilNextOrder += 1000 * workshop.Dice.Between(FewestWorkdaysBetweenOrders, MostWorkdaysBetweenOrders);
        }

        foreach (var boat in _boats.ToList())
        {
            Build(boat);
        }
    }

    private void Order()
    {
        var (name, price, materials, days) = workshop.Dice.Of(Chart.Models);
        var customer = workshop.Dice.Of(contacts.Customers);
        var project = $"BOAT-{++_built:D3}";
        writer.Write(RecordTables.Projects, project, $"{name}, hull {_built}", customer, "true");
        var boat = new Boat(project, customer, workshop.Grown(price), materials, days, workshop.Today, workshop.Dice.Chance(150));
        var deposit = (boat.Price + DraftLines.TaxOn(boat.Price, boat.ForExport)) * 3 / 10 / 1000 * 1000;
        var receipt = new Draft("deposit", workshop.Today, customer) { Memo = $"Deposit on {name}, hull {_built}" };
        receipt.Lines.Add(new DraftLine(Chart.Bank, deposit) { Project = project });
        receipt.Lines.Add(new DraftLine(Chart.Receivable, -deposit) { Project = project });
        boat.DepositDocument = workshop.Ledger.Write(receipt);
        boat.Deposit = deposit;
        _boats.Add(boat);
    }

    private void Build(Boat boat)
    {
        var days = workshop.Today.DayNumber - boat.Ordered.DayNumber;
        if (days > 0 && days % DaysBetweenIssues == 0)
        {
            IssueMaterials(boat);
        }

        while (boat.StagesDone < Stages.Length && days >= boat.Days * Stages[boat.StagesDone].At / 100)
        {
            InvoiceStage(boat, Stages[boat.StagesDone].Share);
            boat.StagesDone++;
        }

        if (boat.StagesDone == Stages.Length)
        {
            _boats.Remove(boat);
        }
    }

    private void IssueMaterials(Boat boat)
    {
        var issue = new Draft("journal", workshop.Today, null) { Memo = "Materials issued", Batch = $"ISSUE-{workshop.Today:yyyy-MM}" };
        var budget = boat.Price * boat.Materials / 1000 * DaysBetweenIssues / boat.Days;
        foreach (var item in Chart.Stock.Where(item => item.Supplies is "timber" or "resin" or "engines"))
        {
            var large = item.Cost > 1_000_000;
            var wanted = large ? (workshop.Dice.Chance((int)(budget * 250 / item.Cost)) ? 1 : 0)
                : workshop.Dice.Times(budget * workshop.Dice.Between(700, 1300) / 7 / item.Cost);
            workshop.Issue(issue, item, wanted, Chart.Building, boat.Project);
        }

        if (issue.Lines.Count > 0)
        {
            workshop.Ledger.Write(issue);
        }
    }

    private void InvoiceStage(Boat boat, int share)
    {
        var invoice = new Draft("invoice", workshop.Today, boat.Customer) { TermsDays = 14, Memo = $"Stage {boat.StagesDone + 1}" };
        var net = boat.Price * share / 100;
        var gross = invoice.Sell(
            new DraftLine(Chart.Boats, net)
            {
                Item = "STAGE", Quantity = 1, UnitPrice = net, Project = boat.Project, Department = Chart.Building,
            },
            boat.ForExport);
        invoice.Lines.Insert(0, new DraftLine(Chart.Receivable, gross) { Project = boat.Project });
        var id = workshop.Ledger.Write(invoice);
        var applied = Math.Min(boat.Deposit, gross);
        workshop.Expect(id, boat.Customer, gross - applied, workshop.Today.AddDays(14), workshop.Dice.Between(-6, 12));
        if (applied > 0)
        {
            workshop.Ledger.Settle(boat.DepositDocument, id, applied, workshop.Today);
            boat.Deposit -= applied;
        }

    }

    private sealed class Boat(
        string project, string customer, long price, int materials, int days, DateOnly ordered, bool forExport)
    {
        public string Project => project;

        public string Customer => customer;

        public long Price => price;

        public int Materials => materials;

        public int Days => days;

        public DateOnly Ordered => ordered;

        public bool ForExport => forExport;

        public string DepositDocument { get; set; } = "";

        public long Deposit { get; set; }

        public int StagesDone { get; set; }
    }
}
