namespace Vlei.Sample;

/// <summary>The accounts, items and other fixed records of Reedwater Boatworks.</summary>
internal static class Chart
{
    public const string Bank = "1000";
    public const string Savings = "1010";
    public const string PettyCash = "1020";
    public const string Till = "1030";
    public const string Receivable = "1100";
    public const string Inventory = "1200";
    public const string Payable = "2000";
    public const string Card = "2100";
    public const string Tax = "2200";
    public const string PayrollTaxes = "2300";
    public const string WagesOwed = "2310";
    public const string WorkshopLoan = "2500";
    public const string VehicleLoan = "2510";
    public const string Capital = "3000";
    public const string Drawings = "3100";
    public const string Boats = "4010";
    public const string Repairs = "4020";
    public const string Rentals = "4030";
    public const string Shop = "4040";
    public const string ShopGoods = "5040";
    public const string DirectWages = "5050";
    public const string Subcontractors = "5060";
    public const string Salaries = "6010";
    public const string EmployerTaxes = "6020";
    public const string Insurance = "6300";
    public const string Marketing = "6400";
    public const string Depreciation = "6800";
    public const string BadDebts = "6850";
    public const string InterestReceived = "7010";
    public const string GainOnSale = "7020";
    public const string InterestPaid = "8010";

    public const string Building = "BUILD";
    public const string Repairing = "REPAIR";
    public const string Hire = "HIRE";

    /// <summary>Code, name, type, parent.</summary>
    public static readonly (string Code, string Name, string Type, string? Parent)[] Accounts =
    [
        (Bank, "Current account", "bank", null),
        (Savings, "Savings account", "bank", null),
        (PettyCash, "Petty cash", "cash", null),
        (Till, "Shop till", "cash", null),
        (Receivable, "Trade receivables", "receivable", null),
        (Inventory, "Stock of materials and goods", "inventory", null),
        ("1300", "Prepaid expenses", "current-asset", null),
        ("1500", "Workshop and equipment", "fixed-asset", null),
        ("1510", "Slipway and buildings", "fixed-asset", "1500"),
        ("1520", "Machines and tools", "fixed-asset", "1500"),
        ("1530", "Hire fleet", "fixed-asset", "1500"),
        ("1540", "Vehicles", "fixed-asset", "1500"),
        ("1590", "Accumulated depreciation", "fixed-asset", "1500"),
        ("1700", "Deposit on premises", "non-current-asset", null),
        (Payable, "Trade payables", "payable", null),
        (Card, "Business card", "card", null),
        (Tax, "Sales tax", "tax", null),
        (PayrollTaxes, "Payroll taxes owed", "current-liability", null),
        (WagesOwed, "Wages owed", "current-liability", null),
        (WorkshopLoan, "Workshop loan", "non-current-liability", null),
        (VehicleLoan, "Vehicle loan", "non-current-liability", null),
        (Capital, "Owner's capital", "equity", null),
        (Drawings, "Owner's drawings", "equity", null),
        ("3900", "Retained earnings", "retained-earnings", null),
        (Boats, "Boats built to order", "income", null),
        (Repairs, "Repairs", "income", null),
        (Rentals, "Boat rentals", "income", null),
        (Shop, "Shop sales", "income", null),
        ("5000", "Materials", "cost-of-sales", null),
        ("5010", "Timber", "cost-of-sales", "5000"),
        ("5020", "Resin and glass", "cost-of-sales", "5000"),
        ("5030", "Engines and fittings", "cost-of-sales", "5000"),
        (ShopGoods, "Shop goods", "cost-of-sales", null),
        (DirectWages, "Boatbuilders' wages", "cost-of-sales", null),
        (Subcontractors, "Subcontractors", "cost-of-sales", null),
        ("6000", "People", "expense", null),
        (Salaries, "Salaries", "expense", "6000"),
        (EmployerTaxes, "Payroll taxes", "expense", "6000"),
        ("6100", "Premises", "expense", null),
        ("6110", "Rent", "expense", "6100"),
        ("6120", "Electricity and water", "expense", "6100"),
        ("6130", "Cleaning and upkeep", "expense", "6100"),
        ("6200", "Vehicles and travel", "expense", null),
        ("6210", "Fuel", "expense", "6200"),
        ("6220", "Licences and service", "expense", "6200"),
        ("6230", "Travel", "expense", "6200"),
        (Insurance, "Insurance", "expense", null),
        (Marketing, "Marketing", "expense", null),
        ("6500", "Office and software", "expense", null),
        ("6600", "Bank charges", "expense", null),
        ("6700", "Accounting and legal fees", "expense", null),
        ("6750", "Refreshments", "expense", null),
        (Depreciation, "Depreciation", "expense", null),
        (BadDebts, "Bad debts", "expense", null),
        (InterestReceived, "Interest received", "other-income", null),
        (GainOnSale, "Gain on sale of equipment", "other-income", null),
        (InterestPaid, "Interest paid", "other-expense", null),
    ];

