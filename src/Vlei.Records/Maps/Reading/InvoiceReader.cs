using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Reads lists of invoices, bills and credit notes, a row each or a row a line, and lists of those that are open on a day.
/// </summary>
internal sealed class InvoiceReader(MappedRow row)
{
    private readonly SourceRows _rows = row.Rows;
    private readonly Dictionary<string, (DraftDocument Document, decimal Total)> _documents = [];
    private readonly bool _isOpen = row.Map.Shape == Shape.OpenItems;

    // What is owed to a supplier is a credit, and so is what is owed back to a customer.
    private readonly int _sign = row.Map.IsPurchase == (row.Map.Shape == Shape.Credits) ? 1 : -1;

    /// <summary>Reads the rows.</summary>
    public void Read()
    {
        while (_rows.Read())
        {
            if (_rows.Kind == SourceRowKind.Data)
            {
                Take();
            }
        }

        foreach (var (document, total) in _documents.Values)
        {
            row.Reading.AddPayable(new KnownDocument(document.Id, document.Number, document.Contact, total));
        }
    }

    private void Take()
    {
        var number = row.Text(ColumnRole.Document);
        var contact = row.Contact(row.Map.IsPurchase ? "supplier" : "customer");
        if (row.Date() is not { } date || number.Length == 0 || contact.Length == 0 || Amounts() is not var (net, tax))
        {
            if (number.Length == 0 || contact.Length == 0)
            {
                _rows.Complain(
                    number.Length == 0 ? ColumnRole.Document : ColumnRole.Contact, "is empty; a document has a number and a contact.");
            }

            return;
        }

        // Numbers of bills are the suppliers' own, and two of them may have the same.
        var id = row.Map.Prefix + (row.Map.IsPurchase ? $"{contact}-{number}" : number);
        var (document, total) = _documents.GetValueOrDefault(id);
        if (document is null)
        {
            document = DocumentOf(id, date, number, contact, net + tax);
            row.Reading.Begin(document);
        }
        else if (row.Map.Shape != Shape.InvoiceLines)
        {
            _rows.Complain(ColumnRole.Document, $"\"{number}\" is there twice, first in line {document.Line}; a row is a document here.");
            return;
        }

        _documents[id] = (document, total + (_sign * (net + tax)));
        AddLines(document, net, tax);
    }

    private DraftDocument DocumentOf(string id, DateOnly date, string number, string contact, decimal total) => new()
    {
        Id = id,
        Kind = KindOf(total),
        Date = date,
        Due = _rows.Day(ColumnRole.Due),
        Number = number,
        Contact = contact,
        Reference = row.Text(ColumnRole.Reference),
        Memo = row.Text(ColumnRole.Memo),
        Line = _rows.Line,
        Tags = [.. _rows.Tags],
    };

    private string KindOf(decimal total)
    {
        var isCredit = total < 0 != (row.Map.Shape == Shape.Credits);
        return _isOpen ? "opening" : row.Map.IsPurchase ? isCredit ? "supplier-credit" : "bill" : isCredit ? "credit-note" : "invoice";
    }

    // Any two of net, tax and total say the third; all three must agree.
    private (decimal Net, decimal Tax)? Amounts()
    {
        if (row.Text(ColumnRole.Currency) is { Length: > 0 } currency)
        {
            row.RefuseOtherCurrency(ColumnRole.Currency, currency.ToUpperInvariant());
        }

        var role = _isOpen && _rows.Has(ColumnRole.Open) ? ColumnRole.Open : _isOpen && _rows.Has(ColumnRole.Balance) ? ColumnRole.Balance
            : _rows.Has(ColumnRole.Total) || !_rows.Has(ColumnRole.Amount) ? ColumnRole.Total : ColumnRole.Amount;
        var (total, net, tax) =
            (row.Number(role), _isOpen ? null : row.Number(ColumnRole.Net), _isOpen ? null : row.Number(ColumnRole.Tax));
        if (total is null && net is null)
        {
            _rows.Complain(role, "there is no amount in this row; expected one.");
            return null;
        }

        if (total is { } whole && net is { } without && tax is { } of && without + of != whole)
        {
            row.Reading.Proof.Fail(
                _rows.Name, _rows.Line, _rows.PlaceOf(role),
                $"net {without} and tax {of} come to {without + of}, but the total is {whole}: a difference of {whole - without - of}.");
        }

        var taxed = tax ?? (total is { } all && net is { } most ? all - most : 0);
        return (net ?? (total!.Value - taxed), taxed);
    }

    private void AddLines(DraftDocument document, decimal net, decimal tax)
    {
        var at = row.At(_rows.Has(ColumnRole.Total) ? ColumnRole.Total : ColumnRole.Net);
        var control = row.Reading.AccountFor(row.Map.IsPurchase ? "payable" : "receivable", row.Map, at);
        row.Reading.AddLine(document, Line(control, _sign * (net + tax), at));
        var contra = _isOpen ? row.Reading.AccountFor("opening", row.Map, at)
            : row.Account() is { Length: > 0 } said ? said
            : row.Reading.AccountFor(row.Map.IsPurchase ? "expense" : "income", row.Map, at);
        var code = _rows.Has(ColumnRole.TaxCode) ? row.TaxCode(net, tax) : "";
        row.Reading.AddLine(document, new DraftLine
        {
            Account = contra, Amount = -_sign * net, Line = _rows.Line,
            Column = _rows.PlaceOf(_rows.Has(ColumnRole.Net) ? ColumnRole.Net : ColumnRole.Total),
            Item = row.Named(RecordTables.Items, ColumnRole.Item), Quantity = row.Number(ColumnRole.Quantity),
            UnitPrice = row.Number(ColumnRole.UnitPrice), TaxCode = code, Memo = row.Text(ColumnRole.Memo),
            Project = row.Named(RecordTables.Projects, ColumnRole.Project),
            Department = row.Named(RecordTables.Departments, ColumnRole.Department),
        });
        if (tax != 0)
        {
            var taxAt = row.At(ColumnRole.Tax);
            row.Reading.AddLine(document, new DraftLine
            {
                Account = row.Reading.AccountFor("tax", row.Map, taxAt), Amount = -_sign * tax, Line = _rows.Line, Column = taxAt.Column,
                TaxCode = code, IsTax = true,
            });
        }
    }

    private static DraftLine Line(string account, decimal amount, FilePoint at) =>
        new() { Account = account, Amount = amount, Line = at.Line, Column = at.Column };
}
