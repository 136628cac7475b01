using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The tables whose rows are the records that everything else refers to.</summary>
public static class RecordLists
{
    private static readonly FieldList<ContactRows> OfContacts = new()
    {
        { Self(RecordTables.Contacts, "contact"), (rows, _) => rows.Keys },
        {
            new("receivable", FieldType.Money, "What it owes us at the end of the day; credits and money on account negative"),
            (rows, _) => [.. rows.Keys.Select(contact => rows.Sums.Value.GetValueOrDefault((AccountType.Receivable, (ContactKey)contact)))]
        },
        {
            new("payable", FieldType.Money, "What we owe it at the end of the day"),
            (rows, _) => [.. rows.Keys.Select(contact => -rows.Sums.Value.GetValueOrDefault((AccountType.Payable, (ContactKey)contact)))]
        },
    };

    private static readonly FieldList<(long[] Keys, FigureSums Sums, Figure Figure)> OfAccounts = new()
    {
        { Self(RecordTables.Accounts, "account"), (rows, _) => rows.Keys },
        {
            new("balance", FieldType.Money, "The sum of all postings to it up to the day; debit positive"),
            (rows, _) => [.. rows.Keys.Select(account => rows.Sums.Net(rows.Figure, (AccountKey)account).MinorUnits)]
        },
    };

    /// <summary>Customers, suppliers and others, with what they owe and are owed at the end of a day.</summary>
    public static TableDefinition Contacts { get; } = Of(
        RecordTables.Contacts, "contact", "Customers, suppliers and others, with balances") with
    {
        Fields = [.. OfContacts],
        Columns = ["name", "kind", "email", "phone", "address", "receivable", "payable"],
        IsOfMoment = true,
        Read = (context, range) => KeysOf(context.Ledger, RecordTables.Contacts) is var keys
            ? [OfContacts.BlockOf(new ContactRows(keys, Balances(context.Ledger, range.To)), keys.Length)] : [],
    };

    /// <summary>The chart of accounts, with balances at the end of a day.</summary>
    public static TableDefinition Accounts { get; } = Of(
        RecordTables.Accounts, "account", "The chart of accounts, and what was ever posted") with
    {
        Fields = [.. OfAccounts],
        Columns = ["name", "type", "parent", "balance"],
        IsOfMoment = true,
        HasBasis = true,
        Read = (context, range) =>
        {
            var (keys, figure) = (KeysOf(context.Ledger, RecordTables.Accounts), new Figure(Postings.Of(context.Basis), range));
            return [OfAccounts.BlockOf((keys, FigureSums.Of(context.Ledger, [figure], Selection.Everything, null), figure), keys.Length)];
        },
    };

    /// <summary>What is bought and sold.</summary>
    public static TableDefinition Items { get; } = Of(RecordTables.Items, "item", "What is bought and sold");

    /// <summary>Jobs.</summary>
    public static TableDefinition Projects { get; } = Of(RecordTables.Projects, "project", "Jobs that income and costs are gathered for");

    /// <summary>Parts of the business.</summary>
    public static TableDefinition Departments { get; } = Of(RecordTables.Departments, "department", "Parts of the business");

    /// <summary>Tax codes.</summary>
    public static TableDefinition TaxCodes { get; } = Of(RecordTables.TaxCodes, "tax-code", "Sales tax codes and their rates");

    private static TableDefinition Of(RecordTable table, string self, string meaning)
    {
        var own = new FieldList<long[]> { { Self(table, self), (keys, _) => keys } };
        return new TableDefinition
        {
            Name = table.Name.Replace('_', '-'),
            Meaning = meaning,
            Fields = [.. own],
            Columns = [.. table.Fields.Where(field => field.Name != table.Id).Select(field => field.Name.Replace('_', '-'))],
            Key = [$"{self}.{table.Id}"],
            Self = self,
            IsOfMoment = true,
            Read = (context, _) => KeysOf(context.Ledger, table) is var keys ? [own.BlockOf(keys, keys.Length)] : [],
        };
    }

    private static TableField Self(RecordTable table, string name) =>
        TableField.Reference(name, table, $"The {name.Replace('-', ' ')} itself");

    private static long[] KeysOf(ILedger ledger, RecordTable table) =>
        [.. ledger.ReadRecords(table, []).Select(record => (long)record.Key)];

    private static Lazy<Dictionary<(AccountType, ContactKey), long>> Balances(ILedger ledger, DateOnly until)
    {
        var types = ledger.Accounts.ToDictionary(account => account.Key, account => account.Type);
        return new Lazy<Dictionary<(AccountType, ContactKey), long>>(() => ledger.ControlItems(until)
            .GroupBy(item => (types[item.Account], item.Contact))
            .ToDictionary(items => items.Key, items => items.Aggregate(0L, (sum, item) => checked(sum + item.Total.MinorUnits))));
    }

    private sealed record ContactRows(long[] Keys, Lazy<Dictionary<(AccountType, ContactKey), long>> Sums);
}
