using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Which days of a column a sum is about.</summary>
internal enum Span
{
    /// <summary>The column's own: its period, or all up to its day.</summary>
    Days,

    /// <summary>All days before them; for a period only.</summary>
    Before,

    /// <summary>The fiscal years that ended before the one that the column's period begins in, or its day lies in.</summary>
    EarlierYears,

    /// <summary>
    /// The same, as it is carried forward to retained earnings: which accounts are chosen makes no difference to what was earned.
    /// </summary>
    Carried,
}

/// <summary>What is posted to an account in a span counts towards a sum, once or several times.</summary>
/// <param name="Account">The key of the account.</param>
/// <param name="Span">Which days.</param>
/// <param name="Sign">How often; less than 0 for taken away.</param>
/// <param name="Side">Which postings.</param>
internal readonly record struct Term(AccountKey Account, Span Span, int Sign, PostingSide Side = PostingSide.Both);
