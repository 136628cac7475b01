using Vlei.Core.Fields;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>
/// The general ledger: per account the balance at the start, every posting with the balance after it, and the balance at
/// the end. It is the trial balance with the postings between its columns, and must come to the same.
/// </summary>
public static class GeneralLedgerReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "general-ledger",
        Title = "General ledger",
        Subject = "Statements",
        Question = "What was posted to each account, and what is its balance after each posting?",
        Words = ["accounts", "postings", "transactions", "balances", "running", "opening", "closing", "ledger", "statement"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Basis, ReportOptions.Only, ReportOptions.Except, ReportOptions.Select, ReportOptions.Zeros,
            ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month --only account=1000", "one account, last month"),
            ("--period last-month --only account=4000..4999 --except kind=journal", "some accounts, without journals"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var shape = TrialBalanceReport.Shape(context, request);
        return Statement.SumsThatFit(Definition, context, request, shape, () =>
        {
            var figures = StatementFigures.Of(context, request, shape, _ => true, TrialBalanceReport.Spans);
            var rows = TrialBalanceReport.Rows(context.Ledger.Accounts, figures, request.Zeros);
            var ledger = new GeneralLedger(context, figures, rows, shape.Source);
            var cells = new StatementCells(figures, rows, new Dictionary<PercentOf, RowValue.Sum>());
            var report = Statement.Frame(Definition, context, request, isOfMoment: false, figures, cells) with
            {
                Columns = ledger.Columns,
                Rows = ledger.Rows,
                Checks = ledger.Checks,
                OriginOf = ledger.OriginOf,
            };

            // Some accounts are whole in themselves; anything else leaves postings out of balances.
            return figures.Filter.IsOfAccounts ? report : Statement.MarkedInPart(report, figures);
        });
    }

    // The rows, each with what is behind it.
    private sealed class GeneralLedger
    {
        private const int Opening = 0;
        private const int Debit = 1;
        private const int Credit = 2;
        private const int Closing = 3;

        private readonly ReportContext _context;
        private readonly StatementFigures _figures;
        private readonly PostingSource _source;
        private readonly PostingTexts _texts;
        private readonly bool _withRelease;
        private readonly int _textColumns;
        private readonly List<ReportRow> _rows = [];
        private readonly List<ReportCheck> _checks = [];
        private readonly List<(RowValue.Sum? Sum, PostingEntry? Entry, bool IsOpening)> _behind = [];

        public GeneralLedger(
            ReportContext context, StatementFigures figures, IReadOnlyList<StatementRow> accounts, PostingSource source)
        {
            (_context, _figures, _source, _texts) = (context, figures, source, new PostingTexts(context.Ledger));
            _withRelease = source == PostingSource.Cash;
            var columns = PostingTexts.Columns(withAccount: false, _withRelease);
            _textColumns = columns.Count;
            Columns =
            [
                .. columns, new("debit", "Debit", ColumnKind.Money), new("credit", "Credit", ColumnKind.Money),
                new("balance", "Balance", ColumnKind.Money),
            ];
            var entries = Entries();
            foreach (var row in accounts.SkipLast(1))
            {
                AddAccount(row, (RowValue.Sum)row.Value!, entries);
            }

            var total = (RowValue.Sum)accounts[^1].Value!;
            Add(
                "total", "Total", RowKind.GrandTotal, 0, [.. Enumerable.Repeat(Cell.Empty, _textColumns)],
                Of(total, Debit), Of(total, Credit), Of(total, Closing), (total, null, false));
        }

        public IReadOnlyList<ReportColumn> Columns { get; }

        public IReadOnlyList<ReportRow> Rows => _rows;

        public IReadOnlyList<ReportCheck> Checks => _checks;

        public CellOrigin? OriginOf(int row, int column)
        {
            var (sum, entry, isOpening) = _behind[row];
            var measure = column - _textColumns + Debit;
            if (sum is null || measure < Debit || _rows[row].Cells[column].Units is not { } units)
            {
                return null;
            }

            var figure = new Amount(units);
            return entry is not { } posting ? new CellOrigin(figure, [.. _figures.PartsOf(sum, isOpening ? Opening : measure, 1)])
                : measure == Closing ? new CellOrigin(
                    figure, [.. _figures.PartsOf(sum, Opening, 1), PartOf([new OriginTerm(posting.Account, PostingSide.Both, 1)]) with { Last = posting.Place }])
                : new CellOrigin(figure, [PartOf(
                    [new OriginTerm(posting.Account, measure == Debit ? PostingSide.Debit : PostingSide.Credit, 1)])
                    with { First = posting.Place, Last = posting.Place }]);
        }

        private ILookup<int, PostingEntry> Entries() => PostingEntries.Of(
            _context.Ledger,
            PartOf([.. _context.Ledger.Accounts.Select(account => new OriginTerm(account.Key, PostingSide.Both, 1))]))
            .ToLookup(entry => entry.Account);

        private OriginPart PartOf(IReadOnlyList<OriginTerm> terms) => new(
            "", _source, ((ColumnSource.Postings)_figures.Columns.Sources[0]).Figures.Days.Range, terms, _figures.Filter);

        private void AddAccount(StatementRow row, RowValue.Sum sum, ILookup<int, PostingEntry> entries)
        {
            Cell[] empty = [.. Enumerable.Repeat(Cell.Empty, _textColumns)];
            Add(row.Key, row.Label, RowKind.Heading, 0, empty, null, null, null, default);
            var period = ((ColumnSource.Postings)_figures.Columns.Sources[0]).Figures.Days.Range;
            var balance = Of(sum, Opening);
            Add(
                $"opening({row.Key})", "Opening balance", RowKind.Record, 1, [Cell.Of(period.From), .. empty.Skip(1)], null, null,
                balance, (sum, null, true));
            foreach (var entry in entries[AccountOf(sum)])
            {
                balance += entry.Amount;
                Add(
                    _texts.KeyOf(entry), _texts.IdOf(entry), RowKind.Record, 1,
                    [.. _texts.CellsOf(entry, withAccount: false, _withRelease)],
                    entry.Amount.Sign > 0 ? entry.Amount : null, entry.Amount.Sign < 0 ? -entry.Amount : null, balance,
                    (sum, entry, false));
            }

            Add(
                $"closing({row.Key})", "Closing balance", RowKind.Total, 0, [Cell.Of(period.To), .. empty.Skip(1)],
                Of(sum, Debit), Of(sum, Credit), balance, (sum, null, false));
            _checks.Add(new ReportCheck("Balances end as in the trial balance", Of(sum, Closing), balance, row.Label));
        }

        // The account whose postings stand in a row of the trial balance; the row of earlier profits has none.
        private static int AccountOf(RowValue.Sum sum) => sum.Terms[Debit].Select(term => term.Account).FirstOrDefault();

        private Amount Of(RowValue.Sum sum, int measure) => _figures.Of(sum, measure);

        private void Add(
            string key, string label, RowKind kind, int level, IReadOnlyList<Cell> texts, Amount? debit, Amount? credit,
            Amount? balance, (RowValue.Sum? Sum, PostingEntry? Entry, bool IsOpening) behind)
        {
            _rows.Add(new ReportRow(key, label, kind, level, [.. texts, CellOf(debit), CellOf(credit), CellOf(balance)]));
            _behind.Add(behind);
        }

        private static Cell CellOf(Amount? amount) => amount is { } known ? Cell.Of(known) : Cell.Empty;
    }
}
