using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>A balance that the source of an import shows, and that the book must have when it is done.</summary>
/// <param name="Account">The code of the account.</param>
/// <param name="Day">The day at whose end it has the balance.</param>
/// <param name="Balance">The balance as a trial balance of that day shows it, debit positive.</param>
/// <param name="File">The file that shows it.</param>
/// <param name="Line">The line of that file.</param>
/// <param name="Column">The column.</param>
public sealed record BalanceProof(string Account, DateOnly Day, Amount Balance, string File, long Line, int Column);
