using System.Collections.Immutable;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>What the figures of a column are.</summary>
public enum ColumnKind
{
    /// <summary>Money; a cell counts minor units of the report's currency.</summary>
    Money,

    /// <summary>A percentage; a cell counts ten-thousandths of one percent.</summary>
    Percent,

    /// <summary>A plain number, as one sum over another; a cell counts ten-thousandths.</summary>
    Ratio,

    /// <summary>A whole number, as of days.</summary>
    Count,

    /// <summary>How much of something; a cell counts millionths.</summary>
    Quantity,

    /// <summary>A day; a cell holds its number, counted from 1 January 0001.</summary>
    Date,

    /// <summary>Words.</summary>
    Text,
}

/// <summary>How closely a column belongs to the one before it, for where columns must be broken into blocks.</summary>
public enum ColumnTie
{
    /// <summary>It starts something of its own.</summary>
    None,

    /// <summary>It is what the one before is compared with.</summary>
    Compared,

    /// <summary>It says something about the one before.</summary>
    About,
}

/// <summary>A column of a report.</summary>
/// <param name="Key">The name by which machines know it; columns with the same key hold the same figures.</param>
/// <param name="Heading">What stands above it.</param>
/// <param name="Kind">What its figures are.</param>
/// <param name="Range">The days that it covers, where it stands for a stretch of time.</param>
public sealed record ReportColumn(string Key, string Heading, ColumnKind Kind, DateRange? Range = null)
{
    /// <summary>How closely it belongs to the one before it.</summary>
    public ColumnTie Tie { get; init; }

    /// <summary>Whether its figures are changes, which are marked as up, down or same.</summary>
    public bool IsChange { get; init; }

    /// <summary>How its figures follow from those of other columns; nothing where they do not.</summary>
    public ColumnWorking? Working { get; init; }

    /// <summary>Whether a total in it is the sum of the rows that count in that total.</summary>
    public bool AddsUp { get; init; }

    /// <summary>
    /// The columns whose figures it adds up in every row, by their keys, each as often as its sign says; nothing where it adds up none.
    /// </summary>
    public IReadOnlyList<(string Key, int Sign)>? MadeOf { get; init; }

    /// <summary>A column of figures that add up.</summary>
    public static ReportColumn Sum(string key, string heading, ColumnKind kind = ColumnKind.Money, DateRange? range = null) =>
        new(key, heading, kind, range) { AddsUp = true };

    /// <summary>Whether readers need not see it where it has no figure but zero; files have it all the same.</summary>
    public bool IsLeftOutWhenIdle { get; init; }

    /// <summary>Whether it is what was noted about documents, rather than what the records say.</summary>
    public bool IsNoted { get; init; }

    /// <summary>Whether it was asked for by name: readers see it, whatever is in it.</summary>
    public bool IsAskedFor { get; init; }

    /// <summary>The column of what one column has more than another.</summary>
    public static ReportColumn ChangeOf(ReportColumn current, ReportColumn earlier) =>
        new($"change({current.Key},{earlier.Key})", "Change", current.Kind)
        {
            IsChange = true, Tie = ColumnTie.About, Working = new ColumnWorking(current.Key, earlier.Key, null),
        };

    /// <summary>The same as a percentage of the earlier one.</summary>
    public static ReportColumn PercentChangeOf(ReportColumn current, ReportColumn earlier) =>
        new($"percent-change({current.Key},{earlier.Key})", "%", ColumnKind.Percent)
        {
            IsChange = true, Tie = ColumnTie.About, Working = new ColumnWorking(current.Key, earlier.Key, null),
        };

    /// <summary>The column of what a column is a percentage of.</summary>
    public static ReportColumn ShareOf(ShareOf whole, ReportColumn column) =>
        new($"share-of-{ReportOptions.NameOf(whole)}({column.Key})", $"Share of {ReportOptions.NameOf(whole)}", ColumnKind.Percent)
        {
            Tie = ColumnTie.About, Working = new ColumnWorking(column.Key, null, whole),
        };
}

