using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Review;

/// <summary>What looks off about amounts and accounts: far more than ever before, never there before, tax that does not fit.</summary>
internal static class AmountFindings
{
    private const int LeastOfAccount = 20;
    private const int LeastOfContact = 5;
    private const int TimesOfAccount = 2;
    private const int TimesOfContact = 3;
    private const int LeastUses = 6;
    private const int MostAccounts = 3;

    /// <summary>Postings and documents that are far larger than all earlier ones of their account or contact.</summary>
    public static IEnumerable<Finding> Unusual(ReviewRecords records)
    {
        var accounts = new Dictionary<AccountKey, (int Count, Amount Largest)>();
        var contacts = new Dictionary<(ContactKey Contact, int Kind), (int Count, Amount Largest)>();
        var profit = AccountsThat(records, AccountTypes.IsProfitAndLoss);
        var sums = new List<(AccountKey Account, Amount Sum)>();
        foreach (var document in records.Documents)
        {
            var isLooked = document.Date >= records.Range.From;
            AddUp(document.Lines, profit, sums);
            foreach (var (account, sum) in sums)
            {
                var amount = sum.Magnitude;
                var (count, largest) = accounts.GetValueOrDefault(account);
                if (isLooked && count >= LeastOfAccount && !largest.IsZero && amount.MinorUnits / TimesOfAccount > largest.MinorUnits)
                {
                    yield return records.Of(
                        "unusual-amount", document,
                        $"{Times(amount, largest)} times the largest of {count} earlier postings to {records.AccountInWords(account)}") with
                    {
                        Key = $"unusual-amount/{records.IdOf(document)}/{records.Accounts[account].Code}",
                        Account = account,
                        Amount = amount,
                    };
                }

                accounts[account] = (count + 1, amount > largest ? amount : largest);
            }

            if (document.Contact.IsNone)
            {
                continue;
            }

            var (times, most) = contacts.GetValueOrDefault((document.Contact, document.Kind));
            if (isLooked && times >= LeastOfContact && !most.IsZero && document.Total.MinorUnits / TimesOfContact > most.MinorUnits)
            {
                yield return records.Of(
                    "unusual-amount", document,
                    $"{Times(document.Total, most)} times the largest "
                        + $"of {times} earlier documents of its kind with {records.NameOf(document.Contact)}");
            }

            contacts[(document.Contact, document.Kind)] = (times + 1, document.Total > most ? document.Total : most);
        }
    }

    /// <summary>Postings to an account that a contact, who otherwise has few, never had before.</summary>
    public static IEnumerable<Finding> FirstUses(ReviewRecords records)
    {
        var uses = new Dictionary<ContactKey, Dictionary<AccountKey, int>>();
        var taken = AccountsThat(records, type => AccountTypes.IsProfitAndLoss(type) || type == AccountType.Inventory);
        var own = new List<(AccountKey Account, Amount Sum)>();
        foreach (var document in records.Documents.Where(document => !document.Contact.IsNone))
        {
            AddUp(document.Lines, taken, own);
            if (own.Count == 0)
            {
                continue;
            }

            if (!uses.TryGetValue(document.Contact, out var known))
            {
                uses[document.Contact] = known = [];
            }

            var isNew = document.Date >= records.Range.From && known.Count is > 0 and <= MostAccounts && known.Values.Max() >= LeastUses;
            foreach (var (account, _) in own.Where(used => isNew && !known.ContainsKey(used.Account)))
            {
                yield return records.Of(
                    "new-account", document,
                    $"The first time that {records.NameOf(document.Contact)} is on {records.AccountInWords(account)}; so far on "
                        + string.Join(
                            ", ", known.OrderByDescending(use => use.Value).Select(
                                use => $"{records.AccountInWords(use.Key)} ({use.Value} ×)"))) with
                {
                    Key = $"new-account/{records.IdOf(document)}/{records.Accounts[account].Code}",
                    Account = account,
                };
            }

            foreach (var (account, _) in own)
            {
                known[account] = known.GetValueOrDefault(account) + 1;
            }
        }
    }

