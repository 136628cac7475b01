using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Fields;

/// <summary>What a table is read from.</summary>
/// <param name="Ledger">The records.</param>
/// <param name="Calendar">The book's calendar.</param>
/// <param name="Currency">The book's currency.</param>
/// <param name="Today">The day that period words are worked out from.</param>
/// <param name="Basis">Which postings count, where a table is of postings.</param>
public sealed record TableContext(
    ILedger Ledger, FiscalCalendar Calendar, Currency Currency, WorkingDay Today, AccountingBasis Basis)
{
    /// <summary>
    /// How many days each of some documents, by their keys, is open at the end of the days that are asked for;
    /// <see cref="FieldCells.Nothing"/> where one is not. Nothing where that is not to be known.
    /// </summary>
    public Func<long[], long[]>? DaysOpen { get; init; }

    /// <summary>Up to which day what was noted about documents is known; what was noted by their own day where it is nothing.</summary>
    public DateOnly? Known { get; init; }
}

/// <summary>
/// A table of records: what its rows are, which fields they have of their own, and how they are read. Fields of related
/// records need not be named: every reference leads to all fields of the record that it refers to.
/// </summary>
public sealed record TableDefinition
{
    /// <summary>Its name.</summary>
    public required string Name { get; init; }

    /// <summary>What its rows are, in a line.</summary>
    public required string Meaning { get; init; }

    /// <summary>The fields that it has of its own; the name of each is the name of its column in the blocks.</summary>
    public required IReadOnlyList<TableField> Fields { get; init; }

    /// <summary>Whether rows are documents, which a figure can be traced to.</summary>
    public bool IsOfDocuments { get; init; }

    /// <summary>Whether what is in it rests on settlements.</summary>
    public bool RestsOnSettlements { get; init; }

    /// <summary>
    /// The columns that are shown where nothing else is asked for: fields, each with a heading behind a colon where it has
    /// another.
    /// </summary>
    public required IReadOnlyList<string> Columns { get; init; }

    /// <summary>The field that a cross-table adds up where nothing else is asked for; rows are counted where it is nothing.</summary>
    public string? MainFigure { get; init; }

    /// <summary>Examples of what can be asked of it, for help.</summary>
    public IReadOnlyList<(string Options, string Meaning)> Examples { get; init; } = [];

    /// <summary>The fields that make up the key of a row.</summary>
    public required IReadOnlyList<string> Key { get; init; }

    /// <summary>The field that rows are called by; the first of their key where nothing is said.</summary>
    public string? Label { get; init; }

    /// <summary>What readers are told of its rows where there are any; nothing where they need not be told anything.</summary>
    public string? Note { get; init; }

    /// <summary>The field that says when a row counts; nothing where rows have no time.</summary>
    public string? Date { get; init; }

    /// <summary>
    /// The first and the last day of its rows, where those are not days of the records; it is shown whole unless a period is
    /// asked for.
    /// </summary>
    public Func<TableContext, DateRange>? Extent { get; init; }

    /// <summary>
    /// The reference that a row itself is, where rows are records: its fields are known without its name before them.
    /// </summary>
    public string? Self { get; init; }

    /// <summary>Whether it is asked for as of a day, with everything up to it, rather than for a period.</summary>
    public bool IsOfMoment { get; init; }

    /// <summary>
    /// Whether its rows are movements that only say something together: then numbers of single rows are nothing to choose by.
    /// </summary>
    public bool IsOfMovements { get; init; }

    /// <summary>Whether the basis says which rows there are.</summary>
    public bool HasBasis { get; init; }

    /// <summary>Whether rows are lines of documents, which have texts and tags of their own.</summary>
    public bool IsOfLines { get; init; }

    /// <summary>
    /// Where rows have their days and something of them may stay open, those from before some days of which anything is open at
    /// their end; nothing for other tables.
    /// </summary>
    public Func<TableContext, DateRange, IEnumerable<RowBlock>>? OpenBefore { get; init; }

    /// <summary>What readers are told where no row fits.</summary>
    public string WhenEmpty { get; init; } = "Nothing fits what is asked.";

    /// <summary>
    /// What a figure of its rows must come to where a block of them is taken whole; nothing where nothing is known of it.
    /// </summary>
    public TableTie? TiesTo { get; init; }

    /// <summary>The rows that count within the days, oldest first, block by block.</summary>
    public required Func<TableContext, DateRange, IEnumerable<RowBlock>> Read { get; init; }
}

/// <summary>What a figure of the rows of a table must come to.</summary>
/// <param name="Name">What must hold.</param>
/// <param name="Field">The field whose sum it is about; money.</param>
/// <param name="Of">What the rows of a block, by its place, must come to within the days.</param>
public sealed record TableTie(string Name, string Field, Func<TableContext, DateRange, int, Amount> Of);
