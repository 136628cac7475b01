using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Records.Maps;

/// <summary>An account of the book.</summary>
/// <param name="Code">Its code.</param>
/// <param name="Name">Its name.</param>
/// <param name="Type">What it is.</param>
/// <param name="IsGuess">Whether its type was taken by guess and is not confirmed.</param>
public sealed record KnownAccount(string Code, string Name, AccountType Type, bool IsGuess);

/// <summary>A contact, an item, a project, a department or a tax code of the book.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
public sealed record KnownName(string Id, string Name);

/// <summary>A document that can be paid.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="Contact">The id of its contact; empty for none.</param>
/// <param name="Total">What it put on the accounts of customers or suppliers, debit positive.</param>
public sealed record KnownDocument(string Id, string Number, string Contact, decimal Total);

/// <summary>What a book has that a file may speak of. Nothing is read before it is asked for.</summary>
public interface IKnownRecords
{
    /// <summary>The book's currency.</summary>
    Currency Currency { get; }

    /// <summary>The chart of accounts.</summary>
    IReadOnlyList<KnownAccount> Accounts { get; }

    /// <summary>The records of a list other than the chart of accounts.</summary>
    IReadOnlyList<KnownName> Named(RecordTable table);

    /// <summary>The documents of a number that can be paid.</summary>
    IReadOnlyList<KnownDocument> DocumentsNumbered(string number);

    /// <summary>The first day of the fiscal year that a day is in.</summary>
    DateOnly YearStart(DateOnly day);

    /// <summary>
    /// The balances at the end of a day as a trial balance shows them, by the code of the account, debit positive; accounts without one
    /// may be missing.
    /// </summary>
    /// <param name="day">The day.</param>
    /// <param name="without">The ids of documents that are not counted, as they come in anew.</param>
    IReadOnlyDictionary<string, decimal> BalancesAt(DateOnly day, IReadOnlyCollection<string> without);
}
