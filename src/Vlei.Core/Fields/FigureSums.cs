using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Fields;

/// <summary>Postings that are added up together, account by account.</summary>
/// <param name="Source">What kind of postings.</param>
/// <param name="Range">Their days.</param>
/// <param name="Slice">The place of the one value of a field that they have; nothing for all of them.</param>
public sealed record Figure(PostingSource Source, DateRange Range, int? Slice = null);

/// <summary>
/// The debits and credits per account of several figures at once. Whole months come from the sums that the store keeps
/// beside the postings; months that a figure cuts, and those that are narrowed or sliced, are read posting by posting.
/// </summary>
public sealed class FigureSums
{
    private readonly Dictionary<Figure, (long[] Debits, long[] Credits)> _sums = [];
    private readonly ILedger _ledger;
    private readonly Selection _filter;
    private readonly Slicing? _slicedBy;
    private readonly int _accounts;
    private readonly bool[]? _takenAccounts;

    // A month is done with before the next; only what is asked of its postings looks at columns as a whole.
    private readonly PostingArrays? _arrays;
    private (Figure? Figure, (long[]?, long[]?) Sums) _asked;

    private FigureSums(ILedger ledger, Selection filter, Slicing? slicedBy)
    {
        (_ledger, _filter, _slicedBy) = (ledger, filter, slicedBy);
        _accounts = ledger.Accounts.Select(account => account.Key.Value).DefaultIfEmpty(0).Max() + 1;
        if (filter.IsOfAccounts && !filter.IsEverything)
        {
            _takenAccounts = new bool[_accounts];
            foreach (var (account, isTaken) in ledger.Accounts.Zip(filter.TakenOf(ledger.Accounts)))
            {
                _takenAccounts[account.Key.Value] = isTaken;
            }
        }

        _arrays = slicedBy is null && CanAddMonths ? new PostingArrays() : null;
    }

    /// <summary>
    /// Adds up every figure; one without any posting has none. Throws <see cref="OverflowException"/> where a sum does
    /// not fit.
    /// </summary>
    /// <param name="ledger">The records.</param>
    /// <param name="figures">What is to be added up.</param>
    /// <param name="filter">Which postings are taken at all.</param>
    /// <param name="slicedBy">The field that slices are values of.</param>
    public static FigureSums Of(
        ILedger ledger, IReadOnlyCollection<Figure> figures, Selection filter, Slicing? slicedBy)
    {
        var sums = new FigureSums(ledger, filter, slicedBy);
        foreach (var source in figures.Distinct().Where(figure => !figure.Range.IsEmpty).GroupBy(figure => figure.Source))
        {
            sums.Add(source.Key, [.. source.GroupBy(figure => figure.Range)]);
        }

        return sums;
    }

    /// <summary>What is posted to the account; debit positive.</summary>
    public Amount Net(Figure figure, AccountKey account) => Debit(figure, account) - Credit(figure, account);

    /// <summary>The debits of the account; positive.</summary>
    public Amount Debit(Figure figure, AccountKey account) =>
        Known(figure) is { Debits: { } debits } ? new Amount(debits[account.Value]) : Amount.Zero;

    /// <summary>The credits of the account; positive.</summary>
    public Amount Credit(Figure figure, AccountKey account) =>
        Known(figure) is { Credits: { } credits } ? new Amount(credits[account.Value]) : Amount.Zero;

    // Accounts are asked for one after the other of the same days. Nothing where a figure has no posting.
    private (long[]? Debits, long[]? Credits) Known(Figure figure)
    {
        if (!ReferenceEquals(figure, _asked.Figure))
        {
            _asked = (figure, _sums.GetValueOrDefault(figure));
        }

        return _asked.Sums;
    }

