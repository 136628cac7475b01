using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The tables whose rows are the records that everything else refers to.</summary>
public static class RecordLists
{
    /// <summary>Customers, suppliers and others, with what they owe and are owed at the end of a day.</summary>
    public static TableDefinition Contacts { get; } = Of(RecordTables.Contacts, "contact", "Customers, suppliers and others, with what they owe us and we owe them") with
    {
        Fields =
        [
            Self(RecordTables.Contacts, "contact"),
            new("receivable", FieldType.Money, "What it owes us at the end of the day; credits and money on account negative"),
            new("payable", FieldType.Money, "What we owe it at the end of the day"),
        ],
        Columns = ["name", "kind", "email", "phone", "address", "receivable", "payable"],
        IsOfMoment = true,
        Read = (context, range) => Block(context.Ledger, RecordTables.Contacts, "contact", Balances(context.Ledger, range.To)),
    };

    /// <summary>The chart of accounts, with balances at the end of a day.</summary>
    public static TableDefinition Accounts { get; } = Of(RecordTables.Accounts, "account", "The chart of accounts, with what was ever posted to each") with
    {
        Fields =
        [
            Self(RecordTables.Accounts, "account"),
            new("balance", FieldType.Money, "The sum of all postings to it up to the day; debit positive"),
        ],
        Columns = ["name", "type", "parent", "balance"],
        IsOfMoment = true,
        HasBasis = true,
        Read = (context, range) => Block(context.Ledger, RecordTables.Accounts, "account", AccountBalances(context, range)),
    };

    /// <summary>What is bought and sold.</summary>
    public static TableDefinition Items { get; } = Of(RecordTables.Items, "item", "What is bought and sold");

    /// <summary>Jobs.</summary>
    public static TableDefinition Projects { get; } = Of(RecordTables.Projects, "project", "Jobs that income and costs are gathered for");

    /// <summary>Parts of the business.</summary>
    public static TableDefinition Departments { get; } = Of(RecordTables.Departments, "department", "Parts of the business");

    /// <summary>Tax codes.</summary>
    public static TableDefinition TaxCodes { get; } = Of(RecordTables.TaxCodes, "tax-code", "Sales tax codes and their rates");

    private static TableDefinition Of(RecordTable table, string self, string meaning) => new()
    {
        Name = table.Name.Replace('_', '-'),
        Meaning = meaning,
        Fields = [Self(table, self)],
        Columns = [.. table.Fields.Where(field => field.Name != table.Id).Select(field => field.Name.Replace('_', '-'))],
        Key = [$"{self}.{table.Id}"],
        Self = self,
        IsOfMoment = true,
        Read = (context, _) => Block(context.Ledger, table, self, _ => null),
    };

    private static TableField Self(RecordTable table, string name) => TableField.Reference(name, table, $"The {name.Replace('-', ' ')} itself");

    private static IEnumerable<RowBlock> Block(ILedger ledger, RecordTable table, string self, Func<string, Func<long, long>?> figures)
    {
        long[] keys = [.. ledger.ReadRecords(table, []).Select(record => (long)record.Key)];
        return [new RowBlock(keys.Length, name => name == self ? keys : [.. keys.Select(figures(name)!)])];
    }

    private static Func<string, Func<long, long>?> Balances(ILedger ledger, DateOnly until)
    {
        var types = ledger.Accounts.ToDictionary(account => account.Key, account => account.Type);
        var sums = new Lazy<Dictionary<(AccountType, int), long>>(() => ledger.ControlItems(until)
            .GroupBy(item => (types[item.Account], item.Contact))
            .ToDictionary(items => items.Key, items => items.Aggregate(0L, (sum, item) => checked(sum + item.Total.MinorUnits))));
        return name => name == "receivable"
            ? contact => sums.Value.GetValueOrDefault((AccountType.Receivable, (int)contact))
            : contact => -sums.Value.GetValueOrDefault((AccountType.Payable, (int)contact));
    }

    private static Func<string, Func<long, long>?> AccountBalances(TableContext context, DateRange range)
    {
        var figure = new Figure(Postings.Of(context.Basis), range);
        var sums = FigureSums.Of(context.Ledger, [figure], PostingFilter.Everything, null);
        return _ => account => sums.Net(figure, (int)account).MinorUnits;
    }
}
