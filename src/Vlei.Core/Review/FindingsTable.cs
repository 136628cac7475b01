using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Review;

/// <summary>The table of what looks off in the records of a period, with what a person has said about it.</summary>
public static class FindingsTable
{
    private static readonly Func<ReviewRecords, IEnumerable<Finding>>[] Rules =
    [
        EntryFindings.Duplicates, EntryFindings.Numbers, BalanceFindings.MoneyBelowZero, AmountFindings.Unusual, AmountFindings.FirstUses,
        AmountFindings.Tax, EntryFindings.Journals, EntryFindings.Late, BalanceFindings.OldUnapplied, BalanceFindings.CreditBalances,
    ];

    private static readonly WordPool Statuses = new(["", "new", "question", "seen"]);

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "findings",
        Meaning = "What looks off in the records of a period, each with the reason, the figure and the command that shows it",
        Fields =
        [
            new("finding", FieldType.Text, "The name by which it is marked as seen, or as a question"),
            new("kind", FieldType.Text, "What kind of thing it is"),
            new("date", FieldType.Date, "The day that it is about"),
            TableField.Reference("document", RecordTables.Documents, "The document that it is about"),
            TableField.Reference("contact", RecordTables.Contacts, "The contact"),
            TableField.Reference("account", RecordTables.Accounts, "The account"),
            new("amount", FieldType.Money, "The figure") { AddsUp = false },
            new("reason", FieldType.Text, "What looks off"),
            new("command", FieldType.Text, "The command that shows the records behind it"),
            new("status", FieldType.Choice, "New, a question that the client has not answered, or seen") { Words = Statuses },
            new("note", FieldType.Text, "What was said when it was marked"),
        ],
        Columns = ["date", "contact", "amount", "reason", "status", "note", "command"],
        Key = ["finding"],
        Date = "date",
        Examples =
        [
            ("--period last-month --only kind=duplicate,tax", "two kinds of findings, last month"),
            ("--period last-3-months --group-by kind --summary --columns count", "how many of each kind"),
        ],
        Read = (context, range) => [Block(context, [.. Find(context, range)])],
    };

    /// <summary>All findings of some days, by kind.</summary>
    public static IEnumerable<Finding> Find(TableContext context, DateRange range)
    {
        var records = new ReviewRecords(context, range);
        return Rules.SelectMany(find => find(records));
    }

    private static RowBlock Block(TableContext context, List<Finding> findings)
    {
        // A mark is of the records as they were; where they have changed, somebody has to look again.
        // Where somebody wrote two into the file, the later one counts.
        var marks = new Dictionary<(string, long), FindingMark>();
        foreach (var mark in context.Ledger.Marks)
        {
            marks[(mark.Finding, mark.Fingerprint)] = mark;
        }

        var marked = findings.Select(finding => marks.GetValueOrDefault((finding.Key, finding.Fingerprint))).ToList();
        return new RowBlock(findings.Count, name => [.. findings.Select((finding, row) => name switch
        {
            "date" => finding.Date.DayNumber,
            "document" => finding.Document,
            "contact" => finding.Contact,
            "account" => finding.Account,
            "amount" => finding.Amount?.MinorUnits ?? FieldCells.Nothing,
            _ => marked[row] is not { } mark ? 1L : mark.IsQuestion ? 2 : 3,
        })])
        {
            TextOf = (name, row) => name switch
            {
                "finding" => findings[row].Key,
                "kind" => findings[row].Kind,
                "reason" => findings[row].Reason,
                "command" => $"vlei {findings[row].Command}",
                _ => marked[row]?.Note ?? "",
            },
        };
    }
}
