using Vlei.Core.Ledger;

namespace Vlei.Core.Statements;

/// <summary>What a check holds against each other: the accounts of a book, and what stands in a statement of it.</summary>
/// <param name="Accounts">All accounts of the book.</param>
/// <param name="Lines">The lines of the statement that accounts stand in.</param>
/// <param name="Computed">Its lines that no single account holds.</param>
internal sealed record StatementContent(
    IReadOnlyList<Account> Accounts, IReadOnlyList<StatementLine> Lines, IReadOnlyList<StatementComputed> Computed)
{
    /// <summary>What accounts of the book come to in the days of a column.</summary>
    public TermSums OfBook(Func<Account, bool> isMeant, int sign) => TermSums.Of([.. Terms(Accounts, isMeant, Span.Days, sign)]);

    /// <summary>What they come to from the first day to the last of a column; debit positive.</summary>
    public TermSums OfBookSoFar(Func<Account, bool> isMeant) =>
        TermSums.Of([.. Terms(Accounts, isMeant, Span.Days, 1), .. Terms(Accounts, isMeant, Span.Before, 1)]);

    /// <summary>What accounts in its lines come to in the days of a column.</summary>
    public TermSums OfLines(Func<Account, bool> isMeant, int sign) => TermSums.Of([.. Terms(LineAccounts, isMeant, Span.Days, sign)]);

    /// <summary>What they come to together with what no single account holds; credit positive where nothing else is said.</summary>
    public TermSums WithComputed(Func<Account, bool> isMeant, int sign = -1) =>
        TermSums.Of([.. Terms(LineAccounts, isMeant, Span.Days, sign), .. Computed.SelectMany(line => line.Terms)]);

    private IEnumerable<Account> LineAccounts => Lines.SelectMany(line => line.Accounts);

    private static IEnumerable<Term> Terms(IEnumerable<Account> accounts, Func<Account, bool> isMeant, Span span, int sign) =>
        accounts.Where(isMeant).Select(account => new Term(account.Key, span, sign));
}
