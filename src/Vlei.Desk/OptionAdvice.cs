using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk;

/// <summary>What does in a report what an option was typed for that it does not have.</summary>
public static class OptionAdvice
{
    private static readonly Dictionary<string, string> OfStatements = new()
    {
        [ReportOptions.GroupBy.Name] = "Its groups are those of its layout: take --layout, or vlei show postings --group-by account.",
        [ReportOptions.Sort.Name] = "Its postings are in the order of their days: take vlei show postings --group-by account --sort.",
        [ReportOptions.Top.Name] = "Take trial-balance, which has --top, or vlei show postings --top.",
        [ReportOptions.Detail.Name] = "Its accounts are its rows: take general-ledger for their postings, or vlei trace for one figure.",
        [ReportOptions.Summary.Name] = "Take trial-balance, which has a row per account.",
        [ReportOptions.Measure.Name] = "Take --columns to choose columns, or vlei show postings --by with --measure.",
        [ReportOptions.Total.Name] = "Its totals are those of its layout: take --layout, or vlei show postings --group-by account --total.",
        [ReportOptions.Having.Name] = "Take --where, which takes records by what they say.",
        [ReportOptions.By.Name] = "Take trial-balance, which has --by, or vlei show postings --group-by account --by month.",
        [ReportOptions.Compare.Name] = "Take trial-balance, which has --compare.",
    };

    private static readonly Dictionary<string, string> OfItems = new()
    {
        [ReportOptions.By.Name] = "Take vlei show open-items --group-by contact --by kind, or by any field.",
        [ReportOptions.Detail.Name] = "Take customer-ledger or supplier-ledger for their documents.",
        [ReportOptions.GroupBy.Name] = "Take vlei show open-items --group-by, by any field.",
        [ReportOptions.Measure.Name] = "Take vlei show open-items --by kind --measure open,count.",
        [ReportOptions.Total.Name] = "Take vlei show open-items --total count, or average(open).",
        [ReportOptions.Having.Name] = "Take --where, which takes documents by what they say: \"open > 1000\".",
        [ReportOptions.Basis.Name] = "What is open is what was invoiced and not settled: there is one basis of it.",
        [ReportOptions.Zeros.Name] = "Who owes nothing has no row: take customer-balances or supplier-balances.",
        [ReportOptions.Depth.Name] = "Take --summary, or --detail where there is one.",
        [ReportOptions.Compare.Name] = "Take receivables-aging or payables-aging, which have --compare.",
        [ReportOptions.Sort.Name] = "Its order is that of its days.",
        [ReportOptions.Layout.Name] = "Only statements have a layout.",
    };

    private static readonly Dictionary<string, string> OfLists = new()
    {
        [ReportOptions.Basis.Name] = "Its records are as they were entered: take postings, which has --basis.",
        [ReportOptions.Zeros.Name] = "A list has what there is: take --having \"amount <> 0\" to leave zeros out.",
        [ReportOptions.Layout.Name] = "Only statements have a layout: take --group-by and --columns.",
    };

    /// <summary>The advice, where there is any.</summary>
    /// <param name="option">The name of the option.</param>
    /// <param name="definition">The report.</param>
    public static string For(string option, ReportDefinition definition)
    {
        var isStatement = definition.Options.Contains(ReportOptions.Zeros);
        if (option == ReportOptions.AsOf.Name)
        {
            return "It covers days, not a moment: write --period.";
        }

        return (definition.Table is not null ? OfLists : isStatement ? OfStatements : OfItems).GetValueOrDefault(option)
            ?? $"It takes {Suggestion.Listed([.. definition.Options.Select(known => $"--{known.Name}"), "what says how a report "
                + "looks"], "and")}.";
    }
}
