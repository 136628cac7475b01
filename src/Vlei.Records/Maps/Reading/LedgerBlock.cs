using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// The rows of one account in a ledger, and the balances that the file shows beside them. A file shows balances debit positive, credit
/// positive, or with a mark; which it is follows from which one all the balances of the account hold by.
/// </summary>
internal sealed class LedgerBlock(string account, string said)
{
    private readonly List<(decimal Moved, SourceNumber Shown, FilePoint At)> _shown = [];
    private SourceNumber? _opening;
    private decimal _moved;
    private int _sign = 1;

    /// <summary>The code of the account.</summary>
    public string Account => account;

    /// <summary>What the file calls it.</summary>
    public string Said => said;

    /// <summary>Where its opening balance stands.</summary>
    public FilePoint OpeningAt { get; private set; }

    /// <summary>Where its last balance stands.</summary>
    public FilePoint LastAt => _shown.Count > 0 ? _shown[^1].At : OpeningAt;

    /// <summary>Whether the file shows any balance of it.</summary>
    public bool HasShown => _shown.Count > 0 || _opening is not null;

    /// <summary>What it opens with, debit positive; known once it is proved.</summary>
    public decimal Opening => _opening is { } opening ? Value(opening, _sign) : 0;

    /// <summary>What it closes with, debit positive; known once it is proved.</summary>
    public decimal Balance => Opening + _moved;

    /// <summary>Takes what it opens with; a page that repeats it in its middle proves what went before.</summary>
    public void Open(SourceNumber? shown, FilePoint at)
    {
        if (_opening is not null || _moved != 0)
        {
            Close(shown, at);
            return;
        }

        (_opening, OpeningAt) = (shown, at);
    }

    /// <summary>Takes a row, with the balance behind it where the file shows it.</summary>
    public void Move(decimal amount, SourceNumber? shown, FilePoint at)
    {
        _moved += amount;
        Close(shown, at);
    }

    /// <summary>Takes a balance that the file shows.</summary>
    public void Close(SourceNumber? shown, FilePoint at)
    {
        if (shown is { } balance)
        {
            _shown.Add((_moved, balance, at));
        }
    }

    /// <summary>Holds its balances against its rows.</summary>
    public void Prove(SourceProof proof, AccountFinder accounts)
    {
        var (debit, credit) = (Holding(1), Holding(-1));
        _sign = debit > credit || (debit == credit && !AccountTypes.IsCreditPositive(accounts.TypeOf(account))) ? 1 : -1;
        var opening = Opening;
        foreach (var (moved, shown, at) in _shown)
        {
            var before = proof.Faults.Count;
            proof.Hold(at.File, at.Line, at.Column, $"the balance of {said}", Value(shown, _sign) * _sign, (opening + moved) * _sign);
            if (proof.Faults.Count > before)
            {
                // Those behind it would differ by the same.
                return;
            }
        }
    }

    private static decimal Value(SourceNumber shown, int sign) =>
        shown.Side switch { NumberSide.Debit => shown.Value, NumberSide.Credit => -shown.Value, _ => sign * shown.Value };

    // How many balances hold, one after the other, where amounts without a mark have that sign.
    private int Holding(int sign)
    {
        var opening = _opening is { } open ? Value(open, sign) : 0;
        return _shown.TakeWhile(balance => Value(balance.Shown, sign) == opening + balance.Moved).Count();
    }
}
