using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Review;

/// <summary>The table of what looks off in the records of a period, with what a person has said about it.</summary>
public static class FindingsTable
{
    /// <summary>What stands before the number of a finding, or its key, where it is shown.</summary>
    public const string NamePrefix = "finding/";

    private static readonly Func<ReviewRecords, IEnumerable<Finding>>[] Rules =
    [
        EntryFindings.Duplicates, EntryFindings.Numbers, BalanceFindings.MoneyBelowZero, AmountFindings.Unusual, AmountFindings.FirstUses,
        AmountFindings.Tax, EntryFindings.Journals, EntryFindings.Late, BalanceFindings.OldUnapplied, BalanceFindings.CreditBalances,
    ];

    private static readonly WordPool Statuses = new(["", "new", "question", "seen"]);

    private static readonly RecordFields<(Finding Found, FindingMark? Mark, int Number)> Own = new()
    {
        { new("finding", FieldType.Text, "The name by which it is marked as seen, or as a question"), row => row.Found.Key },
        { new("entry", FieldType.Text, "The name by which it is shown: vlei show finding/3"), row => $"{NamePrefix}{row.Number}" },
        { new("kind", FieldType.Text, "What kind of thing it is") { HasOurWords = true }, row => row.Found.Kind },
        { new("date", FieldType.Date, "The day that it is about"), row => row.Found.Date.DayNumber },
        { TableField.Reference("document", RecordTables.Documents, "The document that it is about"), row => row.Found.Document.Value },
        { TableField.Reference("contact", RecordTables.Contacts, "The contact"), row => row.Found.Contact.Value },
        { TableField.Reference("account", RecordTables.Accounts, "The account"), row => row.Found.Account.Value },
        { new("amount", FieldType.Money, "The figure") { AddsUp = false }, row => row.Found.Amount?.MinorUnits ?? FieldCells.Nothing },
        { new("reason", FieldType.Text, "What looks off"), row => row.Found.Reason },
        { new("command", FieldType.Text, "The command that shows the records behind it"), row => row.Found.Records.Command },
        {
            new("status", FieldType.Choice, "New, a question that the client has not answered, or seen") { Words = Statuses },
            row => row.Mark is not { } mark ? 1L : mark.IsQuestion ? 2 : 3
        },
        { new("note", FieldType.Text, "What was said when it was marked"), row => row.Mark?.Note ?? "" },
    };

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "findings",
        Meaning = "What looks off, with reason, figure and command",
        Fields = [.. Own],
        Columns = ["date", "contact", "amount", "reason", "status", "note", "command"],
        Key = ["finding"],
        Label = "entry",
        Note = "vlei show finding/3 shows the records behind the third.",
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
        return Rules.SelectMany(find => find(records)).DistinctBy(finding => finding.Key).OrderBy(finding => finding.Kind,
            StringComparer.Ordinal);
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

        return Own.BlockOf([.. findings.Select((finding, place) =>
            (finding, marks.GetValueOrDefault((finding.Key, finding.Fingerprint)), place + 1))]);
    }
}
