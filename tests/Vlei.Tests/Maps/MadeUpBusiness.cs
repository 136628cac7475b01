namespace Vlei.Tests.Maps;

/// <summary>A line of somebody's journal.</summary>
internal sealed record MadeLine(string Code, decimal Amount);

/// <summary>A document of somebody's journal.</summary>
internal sealed record MadeDocument(int Number, DateOnly Date, string Memo, IReadOnlyList<MadeLine> Lines);

/// <summary>An invoice or a bill.</summary>
internal sealed record MadeInvoice(string Number, DateOnly Date, string Contact, decimal Net, decimal Tax);

/// <summary>A small business as another program has it: a chart, documents that sum to zero, invoices and what was paid of them.</summary>
internal sealed class MadeUpBusiness
{
    /// <summary>The chart: code, name in English, type.</summary>
    public static readonly (string Code, string Name, string Type)[] Chart =
    [
        ("1000", "Bank", "bank"), ("1100", "Trade receivables", "receivable"), ("1500", "Machinery", "fixed-asset"),
        ("2100", "Trade payables", "payable"),
        ("2200", "Sales tax", "tax"), ("3000", "Capital", "equity"), ("3900", "Retained earnings", "retained-earnings"),
        ("4000", "Sales", "income"),
        ("5000", "Materials", "cost-of-sales"), ("6000", "Rent", "expense"), ("6100", "Wages", "expense"),
    ];

    private static readonly string[] Memos = ["Oars, two pairs", "Hull no. 7", "Repair", "Mooring", "Varnish \"matt\"", "March"];
    private static readonly string[] Contacts = ["Alma Acker", "Barrow & Daughters", "Drift Marina", "Ng Sails", "Éclat Canvas"];

    /// <summary>Makes one up.</summary>
    public MadeUpBusiness(Random random)
    {
        var day = new DateOnly(2026, 1, 3);
        for (var number = 1; number <= 25 + random.Next(25); number++)
        {
            day = day.AddDays(random.Next(6) + (number == 3 ? 14 : 0));
            var (debit, credit) = (Chart[random.Next(Chart.Length)].Code, Chart[random.Next(Chart.Length)].Code);
            if (debit == credit)
            {
                continue;
            }

            var amount = random.Next(1, 400_000) / 100m;
            var part = Math.Round(amount * random.Next(100) / 100m, 2);
            Documents.Add(
                new MadeDocument(
                    number, day, Memos[random.Next(Memos.Length)], part == 0 || part == amount || debit == "6100" || credit == "6100"
                ? [new(debit, amount), new(credit, -amount)] : [new(debit, amount), new(credit, part - amount), new("6100", -part)]));
        }

        for (var number = 1; number <= 15; number++)
        {
            var net = random.Next(100, 90_000) / 100m;
            Invoices.Add(
                new MadeInvoice(
                    $"INV-{number:D3}", new DateOnly(2026, 1, 1).AddDays(random.Next(150)), Contacts[random.Next(Contacts.Length)], net,
                Math.Round(net * 0.15m, 2)));
        }
    }

    /// <summary>The journal.</summary>
    public List<MadeDocument> Documents { get; } = [];

    /// <summary>The invoices.</summary>
    public List<MadeInvoice> Invoices { get; } = [];

    /// <summary>What the journal comes to, by account.</summary>
    public Dictionary<string, decimal> Balances() => Documents.SelectMany(document => document.Lines).GroupBy(line => line.Code)
        .ToDictionary(account => account.Key, account => account.Sum(line => line.Amount));
}
