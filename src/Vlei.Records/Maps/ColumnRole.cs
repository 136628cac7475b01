namespace Vlei.Records.Maps;

/// <summary>What the values of a column must look like.</summary>
public enum RoleContent
{
    /// <summary>Any text.</summary>
    Text,

    /// <summary>Days.</summary>
    Day,

    /// <summary>Numbers.</summary>
    Number,
}

/// <summary>What a column of somebody else's file can be taken as.</summary>
/// <param name="name">The word for it in a map.</param>
/// <param name="content">What its values must look like.</param>
/// <param name="meaning">What it says, in a sentence.</param>
public sealed class ColumnRole(string name, RoleContent content, string meaning)
{
    /// <summary>The word for it in a map.</summary>
    public string Name { get; } = name;

    /// <summary>Its place among all roles.</summary>
    internal int Place { get; private set; } = -1;

    /// <summary>What its values must look like.</summary>
    public RoleContent Content { get; } = content;

    /// <summary>What it says, in a sentence.</summary>
    public string Meaning { get; } = meaning;

    /// <summary>The day of a document.</summary>
    public static ColumnRole Date { get; } = new("date", RoleContent.Day, "The day that the document counts.");

    /// <summary>The day by which it should be settled.</summary>
    public static ColumnRole Due { get; } = new("due", RoleContent.Day, "The day by which it should be settled.");

    /// <summary>The number of a document.</summary>
    public static ColumnRole Document { get; } = new(
        "document", RoleContent.Text, "The number of the invoice, the payment, the journal: rows with the same one belong together.");

    /// <summary>What kind of document it is.</summary>
    public static ColumnRole Kind { get; } = new("kind", RoleContent.Text, "What kind of document it is, in words.");

    /// <summary>The customer or supplier, by name.</summary>
    public static ColumnRole Contact { get; } = new("contact", RoleContent.Text, "The customer, the supplier, the payee: a name or an id.");

    /// <summary>The customer's or supplier's number.</summary>
    public static ColumnRole ContactId { get; } = new("contact-id", RoleContent.Text, "The number of the customer or supplier.");

    /// <summary>The account.</summary>
    public static ColumnRole Account { get; } = new(
        "account", RoleContent.Text, "The account, or the category: a code, a name, or both in one cell.");

    /// <summary>The name of the account.</summary>
    public static ColumnRole AccountName { get; } = new("account-name", RoleContent.Text, "The name of the account, beside its code.");

    /// <summary>The account on the other side.</summary>
    public static ColumnRole ContraAccount { get; } = new(
        "contra-account", RoleContent.Text, "The account on the other side of the same row.");

    /// <summary>Debits.</summary>
    public static ColumnRole Debit { get; } = new("debit", RoleContent.Number, "What is debited.");

    /// <summary>Credits.</summary>
    public static ColumnRole Credit { get; } = new("credit", RoleContent.Number, "What is credited.");

    /// <summary>An amount with its sign.</summary>
    public static ColumnRole Amount { get; } = new(
        "amount", RoleContent.Number, "An amount; its sign, or the column side, says which way.");

    /// <summary>Whether an amount is a debit.</summary>
    public static ColumnRole Side { get; } = new("side", RoleContent.Text, "Whether the amount is a debit or a credit: D or C, DR or CR.");

    /// <summary>A balance.</summary>
    public static ColumnRole Balance { get; } = new("balance", RoleContent.Number, "The balance behind the row, which proves it.");

    /// <summary>A note.</summary>
    public static ColumnRole Memo { get; } = new("memo", RoleContent.Text, "What the row says in words.");

    /// <summary>What the other side calls it.</summary>
    public static ColumnRole Reference { get; } = new("reference", RoleContent.Text, "What the other side calls the document.");

    /// <summary>The amount without tax.</summary>
    public static ColumnRole Net { get; } = new("net", RoleContent.Number, "The amount without tax.");

    /// <summary>The tax.</summary>
    public static ColumnRole Tax { get; } = new("tax", RoleContent.Number, "The tax.");

    /// <summary>The amount with tax.</summary>
    public static ColumnRole Total { get; } = new("total", RoleContent.Number, "The amount with tax.");

    /// <summary>What is open of a document.</summary>
    public static ColumnRole Open { get; } = new("open", RoleContent.Number, "What is still open of the document.");

