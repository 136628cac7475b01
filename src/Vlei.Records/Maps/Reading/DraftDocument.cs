namespace Vlei.Records.Maps.Reading;

/// <summary>A document as a file has it, before it is known to be whole.</summary>
internal sealed class DraftDocument
{
    /// <summary>Its id; empty where the file gives it none, and one is made of its content.</summary>
    public string Id { get; set; } = "";

    /// <summary>Its kind.</summary>
    public string Kind { get; init; } = "journal";

    /// <summary>Its day.</summary>
    public DateOnly Date { get; init; }

    /// <summary>The day by which it is due.</summary>
    public DateOnly? Due { get; init; }

    /// <summary>Its number.</summary>
    public string Number { get; init; } = "";

    /// <summary>The id of its contact.</summary>
    public string Contact { get; init; } = "";

    /// <summary>What the other side calls it.</summary>
    public string Reference { get; init; } = "";

    /// <summary>A note.</summary>
    public string Memo { get; init; } = "";

    /// <summary>The line of the file that it begins on.</summary>
    public long Line { get; init; }

    /// <summary>Its lines.</summary>
    public List<DraftLine> Lines { get; } = [];

    /// <summary>What it is tagged with.</summary>
    public List<(string Tag, string Value)> Tags { get; init; } = [];
}

/// <summary>A line of a document as a file has it.</summary>
internal sealed class DraftLine
{
    /// <summary>The code of its account.</summary>
    public required string Account { get; init; }

    /// <summary>What the file calls the account, which stays when the account gets a code.</summary>
    public string Said { get; init; } = "";

    /// <summary>Debit positive.</summary>
    public required decimal Amount { get; init; }

    /// <summary>The line of the file.</summary>
    public required long Line { get; init; }

    /// <summary>The column of the file that has its amount.</summary>
    public required int Column { get; init; }

    /// <summary>The id of its contact; empty for that of its document.</summary>
    public string Contact { get; init; } = "";

    /// <summary>The id of its item.</summary>
    public string Item { get; init; } = "";

    /// <summary>How much of it.</summary>
    public decimal? Quantity { get; init; }

    /// <summary>The price of one.</summary>
    public decimal? UnitPrice { get; init; }

    /// <summary>Its tax code.</summary>
    public string TaxCode { get; init; } = "";

    /// <summary>Whether it is the tax, rather than what it is counted from.</summary>
    public bool IsTax { get; init; }

    /// <summary>The id of its project.</summary>
    public string Project { get; init; } = "";

    /// <summary>The id of its department.</summary>
    public string Department { get; init; } = "";

    /// <summary>A note.</summary>
    public string Memo { get; init; } = "";
}