    /// <summary>
    /// What is bought, stored and sold: id, name, unit, cost at the start, price at the start (0 where it is not sold
    /// over the counter), the account that its cost goes to, how many are ordered at once, and its kind of supplier.
    /// </summary>
    public static readonly StockItem[] Stock =
    [
        new("PLY9", "Marine ply 9 mm", "sheet", 118_000, 0, "5010", 24, "timber"),
        new("LARCH", "Larch plank 3 m", "plank", 31_000, 0, "5010", 60, "timber"),
        new("OAKRIB", "Oak rib stock", "piece", 14_500, 0, "5010", 80, "timber"),
        new("EPOXY5", "Epoxy resin 5 kg", "can", 96_000, 139_000, "5020", 20, "resin"),
        new("GLASS", "Glass cloth 25 m", "roll", 142_000, 0, "5020", 8, "resin"),
        new("VARNISH", "Yacht varnish 2.5 l", "can", 54_000, 84_900, "5020", 18, "resin"),
        new("OB6", "Outboard engine 6 hp", "piece", 1_890_000, 2_590_000, "5030", 3, "engines"),
        new("EOB3", "Electric outboard 3 hp", "piece", 1_420_000, 1_990_000, "5030", 2, "engines"),
        new("FITSET", "Bronze fittings set", "set", 285_000, 0, "5030", 6, "engines"),
        new("OAR21", "Oars 2.1 m, pair", "pair", 72_000, 124_900, ShopGoods, 15, "shop"),
        new("OAR24", "Oars 2.4 m, pair", "pair", 84_000, 144_900, ShopGoods, 12, "shop"),
        new("JACKETA", "Life jacket, adult", "piece", 39_000, 69_900, ShopGoods, 30, "shop"),
        new("JACKETC", "Life jacket, child", "piece", 33_000, 59_900, ShopGoods, 24, "shop"),
        new("ROWLOCK", "Rowlocks, pair", "pair", 18_500, 34_900, ShopGoods, 25, "shop"),
        new("ANCHOR4", "Folding anchor 4 kg", "piece", 26_500, 47_900, ShopGoods, 16, "shop"),
        new("ROPE10", "Mooring rope 10 mm, 20 m", "coil", 21_000, 39_900, ShopGoods, 30, "shop"),
    ];

    /// <summary>What is sold and not stored.</summary>
    public static readonly (string Id, string Name, string Unit)[] Services =
    [
        ("STAGE", "Boat building, stage payment", "stage"),
        ("LABOUR", "Repair labour", "hour"),
        ("HIREROW", "Rowing boat hire", "day"),
        ("HIRECANOE", "Canoe hire", "day"),
        ("HIRESAIL", "Sailing dinghy hire", "day"),
    ];

    /// <summary>The boats that are built: name, price at the start, share of a thousand that is materials, days to build.</summary>
    public static readonly (string Name, long Price, int Materials, int Days)[] Models =
    [
        ("Moorhen 10 skiff", 7_400_000, 330, 45),
        ("Heron 14 dinghy", 15_800_000, 340, 70),
        ("Bittern 16 day sailer", 27_500_000, 350, 95),
        ("Otter 18 launch", 42_000_000, 370, 120),
    ];

    /// <summary>Who supplies what.</summary>
    public static readonly (string Name, string Supplies)[] Suppliers =
    [
        ("Three Firs Timber", "timber"), ("Langdrift Sawmill", "timber"), ("Greenheart Planks", "timber"),
        ("Clearcoat Resins", "resin"), ("Southwind Composites", "resin"),
        ("Tidewheel Engines", "engines"), ("Brasslight Fittings", "engines"),
        ("Pennant Chandlery Wholesale", "shop"), ("Floatwell Safety", "shop"),
        ("Quayside Properties", "rent"), ("Reed District Council", "power"), ("Harbourlight Insurance Brokers", "insurance"),
        ("Papertrail Accountants", "fees"), ("Skylark Signs and Print", "marketing"), ("Lagoon Radio", "marketing"),
        ("Cloudledge Software", "office"), ("Riverbend Rigging", "subcontract"), ("Anvil and Daughters Welding", "subcontract"),
    ];

    /// <summary>Who works there: name, pay a month, account, department.</summary>
    public static readonly (string Name, long Pay, string Account, string Department)[] Workers =
    [
        ("Nomsa Velde", 2_450_000, DirectWages, Building),
        ("Jory Pell", 2_250_000, DirectWages, Building),
        ("Sipho Arden", 1_900_000, DirectWages, Repairing),
        ("Lindi Marsh", 1_750_000, Salaries, Hire),
        ("Tobias Quill", 2_600_000, Salaries, Building),
    ];

    /// <summary>Lodges and clubs that hire boats on account.</summary>
    public static readonly string[] Lodges =
        ["Kingfisher Lodge", "Heron Bay Rowing Club", "Mill Pond Hotel", "Osprey Camp", "St Elmo Sailing School", "Lakeside Trails"];

    public static readonly string[] FirstNames =
    [
        "Alma", "Bram", "Cato", "Dineo", "Elan", "Farida", "Gideon", "Hester", "Imka", "Jabu", "Kesi", "Lwazi", "Mira",
        "Neo", "Oskar", "Palesa", "Rafe", "Sanele", "Tilda", "Una", "Vuyo", "Wessel", "Yara", "Zola",
    ];

    public static readonly string[] LastNames =
    [
        "Acker", "Barrow", "Cloete-Finch", "Dunmore", "Eland", "Fynn", "Garrick", "Hobday", "Inglis", "Jonker-Lea",
        "Khoza-Reed", "Lovell", "Mokena", "Nettle", "Orchard", "Penhale", "Quested", "Rushby", "Sedge", "Thorne",
        "Umfolo", "Vane", "Wick", "Yardley",
    ];
}

/// <summary>Something that is kept in stock.</summary>
internal sealed record StockItem(
    string Id, string Name, string Unit, long Cost, long Price, string CostAccount, int Order, string Supplies);