/// <summary>How the figures of a column follow from those of others.</summary>
/// <param name="Of">The key of the column that it says something about.</param>
/// <param name="Earlier">The key of the column that this one is compared with; nothing for a percentage of a whole.</param>
/// <param name="Whole">What it is a percentage of; nothing for a change.</param>
public sealed record ColumnWorking(string Of, string? Earlier, ShareOf? Whole);

/// <summary>What a row of a report is.</summary>
public enum RowKind
{
    /// <summary>A heading, without figures.</summary>
    Heading,

    /// <summary>An account.</summary>
    Account,

    /// <summary>A record of a list: a posting, or a balance that postings start from.</summary>
    Record,

    /// <summary>Some records of a list together, which have no rows of their own.</summary>
    Group,

    /// <summary>The total of the rows right above it.</summary>
    Total,

    /// <summary>What the totals above it come to.</summary>
    Result,

    /// <summary>What the whole report comes to.</summary>
    GrandTotal,
}

/// <summary>A figure: nothing, or a whole number of what its column counts; or words.</summary>
public readonly record struct Cell
{
    // The least number of all stands for nothing, turned so that it is 0: there are very many cells, and most of each would be padding.
    private readonly long _units;

    /// <summary>Makes one. Throws <see cref="OverflowException"/> for the least number that there is.</summary>
    /// <param name="units">See <see cref="ColumnKind"/>; nothing for no figure.</param>
    /// <param name="words">The words, in a column of words.</param>
    public Cell(long? units, string? words = null)
    {
        Words = words;
        _units = units is not { } known ? 0 : known == long.MinValue ? throw new OverflowException() : known ^ long.MinValue;
    }

    /// <summary>The figure; see <see cref="ColumnKind"/>.</summary>
    public long? Units => _units == 0 ? null : _units ^ long.MinValue;

    /// <summary>The words, in a column of words.</summary>
    public string? Words { get; init; }

    /// <summary>Gives both.</summary>
    public void Deconstruct(out long? units, out string? words) => (units, words) = (Units, Words);

    /// <summary>No figure.</summary>
    public static Cell Empty => default;

    /// <summary>A sum of money.</summary>
    public static Cell Of(Amount amount) => new(amount.MinorUnits);

    /// <summary>A percentage, or nothing.</summary>
    public static Cell Of(Percentage? percentage) => new(percentage?.TenThousandths);

    /// <summary>A day.</summary>
    public static Cell Of(DateOnly day) => new(day.DayNumber);

    /// <summary>Words; nothing where there are none.</summary>
    public static Cell Of(string words) => words.Length == 0 ? Empty : new(null, words);
}

/// <summary>A row of a report.</summary>
/// <param name="Key">The name by which machines know it.</param>
/// <param name="Label">What stands before its figures.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Level">How far it is indented, from 0.</param>
/// <param name="Cells">Its figures, one per column.</param>
public sealed record ReportRow(string Key, string Label, RowKind Kind, int Level, ImmutableArray<Cell> Cells)
{
    /// <summary>
    /// What of its label is ours and what is a name; nothing where the label of a heading or a total is ours, and any other a
    /// name.
    /// </summary>
    public Caption? Caption { get; init; }

    /// <summary>The values of the groups that it stands for or in, from the outermost; nothing where there are no groups.</summary>
    public IReadOnlyList<string>? Group { get; init; }

    /// <summary>
    /// The rows that it adds up, by the keys of themselves or of what they are the total of, each as often as its sign says;
    /// nothing where it adds up those that say that they count in it, or none.
    /// </summary>
    public IReadOnlyList<(string Key, int Sign)>? MadeOf { get; init; }

    /// <summary>The key of the total that its figures count in; nothing where they count in none, or in one through another row.</summary>
    public string? CountsIn { get; init; }

    /// <summary>The id of the document that a record is of, or that a heading stands for; nothing where that is none.</summary>
    public string? Document { get; init; }

    /// <summary>What the figures of this row are where their columns say money; nothing where they are money.</summary>
    public ColumnKind? InsteadOfMoney { get; init; }

