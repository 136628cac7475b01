using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Fills a layout with the sums of a ledger: the engine behind every statement.</summary>
public sealed class Statement
{
    private readonly ReportContext _context;
    private readonly ReportRequest _request;
    private readonly StatementLayout _layout;
    private readonly StatementColumns _columns;
    private readonly AccountSums _sums;
    private readonly ILookup<int, Account> _parts;
    private readonly List<ReportRow> _rows = [];
    private readonly Amount[] _income;
    private readonly Amount[] _result;

    private Statement(
        ReportContext context, ReportRequest request, StatementLayout layout, StatementColumns columns, AccountSums sums)
    {
        (_context, _request, _layout, _columns, _sums) = (context, request, layout, columns, sums);
        _parts = context.Ledger.Accounts
            .OrderBy(account => account.Code, CodeOrder.Instance)
            .ToLookup(account => account.ParentKey ?? 0);
        _income = new Amount[columns.Ranges.Count];
        _result = new Amount[columns.Ranges.Count];
    }

    /// <summary>
    /// Builds the statement. Throws a <see cref="ProblemException"/> where options contradict each other, or where a sum
    /// does not fit in 64 bits.
    /// </summary>
    public static Report Build(
        ReportDefinition definition, StatementLayout layout, ReportContext context, ReportRequest request)
    {
        var records = context.Ledger.Extent ?? new DateRange(context.Today, context.Today);
        var period = (request.Period
            ?? new OpenPeriod(context.Calendar.UnitOf(TimeUnit.FiscalYear, context.Today).From, context.Today, TimeUnit.FiscalYear))
            .Within(records);
        var basis = request.Basis ?? context.Basis;
        var columns = StatementColumns.Of(period, request, context.Calendar, records);
        Statement statement;
        try
        {
            statement = new Statement(
                context, request, layout, columns, AccountSums.Of(context.Ledger, basis, columns.Ranges));
            statement.AddParts();
        }
        catch (OverflowException tooLarge)
        {
            var column = columns.Columns.FirstOrDefault(column =>
                column.Range is { } range && Overflows(context.Ledger, basis, layout, range)) ?? columns.Columns[^1];
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
            Period = period.Range,
            PeriodInWords = PeriodText.Words(period.Range, context.Calendar),
            Columns = columns.Columns,
            Rows = statement._rows,
            Checks = statement.Checks(),
            Revision = context.Ledger.Revision,
        };
    }

    private static bool Overflows(ILedger ledger, AccountingBasis basis, StatementLayout layout, DateRange range)
    {
        try
        {
            var sums = AccountSums.Of(ledger, basis, [range]);
            foreach (var section in layout.Parts.OfType<StatementSection>())
            {
                _ = ledger.Accounts.Where(account => section.Types.Contains(account.Type))
                    .Aggregate(Amount.Zero, (total, account) => total + sums[0, account.Key]);
            }

            return false;
        }
        catch (OverflowException)
        {
            return true;
        }
    }

    private void AddParts()
    {
        // Percentages of income stand above the income's own total as well, so it is known first.
        var income = _layout.Parts.OfType<StatementSection>().Single(section => section.Key == _layout.IncomeSection);
        SumOf(income).CopyTo(_income, 0);
        var rowsOf = _layout.Parts.OfType<StatementSection>().ToDictionary(section => section.Key, RowsOf);
        foreach (var part in _layout.Parts)
        {
            if (part is StatementSection section)
            {
                AddSection(section, rowsOf[section.Key]);
            }
            else if (part is StatementResult result
                && (result.NeedsAnyOf.Count == 0 || result.NeedsAnyOf.Any(needed => rowsOf[needed].Count > 0)))
            {
                var kind = part == _layout.Parts[^1] ? RowKind.GrandTotal : RowKind.Result;
                AddRow(result.Key, result.Label, kind, 0, _result);
            }
        }
    }

