using Vlei.Core.OpenItems;
using Vlei.Core.Reports;
using Vlei.Core.Statements;
using Vlei.Core.Tables;

namespace Vlei.Core;

/// <summary>The catalogue: the one list of the reports that every book has.</summary>
public static class StandardReports
{
    // Those that are no table: what tables know is not made ready for them.
    private static readonly ReportDefinition[] Own =
    [
        ProfitLossReport.Definition, BalanceSheetReport.Definition, CashFlowReport.Definition,
        EquityMovementsReport.Definition, WorkingCapitalReport.Definition, TaxReturnReport.Definition, TrialBalanceReport.Definition,
        GeneralLedgerReport.Definition,
        AgingReport.Receivables, AgingReport.Payables,
        ContactBalancesReport.Customers, ContactBalancesReport.Suppliers, ContactLedgerReport.Customers,
        ContactLedgerReport.Suppliers, StatementOfAccountReport.Definition,
        MoneyToComeReport.Definition, BillsToPayReport.Definition, CollectionReport.Definition,
        DaysToPayReport.Customers, DaysToPayReport.Suppliers,
    ];

    private static readonly Lazy<IReadOnlyList<ReportDefinition>> Whole = new(
        () => [.. Own, .. StandardTables.All.Select(TableReport.Of)]);

    /// <summary>All of them, by subject.</summary>
    public static IReadOnlyList<ReportDefinition> All => Whole.Value;

    /// <summary>Finds a report by its key.</summary>
    public static ReportDefinition? Find(string key) =>
        Array.Find(Own, report => report.Key == key) ?? All.FirstOrDefault(report => report.Key == key);
}
