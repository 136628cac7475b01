using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Fills a layout with the sums of a ledger: the engine behind every statement.</summary>
public sealed class Statement
{
    private readonly ReportRequest _request;
    private readonly StatementLayout _layout;
    private readonly StatementColumns _columns;
    private readonly StatementSums _sums;
    private readonly ILookup<int, Account> _parts;
    private readonly List<ReportRow> _rows = [];
    private readonly Dictionary<string, (Amount[] Total, bool HasRows)> _totals = [];

    private Statement(
        ReportRequest request, StatementLayout layout, StatementColumns columns, IReadOnlyList<Account> accounts, StatementSums sums)
    {
        (_request, _layout, _columns, _sums) = (request, layout, columns, sums);
        _parts = accounts.OrderBy(account => account.Code, CodeOrder.Instance).ToLookup(account => account.ParentKey ?? 0);
    }

    /// <summary>
    /// Builds the statement. Throws a <see cref="ProblemException"/> where options contradict each other, or where a sum
    /// does not fit in 64 bits.
    /// </summary>
    public static Report Build(
        ReportDefinition definition, StatementLayout layout, ReportContext context, ReportRequest request)
    {
        RefusePercentages(definition, layout, request);
        var period = context.PeriodOf(request);
        var basis = request.Basis ?? context.Basis;
        var columns = StatementColumns.Of(period, request, context.Calendar, context.Records, layout);
        Statement statement;
        try
        {
            var sums = new StatementSums(
                context.Ledger.Accounts, AccountSums.Of(context.Ledger, basis, columns.Ranges), columns.Figures);
            statement = new Statement(request, layout, columns, context.Ledger.Accounts, sums);
            statement.Fill();
        }
        catch (OverflowException tooLarge)
        {
            var column = columns.Columns.FirstOrDefault(column =>
                column.Range is { } range && Overflows(context.Ledger, basis, range)) ?? columns.Columns[^1];
            throw new ProblemException(
                ProblemKind.BadData,
                $"{definition.Title}, column {column.Heading}: a sum is larger than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }

        return new Report
        {
            Key = definition.Key,
            Title = request.Title ?? definition.Title,
            Book = context.Name,
            Currency = context.Currency,
            Basis = basis,
            Period = layout.IsOfMoment ? null : period.Range,
            AsOf = layout.IsOfMoment ? period.Range.To : null,
            PeriodInWords = InWords(layout, period.Range, request.By, context.Calendar),
            Columns = columns.Columns,
            Rows = statement._rows,
            Checks = statement.Checks(),
            Revision = context.Ledger.Revision,
        };
    }

    private static void RefusePercentages(ReportDefinition definition, StatementLayout layout, ReportRequest request)
    {
        foreach (var percent in request.Percent.Where(percent => percent != PercentOf.Row && !layout.PercentOf.ContainsKey(percent)))
        {
            var names = ReportOptions.Percent.Words;
            throw new ProblemException(
                ProblemKind.Usage,
                $"--percent {names[(int)percent]} does not apply to {definition.Key}, which has no such total.",
                $"It takes {Suggestion.Listed([.. layout.PercentOf.Keys.Select(known => names[(int)known])], "or")}.");
        }
    }

    private static string InWords(StatementLayout layout, DateRange range, TimeUnit? unit, FiscalCalendar calendar) =>
        !layout.IsOfMoment ? PeriodText.Words(range, calendar)
        : unit is { } by ? $"As of the end of each {FiscalCalendar.NameOf(by)}: {PeriodText.Words(range, calendar)}"
        : $"As of {PeriodText.Words(range.To)}";

    private static bool Overflows(ILedger ledger, AccountingBasis basis, DateRange range)
    {
        try
        {
            var sums = AccountSums.Of(ledger, basis, [range]);
            foreach (var type in ledger.Accounts.GroupBy(account => account.Type))
            {
                _ = type.Aggregate(Amount.Zero, (total, account) => total + sums[0, account.Key]);
            }

            return false;
        }
        catch (OverflowException)
        {
            return true;
        }
    }

    private void Fill()
    {
        // Percentages stand above the total that they are taken of as well, so totals are known before any row.
        foreach (var part in _layout.Parts)
        {
            Sum(part);
        }

        foreach (var part in _layout.Parts)
        {
            Add(part, 0);
        }
    }

    private Amount[] Sum(StatementPart part)
    {
        var total = part switch
        {
            StatementGroup group => group.Parts.Select(Sum).Aggregate(StatementSums.Add),
            StatementSection section => _sums.Of(section.Type),
            StatementAccounts accounts => _sums.Of(accounts.Type),
            StatementEarnings earnings => _sums.Earnings(earnings.OfEarlierYears),
            StatementProfit => _sums.Profit(),
            StatementFlows flows => _sums.Flows(flows.Activity),
            StatementMoney money => _sums.Money(money.AtEnd),
            StatementOtherAccounts => _sums.OfBalanceSheet(),
            StatementResult result => result.Minus.Select(key => _totals[key].Total).Aggregate(
                result.Plus.Select(key => _totals[key].Total).Aggregate(StatementSums.Add), StatementSums.Subtract),
            _ => throw new InvalidOperationException($"There is no such part: {part}."),
        };
        if (part.Key.Length > 0)
        {
            _totals[part.Key] = (total, HasRows(part));
        }

        return total;
    }

    private bool HasRows(StatementPart part) => part switch
    {
        StatementGroup group => group.Parts.Any(HasRows),
        StatementSection section => RowsOf(section.Type, 0).Count > 0,
        StatementAccounts accounts => RowsOf(accounts.Type, 0).Count > 0,
        StatementFlows flows => FlowsOf(flows.Activity).Any(),
        _ => true,
    };

    private void Add(StatementPart part, int level)
    {
        switch (part)
        {
            case StatementGroup group when HasRows(group):
                AddHeading(group, level);
                foreach (var inner in group.Parts)
                {
                    Add(inner, level + 1);
                }

                AddTotal(group, level);
                break;
            case StatementSection section when HasRows(section):
                AddHeading(section, level);
                AddAccounts(section.Type, level + 1);
                AddTotal(section, level);
                break;
            case StatementAccounts accounts:
                AddAccounts(accounts.Type, level);
                break;
            case StatementFlows flows:
                AddFlows(flows.Activity, level);
                break;
            case StatementProfit or StatementMoney:
                AddRow(part.Key, part.Label, RowKind.Account, level, _totals[part.Key].Total);
                break;
            case StatementEarnings earnings:
                AddRow(earnings.Key, NameOf(earnings), RowKind.Account, level, _totals[earnings.Key].Total);
                break;
            case StatementResult result when result.NeedsAnyOf.Count == 0 || result.NeedsAnyOf.Any(key => _totals[key].HasRows):
                var kind = part == _layout.Parts[^1] ? RowKind.GrandTotal : RowKind.Result;
                AddRow(result.Key, result.Label, kind, level, _totals[result.Key].Total);
                break;
        }
    }

    private string NameOf(StatementEarnings earnings) => earnings.OfEarlierYears
        ? _parts.SelectMany(accounts => accounts).FirstOrDefault(a => a.Type == AccountType.RetainedEarnings)?.Name ?? earnings.Label
        : earnings.Label;

    private void AddHeading(StatementPart part, int level)
    {
        if (_request.Depth != 0)
        {
            _rows.Add(new ReportRow(
                part.Key, part.Label, RowKind.Heading, level, [.. _columns.Columns.Select(_ => Cell.Empty)]));
        }
    }

    private void AddTotal(StatementPart part, int level) => AddRow(
        $"total-{part.Key}", $"Total {char.ToLowerInvariant(part.Label[0])}{part.Label[1..]}", RowKind.Total, level,
        _totals[part.Key].Total);

    private void AddAccounts(AccountType type, int level)
    {
        foreach (var (account, depth, sums) in RowsOf(type, 1))
        {
            if (depth <= (_request.Depth ?? int.MaxValue))
            {
                AddRow(account.Code, account.Name, RowKind.Account, level + depth - 1, sums);
            }
        }
    }

    private void AddFlows(CashFlowActivity activity, int level)
    {
        foreach (var (account, flows) in FlowsOf(activity).Where(_ => _request.Depth != 0))
        {
            AddRow(account.Code, account.Name, RowKind.Account, level, flows);
        }
    }

    // Parts of an account may serve another activity than the account itself, so each stands alone.
    private IEnumerable<(Account Account, Amount[] Flows)> FlowsOf(CashFlowActivity activity) =>
        _parts.SelectMany(accounts => accounts)
            .Where(account => StatementSums.IsFlow(account, activity))
            .OrderBy(account => account.Code, CodeOrder.Instance)
            .Select(account => (account, _sums.FlowsOf(account)))
            .Where(row => row.Item2.Any(flow => !flow.IsZero) || (_request.Zeros && row.account.Active));

    private List<(Account Account, int Depth, Amount[] Sums)> RowsOf(AccountType type, int depth)
    {
        var rows = new List<(Account, int, Amount[])>();
        foreach (var account in _parts[0].Where(account => account.Type == type))
        {
            AddAccount(account, depth, rows);
        }

        return rows;
    }

    // An account and its parts: its own postings and theirs make its figure. Returns that figure.
    private Amount[] AddAccount(Account account, int depth, List<(Account Account, int Depth, Amount[] Sums)> rows)
    {
        var place = rows.Count;
        var sums = _sums.Of(account);
        foreach (var part in _parts[account.Key])
        {
            sums = StatementSums.Add(sums, AddAccount(part, depth + 1, rows));
        }

        if (rows.Count > place || sums.Any(sum => !sum.IsZero) || (_request.Zeros && account.Active))
        {
            rows.Insert(place, (account, depth, sums));
        }

        return sums;
    }

    private void AddRow(string key, string label, RowKind kind, int level, Amount[] sums)
    {
        var cells = new Cell[_columns.Columns.Count];
        Amount Of(int column) => sums[Figure(column)];
        for (var column = 0; column < cells.Length; column++)
        {
            cells[column] = _columns.Sources[column] switch
            {
                ColumnSource.Postings => Cell.Of(Of(column)),
                ColumnSource.Change change => Cell.Of(Of(change.Current) - Of(change.Earlier)),
                ColumnSource.PercentChange change => Cell.Of(
                    Percentage.Of(Of(change.Current) - Of(change.Earlier), Of(change.Earlier).Magnitude)),
                ColumnSource.Percent { Of: PercentOf.Row } share => Cell.Of(Percentage.Of(Of(share.Column), Of(_columns.Whole))),
                ColumnSource.Percent share => Cell.Of(
                    Percentage.Of(Of(share.Column), _totals[_layout.PercentOf[share.Of]].Total[Figure(share.Column)])),
                _ => Cell.Empty,
            };
        }

        _rows.Add(new ReportRow(key, label, kind, level, cells));
    }

    private int Figure(int column) => ((ColumnSource.Postings)_columns.Sources[column]).Figure;

    // What the statement comes to, against the accounts on its other side, in every column.
    private List<ReportCheck> Checks()
    {
        var whole = _totals[_layout.Parts[^1].Key].Total;
        var (name, other) = (_layout.Check.Name, Sum(_layout.Check.Against));
        return [.. Enumerable.Range(0, _columns.Columns.Count).Where(column => _columns.Sources[column] is ColumnSource.Postings)
            .Select(column => new ReportCheck(name, other[Figure(column)], whole[Figure(column)], _columns.Columns[column].Heading))];
    }
}
