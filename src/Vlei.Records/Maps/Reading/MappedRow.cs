using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>What the row at hand says, looked up: the ids and codes behind its names.</summary>
internal sealed class MappedRow(SourceRows rows, SourceMap map, MapReading reading)
{
    private static readonly IReadOnlyDictionary<string, string> NoAliases = new Dictionary<string, string>();

    /// <summary>The rows.</summary>
    public SourceRows Rows => rows;

    /// <summary>The map.</summary>
    public SourceMap Map => map;

    /// <summary>What everything is taken into.</summary>
    public MapReading Reading => reading;

    /// <summary>The text of a column.</summary>
    public string Text(ColumnRole role) => rows.Text(role);

    /// <summary>The place of a column of the row at hand.</summary>
    public FilePoint At(ColumnRole role) => new(rows.Name, rows.Line, rows.PlaceOf(role));

    /// <summary>The day of the document; nothing, with an error, where there is none.</summary>
    public DateOnly? Date()
    {
        if (Text(ColumnRole.Date).Length > 0)
        {
            return rows.Day(ColumnRole.Date);
        }

        rows.Complain(ColumnRole.Date, "is empty, but the row has an amount; expected a day.");
        return null;
    }

    /// <summary>The number of a column; nothing, after an error or where it is empty.</summary>
    public decimal? Number(ColumnRole role)
    {
        if (rows.Number(role) is not { } number)
        {
            return null;
        }

        RefuseOtherCurrency(role, number.Currency);
        return number.Side == NumberSide.Credit ? -number.Value : number.Value;
    }

    /// <summary>
    /// What a row posts, debit positive: columns for debits and credits, or an amount whose sign, mark or side says which it is; nothing,
    /// with an error, where it says nothing.
    /// </summary>
    /// <param name="account">The account that it is posted to; empty where that does not matter.</param>
    public decimal? Posted(string account)
    {
        if (Text(ColumnRole.Currency) is { Length: > 0 } currency)
        {
            RefuseOtherCurrency(ColumnRole.Currency, currency.ToUpperInvariant());
        }

        if (rows.Has(ColumnRole.Debit) || rows.Has(ColumnRole.Credit))
        {
            var (debit, credit) = (Number(ColumnRole.Debit), rows.Number(ColumnRole.Credit));
            if (debit is null && credit is null)
            {
                ComplainOfNothing(ColumnRole.Debit);
                return null;
            }

            return (debit ?? 0) - (credit?.Value ?? 0);
        }

        var role = rows.Has(ColumnRole.Amount) ? ColumnRole.Amount : rows.Has(ColumnRole.Total) ? ColumnRole.Total : ColumnRole.Balance;
        if (rows.Number(role) is not { } number)
        {
            ComplainOfNothing(role);
            return null;
        }

        RefuseOtherCurrency(role, number.Currency);
        return Signed(number, account);
    }

    /// <summary>The column that has what a row posts.</summary>
    public int PostedColumn() => rows.PlaceOf(
        Text(ColumnRole.Debit).Length > 0 ? ColumnRole.Debit : Text(ColumnRole.Credit).Length > 0 ? ColumnRole.Credit
        : rows.Has(ColumnRole.Amount) ? ColumnRole.Amount : rows.Has(ColumnRole.Total) ? ColumnRole.Total : ColumnRole.Balance);

    /// <summary>A number as debit positive: its mark, or the column that says its side, or its sign.</summary>
    public decimal Signed(SourceNumber number, string account)
    {
        var side = number.Side != NumberSide.None ? number.Side : SourceNumbers.SideOf(Text(ColumnRole.Side));
        return side switch
        {
            NumberSide.Debit => number.Value,
            NumberSide.Credit => -number.Value,
            _ => map.Signs == AmountSigns.Credit || (map.Signs == AmountSigns.Natural
                && AccountTypes.IsCreditPositive(reading.Accounts.TypeOf(account))) ? -number.Value : number.Value,
        };
    }

    /// <summary>
    /// The row's own word for the type of its account, else the heading above it; a word that says no type is an error, a heading is none.
    /// </summary>
    public string TypeWord(string section)
    {
        var said = Text(ColumnRole.Type);
        if (said.Length > 0 && !map.Types.ContainsKey(said) && reading.Words.TypeOf(said) is null)
        {
            rows.Complain(
                ColumnRole.Type,
                $"\"{said}\" is no type of account that is known; say what it is "
                    + $"in {map.Path}: [types] \"{said}\" = \"expense\", or another.");
        }

        return said.Length > 0 ? said : section;
    }

    /// <summary>The account of the row; empty where it names none.</summary>
    public string Account() => AccountIn(ColumnRole.Account);

    /// <summary>The account that a column names; empty where it names none.</summary>
    public string AccountIn(ColumnRole role)
    {
        var name = role == ColumnRole.Account ? Text(ColumnRole.AccountName) : "";
        var text = Text(role) is { Length: > 0 } said ? said : name;
        return text.Length == 0 ? "" : reading.Accounts.Find(text, name, Text(ColumnRole.Type), map, At(role));
    }

    /// <summary>The contact of the row, which is a customer or a supplier; empty where it names none.</summary>
    public string Contact(string kind) => reading.Names(RecordTables.Contacts).Find(
        Text(ColumnRole.Contact), Text(ColumnRole.ContactId), kind, map.Contacts,
        At(rows.Has(ColumnRole.Contact) ? ColumnRole.Contact : ColumnRole.ContactId));

    /// <summary>The record of a list that a column names; empty where it names none.</summary>
    public string Named(RecordTable table, ColumnRole role, string detail = "") =>
        rows.Has(role) ? reading.Names(table).Find(Text(role), "", detail, NoAliases, At(role)) : "";

    /// <summary>The tax code of the row; a new one has the rate that the row's amounts come to.</summary>
    public string TaxCode(decimal net, decimal tax)
    {
        if (!rows.Has(ColumnRole.TaxCode))
        {
            return "";
        }

        var rate = net == 0 ? 0 : Math.Round(100 * tax / net, 1);
        return Named(
            RecordTables.TaxCodes, ColumnRole.TaxCode, rate.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture));
    }

    /// <summary>The kind of the document; the usual one where the row does not say it.</summary>
    public string Kind(string usual) => Text(ColumnRole.Kind) is { Length: > 0 } text ? reading.Words.KindOf(text) ?? usual : usual;

    /// <summary>Says that amounts in another currency than the book's cannot be taken in.</summary>
    public void RefuseOtherCurrency(ColumnRole role, string currency)
    {
        if (currency.Length > 0 && currency != reading.Known.Currency.Code)
        {
            rows.Complain(
                role, $"the amount is in {currency}; the book is in {reading.Known.Currency.Code}, and takes in no other currency.");
        }
    }

    private void ComplainOfNothing(ColumnRole role)
    {
        if (Text(role).Length == 0)
        {
            rows.Complain(role, "there is no amount in this row; expected one.");
        }
    }
}
