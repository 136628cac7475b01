using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Reads payments, a row each, and sets them against the documents that they say they pay; and movements of one money account.
/// </summary>
internal sealed class PaymentReader(MappedRow row)
{
    private static readonly char[] Between = [',', ';', '+', '&', '/'];

    private readonly SourceRows _rows = row.Rows;
    private readonly bool _isSingleEntry = row.Map.Shape == Shape.SingleEntry;

    /// <summary>Reads the rows.</summary>
    public void Read()
    {
        LedgerBlock? proved = null;
        while (_rows.Read())
        {
            if (_rows.Kind == SourceRowKind.Opening)
            {
                proved ??= new LedgerBlock(Money(), "the money account");
                proved.Open(_rows.Number(ColumnRole.Balance), row.At(ColumnRole.Balance));
            }
            else if (_rows.Kind == SourceRowKind.Data && Received() is { } amount && row.Date() is { } date)
            {
                if (_rows.Has(ColumnRole.Balance))
                {
                    proved ??= Begun(amount);
                    proved.Move(amount, _rows.Number(ColumnRole.Balance), row.At(ColumnRole.Balance));
                }

                Take(date, amount);
            }
        }

        proved?.Prove(row.Reading.Proof, row.Reading.Accounts);
        if (!_isSingleEntry && !_rows.Has(ColumnRole.Pays))
        {
            row.Reading.Notes.Add(
                $"{_rows.Name} does not say what payments pay: nothing is settled by it, and what was paid stays open beside its payment.");
        }
    }

    // What came before the first row follows from its balance.
    private LedgerBlock Begun(decimal amount)
    {
        var block = new LedgerBlock(Money(), "the money account");
        if (_rows.Number(ColumnRole.Balance) is { } balance)
        {
            block.Open(balance with { Value = balance.Value - amount }, row.At(ColumnRole.Balance));
        }

        return block;
    }

    private string Money() => row.AccountIn(ColumnRole.MoneyAccount) is { Length: > 0 } said ? said
        : row.Reading.AccountFor("money", row.Map, row.At(ColumnRole.MoneyAccount));

    // Money that came in is positive.
    private decimal? Received()
    {
        if (row.Text(ColumnRole.Currency) is { Length: > 0 } currency)
        {
            row.RefuseOtherCurrency(ColumnRole.Currency, currency.ToUpperInvariant());
        }

        if (_rows.Has(ColumnRole.MoneyIn) || _rows.Has(ColumnRole.MoneyOut))
        {
            var (came, went) = (row.Number(ColumnRole.MoneyIn), row.Number(ColumnRole.MoneyOut));
            if (came is null && went is null)
            {
                _rows.Complain(ColumnRole.MoneyIn, "there is no amount in this row; expected one.");
                return null;
            }

            return (came ?? 0) - (went ?? 0);
        }

        var role = _rows.Has(ColumnRole.Amount) ? ColumnRole.Amount : ColumnRole.Total;
        if (_rows.Number(role) is not { } amount)
        {
            _rows.Complain(role, "there is no amount in this row; expected one.");
            return null;
        }

        row.RefuseOtherCurrency(role, amount.Currency);
        return _isSingleEntry ? row.Signed(amount, "") : row.Map.IsPurchase ? -amount.Value : amount.Value;
    }

