using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>The one message of a sum that 64 bits do not hold.</summary>
internal static class SumTooLarge
{
    /// <summary>The problem, with the report and the column that it is in.</summary>
    public static ProblemException In(string title, string column, OverflowException tooLarge) => new(
        ProblemKind.BadData, $"{title}, column {column}: a sum is larger than 64 bits hold.",
        "Look for an amount with too many digits.", tooLarge);
}
