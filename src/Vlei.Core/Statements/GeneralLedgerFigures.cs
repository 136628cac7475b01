using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>What a column of the general ledger shows.</summary>
/// <param name="Measure">Which of the trial balance's columns; nothing for what is said of a posting.</param>
/// <param name="Text">What is said of a posting; nothing for a measure.</param>
internal readonly record struct LedgerFigure(LedgerMeasure? Measure, PostingTextColumn? Text);

/// <summary>The columns of a trial balance.</summary>
internal enum LedgerMeasure
{
    /// <summary>The balance at the start; debit positive.</summary>
    Opening,

    /// <summary>Debits; positive.</summary>
    Debit,

    /// <summary>Credits; positive.</summary>
    Credit,

    /// <summary>The balance at the end; debit positive.</summary>
    Closing,
}

/// <summary>A row of the general ledger.</summary>
/// <param name="Account">What the account comes to in the trial balance.</param>
/// <param name="Balance">The balance after the row.</param>
/// <param name="Entry">The posting; nothing for a balance.</param>
/// <param name="Day">The day of a balance; nothing for a posting and for the total.</param>
/// <param name="IsOpening">Whether it is the balance at the start.</param>
internal readonly record struct LedgerRow(TermSums Account, Amount Balance, PostingEntry? Entry, DateOnly? Day, bool IsOpening);

/// <summary>What the rows of a general ledger come to: its accounts' balances, and their postings between them.</summary>
internal sealed class GeneralLedgerFigures : IFigures<LedgerRow, LedgerFigure>
{
    private readonly ReportContext _context;
    private readonly StatementFigures _figures;
    private readonly PostingSource _source;
    private readonly PostingTexts _texts;
    private readonly FigureColumns<LedgerFigure> _columns = new();

    /// <summary>Lays the columns out.</summary>
    public GeneralLedgerFigures(ReportContext context, StatementFigures figures, PostingSource source)
    {
        (_context, _figures, _source) = (context, figures, source);
        _texts = new PostingTexts(context.Ledger);
        foreach (var text in _texts.Columns(withAccount: false, withRelease: source == PostingSource.Cash))
        {
            _ = _columns.Add(text.Shown, new LedgerFigure(null, text));
        }

        _ = _columns.Add(ReportColumn.Sum("debit", "Debit"), new LedgerFigure(LedgerMeasure.Debit, null));
        _ = _columns.Add(ReportColumn.Sum("credit", "Credit"), new LedgerFigure(LedgerMeasure.Credit, null));
        _ = _columns.Add(ReportColumn.Sum("balance", "Balance"), new LedgerFigure(LedgerMeasure.Closing, null));
    }

    private Calendar.DateRange Days => _figures.Columns.Columns.FigureAt(0).Of.Days.Range;

    /// <summary>The rows, and that each account ends as it does in the trial balance.</summary>
    /// <param name="definition">The report.</param>
    /// <param name="accounts">The rows of the trial balance; the last is the total.</param>
    /// <param name="checks">A check for each account.</param>
    public ReportTable<LedgerRow, LedgerFigure> Table(
        ReportDefinition definition, IReadOnlyList<FigureRow<TermSums>> accounts, out IReadOnlyList<ReportCheck> checks)
    {
        var (rows, entries) = (new FigureRows<LedgerRow>(), Entries());
        checks = [.. accounts.SkipLast(1).Select(account => AddAccount(rows, account, entries)).ToList()];
        var total = accounts[^1].Of;
        rows.Add(
            new FigureRow<LedgerRow>(
                "total", Caption.Ours("Total"), RowKind.GrandTotal, 0,
                new LedgerRow(total, Of(total, LedgerMeasure.Closing), null, null, false)));
        return new ReportTable<LedgerRow, LedgerFigure>(definition.Title, _columns, rows, this);
    }

    /// <inheritdoc/>
    public long? At(in LedgerRow row, LedgerFigure figure) => (figure.Measure, row.Entry) switch
    {
        (null, _) => null,
        (LedgerMeasure.Closing, _) => row.Balance.MinorUnits,
        _ when row.IsOpening => null,
        (LedgerMeasure.Debit, { } entry) => entry.Amount.Sign > 0 ? entry.Amount.MinorUnits : null,
        (_, { } entry) => entry.Amount.Sign < 0 ? (-entry.Amount).MinorUnits : null,
        var (measure, _) => Of(row.Account, measure.Value).MinorUnits,
    };

