using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>Which postings of an account count.</summary>
public enum PostingSide
{
    /// <summary>All; debit positive.</summary>
    Both,

    /// <summary>Debits alone.</summary>
    Debit,

    /// <summary>Credits alone, as positive sums.</summary>
    Credit,
}

/// <summary>How the postings of an account count towards a figure.</summary>
/// <param name="Account">The key of the account.</param>
/// <param name="Side">Which of them.</param>
/// <param name="Sign">How often they are added; less than 0 for taken away.</param>
public readonly record struct OriginTerm(AccountKey Account, PostingSide Side, int Sign);

/// <summary>Where in the order of postings one stands.</summary>
/// <param name="Day">Its day.</param>
/// <param name="Document">The key of its document.</param>
/// <param name="Settlement">The key of the settlement that released it, 0 for none.</param>
/// <param name="Line">The place of its line.</param>
public readonly record struct PostingPlace(DateOnly Day, DocumentKey Document, SettlementKey Settlement, int Line)
    : IComparable<PostingPlace>
{
    /// <inheritdoc/>
    public int CompareTo(PostingPlace other) =>
        (Day, Document, Settlement, Line).CompareTo((other.Day, other.Document, other.Settlement, other.Line));
}

/// <summary>Some postings that a figure adds up.</summary>
/// <param name="Heading">What they are, where a figure has several such parts.</param>
/// <param name="Source">What kind of postings.</param>
/// <param name="Range">Their days.</param>
/// <param name="Terms">How those of each account count; others do not.</param>
/// <param name="Filter">Which of them are taken.</param>
public sealed record OriginPart(
    string Heading, PostingSource Source, DateRange Range, IReadOnlyList<OriginTerm> Terms, Selection Filter)
{
    /// <summary>Whether a balance was brought forward with them: a reader starts from their sum, unless asked for all.</summary>
    public bool IsBroughtForward { get; init; }

    /// <summary>The first posting that counts; all of the days where it is nothing.</summary>
    public PostingPlace? First { get; init; }

    /// <summary>The last posting that counts; all of the days where it is nothing.</summary>
    public PostingPlace? Last { get; init; }
}

/// <summary>A posting as a list shows it.</summary>
/// <param name="Source">What kind of posting it is.</param>
/// <param name="Place">Where it stands.</param>
/// <param name="Account">The key of its account.</param>
/// <param name="Contact">The key of its contact, 0 for none.</param>
/// <param name="Amount">What it counts, with the sign that it counts with.</param>
public readonly record struct PostingEntry(
    PostingSource Source, PostingPlace Place, AccountKey Account, ContactKey Contact, Amount Amount)
{
    /// <summary>The key of its item, 0 for none; where it was asked for.</summary>
    public int Item { get; init; }

    /// <summary>The key of its project, 0 for none; where it was asked for.</summary>
    public int Project { get; init; }

    /// <summary>The key of its department, 0 for none; where it was asked for.</summary>
    public int Department { get; init; }

    /// <summary>How much of the item, in millionths, with the sign of the amount; where it was asked for.</summary>
    public long Quantity { get; init; }
}

/// <summary>What is behind a figure of a report.</summary>
/// <param name="Figure">The sum that the parts add up to: the figure, or what it is a percentage of something else.</param>
/// <param name="Parts">The postings, each only once.</param>
/// <param name="Note">What else goes into the figure.</param>
public sealed record CellOrigin(Amount Figure, IReadOnlyList<OriginPart> Parts, string? Note = null)
{
    /// <summary>Single postings behind the figure, where it adds up some that no range of days tells apart.</summary>
    public IReadOnlyList<PostingEntry> Postings { get; init; } = [];

    /// <summary>What the figure is, where that is not money.</summary>
    public ColumnKind Kind { get; init; }

    /// <summary>Why no records add up to it; nothing where they do.</summary>
    public OriginRefusal? Refusal { get; init; }

    /// <summary>The open items behind the figure, where it is what is open of documents.</summary>
    public IReadOnlyList<OriginItem> Items { get; init; } = [];
}

/// <summary>Why no records add up to a figure.</summary>
/// <param name="Message">Why not.</param>
/// <param name="Advice">What to ask instead.</param>
public sealed record OriginRefusal(string Message, string Advice);

/// <summary>A document that is open, as a trace lists it.</summary>
/// <param name="Document">Its key.</param>
/// <param name="Contact">The key of its contact, 0 for none.</param>
/// <param name="Date">Its date.</param>
/// <param name="Total">What it came to, with the sign that it counts with.</param>
/// <param name="Settlements">What was set against it.</param>
public sealed record OriginItem(
    DocumentKey Document, ContactKey Contact, DateOnly Date, Amount Total, IReadOnlyList<OriginSettlement> Settlements);

/// <summary>What was set against a document.</summary>
/// <param name="With">The key of the other document.</param>
/// <param name="Day">The day that it took effect.</param>
/// <param name="Amount">What it takes away, with the sign that it counts with.</param>
public sealed record OriginSettlement(DocumentKey With, DateOnly Day, Amount Amount);
