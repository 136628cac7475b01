using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books;

/// <summary>What <c>book.toml</c> says about a book.</summary>
/// <param name="Name">Whose book it is; it stands at the head of every report.</param>
/// <param name="Currency">The currency of all amounts.</param>
/// <param name="Calendar">Where its fiscal year starts.</param>
/// <param name="Basis">The basis of reports that are not told another.</param>
/// <param name="Clock">
/// The day that it is in the book, where that is pinned: what period words are worked out from, and what all that is done is dated by.
/// </param>
public sealed record BookSettings(
    string Name, Currency Currency, FiscalCalendar Calendar, AccountingBasis Basis, DateOnly? Clock)
{
    /// <summary>How customers pay, in lines, for what is sent to them; empty where nothing is said.</summary>
    public string Remittance { get; init; } = "";

    /// <summary>
    /// The language of reports that are not told another, and of what is sent to customers who have none of their own: its code
    /// in ISO 639-1.
    /// </summary>
    public string Language { get; init; } = "en";

    /// <summary>How reports look that are not told otherwise, as texts by the names of options.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Look { get; init; } = new Dictionary<string, IReadOnlyList<string>>();

    /// <summary>
    /// A folder of reports, selections, groups and layouts that the book shares with others, seen from the book's own; nothing
    /// where it names none.
    /// </summary>
    public string? Library { get; init; }

    /// <summary>Where on a firm's server its records are; nothing where they are in its folder.</summary>
    public string? Store { get; init; }

    /// <summary>Whether settlements are computed, oldest first, where the records have none at all.</summary>
    public bool SettlesOldestFirst { get; init; }
}
