using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Records;

namespace Vlei.Sample;

/// <summary>How large a business to make up, and which.</summary>
/// <param name="Documents">About how many documents.</param>
/// <param name="Years">How many whole fiscal years before the current one.</param>
/// <param name="Seed">The same seed gives the same records.</param>
public sealed record SampleSize(int Documents, int Years, ulong Seed)
{
    /// <summary>The demo.</summary>
    public static SampleSize Demo { get; } = new(5_000, 3, 1);
}

/// <summary>
/// Makes up Reedwater Boatworks, a workshop that builds, repairs and rents small wooden boats, as a record set: day by
/// day, by the same rules at any size, and the same every time.
/// </summary>
public static class BoatworksGenerator
{
    /// <summary>The name of the business.</summary>
    public const string Name = "Reedwater Boatworks";

    /// <summary>The month in which its fiscal year starts.</summary>
    public const int FiscalYearStart = 3;

    // How many documents the rules make in a month at scale 1000.
    private const int DocumentsPerMonth = 137;

    /// <summary>How its customers pay.</summary>
    public const string Remittance = "Reedwater Boatworks, Lakeside Mutual, account 4401 220 118\nPlease give the number of the invoice.";

    /// <summary>What its customers have committed to in the demo, or dispute: how much, by when, noted on which day.</summary>
    public static IReadOnlyList<(string Document, decimal Amount, DateOnly? By, DateOnly Noted, string Note)> Promises { get; } =
    [
        ("INV-00730", 16_689.95m, null, new(2026, 6, 2), "The leak is still there"),
        ("INV-00764", 9_896.90m, new(2026, 6, 19), new(2026, 6, 5), "After the regatta"),
        ("INV-00796", 15_311.10m, new(2026, 7, 10), new(2026, 6, 22), "In full, by transfer"),
        ("INV-00792", 6_000m, new(2026, 7, 3), new(2026, 6, 24), "The first part"),
    ];

    /// <summary>
    /// Three smaller businesses that the same bookkeeper looks after, made up by the same rules: the folder, the name, and which.
    /// </summary>
    public static IReadOnlyList<(string Folder, string Name, SampleSize Size)> Clients { get; } =
    [
        ("larkfield", "Larkfield Moorings", new(1_800, 1, 11)),
        ("quillside", "Quillside Oars", new(2_100, 1, 12)),
        ("ternbank", "Ternbank Canoe Hire", new(1_600, 1, 15)),
    ];

    /// <summary>The last day of the records.</summary>
    public static DateOnly Today { get; } = new(2026, 6, 30);

    /// <summary>Writes the record set into the folder; tells how far it is, now and then.</summary>
    public static void Write(string folder, SampleSize size, Action<string, long> progress)
    {
        _ = Currency.TryFind("ZAR", out var currency);
        var start = new DateOnly(Today.Year - size.Years, FiscalYearStart, 1);
        var months = (12 * size.Years) + Today.Month - FiscalYearStart + 1;
        var scale = Math.Max(1, (int)(1000L * size.Documents / (months * DocumentsPerMonth)));
        var dice = new Dice(size.Seed);
        using var writer = new RecordSetWriter(folder, Name, currency!);
        foreach (var table in RecordTables.All)
        {
            writer.Begin(table, table == RecordTables.Documents ? ["dispute", "season"] : []);
        }

        WriteChart(writer);
        var ledger = new SampleLedger(writer, dice);
        var workshop = new Workshop(ledger, dice, start, scale) { Today = start };
        var contacts = new Contacts(writer, dice, scale);
        var building = new BoatBuilding(workshop, contacts, writer);
        var counter = new Counter(workshop, contacts);
        var purchasing = new Purchasing(workshop, contacts);
        var running = new Running(workshop, contacts, building);
        var mistakes = new Mistakes(workshop, contacts, Today);
        running.Open();
        for (; workshop.Today <= Today; workshop.Today = workshop.Today.AddDays(1))
        {
            building.Day();
            counter.Day();
            workshop.TakeReceipts();
            purchasing.Day();
            running.Day();
            mistakes.Day();
            progress("making up documents", ledger.Documents);
        }

        WriteBudgets(writer, start);
        writer.Complete();
    }

    private static void WriteChart(RecordSetWriter writer)
    {
        foreach (var (code, name, type, parent) in Chart.Accounts)
        {
            var flow = code == "1590" ? "operating" : null;
            writer.Write(RecordTables.Accounts, code, name, type, parent, "true", flow);
        }

        foreach (var item in Chart.Stock)
        {
            writer.Write(RecordTables.Items, item.Id, item.Name, "stock", item.Unit, "true");
        }

        foreach (var (id, name, unit) in Chart.Services)
        {
            writer.Write(RecordTables.Items, id, name, "service", unit, "true");
        }

        foreach (var (id, name) in new[] { (Chart.Building, "Boat building"), (Chart.Repairing, "Repairs"), (Chart.Hire, "Hire and shop") })
        {
            writer.Write(RecordTables.Departments, id, name, "true");
        }

        foreach (var (code, name, rate, direction) in new[]
        {
            ("S15", "Standard rate, sales", "15", "sales"), ("S0", "Zero rate, sales", "0", "sales"),
            ("P15", "Standard rate, purchases", "15", "purchases"), ("P0", "Zero rate, purchases", "0", "purchases"),
        })
        {
            writer.Write(RecordTables.TaxCodes, code, name, rate, direction);
        }
    }

    private static void WriteBudgets(RecordSetWriter writer, DateOnly start)
    {
        (string Account, long Monthly)[] plans =
        [
            (Chart.Boats, 17_500_000), (Chart.Repairs, 12_000_000), (Chart.Rentals, 7_500_000), (Chart.Shop, 8_000_000),
            ("5010", 3_300_000), ("5020", 2_200_000), ("5030", 2_000_000), (Chart.ShopGoods, 4_600_000),
            (Chart.DirectWages, 7_400_000), (Chart.Salaries, 4_900_000), (Chart.EmployerTaxes, 500_000), ("6110", 4_200_000),
            ("6120", 700_000), (Chart.Insurance, 750_000), (Chart.Marketing, 600_000), ("6210", 500_000),
        ];
        for (var month = start.AddMonths(Math.Max(0, MonthsOf(start) - 16)); month <= Today.AddMonths(8); month = month.AddMonths(1))
        {
            foreach (var (account, monthly) in plans)
            {
                writer.Write(
                    RecordTables.Budgets, account, month.ToString("yyyy-MM", CultureInfo.InvariantCulture),
                    SampleLedger.Money(monthly), null, null);
            }
        }
    }

    private static int MonthsOf(DateOnly start) => ((Today.Year - start.Year) * 12) + Today.Month - start.Month + 1;
}