    /// <inheritdoc/>
    public Cell CellAt(in LedgerRow row, LedgerFigure figure) => figure.Measure is not null ? new Cell(At(row, figure))
        : row.Entry is { } entry ? figure.Text!.OfPosting(entry)
        : figure.Text!.Shown.Kind == ColumnKind.Date && row.Day is { } day ? Cell.Of(day) : Cell.Empty;

    /// <inheritdoc/>
    public LedgerRow? WholeOf(ShareOf whole) => null;

    /// <inheritdoc/>
    public string InWords(FigureColumn<LedgerFigure>.Share share) => throw new InvalidOperationException("A ledger has no shares.");

    /// <inheritdoc/>
    public void AddBehind(LedgerRow row, LedgerFigure figure, int sign, OriginRecords records)
    {
        if (figure.Measure is not { } measure)
        {
            records.IsNone = true;
        }
        else if (row.Entry is not { } entry)
        {
            records.Parts.AddRange(PartsOf(row.Account, row.IsOpening ? LedgerMeasure.Opening : measure, sign));
        }
        else if (measure == LedgerMeasure.Closing)
        {
            records.Parts.AddRange(
                [.. PartsOf(row.Account, LedgerMeasure.Opening, sign),
                    PartOf([new OriginTerm(entry.Account, PostingSide.Both, sign)]) with { Last = entry.Place }]);
        }
        else
        {
            var side = measure == LedgerMeasure.Debit ? PostingSide.Debit : PostingSide.Credit;
            records.Parts.Add(PartOf([new OriginTerm(entry.Account, side, sign)]) with { First = entry.Place, Last = entry.Place });
        }
    }

    private ReportCheck AddAccount(
        FigureRows<LedgerRow> rows, FigureRow<TermSums> account, Dictionary<AccountKey, LedgerPostings> entries)
    {
        var (closing, balance) = ($"closing({account.Key})", Of(account.Of, LedgerMeasure.Opening));
        rows.Add(FigureRow<LedgerRow>.Heading(account.Key, account.Label, 0));
        Add(
            $"opening({account.Key})", Caption.Ours("Opening balance"), RowKind.Record, 1,
            new LedgerRow(account.Of, balance, null, Days.From, true), closing);
        var (key, opening) = (AccountOf(account.Of), balance);
        var own = entries.GetValueOrDefault(key) ?? new LedgerPostings(_source, key);
        rows.AddMany(own.Count, place =>
        {
            var (entry, sum) = own.At(place);
            var row = new LedgerRow(account.Of, opening + sum, entry, null, false);
            return new FigureRow<LedgerRow>(_texts.KeyOf(entry), _texts.IdOf(entry), RowKind.Record, 1, row) { CountsIn = closing };
        });
        balance += own.Total;
        Add(closing, Caption.Ours("Closing balance"), RowKind.Total, 0, new LedgerRow(account.Of, balance, null, Days.To, false), "total");
        return new ReportCheck(
            "Balances end as in the trial balance", Of(account.Of, LedgerMeasure.Closing), balance, account.Label.English);

        void Add(string key, Caption label, RowKind kind, int level, LedgerRow row, string total) =>
            rows.Add(new FigureRow<LedgerRow>(key, label, kind, level, row) { CountsIn = total });
    }

    private Dictionary<AccountKey, LedgerPostings> Entries()
    {
        var entries = new Dictionary<AccountKey, LedgerPostings>();
        foreach (var entry in PostingEntries.Of(
            _context.Ledger, PartOf([.. _context.Ledger.Accounts.Select(account => new OriginTerm(account.Key, PostingSide.Both, 1))])))
        {
            if (!entries.TryGetValue(entry.Account, out var own))
            {
                entries[entry.Account] = own = new LedgerPostings(_source, entry.Account);
            }

            own.Add(entry);
        }

        return entries;
    }

    private OriginPart PartOf(IReadOnlyList<OriginTerm> terms) => new("", _source, Days, terms, _figures.Filter);

    // The account whose postings stand in a row of the trial balance; the row of earlier profits has none.
    private static AccountKey AccountOf(TermSums account) =>
        account.ByMeasure[(int)LedgerMeasure.Debit].Select(term => term.Account).FirstOrDefault();

    private Amount Of(TermSums account, LedgerMeasure measure) => _figures.Of(account, (int)measure);

    private IEnumerable<OriginPart> PartsOf(TermSums account, LedgerMeasure measure, int sign) =>
        _figures.PartsOf(account, _figures.Columns.Columns.FigureAt((int)measure), sign);
}
