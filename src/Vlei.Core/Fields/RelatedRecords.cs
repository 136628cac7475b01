using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>
/// The records that rows refer to. Those of small tables are read whole, once; documents are many, and are looked up for the rows at
/// hand.
/// </summary>
/// <param name="ledger">The records.</param>
internal sealed class RelatedRecords(ILedger ledger)
{
    private readonly Dictionary<(RecordTable Table, string Field), FieldCells> _whole = [];
    private readonly Dictionary<RecordTable, WordPool> _pools = [];

    /// <summary>Whether records of a table are looked up for the rows at hand alone.</summary>
    public static bool AreMany(RecordTable table) => table == RecordTables.Documents;

    /// <summary>What the documents of those keys have in a field.</summary>
    /// <param name="keys">A key per row, 0 for none.</param>
    /// <param name="field">The field.</param>
    public FieldCells OfDocuments(long[] keys, RecordField field) => CellsOf(field, ledger.OfDocuments(field, keys));

    /// <summary>What lines of documents have in a field.</summary>
    public FieldCells OfLines(RowSet rows, RecordField field) =>
        CellsOf(field, ledger.OfLines(field, rows.Column("document"), rows.Column("line")));

    /// <summary>What the records of a table have in a field, by key.</summary>
    public FieldCells Whole(RecordTable table, RecordField field)
    {
        if (!_whole.TryGetValue((table, field.Name), out var cells))
        {
            var records = ledger.ReadRecords(table, [field]).ToList();
            var values = new RecordValue[records.Select(record => record.Key).DefaultIfEmpty(0).Max() + 1];
            foreach (var (key, found) in records)
            {
                values[key] = found[0];
            }

            cells = CellsOf(field, values);
            _whole[(table, field.Name)] = cells = cells.Pool is { } pool && !pool.IsOfRecords
                ? cells with { Pool = new WordPool(pool.Words) } : cells;
        }

        return cells;
    }

    /// <summary>The keys of all records of a table, in their order.</summary>
    public static IEnumerable<int> KeysOf(ILedger ledger, RecordTable table) => ledger.ReadRecords(table, []).Select(record => record.Key);

    /// <summary>The records of a table as words, each under its key: what they are called, and their ids.</summary>
    public WordPool PoolOf(RecordTable table)
    {
        if (!_pools.TryGetValue(table, out var pool))
        {
            _pools[table] = pool = table == RecordTables.Accounts ? AccountPool() : new WordPool(ledger.Names(table));
        }

        return pool;
    }

    /// <summary>
    /// How records of those keys are chosen by a field, where that is not how it is shown: by a name with what is part of them,
    /// accounts by where the cash flow shows them, whether they say so or their type does.
    /// </summary>
    public Func<long[], FieldCells>? ChosenBy(RecordTable table, RecordField field)
    {
        if (field.Name == "name" && !AreMany(table))
        {
            return keys => new FieldCells(keys, PoolOf(table));
        }

        return table != RecordTables.Accounts ? null : field.Name switch
        {
            "type" => AccountsBy(AccountTypes.Names, account => (int)account.Type),
            "cash_flow" => AccountsBy(field.Choices, account => (int)account.Activity),
            _ => null,
        };
    }

    /// <summary>The documents of those keys, as words.</summary>
    public FieldCells Documents(long[] keys) => OfDocuments(keys, RecordTables.Documents.Fields[0]);

    // What accounts are is at hand, and need not be read.
    private Func<long[], FieldCells> AccountsBy(IReadOnlyList<string> words, Func<Account, int> wordOf)
    {
        var (pool, numbers) = (new WordPool(["", .. words]), new long[AccountKeys]);
        foreach (var account in ledger.Accounts)
        {
            numbers[account.Key.Value] = wordOf(account) + 1;
        }

        return keys => new FieldCells([.. keys.Select(key => key < numbers.Length ? numbers[key] : 0)], pool);
    }

    private int AccountKeys => ledger.Accounts.Select(account => account.Key.Value).DefaultIfEmpty(0).Max() + 1;

    private WordPool AccountPool()
    {
        var (words, ids, names) = (new string[AccountKeys], new string[AccountKeys], new string[AccountKeys]);
        var parents = new int[words.Length];
        foreach (var texts in new[] { words, ids, names })
        {
            Array.Fill(texts, "");
        }

        foreach (var account in ledger.Accounts)
        {
            var key = account.Key.Value;
            (words[key], ids[key], names[key]) = ($"{account.Code} {account.Name}", account.Code, account.Name);
            parents[key] = account.ParentKey?.Value ?? 0;
        }

        return new WordPool(words, ids, names, parents);
    }

    private FieldCells CellsOf(RecordField field, RecordValue[] values) => field.Type switch
    {
        FieldType.Reference when !AreMany(RecordTables.Named(field.Target!)) => new FieldCells(
            Array.ConvertAll(values, value => value.Number ?? 0), PoolOf(RecordTables.Named(field.Target!))),
        FieldType.Date => new FieldCells(Array.ConvertAll(values, value =>
            value.Text is { } text && Calendar.IsoText.TryDay(text, out var day) ? day.DayNumber : FieldCells.Nothing)),
        FieldType.Boolean =>
            WordPool.Of(Array.ConvertAll(values, value => value.Number switch { null => null, 0 => "false", _ => "true" })),
        FieldType.Money or FieldType.Decimal or FieldType.Integer =>
            new FieldCells(Array.ConvertAll(values, value => value.Number ?? FieldCells.Nothing)),
        // What a field can say is known, whether any record says it or not.
        FieldType.Choice => WordPool.Of([.. field.Choices, .. values.Select(value => value.Text)]) is var cells
            ? cells with { Numbers = cells.Numbers[field.Choices.Count..] } : default,
        _ => WordPool.Of(Array.ConvertAll(values, value => value.Text)),
    };
}
