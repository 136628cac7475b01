using System.Globalization;
using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>Reads lists: a chart of accounts, contacts, items, projects, tax codes.</summary>
internal sealed class ListReader(MappedRow row)
{
    private readonly SourceRows _rows = row.Rows;
    private string _section = "";

    /// <summary>Reads the rows.</summary>
    public void Read()
    {
        while (_rows.Read())
        {
            if (_rows.Kind == SourceRowKind.Heading)
            {
                _section = _rows.Cells.First();
            }
            else if (_rows.Kind == SourceRowKind.Data)
            {
                Take();
            }
        }
    }

    private void Take()
    {
        var shape = row.Map.Shape;
        if (shape == Shape.Accounts)
        {
            TakeAccount();
        }
        else if (shape == Shape.Contacts)
        {
            TakeContact();
        }
        else if (shape == Shape.TaxCodes)
        {
            var rate = row.Number(ColumnRole.Rate) ?? 0;
            var code = First(ColumnRole.TaxCode, ColumnRole.Code);
            var name = First(ColumnRole.OwnName, ColumnRole.Memo) is { Length: > 0 } said ? said : code;
            Put(RecordTables.TaxCodes, "code",
                row.Reading.Names(RecordTables.TaxCodes).Find(name, code, "", row.Map.Contacts, Here()), name,
                ("rate", (rate is > 0 and < 1 ? rate * 100 : rate).ToString(CultureInfo.InvariantCulture), ColumnRole.Rate));
        }
        else
        {
            var table = shape == Shape.Items ? RecordTables.Items : RecordTables.Projects;
            var name = First(ColumnRole.OwnName, ColumnRole.Memo);
            var code = First(ColumnRole.Code, ColumnRole.Item, ColumnRole.Project, ColumnRole.Document);
            var id = row.Reading.Names(table).Find(name.Length > 0 ? name : code, code, "", row.Map.Contacts, Here());
            Put(table, "id", id, name.Length > 0 ? name : code,
                shape == Shape.Items ? [("unit", row.Text(ColumnRole.Unit), ColumnRole.Unit)]
                    : [("contact", row.Contact("customer"), ColumnRole.Contact)]);
        }
    }

    private void TakeAccount()
    {
        var text = First(ColumnRole.Account, ColumnRole.Code);
        var name = First(ColumnRole.AccountName, ColumnRole.OwnName);
        if (text.Length + name.Length == 0)
        {
            return;
        }

        var (said, at) = (row.TypeWord(_section), row.At(ColumnRole.Account));
        var code = row.Reading.Accounts.Describe(text, name, said, row.Map, at);
        if (row.Reading.Accounts.InBook(code) is not { } known
            || row.Reading.Accounts.SaidType(said, known.Name, row.Map) is not { } type)
        {
            return;
        }

        if (known.IsGuess)
        {
            row.Reading.DescribeAccount(_rows.Line, known.Code, name.Length > 0 ? name : known.Name, AccountTypes.NameOf(type));
        }
        else if (type != known.Type)
        {
            row.Reading.Notes.Add(
                $"{FilePlace.Text(at.File, at.Line, at.Column)}: account {known.Code} {known.Name} is {AccountTypes.NameOf(type)} "
                    + $"here, and {AccountTypes.NameOf(known.Type)} in the book, which it stays.");
        }
    }

    private void TakeContact()
    {
        var name = First(ColumnRole.Contact, ColumnRole.OwnName);
        var said = $"{First(ColumnRole.Type)} {_rows.Title}".Trim();
        var kinds = row.Reading.Words.SubjectsOf(said);
        var kind = kinds.Contains("suppliers") && kinds.Contains("customers") ? "both"
            : kinds.Contains("suppliers") || row.Map.IsPurchase ? "supplier" : "customer";
        var id = row.Reading.Names(RecordTables.Contacts).Find(
            name, First(ColumnRole.ContactId, ColumnRole.Code, ColumnRole.Document), kind, row.Map.Contacts, Here());
        Put(RecordTables.Contacts, "id", id, name,
            ("kind", kind, ColumnRole.Type), ("email", row.Text(ColumnRole.Email), ColumnRole.Email),
            ("phone", row.Text(ColumnRole.Phone), ColumnRole.Phone), ("address", row.Text(ColumnRole.Address), ColumnRole.Address),
            ("terms_days", row.Text(ColumnRole.Terms), ColumnRole.Terms));
    }

    private FilePoint Here() => new(_rows.Name, _rows.Line, 1);

    private string First(params ReadOnlySpan<ColumnRole> roles)
    {
        foreach (var role in roles)
        {
            if (row.Text(role) is { Length: > 0 } text)
            {
                return text;
            }
        }

        return "";
    }

    private void Put(
        RecordTable table, string idField, string id, string name, params ReadOnlySpan<(string Field, string Value, ColumnRole Role)> more)
    {
        row.Reading.Describe(table, id);
        var records = row.Reading.Of(table);
        records.Begin(_rows.Line);
        records.Put(idField, id, 1);
        records.Put("name", name, 1);
        foreach (var (field, value, role) in more)
        {
            records.Put(field, value, _rows.PlaceOf(role));
        }

        foreach (var (tag, value) in _rows.Tags)
        {
            records.PutTag(tag, value);
        }

        records.End();
    }
}
