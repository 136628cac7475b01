using Vlei.Core.Ledger;

namespace Vlei.Core.Statements;

/// <summary>A part of a statement's layout.</summary>
/// <param name="Key">The key of its row; a section's total is <c>total-</c> and this.</param>
/// <param name="Label">What it is called.</param>
public abstract record StatementPart(string Key, string Label);

/// <summary>A heading, the accounts of some types under it, and their total.</summary>
/// <param name="Key">The key of the heading.</param>
/// <param name="Label">The heading.</param>
/// <param name="Types">The types whose accounts stand in it; all of the same natural sign.</param>
public sealed record StatementSection(string Key, string Label, IReadOnlyList<AccountType> Types)
    : StatementPart(Key, Label);

/// <summary>What the sections above it come to: the credits-positive ones less the debits-positive ones.</summary>
/// <param name="Key">The key of the row.</param>
/// <param name="Label">What it is called.</param>
/// <param name="NeedsAnyOf">
/// The sections of which one must have rows for this to be shown; empty where it is always shown.
/// </param>
public sealed record StatementResult(string Key, string Label, IReadOnlyList<string> NeedsAnyOf)
    : StatementPart(Key, Label);

/// <summary>The rows of a statement, from the top down.</summary>
/// <param name="Parts">Its sections and results; the last is the result of the whole.</param>
/// <param name="IncomeSection">The key of the section that <c>--percent income</c> is taken of.</param>
public sealed record StatementLayout(IReadOnlyList<StatementPart> Parts, string IncomeSection)
{
    /// <summary>Profit and loss.</summary>
    public static StatementLayout ProfitAndLoss { get; } = new(
    [
        new StatementSection("income", "Income", [AccountType.Income]),
        new StatementSection("cost-of-sales", "Cost of sales", [AccountType.CostOfSales]),
        new StatementResult("gross-profit", "Gross profit", ["cost-of-sales"]),
        new StatementSection("expenses", "Expenses", [AccountType.Expense]),
        new StatementResult("operating-profit", "Operating profit", ["other-income", "other-expenses"]),
        new StatementSection("other-income", "Other income", [AccountType.OtherIncome]),
        new StatementSection("other-expenses", "Other expenses", [AccountType.OtherExpense]),
        new StatementResult("net-profit", "Net profit", []),
    ], "income");
}