    /// <summary>What the figure in a column is.</summary>
    public ColumnKind KindIn(ReportColumn column) =>
        column.Kind == ColumnKind.Money ? InsteadOfMoney ?? column.Kind : column.Kind;
}

/// <summary>Something that must hold in a report, and what came out.</summary>
/// <param name="Name">What must hold.</param>
/// <param name="Expected">What should come out.</param>
/// <param name="Actual">What did.</param>
/// <param name="Column">The heading of the column that it is about.</param>
public sealed record ReportCheck(string Name, Amount Expected, Amount Actual, string Column)
{
    /// <summary>What is wrong, where it is not that two sums differ.</summary>
    public string? Fault { get; init; }

    /// <summary>Whether it holds.</summary>
    public bool Ok => Fault is null && Expected == Actual;
}

/// <summary>What a report that is sent as a letter says besides its rows.</summary>
/// <param name="Reference">By what its reader is known: the id of the contact.</param>
/// <param name="Due">What its reader owes; less than nothing where that is in credit.</param>
public sealed record ReportLetter(string Reference, Amount Due);

/// <summary>A finished report: the one form that every writer takes.</summary>
public sealed record Report
{
    /// <summary>The key of its definition.</summary>
    public required string Key { get; init; }

    /// <summary>Its title.</summary>
    public required string Title { get; init; }

    /// <summary>The records that its figures are of, where they are not simply those of the book.</summary>
    public ILedger? MadeFrom { get; init; }

    /// <summary>Whose it is.</summary>
    public required string Book { get; init; }

    /// <summary>The currency of its money.</summary>
    public required Currency Currency { get; init; }

    /// <summary>Its basis.</summary>
    public required AccountingBasis Basis { get; init; }

    /// <summary>Whether the other basis stands beside it.</summary>
    public bool HasBothBases { get; init; }

    /// <summary>The days that it covers; nothing for a report of a moment.</summary>
    public required DateRange? Period { get; init; }

    /// <summary>The day that it shows, for a report of a moment.</summary>
    public required DateOnly? AsOf { get; init; }

    /// <summary>The same in words.</summary>
    public required string PeriodInWords { get; init; }

    /// <summary>Its columns.</summary>
    public required IReadOnlyList<ReportColumn> Columns { get; init; }

    /// <summary>Its rows.</summary>
    public required IReadOnlyList<ReportRow> Rows { get; init; }

    /// <summary>What it checked about itself.</summary>
    public required IReadOnlyList<ReportCheck> Checks { get; init; }

    /// <summary>What it was narrowed to, in words, a condition each.</summary>
    public IReadOnlyList<string> Narrowed { get; init; } = [];

    /// <summary>What a reader must know who might take it for something else.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>What its amounts are, in words, where it is not simply their basis and currency.</summary>
    public string? InWhat { get; init; }

    /// <summary>To whom it is sent, in lines; nothing where it is not a letter.</summary>
    public IReadOnlyList<string> AddressedTo { get; init; } = [];

    /// <summary>What it says as a letter; nothing where it is none.</summary>
    public ReportLetter? Letter { get; init; }

    /// <summary>What stands under the rows, in lines.</summary>
    public IReadOnlyList<string> Foot { get; init; } = [];

    /// <summary>What made its last total change; nothing where that is not asked.</summary>
    public ReportExplanation? Explanation { get; init; }

    /// <summary>
    /// The postings behind the figure in a row and a column, by their places, or why there are none; nothing where there is no
    /// figure.
    /// </summary>
    public required Func<int, int, CellOrigin?> OriginOf { get; init; }

    /// <summary>How it looks to people.</summary>
    public ReportLook Look { get; init; } = new();

    /// <summary>The records behind its figures; nothing where they do not go along with it.</summary>
    public ReportRecords? Records { get; init; }

    /// <summary>The last import that it has seen.</summary>
    public required long Revision { get; init; }

    /// <summary>The same report, marked as one that would look whole and is not.</summary>
    public Report InPart() => this with
    {
        Title = $"{Title} (in part)",
        Notes = [.. Notes, "In part: only what is chosen is counted, so it need not balance."],
    };
}