    /// <summary>The code of the tax.</summary>
    public static ColumnRole TaxCode { get; } = new("tax-code", RoleContent.Text, "The code of the tax.");

    /// <summary>The rate of a tax.</summary>
    public static ColumnRole Rate { get; } = new("rate", RoleContent.Number, "The rate of the tax, in percent.");

    /// <summary>What was bought or sold.</summary>
    public static ColumnRole Item { get; } = new("item", RoleContent.Text, "What was bought or sold: a code or a name.");

    /// <summary>How much of it.</summary>
    public static ColumnRole Quantity { get; } = new("quantity", RoleContent.Number, "How much of the item.");

    /// <summary>The price of one.</summary>
    public static ColumnRole UnitPrice { get; } = new("unit-price", RoleContent.Number, "The price of one.");

    /// <summary>What a payment pays.</summary>
    public static ColumnRole Pays { get; } = new("pays", RoleContent.Text, "The number of the document that is paid; several with commas.");

    /// <summary>Money that came in.</summary>
    public static ColumnRole MoneyIn { get; } = new("money-in", RoleContent.Number, "Money that came in.");

    /// <summary>Money that went out.</summary>
    public static ColumnRole MoneyOut { get; } = new("money-out", RoleContent.Number, "Money that went out.");

    /// <summary>The account that money went through.</summary>
    public static ColumnRole MoneyAccount { get; } = new("money-account", RoleContent.Text, "The bank, the till or the card.");

    /// <summary>The project.</summary>
    public static ColumnRole Project { get; } = new("project", RoleContent.Text, "The project: a code or a name.");

    /// <summary>The department.</summary>
    public static ColumnRole Department { get; } = new("department", RoleContent.Text, "The department: a code or a name.");

    /// <summary>A code of a list.</summary>
    public static ColumnRole Code { get; } = new("code", RoleContent.Text, "The code of what is listed.");

    /// <summary>A name of a list.</summary>
    public static ColumnRole OwnName { get; } = new("name", RoleContent.Text, "The name of what is listed.");

    /// <summary>The type of an account.</summary>
    public static ColumnRole Type { get; } = new("type", RoleContent.Text, "What the account, the contact or the item is, in words.");

    /// <summary>The account above.</summary>
    public static ColumnRole Parent { get; } = new("parent", RoleContent.Text, "The account that it is part of.");

    /// <summary>An address for mail.</summary>
    public static ColumnRole Email { get; } = new("email", RoleContent.Text, "Where mail goes.");

    /// <summary>A telephone number.</summary>
    public static ColumnRole Phone { get; } = new("phone", RoleContent.Text, "Where to call.");

    /// <summary>A postal address.</summary>
    public static ColumnRole Address { get; } = new("address", RoleContent.Text, "The postal address.");

    /// <summary>Days until a document is due.</summary>
    public static ColumnRole Terms { get; } = new("terms", RoleContent.Number, "Days from a document's date until it is due.");

    /// <summary>What a quantity counts.</summary>
    public static ColumnRole Unit { get; } = new("unit", RoleContent.Text, "What a quantity counts.");

    /// <summary>The currency.</summary>
    public static ColumnRole Currency { get; } = new("currency", RoleContent.Text, "The currency, which must be the book's.");

    /// <summary>All of them.</summary>
    public static IReadOnlyList<ColumnRole> All { get; } = Numbered(
    [
        Date, Due, Document, Kind, Contact, ContactId, Account, AccountName, ContraAccount, Debit, Credit, Amount, Side, Balance, Memo,
        Reference, Net, Tax, Total, Open, TaxCode, Rate, Item, Quantity, UnitPrice, Pays, MoneyIn, MoneyOut, MoneyAccount, Project,
        Department, Code, OwnName, Type, Parent, Email, Phone, Address, Terms, Unit, Currency,
    ]);

    private static ColumnRole[] Numbered(ColumnRole[] roles)
    {
        for (var place = 0; place < roles.Length; place++)
        {
            roles[place].Place = place;
        }

        return roles;
    }

    /// <summary>The role of that name; nothing where there is none.</summary>
    public static ColumnRole? Find(string name) => All.FirstOrDefault(role => role.Name == name);
}