    private void Add(PostingSource source, List<IGrouping<DateRange, Figure>> ranges)
    {
        var whole = new DateRange(ranges.Min(range => range.Key.From), ranges.Max(range => range.Key.To));
        PostingField[] fields =
        [
            PostingField.Account, PostingField.Amount,
            .. _takenAccounts is null ? _filter.Columns ?? [] : [], .. _slicedBy?.Columns ?? [],
        ];
        foreach (var (month, monthSums) in Postings.Months(_ledger, source, whole))
        {
            MonthReading? reading = null;
            foreach (var range in ranges)
            {
                var days = range.Key.Intersect(month.Range);
                if (days.IsEmpty)
                {
                    continue;
                }

                if (days == month.Range && monthSums is not null && CanAddMonths && range.All(figure => figure.Slice is null))
                {
                    AddMonth(range.Single(), monthSums);
                }
                else
                {
                    reading ??= Read(source, month, ranges.Exists(own => Cuts(own.Key, month)) ? [PostingField.Day, .. fields] : fields);
                    AddDays([.. range], reading, days == month.Range ? null : days);
                }
            }
        }
    }

    private static bool Cuts(DateRange range, YearMonth month) =>
        range.Intersect(month.Range) is { IsEmpty: false } days && days != month.Range;

    private bool CanAddMonths => _filter.IsEverything || _takenAccounts is not null;

    private MonthReading Read(PostingSource source, YearMonth month, PostingField[] fields)
    {
        var postings = Postings.Read(_ledger, source, month, fields, _arrays);
        return new MonthReading(
            postings, _takenAccounts is null ? _filter.TakenOf(postings, source, month) : null,
            _slicedBy?.PlacesIn(postings, source, month));
    }

    private void AddMonth(Figure figure, AccountSum[] monthSums)
    {
        var (debits, credits) = SumsOf(figure);
        foreach (var (account, debit, credit) in monthSums)
        {
            if (_takenAccounts is null || _takenAccounts[account.Value])
            {
                checked
                {
                    debits[account.Value] += debit.MinorUnits;
                    credits[account.Value] += credit.MinorUnits;
                }
            }
        }
    }

    // All days of the month where none are named.
    private void AddDays(List<Figure> figures, MonthReading reading, DateRange? some)
    {
        var (accounts, amounts) = (reading.Postings[PostingField.Account], reading.Postings[PostingField.Amount]);
        var (start, end) = some is not { } days ? (0, reading.Postings.Count)
            : (reading.Postings.FirstFrom(days.From.Day), reading.Postings.FirstFrom(days.To.Day + 1));
        var slices = new Figure?[_slicedBy?.Values.Count ?? 0];
        Figure? all = null;
        foreach (var figure in figures)
        {
            if (figure.Slice is { } place)
            {
                slices[place] = figure;
            }
            else
            {
                all = figure;
            }
        }

        var sums = new (long[] Debits, long[] Credits)[slices.Length];
        var total = all is null ? default : SumsOf(all);
        for (var posting = start; posting < end; posting++)
        {
            var account = accounts[posting];
            if (reading.Taken?[posting] == false || _takenAccounts?[account] == false)
            {
                continue;
            }

            var amount = amounts[posting];
            if (all is not null)
            {
                Add(total, account, amount);
            }

            if (reading.Places is { } places && slices[places[posting]] is { } slice)
            {
                ref var own = ref sums[places[posting]];
                if (own.Debits is null)
                {
                    own = SumsOf(slice);
                }

                Add(own, account, amount);
            }
        }
    }

    private static void Add((long[] Debits, long[] Credits) sums, long account, long amount)
    {
        checked
        {
            if (amount > 0)
            {
                sums.Debits[account] += amount;
            }
            else
            {
                sums.Credits[account] -= amount;
            }
        }
    }

    private (long[] Debits, long[] Credits) SumsOf(Figure figure)
    {
        if (!_sums.TryGetValue(figure, out var sums))
        {
            _sums[figure] = sums = (new long[_accounts], new long[_accounts]);
        }

        return sums;
    }

    // The postings of a month, which of them are taken, and the place of the value that each is sliced by.
    private sealed record MonthReading(PostingMonth Postings, bool[]? Taken, long[]? Places);
}
