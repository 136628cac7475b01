using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;
using Vlei.Core.Reports;

namespace Vlei.Core.Review;

/// <summary>Something that must hold in every month, and the first months where it does not.</summary>
/// <param name="Name">What must hold.</param>
/// <param name="Faults">Where it does not, in words; none where it does.</param>
public sealed record TieOut(string Name, IReadOnlyList<string> Faults);

/// <summary>Holds the reports of a book against one another, month by month and in both bases.</summary>
public static class TieOuts
{
    private const int MostFaults = 5;

    /// <summary>Runs the checks of all reports that have columns of months, and holds control accounts against open items.</summary>
    /// <param name="context">The book.</param>
    /// <param name="definitions">The reports.</param>
    /// <param name="period">The period whose months are looked at; all months where it is nothing.</param>
    /// <param name="write">How a sum is written.</param>
    public static IEnumerable<TieOut> Run(
        ReportContext context, IReadOnlyList<ReportDefinition> definitions, OpenPeriod? period, Func<Amount, string> write)
    {
        var months = period ?? new OpenPeriod(null, null);
        foreach (var definition in definitions.Where(
            definition => definition.Table is null && definition.Options.Contains(ReportOptions.By)))
        {
            var bases = Enum.GetValues<AccountingBasis>().Take(definition.Options.Contains(ReportOptions.Basis) ? int.MaxValue : 1);
            var checks = bases.SelectMany(basis => Checks(context, definition, months, basis)).ToList();
            foreach (var name in checks.GroupBy(check => check.Check.Name))
            {
                yield return new TieOut(
                    $"{definition.Title}: {name.Key}",
                    [.. name.Where(check => !check.Check.Ok).GroupBy(check => check.Basis)
                        .Select(failed => FaultOf(context.Ledger, [.. failed.Select(check => check.Check)], failed.Key, write))]);
            }
        }

        yield return new TieOut("Control accounts = open items", [.. ControlFaults(context, months, write).Take(MostFaults)]);
    }

    private static IEnumerable<(ReportCheck Check, AccountingBasis Basis)> Checks(
        ReportContext context, ReportDefinition definition, OpenPeriod months, AccountingBasis basis) => definition
        .Build(context, new ReportRequest { Period = months, Basis = basis, By = Spread.Of(TimeUnit.Month) })
        .Checks.Select(check => (check, basis));

    // The first month says where to look; what comes after it mostly follows from it.
    private static string FaultOf(
        ILedger ledger, IReadOnlyList<ReportCheck> failed, AccountingBasis basis, Func<Amount, string> write)
    {
        var first = failed[0];
        var more = failed.Count == 1 ? "" : $", and in {failed.Count - 1} more columns";
        var what = first.Fault ?? $"expected {write(first.Expected)}, came to {write(first.Actual)}";
        return $"{first.Column} ({AccountingBases.NameOf(basis)} basis): {what}{more}{FirstUnbalanced(ledger, basis)}";
    }

    // What does not sum to zero is what no statement can tie with: the first such month, and the document in it.
    private static string FirstUnbalanced(ILedger ledger, AccountingBasis basis)
    {
        foreach (var (month, sums) in ledger.Extent is { } extent ? ledger.MonthSums(basis, extent) : [])
        {
            if (sums.Aggregate(Amount.Zero, (total, sum) => total + sum.Debit - sum.Credit).IsZero)
            {
                continue;
            }

            var postings = ledger.ReadMonth(basis, month, [PostingField.Day, PostingField.Document, PostingField.Amount]);
            var document = Enumerable.Range(0, postings.Count)
                .GroupBy(
                    posting => (Day: postings[PostingField.Day][posting], Document: (DocumentKey)postings[PostingField.Document][posting]))
                .FirstOrDefault(group => group.Sum(posting => postings[PostingField.Amount][posting]) != 0);
            return document is null
                ? $"; the sums of {month} are not those of its postings"
                : $"; the first document that does not sum to zero is {ledger.Document(document.Key.Document).Id}, in {month}";
        }

        return "";
    }

    private static IEnumerable<string> ControlFaults(ReportContext context, OpenPeriod months, Func<Amount, string> write)
    {
        var (ledger, wanted) = (context.Ledger, months.Within(context.Records).Range);
        var balances = new Dictionary<(AccountingBasis, AccountKey), Amount>();
        var sums = Enum.GetValues<AccountingBasis>().ToDictionary(basis => basis, basis =>
            ledger.MonthSums(basis, new DateRange(context.Records.From, DateOnly.MaxValue))
                .ToDictionary(month => month.Month, month => month.Sums));
        var accounts = ledger.Accounts.ToDictionary(account => account.Key);
        foreach (var (month, basis, account, open) in OpenItemTotals.ByMonth(ledger))
        {
            var moved = sums[basis].GetValueOrDefault(month, []).Where(sum => sum.Account == account)
                .Aggregate(Amount.Zero, (total, sum) => total + sum.Debit - sum.Credit);
            var balance = balances[(basis, account)] = balances.GetValueOrDefault((basis, account)) + moved;
            if (balance != open && !month.Range.Intersect(wanted).IsEmpty)
            {
                yield return $"{month} ({AccountingBases.NameOf(basis)} basis): {accounts[account].Code} {accounts[account].Name} "
                    + $"stands at {write(balance)}, open items at {write(open)}";
            }
        }
    }
}
