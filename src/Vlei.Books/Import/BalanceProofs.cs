using Vlei.Books.Columns;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Import;

/// <summary>Holds balances that the sources of an import show against what the book has when it is done.</summary>
internal static class BalanceProofs
{
    /// <summary>Those that differ, with the difference.</summary>
    public static IEnumerable<RecordError> Differing(ImportSession session, BookSettings settings)
    {
        var accounts = AccountRows.Read(session.Store);
        var (months, keys) = (new WritableDerivedMonths(session.Store), session.Keys[RecordTables.Accounts.Name]);
        foreach (var day in session.Records.Balances.GroupBy(balance => balance.Day))
        {
            var balances = AccountBalances.At(months, accounts, day.Key, settings.Calendar);
            foreach (var shown in day)
            {
                var key = keys.Find(System.Text.Encoding.UTF8.GetBytes(shown.Account));
                var has = balances.GetValueOrDefault(new AccountKey(key));
                if (has != shown.Balance)
                {
                    yield return new RecordError(
                        shown.File, shown.Line, shown.Column,
                        $"account {shown.Account} stands at {Text(shown.Balance)} on {PeriodText.Iso(shown.Day)} here, but the book "
                            + $"comes to "
                            + $"{Text(has)}: a difference of {Text(shown.Balance - has)}.");
                }
            }
        }

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, settings.Currency.Decimals);
    }
}
