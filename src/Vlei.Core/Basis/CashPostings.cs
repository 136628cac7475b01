using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Basis;

/// <summary>
/// Works out what a document posts on each basis. The accrual basis takes every line at the document's date. On the
/// cash basis a document that waits for money (<em>deferred</em>) gives its lines away bit by bit as it is settled;
/// every other one counts whole at its own date.
/// </summary>
/// <remarks>
/// One instance serves many documents, one after another, and keeps its working arrays between them.
/// </remarks>
public sealed class CashPostings(IReadOnlyDictionary<AccountKey, AccountClass> classes)
{
    private readonly AccountClass[] _classes = [.. Enumerable
        .Range(0, classes.Count == 0 ? 1 : classes.Keys.Max(key => key.Value) + 1)
        .Select(key => classes.GetValueOrDefault(new AccountKey(key)))];

    private Amount[] _parts = [];
    private Amount[] _before = [];
    private Amount[] _after = [];
    private long[] _quantities = [];

    /// <summary>What a line on the account does to the cash basis.</summary>
    public AccountClass ClassOf(AccountKey account) => _classes[account.Value];

    /// <summary>
    /// Adds to <paramref name="postings"/> what the document posts on the cash basis, in the order of release.
    /// Throws <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    /// <param name="document">The key of the document.</param>
    /// <param name="date">Its date.</param>
    /// <param name="lines">Its lines, in their order.</param>
    /// <param name="releases">Its settlements, in any order.</param>
    /// <param name="postings">Where the postings go.</param>
    public void Add(
        DocumentKey document, DateOnly date, ReadOnlySpan<Line> lines, ReadOnlySpan<Release> releases, List<Posting> postings)
    {
        if (!IsDeferred(lines, out var money, out var control, out var controlLine))
        {
            foreach (var line in lines)
            {
                postings.Add(new Posting(date, document, line));
            }

            return;
        }

        var waiting = Begin(document, date, lines, postings);
        var whole = money + control;
        var reached = money;
        if (!reached.IsZero)
        {
            Release(document, date, default, lines, reached, whole, waiting, postings);
        }

        var inOrder = releases.ToArray();
        Array.Sort(inOrder, static (left, right) => left.Effective != right.Effective
            ? left.Effective.CompareTo(right.Effective)
            : left.Key.CompareTo(right.Key));
        foreach (var release in inOrder)
        {
            var step = control.Sign < 0 ? -release.Amount : release.Amount;
            reached += step;
            Release(document, release.Effective, release.Key, lines, reached, whole, waiting, postings);
            postings.Add(new Posting(
                release.Effective, document, lines[controlLine] with { Amount = step, Quantity = 0 }, release.Key));
        }
    }

    // A document waits for money where its control lines are all on one account for one contact and do not cancel out,
    // it has other lines, and what money is on it goes the same way.
    private bool IsDeferred(ReadOnlySpan<Line> lines, out Amount money, out Amount control, out int controlLine)
    {
        (money, control, controlLine) = (Amount.Zero, Amount.Zero, -1);
        var (hasMoney, hasOther, oneItem) = (false, false, true);
        for (var index = 0; index < lines.Length; index++)
        {
            ref readonly var line = ref lines[index];
            switch (_classes[line.Account.Value])
            {
                case AccountClass.Money:
                    hasMoney = true;
                    money += line.Amount;
                    break;
                case AccountClass.Control:
                    control += line.Amount;
                    if (controlLine < 0)
                    {
                        controlLine = index;
                    }

                    oneItem &= line.Account == lines[controlLine].Account && line.Contact == lines[controlLine].Contact;
                    break;
                default:
                    hasOther = true;
                    break;
            }
        }

        return controlLine >= 0 && oneItem && hasOther && !control.IsZero
            && (!hasMoney || money.Sign == control.Sign);
    }

    // The money lines count at once; the others are what is given away later. Returns how many those are.
    private int Begin(DocumentKey document, DateOnly date, ReadOnlySpan<Line> lines, List<Posting> postings)
    {
        if (_parts.Length < lines.Length)
        {
            Array.Resize(ref _parts, lines.Length);
            Array.Resize(ref _before, lines.Length);
            Array.Resize(ref _after, lines.Length);
            Array.Resize(ref _quantities, lines.Length);
        }

        var waiting = 0;
        foreach (var line in lines)
        {
            if (_classes[line.Account.Value] == AccountClass.Money)
            {
                postings.Add(new Posting(date, document, line));
            }
            else if (_classes[line.Account.Value] == AccountClass.Other)
            {
                _before[waiting] = Amount.Zero;
                _quantities[waiting] = 0;
                _parts[waiting++] = line.Amount;
            }
        }

        return waiting;
    }

    private void Release(
        DocumentKey document, DateOnly day, SettlementKey settlement, ReadOnlySpan<Line> lines, Amount reached, Amount whole, int waiting,
        List<Posting> postings)
    {
        Cutting.Cut(_parts.AsSpan(0, waiting), reached, whole, _after);
        var part = 0;
        foreach (var line in lines)
        {
            if (_classes[line.Account.Value] != AccountClass.Other)
            {
                continue;
            }

            var released = _after[part] - _before[part];
            _before[part] = _after[part];

            // A quantity goes with the amount of its own line, so that it is whole when that is; what is free goes with all of it.
            var quantity = line.Quantity == 0 ? 0 : line.Amount.IsZero
                ? Rounding.Divide((Int128)line.Quantity * reached.MinorUnits, whole.MinorUnits)
                : Rounding.Divide((Int128)line.Quantity * _after[part].MinorUnits, line.Amount.MinorUnits);
            if (!released.IsZero || (line.Amount.IsZero && quantity != _quantities[part]))
            {
                postings.Add(
                    new Posting(day, document, line with { Amount = released, Quantity = quantity - _quantities[part] }, settlement));
                _quantities[part] = quantity;
            }

            part++;
        }
    }
}
