namespace Vlei.Records.Maps;

/// <summary>What the rows of a file are, and what becomes of them.</summary>
/// <param name="name">The word for it in a map.</param>
/// <param name="meaning">What a row is, and what it becomes, in a sentence.</param>
/// <param name="needs">What columns it must have: of each group of roles one.</param>
public sealed class Shape(string name, string meaning, params IReadOnlyList<IReadOnlyList<ColumnRole>> needs)
{
    private static readonly IReadOnlyList<ColumnRole> Value = [ColumnRole.Amount, ColumnRole.Debit, ColumnRole.Credit, ColumnRole.Total];
    private static readonly IReadOnlyList<ColumnRole> Sum = [ColumnRole.Total, ColumnRole.Net, ColumnRole.Amount];
    private static readonly IReadOnlyList<ColumnRole> Named = [ColumnRole.OwnName, ColumnRole.Code, ColumnRole.Item, ColumnRole.Project];

    /// <summary>The word for it in a map.</summary>
    public string Name { get; } = name;

    /// <summary>What a row is, and what it becomes, in a sentence.</summary>
    public string Meaning { get; } = meaning;

    /// <summary>What columns it must have: of each group of roles one.</summary>
    public IReadOnlyList<IReadOnlyList<ColumnRole>> Needs { get; } = needs;

    /// <summary>A row a line, grouped into documents.</summary>
    public static Shape Journal { get; } = new(
        "journal", "A row a line; lines of one document have its number, or sum to zero", [ColumnRole.Date], [ColumnRole.Account], Value);

    /// <summary>Blocks under accounts' headings.</summary>
    public static Shape Ledger { get; } = new(
        "ledger", "Rows under the heading of each account, with balances that prove them", [ColumnRole.Date], Value);

    /// <summary>One money account.</summary>
    public static Shape SingleEntry { get; } = new(
        "single-entry", "A row a movement of one money account, with its category", [ColumnRole.Date], [ColumnRole.Account],
        [ColumnRole.Amount, ColumnRole.MoneyIn, ColumnRole.MoneyOut]);

    /// <summary>Invoices.</summary>
    public static Shape Invoices { get; } = new(
        "invoices", "A row an invoice to a customer", [ColumnRole.Date], [ColumnRole.Document],
        [ColumnRole.Contact, ColumnRole.ContactId], Sum);

    /// <summary>Bills.</summary>
    public static Shape Bills { get; } = new(
        "bills", "A row a bill of a supplier", [ColumnRole.Date], [ColumnRole.Document], [ColumnRole.Contact, ColumnRole.ContactId], Sum);

    /// <summary>Credit notes.</summary>
    public static Shape Credits { get; } = new(
        "credits", "A row a credit note to a customer, or of a supplier", [ColumnRole.Date], [ColumnRole.Document],
        [ColumnRole.Contact, ColumnRole.ContactId], Sum);

    /// <summary>Lines of invoices.</summary>
    public static Shape InvoiceLines { get; } = new(
        "invoice-lines", "A row a line of an invoice, with its item", [ColumnRole.Date], [ColumnRole.Document],
        [ColumnRole.Contact, ColumnRole.ContactId], [ColumnRole.Item, ColumnRole.Quantity], Sum);

    /// <summary>Payments.</summary>
    public static Shape Payments { get; } = new(
        "payments", "A row a payment, with what it pays", [ColumnRole.Date], [ColumnRole.Contact, ColumnRole.ContactId, ColumnRole.Pays],
        [ColumnRole.Amount, ColumnRole.Total, ColumnRole.MoneyIn, ColumnRole.MoneyOut]);

    /// <summary>What is open on a day.</summary>
    public static Shape OpenItems { get; } = new(
        "open-items", "A row an invoice or a bill that is open on a day", [ColumnRole.Date], [ColumnRole.Document],
        [ColumnRole.Contact, ColumnRole.ContactId], [ColumnRole.Open, ColumnRole.Balance, ColumnRole.Amount, ColumnRole.Total]);

    /// <summary>A trial balance.</summary>
    public static Shape Balances { get; } = new(
        "balances", "A row an account, with its balance on a day or its movement in each month",
        [ColumnRole.Account, ColumnRole.AccountName]);

    /// <summary>What was planned.</summary>
    public static Shape Budget { get; } = new(
        "budget", "A row an account, with what is planned for each month", [ColumnRole.Account, ColumnRole.AccountName]);

    /// <summary>A chart of accounts.</summary>
    public static Shape Accounts { get; } = new(
        "accounts", "A row an account of the chart", [ColumnRole.Account, ColumnRole.Code, ColumnRole.AccountName]);

    /// <summary>Customers and suppliers.</summary>
    public static Shape Contacts { get; } = new("contacts", "A row a customer or a supplier", [ColumnRole.Contact, ColumnRole.OwnName]);

    /// <summary>Items.</summary>
    public static Shape Items { get; } = new("items", "A row an item that is bought or sold", Named);

    /// <summary>Projects.</summary>
    public static Shape Projects { get; } = new("projects", "A row a project", Named);

    /// <summary>Tax codes.</summary>
    public static Shape TaxCodes { get; } = new(
        "tax-codes", "A row a tax code with its rate", [ColumnRole.TaxCode, ColumnRole.Code], [ColumnRole.Rate]);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Shape> All { get; } =
    [
        Journal, Ledger, SingleEntry, Invoices, Bills, Credits, InvoiceLines, Payments, OpenItems, Balances, Budget, Accounts, Contacts,
        Items, Projects, TaxCodes,
    ];

    /// <summary>Whether rows become documents, rather than records of a list or budgets.</summary>
    public bool HasDocuments => this != Budget && this != Accounts && this != Contacts && this != Items && this != Projects
        && this != TaxCodes;

    /// <summary>Whether there are columns for all that it needs.</summary>
    public bool Fits(IReadOnlyCollection<ColumnRole> roles) => Needs.All(group => group.Any(roles.Contains));
}