    private void AddSection(StatementSection section, List<(Account Account, int Level, Amount[] Sums)> rows)
    {
        if (rows.Count == 0)
        {
            return;
        }

        if (_request.Depth != 0)
        {
            _rows.Add(new ReportRow(
                section.Key, section.Label, RowKind.Heading, 0, [.. _columns.Columns.Select(_ => Cell.Empty)]));
        }

        foreach (var (account, level, sums) in rows.Where(row => row.Level <= (_request.Depth ?? int.MaxValue)))
        {
            AddRow(account.Code, account.Name, RowKind.Account, level, sums);
        }

        var total = SumOf(section);
        AddRow($"total-{section.Key}", $"Total {LowerFirst(section.Label)}", RowKind.Total, 0, total);
        var isCredit = AccountTypes.IsCreditPositive(section.Types[0]);
        for (var range = 0; range < total.Length; range++)
        {
            _result[range] = isCredit ? _result[range] + total[range] : _result[range] - total[range];
        }
    }

    private List<(Account Account, int Level, Amount[] Sums)> RowsOf(StatementSection section)
    {
        var rows = new List<(Account, int, Amount[])>();
        foreach (var account in _parts[0].Where(account => section.Types.Contains(account.Type)))
        {
            AddAccount(account, 1, rows);
        }

        return rows;
    }

    // An account and its parts: its own postings and theirs make its figure. Returns that figure.
    private Amount[] AddAccount(Account account, int level, List<(Account Account, int Level, Amount[] Sums)> rows)
    {
        var place = rows.Count;
        var sums = OwnSums(account);
        foreach (var part in _parts[account.Key])
        {
            var partSums = AddAccount(part, level + 1, rows);
            for (var range = 0; range < sums.Length; range++)
            {
                sums[range] += partSums[range];
            }
        }

        if (rows.Count > place || sums.Any(sum => !sum.IsZero) || (_request.Zeros && account.Active))
        {
            rows.Insert(place, (account, level, sums));
        }

        return sums;
    }

    private Amount[] OwnSums(Account account)
    {
        var sums = new Amount[_columns.Ranges.Count];
        var isCredit = AccountTypes.IsCreditPositive(account.Type);
        for (var range = 0; range < sums.Length; range++)
        {
            sums[range] = isCredit ? -_sums[range, account.Key] : _sums[range, account.Key];
        }

        return sums;
    }

    private Amount[] SumOf(StatementSection section)
    {
        var total = new Amount[_columns.Ranges.Count];
        foreach (var account in _context.Ledger.Accounts.Where(account => section.Types.Contains(account.Type)))
        {
            var sums = OwnSums(account);
            for (var range = 0; range < total.Length; range++)
            {
                total[range] += sums[range];
            }
        }

        return total;
    }

    private void AddRow(string key, string label, RowKind kind, int level, Amount[] sums)
    {
        var cells = new Cell[_columns.Columns.Count];
        Amount Of(int column) => sums[((ColumnSource.Postings)_columns.Sources[column]).Range];
        for (var column = 0; column < cells.Length; column++)
        {
            cells[column] = _columns.Sources[column] switch
            {
                ColumnSource.Postings => Cell.Of(Of(column)),
                ColumnSource.Change change => Cell.Of(Of(change.Current) - Of(change.Earlier)),
                ColumnSource.PercentChange change => Cell.Of(
                    Percentage.Of(Of(change.Current) - Of(change.Earlier), Of(change.Earlier).Magnitude)),
                ColumnSource.PercentOfIncome share => Cell.Of(
                    Percentage.Of(Of(share.Column), _income[((ColumnSource.Postings)_columns.Sources[share.Column]).Range])),
                ColumnSource.PercentOfRow share => Cell.Of(Percentage.Of(Of(share.Column), Of(_columns.Whole))),
                _ => Cell.Empty,
            };
        }

        _rows.Add(new ReportRow(key, label, kind, level, cells));
    }

    // The result, added up from the rows that are shown, against the postings of all accounts of the statement.
    private List<ReportCheck> Checks()
    {
        var types = _layout.Parts.OfType<StatementSection>().SelectMany(section => section.Types).ToHashSet();
        var whole = ((ColumnSource.Postings)_columns.Sources[_columns.Whole]).Range;
        var posted = Amount.Zero;
        foreach (var account in _context.Ledger.Accounts.Where(account => !types.Contains(account.Type)))
        {
            posted += _sums[whole, account.Key];
        }

        return [new ReportCheck($"{_layout.Parts[^1].Label} = change in all other accounts", posted, _result[whole])];
    }

    private static string LowerFirst(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
