namespace Vlei.Core.Reports;

/// <summary>What a layout file says, before anybody asks whether it makes sense.</summary>
/// <param name="Name">What the file is called.</param>
/// <param name="Statement">The kind of statement that it orders.</param>
/// <param name="Title">The title of the statement; nothing for the usual one.</param>
/// <param name="Rows">Its rows, from the top down.</param>
public sealed record LayoutText(string Name, string Statement, string? Title, IReadOnlyList<LayoutRowText> Rows);

/// <summary>One row of a layout file.</summary>
public sealed record LayoutRowText
{
    /// <summary>Where it stands, for messages: the file and the line.</summary>
    public required string Place { get; init; }

    /// <summary>The name by which machines and formulas know it.</summary>
    public required string Key { get; init; }

    /// <summary>What it is called.</summary>
    public required string Label { get; init; }

    /// <summary>The key of the heading that it stands under; nothing at the top.</summary>
    public string? Under { get; init; }

    /// <summary>Which accounts are its; each as in <c>--only</c>, or a list of codes.</summary>
    public IReadOnlyList<string> Accounts { get; init; } = [];

    /// <summary>Of a tax return: the codes of its box; all of them where none is named.</summary>
    public IReadOnlyList<string> TaxCodes { get; init; } = [];

    /// <summary>Of a tax return: sales or purchases; nothing for both.</summary>
    public string? Side { get; init; }

    /// <summary>Of a tax return: what tax is counted from, or the tax; nothing for both.</summary>
    public string? Part { get; init; }

    /// <summary>Whether it is a box of a tax return.</summary>
    public bool IsOfTax => TaxCodes.Count > 0 || Side is not null || Part is not null;

    /// <summary>Which of those are not.</summary>
    public IReadOnlyList<string> Except { get; init; } = [];

    /// <summary>Whether its accounts are those that no other row has.</summary>
    public bool IsRest { get; init; }

    /// <summary>Whether each account has a row of its own.</summary>
    public bool IsEach { get; init; } = true;

    /// <summary>Whether a heading stands above its accounts, and a total below them.</summary>
    public bool HasHeading { get; init; } = true;

    /// <summary><c>debit</c> or <c>credit</c>: what is shown as positive; nothing where the accounts say it.</summary>
    public string? Sign { get; init; }

    /// <summary>What no single account holds, by its name.</summary>
    public string? Computed { get; init; }

    /// <summary>A formula over the keys of other rows.</summary>
    public string? Formula { get; init; }

    /// <summary><c>money</c>, <c>percent</c> or <c>ratio</c>: what the formula gives.</summary>
    public string Show { get; init; } = "money";

    /// <summary>Rows of which one must be shown for this one to be.</summary>
    public IReadOnlyList<string> OnlyWith { get; init; } = [];

    /// <summary>Whether it is left out where only some of the records are looked at.</summary>
    public bool IsOfWhole { get; init; }
}
