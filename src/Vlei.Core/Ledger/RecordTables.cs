namespace Vlei.Core.Ledger;

/// <summary>Every kind of record that a book holds, in an order in which each refers only to itself and those before it.</summary>
public static class RecordTables
{
    /// <summary>The chart of accounts.</summary>
    public static RecordTable Accounts { get; } = new("accounts", "account",
    [
        Id("code", "The code by which the account is known"),
        Text("name", "Its name") with { Required = true },
        Choice("type", "What it is", AccountTypes.Names) with { Required = true },
        Reference("parent", "accounts", "The account that it is part of, of the same type"),
        Active,
        Choice("cash_flow", "Where the cash flow statement shows its changes", ["operating", "investing", "financing"]),
    ])
    { Id = "code" };

    /// <summary>Customers, suppliers, employees and others.</summary>
    public static RecordTable Contacts { get; } = new("contacts", "contact",
    [
        Id("id", "The id by which the contact is known"),
        Text("name", "Its name") with { Required = true },
        Choice("kind", "What it is to us", ["customer", "supplier", "both", "employee", "other"]) with { Required = true },
        Text("email", "Where mail goes"),
        Text("phone", "Where to call"),
        Text("address", "The postal address"),
        new RecordField("terms_days", FieldType.Integer, "Days from a document's date until it is due"),
        Active,
    ])
    { Id = "id" };

    /// <summary>What is bought and sold.</summary>
    public static RecordTable Items { get; } = new("items", "item",
    [
        Id("id", "The id by which the item is known"),
        Text("name", "Its name") with { Required = true },
        Choice("kind", "What it is", ["stock", "service", "other"]),
        Text("unit", "What its quantity counts"),
        Active,
    ])
    { Id = "id" };

    /// <summary>Jobs that income and costs are gathered for.</summary>
    public static RecordTable Projects { get; } = new("projects", "project",
    [
        Id("id", "The id by which the project is known"),
        Text("name", "Its name") with { Required = true },
        Reference("contact", "contacts", "Whom it is done for"),
        Active,
    ])
    { Id = "id" };

    /// <summary>Parts of the business.</summary>
    public static RecordTable Departments { get; } = new("departments", "department",
    [
        Id("id", "The id by which the department is known"),
        Text("name", "Its name") with { Required = true },
        Active,
    ])
    { Id = "id" };

    /// <summary>Sales tax codes.</summary>
    public static RecordTable TaxCodes { get; } = new("tax_codes", "tax code",
    [
        Id("code", "The code by which the tax is known"),
        Text("name", "Its name") with { Required = true },
        new RecordField("rate", FieldType.Decimal, "Percent of the base") { Required = true },
        Choice("direction", "Which side it stands on", ["sales", "purchases", "both"]),
    ])
    { Id = "code" };

    /// <summary>Invoices, bills, receipts, journals and the rest.</summary>
    public static RecordTable Documents { get; } = new("documents", "document",
    [
        Id("id", "The id by which the document is known"),
        Choice("kind", "What it is", DocumentKinds.Names) with { Required = true },
        new RecordField("date", FieldType.Date, "The day that it counts") { Required = true },
        new RecordField("due", FieldType.Date, "The day by which it should be settled"),
        Text("number", "The number that is printed on it"),
        Reference("contact", "contacts", "Whom it is with"),
        Text("reference", "What the other side calls it"),
        Text("memo", "A note"),
        Text("batch", "The batch that it was entered with"),
        new RecordField("terms_days", FieldType.Integer, "Days until it is due"),
        new RecordField("created_at", FieldType.Moment, "When it was entered"),
        Text("created_by", "Who entered it"),
        new RecordField("modified_at", FieldType.Moment, "When it was last changed"),
        Text("modified_by", "Who last changed it"),
        new RecordField("sent_at", FieldType.Moment, "When it was sent"),
    ])
    { Id = "id" };

    /// <summary>The lines of the documents; those of one document sum to zero.</summary>
    public static RecordTable Lines { get; } = new("lines", "line",
    [
        Reference("document", "documents", "The document that it is part of") with { Required = true },
        Reference("account", "accounts", "The account that it is posted to") with { Required = true },
        new RecordField("amount", FieldType.Money, "Debit positive, credit negative") { Required = true },
        new RecordField("line", FieldType.Integer, "Its place in the document, from 1; as they come where it is empty"),
        Reference("contact", "contacts", "Its contact; the document's where it is empty"),
        Reference("item", "items", "What was bought or sold"),
        new RecordField("quantity", FieldType.Decimal, "How much of the item"),
        new RecordField("unit_price", FieldType.Decimal, "The price of one"),
        Reference("tax_code", "tax_codes", "The tax that it is part of"),
        Choice("tax_part", "Whether it is what the tax is counted from, or the tax; base where it is empty", ["base", "tax"]),
        Reference("project", "projects", "The job that it is for"),
        Reference("department", "departments", "The part of the business that it is for"),
        Text("memo", "A note"),
    ]);

    /// <summary>What was set against what.</summary>
    public static RecordTable Settlements { get; } = new("settlements", "settlement",
    [
        Reference("from", "documents", "One of the two documents") with { Required = true },
        Reference("to", "documents", "The other one") with { Required = true },
        new RecordField("amount", FieldType.Money, "How much; positive") { Required = true },
        new RecordField("date", FieldType.Date, "The day that it was done; the later of the documents' where it is empty"),
    ]);

    /// <summary>What was planned.</summary>
    public static RecordTable Budgets { get; } = new("budgets", "budget",
    [
        Reference("account", "accounts", "The account that it is for") with { Required = true },
        new RecordField("month", FieldType.Month, "The month that it is for") { Required = true },
        new RecordField("amount", FieldType.Money, "As the account's section shows it: income and costs both positive")
        {
            Required = true,
        },
        Reference("project", "projects", "The job that it is for"),
        Reference("department", "departments", "The part of the business that it is for"),
    ]);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<RecordTable> All { get; } =
        [Accounts, Contacts, Items, Projects, Departments, TaxCodes, Documents, Lines, Settlements, Budgets];

    /// <summary>The kinds that documents refer to: accounts, contacts and the like.</summary>
    public static IReadOnlyList<RecordTable> Lists { get; } = [Accounts, Contacts, Items, Projects, Departments, TaxCodes];

    private static RecordField Active =>
        new("active", FieldType.Boolean, "Whether it is still used") { Default = "true" };

    /// <summary>The table of that name. Throws <see cref="ArgumentException"/> where there is none.</summary>
    public static RecordTable Named(string name) =>
        All.FirstOrDefault(table => table.Name == name)
        ?? throw new ArgumentException($"There is no table {name}.", nameof(name));

    private static RecordField Id(string name, string meaning) => Text(name, meaning) with { Required = true };

    private static RecordField Text(string name, string meaning) => new(name, FieldType.Text, meaning);

    private static RecordField Choice(string name, string meaning, IReadOnlyList<string> choices) =>
        new(name, FieldType.Choice, meaning) { Choices = choices };

    private static RecordField Reference(string name, string target, string meaning) =>
        new(name, FieldType.Reference, meaning) { Target = target };
}
