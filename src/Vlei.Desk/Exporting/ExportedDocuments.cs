using Vlei.Books;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Desk.Exporting;

/// <summary>
/// The documents of a period, so that reports of it come out the same from them alone: those of its days, and of those before it every one
/// that was open when it began or is settled later, with whatever was set against them, as both bases ask for that. All others before it
/// become one opening document: what they left on accounts, items, projects and departments.
/// </summary>
internal sealed class ExportedDocuments
{
    private readonly LedgerReader _ledger;
    private readonly Dictionary<int, DateOnly> _dates = [];
    private readonly HashSet<int> _kept = [];

    /// <summary>Finds them.</summary>
    /// <param name="ledger">The records.</param>
    /// <param name="period">The days; nothing for all.</param>
    /// <param name="chosen">The keys of the documents that are taken at all; nothing for all.</param>
    public ExportedDocuments(LedgerReader ledger, DateRange? period, IReadOnlySet<int>? chosen)
    {
        (_ledger, Period) = (ledger, period);
        foreach (var (key, row) in ledger.WholeRecords(RecordTables.Documents))
        {
            if (chosen?.Contains(key) != false)
            {
                _dates[key] = row.Day(RecordTables.Documents.IndexOf("date"));
            }
        }

        if (period is not { } days)
        {
            _kept.UnionWith(_dates.Keys);
            return;
        }

        _kept.UnionWith(
            _dates.Where(document => document.Value >= days.From && document.Value <= days.To).Select(document => document.Key));
        KeepOpen(days.From);
    }

    /// <summary>The days; nothing for all.</summary>
    public DateRange? Period { get; }

    /// <summary>How many there are.</summary>
    public int Count => _kept.Count;

    /// <summary>Whether a document is one of them.</summary>
    public bool Has(int document) => _kept.Contains(document);

    /// <summary>
    /// The lines of the opening document, as lines of a record set that have no document yet; none where nothing came before.
    /// </summary>
    /// <param name="calendar">When fiscal years begin.</param>
    public IReadOnlyList<RecordRow> OpeningLines(FiscalCalendar calendar)
    {
        if (Period is not { } days)
        {
            return [];
        }

        var (table, sums) =
            (RecordTables.Lines,
                new SortedDictionary<(int Account, int Item, int Project, int Department), (Int128 Amount, Int128 Quantity)>());
        var shown = new YearOf(_ledger.Accounts, days.From.AddDays(-1), calendar);
        var (account, amount, item, quantity, project, department) = (
            table.IndexOf("account"), table.IndexOf("amount"), table.IndexOf("item"), table.IndexOf("quantity"), table.IndexOf("project"),
            table.IndexOf("department"));
        foreach (var (document, row) in _ledger.WholeRecords(table))
        {
            if (_kept.Contains(document) || !_dates.TryGetValue(document, out var date) || date >= days.From)
            {
                continue;
            }

            var (code, isOfEarlierYear) = shown.AccountOf((int)row.Number(account), date);
            var key = isOfEarlierYear ? (code, 0, 0, 0)
                : (code, (int)row.Number(item), (int)row.Number(project), (int)row.Number(department));
            var (sum, units) = sums.GetValueOrDefault(key);
            sums[key] = (sum + row.Number(amount), units + (isOfEarlierYear ? 0 : row.Number(quantity)));
        }

        return
        [
            .. sums.Where(sum => sum.Value.Amount != 0 || sum.Value.Quantity != 0).Select(sum =>
            {
                var line = new RecordRow(table);
                line.Set(account, sum.Key.Account);
                line.Set(amount, (long)sum.Value.Amount);
                SetUnlessZero(line, item, sum.Key.Item);
                SetUnlessZero(line, quantity, (long)sum.Value.Quantity);
                SetUnlessZero(line, project, sum.Key.Project);
                SetUnlessZero(line, department, sum.Key.Department);
                return line;
            }),
        ];
    }

    private static void SetUnlessZero(RecordRow line, int field, long value)
    {
        if (value != 0)
        {
            line.Set(field, value);
        }
    }

    private void KeepOpen(DateOnly from)
    {
        var applications = _ledger.Applications(DateOnly.MaxValue).SelectMany(part => part).ToList();
        var open = new Dictionary<int, Amount>();
        foreach (var item in _ledger.ControlItems(from.AddDays(-1)))
        {
            open[item.Document.Value] = open.GetValueOrDefault(item.Document.Value) + item.Total.Magnitude;
        }

        foreach (var settled in applications.Where(settled => settled.Day < from))
        {
            open[settled.From.Value] = open.GetValueOrDefault(settled.From.Value) - settled.Amount;
            open[settled.To.Value] = open.GetValueOrDefault(settled.To.Value) - settled.Amount;
        }

        var next = new Queue<int>(_dates.Keys.Where(key => _dates[key] < from && open.GetValueOrDefault(key) != Amount.Zero)
            .Concat(_kept.ToList()));
        var settledWith = applications.SelectMany(settled => new[] { (settled.From, settled.To), (settled.To, settled.From) })
            .ToLookup(pair => pair.Item1.Value, pair => pair.Item2.Value);
        var seen = new HashSet<int>(next);
        while (next.TryDequeue(out var document))
        {
            if (_dates.TryGetValue(document, out var date) && date < from)
            {
                _kept.Add(document);
            }

            foreach (var other in settledWith[document].Where(
                other => _dates.TryGetValue(other, out var day) && day < from && seen.Add(other)))
            {
                next.Enqueue(other);
            }
        }
    }

    // Income and costs of earlier years stand on retained earnings, where the chart has such an account.
    private sealed class YearOf(IReadOnlyList<Account> accounts, DateOnly day, FiscalCalendar calendar)
    {
        private readonly HashSet<int> _ofProfit =
            [.. accounts.Where(account => AccountTypes.IsProfitAndLoss(account.Type)).Select(account => account.Key.Value)];

        private readonly int? _retained = accounts.FirstOrDefault(account => account.Type == AccountType.RetainedEarnings)?.Key.Value;
        private readonly DateOnly _start = calendar.FiscalYear(calendar.FiscalYearOf(day)).From;

        public (int Account, bool IsOfEarlierYear) AccountOf(int account, DateOnly date) =>
            date < _start && _retained is { } retained && _ofProfit.Contains(account) ? (retained, true) : (account, false);
    }
}
