using System.Globalization;
using Vlei.Core.Ledger;

namespace Vlei.Records.Audit;

/// <summary>The control totals of an audit file, and what its accounts open and close with, held against its entries.</summary>
internal sealed class AuditTotals(string name, RecordErrors errors)
{
    private readonly Dictionary<string, AuditElement> _said = [];
    private readonly List<AuditElement> _accounts = [];
    private readonly Dictionary<string, (decimal Before, decimal All)> _moved = [];
    private decimal _debit;
    private decimal _credit;

    /// <summary>Takes a control total.</summary>
    public void Say(string what, AuditElement total) => _said[what] = total;

    /// <summary>Takes an account with its balances.</summary>
    public void SayAccount(AuditElement account) => _accounts.Add(account);

    /// <summary>Takes a line of an entry.</summary>
    public void Add(string account, string date, string text, DateOnly from)
    {
        if (!decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var amount))
        {
            return;
        }

        (_debit, _credit) = amount > 0 ? (_debit + amount, _credit) : (_debit, _credit - amount);
        var (before, all) = _moved.GetValueOrDefault(account);
        var isBefore = string.CompareOrdinal(date, from.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)) < 0;
        _moved[account] = (isBefore ? before + amount : before, all + amount);
    }

    /// <summary>
    /// What accounts open with, debit positive, where the file has no entries from before; they are counted as such from here on.
    /// </summary>
    public IReadOnlyList<(AuditElement Account, decimal Amount)> OpeningsWithoutEntries()
    {
        if (_moved.Values.Any(moved => moved.Before != 0))
        {
            return [];
        }

        var openings = _accounts.Select(
            account => (account, Amount: Number(account["OpeningDebitBalance"]) - Number(account["OpeningCreditBalance"])))
            .Where(opening => opening.Amount != 0).ToList();
        foreach (var (account, amount) in openings)
        {
            var (before, all) = _moved.GetValueOrDefault(account["AccountID"]);
            _moved[account["AccountID"]] = (before + amount, all + amount);
        }

        return openings;
    }

    /// <summary>Tells what does not prove.</summary>
    public void Prove(int entries)
    {
        Hold("NumberOfEntries", entries, "entries there are");
        Hold("TotalDebit", _debit, "their debits come to");
        Hold("TotalCredit", _credit, "their credits come to");
        foreach (var account in _accounts)
        {
            var (before, all) = _moved.GetValueOrDefault(account["AccountID"]);
            HoldBalance(account, "Opening", before);
            HoldBalance(account, "Closing", all);
        }
    }

    private void Hold(string what, decimal computed, string words)
    {
        if (_said.TryGetValue(what, out var said) && Number(said.Text) is var shown && shown != computed)
        {
            errors.Add(
                name, said.Line, said.Column,
                string.Create(
                    CultureInfo.InvariantCulture, $"{what} is {said.Text}, but {words} {computed}: a difference of {shown - computed}."));
        }
    }

    private void HoldBalance(AuditElement account, string which, decimal computed)
    {
        var (debit, credit) = (account[$"{which}DebitBalance"], account[$"{which}CreditBalance"]);
        if (debit.Length + credit.Length > 0 && Number(debit) - Number(credit) is var shown && shown != computed)
        {
            errors.Add(
                name, account.Line, account.Column,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"account {account["AccountID"]}: its {which.ToLowerInvariant()} balance "
                        + $"is {shown}, but the entries come to {computed}: a "
                        + $"difference of {shown - computed}."));
        }
    }

    private static decimal Number(string text) =>
        decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number) ? number : 0;
}
