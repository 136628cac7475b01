using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>Reads journals: a row a line, or a row a line with the account on its other side.</summary>
internal static class JournalReader
{
    /// <summary>Reads the rows.</summary>
    public static void Read(MappedRow row)
    {
        var grouping = new LineGrouping(row);
        while (row.Rows.Read())
        {
            if (row.Rows.Kind == SourceRowKind.Data)
            {
                Take(row, grouping);
            }
        }

        grouping.End();
    }

    /// <summary>The document that a row of a journal belongs to, as the row has it.</summary>
    public static DraftDocument DocumentOf(MappedRow row, DateOnly date, string contact) => new()
    {
        Kind = row.Kind("journal"),
        Date = date,
        Number = row.Text(ColumnRole.Document),
        Contact = contact,
        Reference = row.Text(ColumnRole.Reference),
        Memo = row.Text(ColumnRole.Memo),
        Line = row.Rows.Line,
        Tags = [.. row.Rows.Tags],
    };

    /// <summary>The line that a row of a journal is.</summary>
    public static DraftLine LineOf(MappedRow row, string account, string said, decimal amount, string contact) => new()
    {
        Account = account,
        Said = said,
        Amount = amount,
        Line = row.Rows.Line,
        Column = row.PostedColumn(),
        Contact = contact,
        Memo = row.Text(ColumnRole.Memo),
        Item = row.Named(RecordTables.Items, ColumnRole.Item),
        Quantity = row.Number(ColumnRole.Quantity),
        Project = row.Named(RecordTables.Projects, ColumnRole.Project),
        Department = row.Named(RecordTables.Departments, ColumnRole.Department),
        TaxCode = row.TaxCode(0, 0),
    };

    private static void Take(MappedRow row, LineGrouping grouping)
    {
        var account = row.Account();
        if (account.Length == 0)
        {
            row.Rows.Complain(ColumnRole.Account, "is empty; expected an account.");
            return;
        }

        if (row.Date() is not { } date || row.Posted(account) is not { } amount)
        {
            return;
        }

        var contact = row.Contact("other");
        var line = LineOf(row, account, row.Text(ColumnRole.Account), amount, contact);
        if (row.AccountIn(ColumnRole.ContraAccount) is { Length: > 0 } contra)
        {
            grouping.Add(date, contact, line, LineOf(row, contra, row.Text(ColumnRole.ContraAccount), -amount, contact));
        }
        else
        {
            grouping.Add(date, contact, line);
        }
    }
}
