namespace Vlei.Core.Ledger;

/// <summary>What a person has said about a finding of the review.</summary>
/// <param name="Finding">The key of the finding.</param>
/// <param name="Fingerprint">What the records behind it were when it was marked; with others the mark no longer counts.</param>
/// <param name="IsQuestion">Whether it is open until the client has answered, rather than seen and done.</param>
/// <param name="Note">What was said; empty for nothing.</param>
/// <param name="By">Who marked it.</param>
/// <param name="On">The day that it was marked.</param>
public sealed record FindingMark(string Finding, long Fingerprint, bool IsQuestion, string Note, string By, DateOnly On);