    /// <summary>Tax that is not its code's share of what it is counted from, and codes of the other side.</summary>
    public static IEnumerable<Finding> Tax(ReviewRecords records)
    {
        RecordField Field(string name) => RecordTables.TaxCodes.Fields[RecordTables.TaxCodes.IndexOf(name)];
        var codes = records.Context.Ledger.ReadRecords(RecordTables.TaxCodes, [Field("code"), Field("rate"), Field("direction")])
            .ToDictionary(
                code => code.Key,
                code => (Code: code.Values[0].Text ?? "", Rate: code.Values[1].Number ?? 0, Direction: code.Values[2].Text));
        foreach (var document in records.Within)
        {
            foreach (var lines in document.Lines.ToArray().Where(line => line.TaxCode > 0).GroupBy(line => line.TaxCode))
            {
                if (!codes.TryGetValue(lines.Key, out var code))
                {
                    continue;
                }

                Amount SumOf(TaxPart part) => lines.Where(line => line.TaxPart == part)
                    .Aggregate(Amount.Zero, (sum, line) => sum + line.Amount);
                var (taxed, tax) = (SumOf(TaxPart.Base), SumOf(TaxPart.Tax));

                // Each line may have been rounded by itself.
                const long HundredPercent = 100 * 1_000_000;
                var due = new Amount(Rounding.Divide((Int128)taxed.MinorUnits * code.Rate, HundredPercent));
                if ((due - tax).Magnitude.MinorUnits > lines.Count())
                {
                    yield return records.Of(
                        "tax", document,
                        $"{DecimalText.Write(code.Rate, RecordField.DecimalPlaces).TrimEnd('0').TrimEnd('.')} % of "
                        + $"{records.Text(taxed.Magnitude)} ({code.Code}) is {records.Text(due.Magnitude)}, and the tax is "
                        + records.Text(tax.Magnitude)) with
                    {
                        Key = $"tax/{records.IdOf(document)}/{code.Code}",
                        Amount = tax - due,
                    };
                }

                if (SideOf(document) is { } side && code.Direction is "sales" or "purchases" && code.Direction != SideOf(document))
                {
                    yield return records.Of(
                        "tax", document,
                        $"The tax code {code.Code} is for {code.Direction}, and this is a {DocumentKinds.Names[document.Kind - 1]}") with
                    {
                        Key = $"tax/{records.IdOf(document)}/{code.Code}/side",
                    };
                }
            }
        }
    }

    private static HashSet<AccountKey> AccountsThat(ReviewRecords records, Func<AccountType, bool> are) =>
        [.. records.Accounts.Values.Where(account => are(account.Type)).Select(account => account.Key)];

    // What lines come to on each of some accounts, in the order in which those are met.
    private static void AddUp(ReadOnlySpan<ReviewLine> lines, HashSet<AccountKey> accounts, List<(AccountKey Account, Amount Sum)> sums)
    {
        sums.Clear();
        foreach (var line in lines)
        {
            if (!accounts.Contains(line.Account))
            {
                continue;
            }

            var place = 0;
            while (place < sums.Count && sums[place].Account != line.Account)
            {
                place++;
            }

            if (place == sums.Count)
            {
                sums.Add((line.Account, line.Amount));
            }
            else
            {
                sums[place] = (line.Account, sums[place].Sum + line.Amount);
            }
        }
    }

    private static string? SideOf(ReviewDocument document) => DocumentKinds.Names[document.Kind - 1] switch
    {
        "invoice" or "credit-note" or "cash-sale" => "sales",
        "bill" or "supplier-credit" or "purchase-return" or "expense" => "purchases",
        _ => null,
    };

    private static string Times(Amount amount, Amount largest)
    {
        const int Tenths = 10;
        return DecimalText.Write(Rounding.Divide((Int128)amount.MinorUnits * Tenths, largest.MinorUnits), 1);
    }
}
