using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>A rule above a cell.</summary>
internal enum CellRule
{
    /// <summary>None.</summary>
    None,

    /// <summary>Thin: above a total.</summary>
    Thin,

    /// <summary>Thin above and double below: what the whole report comes to.</summary>
    Double,

    /// <summary>Thin below: under the headings of columns.</summary>
    Below,
}

/// <summary>How a cell looks.</summary>
/// <param name="Format">How its number is written; nothing for text.</param>
internal readonly record struct CellLook(CellFormat? Format = null)
{
    /// <summary>Whether it is bold.</summary>
    public bool Bold { get; init; }

    /// <summary>Whether it is the title.</summary>
    public bool IsTitle { get; init; }

    /// <summary>Whether it leads somewhere.</summary>
    public bool IsLink { get; init; }

    /// <summary>Where in its column it stands; where the program has it, where nothing is said.</summary>
    public ColumnAlign? Align { get; init; }

    /// <summary>Whether its text is broken into lines.</summary>
    public bool Wraps { get; init; }

    /// <summary>How far it is indented.</summary>
    public int Indent { get; init; }

    /// <summary>The rule above it.</summary>
    public CellRule Rule { get; init; }

    /// <summary>Whether it must stay text though it begins like a formula.</summary>
    public bool IsQuoted { get; init; }
}