    private void Take(DateOnly date, decimal amount)
    {
        var pays = _isSingleEntry ? [] : Paid();
        var isSupplier = row.Map.IsPurchase || (amount < 0 && (_rows.Has(ColumnRole.MoneyOut) || _isSingleEntry));
        var contact = row.Contact(isSupplier ? "supplier" : "customer");
        contact = contact.Length == 0 && pays.Count > 0 ? pays[0].Contact : contact;
        var number = row.Text(ColumnRole.Document);
        var document = new DraftDocument
        {
            Id = number.Length > 0 ? row.Map.Prefix + number : "",
            Kind = row.Kind(_isSingleEntry ? amount < 0 ? "expense" : "deposit" : isSupplier ? amount > 0 ? "refund" : "payment"
                : amount < 0 ? "refund" : "receipt"),
            Date = date, Number = number, Contact = contact, Reference = row.Text(ColumnRole.Reference), Memo = row.Text(ColumnRole.Memo),
            Line = _rows.Line, Tags = [.. _rows.Tags],
        };
        var (money, other) = (Money(), Other(isSupplier));
        if (other.Length == 0)
        {
            _rows.Complain(ColumnRole.Account, "is empty; expected an account or a category.");
            return;
        }

        document.Lines.Add(Line(money, row.Text(ColumnRole.MoneyAccount), amount));
        AddTaxed(document, other, amount);
        row.Reading.Add(document, row.Map.Prefix);
        Settle(document, pays, amount);
    }

    private string Other(bool isSupplier) => _isSingleEntry ? row.Account()
        : row.Reading.AccountFor(isSupplier ? "payable" : "receivable", row.Map, row.At(ColumnRole.Amount));

    private void AddTaxed(DraftDocument document, string other, decimal amount)
    {
        var tax = _isSingleEntry ? (row.Number(ColumnRole.Tax) ?? 0) * Math.Sign(amount) : 0;
        var code = _isSingleEntry ? row.TaxCode(amount - tax, tax) : "";
        document.Lines.Add(Line(other, row.Text(ColumnRole.Account), tax - amount, code));
        if (tax != 0)
        {
            document.Lines.Add(Line(row.Reading.AccountFor("tax", row.Map, row.At(ColumnRole.Tax)), "", -tax, code, isTax: true));
        }
    }

    private DraftLine Line(string account, string said, decimal amount, string code = "", bool isTax = false) => new()
    {
        Account = account, Said = said, Amount = amount, Line = _rows.Line, Column = _rows.PlaceOf(
            _rows.Has(ColumnRole.Amount) ? ColumnRole.Amount : amount < 0 ? ColumnRole.MoneyOut : ColumnRole.MoneyIn),
        TaxCode = code, IsTax = isTax,
    };

    // The documents that the row says it pays; of those with the same number, the one of its contact.
    private List<KnownDocument> Paid()
    {
        var paid = new List<KnownDocument>();
        if (row.Text(ColumnRole.Pays) is not { Length: > 0 } text)
        {
            return paid;
        }

        foreach (var number in row.Reading.Payable(text).Count > 0 ? [text]
            : text.Split(Between, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var known = row.Reading.Payable(number);
            var ofContact = row.Text(ColumnRole.Contact).Length + row.Text(ColumnRole.ContactId).Length == 0 || known.Count < 2 ? known
                : [.. known.Where(document => document.Contact == row.Contact(""))];
            if (ofContact.Count == 1)
            {
                paid.Add(ofContact[0]);
            }
            else
            {
                _rows.Complain(ColumnRole.Pays, ofContact.Count == 0
                    ? $"\"{number}\" is no invoice or bill of the book or of these files; expected its number."
                    : $"\"{number}\" is the number of {ofContact.Count} documents; expected the contact too.");
            }
        }

        return paid;
    }

    // One after the other, each up to what it was for.
    private void Settle(DraftDocument document, List<KnownDocument> pays, decimal amount)
    {
        var left = Math.Abs(amount);
        foreach (var paid in pays)
        {
            var part = pays.Count == 1 ? left : Math.Min(left, Math.Abs(paid.Total));
            if (part == 0)
            {
                continue;
            }

            var records = row.Reading.Of(RecordTables.Settlements);
            records.Begin(_rows.Line);
            records.Put("from", document.Id, _rows.PlaceOf(ColumnRole.Pays));
            records.Put("to", paid.Id, _rows.PlaceOf(ColumnRole.Pays));
            records.Put("amount", part, _rows.PlaceOf(ColumnRole.Amount));
            records.End();
            left -= part;
        }
    }
}
