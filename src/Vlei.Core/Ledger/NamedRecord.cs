namespace Vlei.Core.Ledger;

/// <summary>A record that others refer to, as a contact or an item.</summary>
/// <param name="Key">The number by which the book's columns know it.</param>
/// <param name="Id">The id by which people know it; of a tax code, its code.</param>
/// <param name="Name">Its name; empty where it has none.</param>
public readonly record struct NamedRecord(int Key, string Id, string Name);

/// <summary>What a record has in a field: nothing, a number or a text, as <see cref="RecordField.IsNumber"/> says.</summary>
/// <param name="Number">The number: minor units, millionths, a key, as the type of the field has it.</param>
/// <param name="Text">The text.</param>
public readonly record struct RecordValue(long? Number, string? Text = null);

/// <summary>What a reader is shown of a document.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Number">The number that is printed on it; empty for none.</param>
/// <param name="Memo">Its note; empty for none.</param>
public sealed record DocumentText(string Id, string Kind, string Number, string Memo);

/// <summary>Two documents that were set against each other.</summary>
/// <param name="Key">Its key; the order of keys is the order of the records.</param>
/// <param name="From">The key of one document.</param>
/// <param name="To">The key of the other.</param>
/// <param name="Amount">How much; positive.</param>
/// <param name="Effective">The day that it takes effect: the latest of its own date and both documents' dates.</param>
public readonly record struct Settlement(SettlementKey Key, DocumentKey From, DocumentKey To, Money.Amount Amount, DateOnly Effective);

/// <summary>What was planned for an account and a month.</summary>
/// <param name="Month">The month.</param>
/// <param name="Account">The key of the account.</param>
/// <param name="Amount">Debit positive.</param>
/// <param name="Project">The key of the project, 0 for none.</param>
/// <param name="Department">The key of the department, 0 for none.</param>
public sealed record Budget(Calendar.YearMonth Month, AccountKey Account, Money.Amount Amount, int Project, int Department);
