using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>
/// What a contact has committed to pay of a document by a day, or does not accept of it. Nothing in the ledger follows
/// from it.
/// </summary>
/// <param name="Number">The number that people know it by, from 1.</param>
/// <param name="IsDispute">Whether it is a dispute, rather than a promise.</param>
/// <param name="Document">The key of the document.</param>
/// <param name="Amount">How much of it; positive.</param>
/// <param name="By">The last day of a promise; nothing for a dispute.</param>
/// <param name="Open">What was open of the document when it was noted; positive.</param>
/// <param name="Noted">The day that it was noted.</param>
/// <param name="Withdrawn">The day that it was taken back; nothing where it stands.</param>
/// <param name="Note">What was said; empty for nothing.</param>
public sealed record Promise(
    int Number, bool IsDispute, DocumentKey Document, Amount Amount, DateOnly? By, Amount Open, DateOnly Noted, DateOnly? Withdrawn,
    string Note)
{
    /// <summary>Whether it is known and stands at the end of a day.</summary>
    public bool StandsAt(DateOnly day) => Noted <= day && !(Withdrawn <= day);
}
