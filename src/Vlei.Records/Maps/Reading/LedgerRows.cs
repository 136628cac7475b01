using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Reads ledgers: rows under the heading of each account, or with its code in a column. Balances that the file shows prove the rows; what
/// accounts open with becomes an opening document where the book begins there, and is held against the book where it does not.
/// </summary>
internal sealed class LedgerRows(MappedRow row)
{
    private readonly SourceRows _rows = row.Rows;
    private readonly LineGrouping _grouping = new(row);
    private readonly List<LedgerBlock> _blocks = [];
    private DateOnly? _first;
    private DateOnly? _last;
    private string? _heading;
    private LedgerBlock? _block;

    /// <summary>Reads the rows.</summary>
    public void Read()
    {
        while (_rows.Read())
        {
            switch (_rows.Kind)
            {
                case SourceRowKind.Heading:
                    BeginAccount();
                    break;
                case SourceRowKind.Opening:
                    Block()?.Open(Shown(), At());
                    break;
                case SourceRowKind.Closing:
                    _block?.Close(Shown(), At());
                    break;
                case SourceRowKind.Total:
                    if (_block is not null && _rows.Has(ColumnRole.Balance) && _rows.Text(ColumnRole.Balance).Length > 0)
                    {
                        _block.Close(Shown(), At());
                    }

                    break;
                default:
                    Take();
                    break;
            }
        }

        _grouping.End();
        foreach (var block in _blocks)
        {
            block.Prove(row.Reading.Proof, row.Reading.Accounts);
            row.Reading.Accounts.NoteOpening(block.Account, block.Opening);
        }

        if (_first is { } first)
        {
            row.Reading.AtEnd(first.AddDays(-1), 1, Open);
        }

        Expect();
    }

    // Whatever account the heading names; a page may begin with the heading of the account that goes on.
    private void BeginAccount()
    {
        var texts = _rows.Cells.ToList();
        var text = texts.Count > 1 && texts[0].Any(char.IsAsciiDigit) && !texts[0].Contains(' ', StringComparison.Ordinal)
            ? $"{texts[0]} {texts[1]}" : texts[0];
        var named = row.Reading.Words.BehindAccountWord(text);
        text = named is { Length: > 0 } ? named : named is not null && texts.Count > 1 ? string.Join(' ', texts.Skip(1)) : text;
        if (named is not null || row.Reading.Accounts.LooksLikeOne(text) || texts.Count == 1)
        {
            if (_heading != text)
            {
                _rows.BeginPart();
            }

            _heading = text;
        }
    }

    private LedgerBlock? Block()
    {
        var said = _rows.Has(ColumnRole.Account) && _rows.Text(ColumnRole.Account) is { Length: > 0 } inRow ? inRow : _heading;
        if (said is null)
        {
            _rows.Complain(ColumnRole.Date, "there is no account above this row; expected one as a heading, or in a column.");
            return null;
        }

        if (_block?.Said != said)
        {
            var account = row.Reading.Accounts.Find(said, row.Text(ColumnRole.AccountName), "", row.Map, At());
            _block = _blocks.Find(block => block.Account == account);
            if (_block is null)
            {
                _blocks.Add(_block = new LedgerBlock(account, said));
            }
        }

        return _block;
    }

    private void Take()
    {
        if (Block() is not { } block || row.Date() is not { } date || row.Posted("") is not { } amount)
        {
            return;
        }

        _first = _first < date ? _first : date;
        _last = _last > date ? _last : date;
        block.Move(amount, _rows.Text(ColumnRole.Balance).Length > 0 ? Shown() : null, At());
        var contact = row.Contact("other");
        _grouping.Add(date, contact, JournalReader.LineOf(row, block.Account, block.Said, amount, contact));
    }

    // A balance, or, in a row without one, what stands on either side.
    private SourceNumber? Shown()
    {
        if (_rows.Text(ColumnRole.Balance).Length > 0)
        {
            return _rows.Number(ColumnRole.Balance);
        }

        var (debit, credit) = (_rows.Number(ColumnRole.Debit), _rows.Number(ColumnRole.Credit));
        return debit is null && credit is null ? null
            : new SourceNumber((debit?.Value ?? 0) - (credit?.Value ?? 0), NumberSide.Debit, "");
    }

    private FilePoint At() => new(_rows.Name, _rows.Line, _rows.PlaceOf(ColumnRole.Balance));

    private void Open()
    {
        if (_first is not { } first || _blocks.TrueForAll(block => block.Opening == 0))
        {
            return;
        }

        var (day, id) = (first.AddDays(-1), $"{row.Map.Prefix}opening-{first.AddDays(-1):yyyy-MM-dd}");
        var before = row.Reading.StandingAt(day, id);
        var document = new DraftDocument
        {
            Id = id, Kind = "opening", Date = day, Line = _blocks[0].OpeningAt.Line, Memo = "Opening balances",
        };
        foreach (var block in _blocks.Where(block => block.Opening != 0 || before.ContainsKey(block.Account)))
        {
            if (before.Count > 0)
            {
                row.Reading.Proof.Hold(
                    block.OpeningAt.File, Math.Max(1, block.OpeningAt.Line), Math.Max(1, block.OpeningAt.Column),
                    $"the opening balance of {block.Said}, which the book has otherwise,", block.Opening,
                    before.GetValueOrDefault(block.Account));
            }
            else
            {
                document.Lines.Add(new DraftLine
                {
                    Account = block.Account, Said = block.Said, Amount = block.Opening, Line = block.OpeningAt.Line,
                    Column = block.OpeningAt.Column,
                });
            }
        }

        if (document.Lines.Sum(line => line.Amount) is not 0 and var sum)
        {
            row.Reading.Proof.Fail(
                _rows.Name, document.Line, 1, $"the opening balances sum to {sum}; expected 0: is an account missing?");
        }

        if (document.Lines.Count > 0)
        {
            row.Reading.Add(document, "");
        }
    }

    private void Expect()
    {
        var decimals = (decimal)Math.Pow(10, row.Reading.Known.Currency.Decimals);
        foreach (var block in _blocks.Where(block => block.HasShown && _last is not null))
        {
            row.Reading.Balances.Add(new BalanceProof(
                block.Account, _last!.Value, new Amount((long)(block.Balance * decimals)), block.LastAt.File, block.LastAt.Line,
                block.LastAt.Column));
        }
    }
}
