namespace Vlei.Records.Maps;

/// <summary>How rows of a file are put together into documents.</summary>
public enum DocumentGrouping
{
    /// <summary>Rows with the same number.</summary>
    Number,

    /// <summary>Rows with the same number and day.</summary>
    NumberAndDay,

    /// <summary>Rows that follow one another, until they sum to zero.</summary>
    Balance,

    /// <summary>All rows of a day.</summary>
    Day,
}

/// <summary>What the sign of an amount says.</summary>
public enum AmountSigns
{
    /// <summary>Positive amounts are debits.</summary>
    Debit,

    /// <summary>Positive amounts are credits.</summary>
    Credit,

    /// <summary>Positive amounts are what an account of its type usually has: debits of assets and costs, credits of the others.</summary>
    Natural,
}

/// <summary>How files of one kind are read: what <c>maps/NAME.toml</c> says.</summary>
public sealed record SourceMap
{
    /// <summary>The names of the groupings, as maps have them.</summary>
    public static IReadOnlyList<string> Groupings { get; } = ["number", "number-and-day", "balance", "day"];

    /// <summary>The names of what signs can say, as maps have them.</summary>
    public static IReadOnlyList<string> SignNames { get; } = ["debit", "credit", "natural"];

    /// <summary>Its name.</summary>
    public required string Name { get; init; }

    /// <summary>Where it is kept, for messages.</summary>
    public required string Path { get; init; }

    /// <summary>What the rows are.</summary>
    public required Shape Shape { get; init; }

    /// <summary>The heading of the column that is taken as each role.</summary>
    public required IReadOnlyDictionary<ColumnRole, string> Columns { get; init; }

    /// <summary>The heading of the column of each tag.</summary>
    public IReadOnlyDictionary<string, string> Tags { get; init; } = new Dictionary<string, string>();

    /// <summary>The sheet of a workbook; nothing for the one whose headings fit.</summary>
    public string? Sheet { get; init; }

    /// <summary>The encoding of a text; nothing to look at its bytes.</summary>
    public string? Encoding { get; init; }

    /// <summary>The separator of a text; nothing to look at its lines.</summary>
    public char? Separator { get; init; }

    /// <summary>The order of the parts of a day; nothing where it could not be decided.</summary>
    public DateOrder? Dates { get; init; }

    /// <summary>The decimal mark; nothing where it could not be decided.</summary>
    public char? DecimalMark { get; init; }

    /// <summary>How rows are put together into documents.</summary>
    public DocumentGrouping Grouping { get; init; }

    /// <summary>What ids of documents begin with.</summary>
    public string Prefix { get; init; } = "";

    /// <summary>Whether amounts are with suppliers: bills, payments made, what is owed.</summary>
    public bool IsPurchase { get; init; }

    /// <summary>What the signs of amounts and balances say, where there are no columns for debits and credits.</summary>
    public AmountSigns Signs { get; init; }

    /// <summary>Whether a grid of months has balances at their ends, rather than what moved in them.</summary>
    public bool HasBalances { get; init; }

    /// <summary>The day of balances or open items, where the file does not say it.</summary>
    public DateOnly? Day { get; init; }

    /// <summary>Accounts that rows are posted to where they do not say so themselves, by what for: <see cref="Purposes"/>.</summary>
    public IReadOnlyDictionary<string, string> Posting { get; init; } = new Dictionary<string, string>();

    /// <summary>What accounts can be posted to for.</summary>
    public static IReadOnlyList<string> Purposes { get; } =
        ["money", "receivable", "payable", "income", "expense", "tax", "opening"];

    /// <summary>What words of the file for types of accounts stand for.</summary>
    public IReadOnlyDictionary<string, string> Types { get; init; } = new Dictionary<string, string>();

    /// <summary>Which account of the book is meant by what stands in the file.</summary>
    public IReadOnlyDictionary<string, string> Accounts { get; init; } = new Dictionary<string, string>();

    /// <summary>Which contact of the book is meant by what stands in the file.</summary>
    public IReadOnlyDictionary<string, string> Contacts { get; init; } = new Dictionary<string, string>();

    /// <summary>What columns must add up to, by role or by <c>rows</c>; written by hand.</summary>
    public IReadOnlyDictionary<string, string> Proof { get; init; } = new Dictionary<string, string>();

    /// <summary>On which line of its file each key stands, for messages; none where it was just made.</summary>
    public IReadOnlyDictionary<string, long> Lines { get; init; } = new Dictionary<string, long>();

    /// <summary>The place of a key, for messages: <c>maps/journal.toml:12</c>.</summary>
    public string PlaceOf(string key) => Lines.TryGetValue(key, out var line) ? $"{Path}:{line}" : Path;
}
