using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The table of what each import did to documents: which were added, changed and removed, when and by whom.</summary>
public static class ChangeTable
{
    private static readonly WordPool Actions = new(["", "added", "changed", "removed"]);

    private static readonly RecordFields<DocumentVersion> Own = new()
    {
        { new("id", FieldType.Text, "The id of the document"), version => version.Id },
        { new("date", FieldType.Date, "The day of the import"), version => DayOf(version).DayNumber },
        { new("time", FieldType.Text, "The time of day of the import"),
            version => version.At.LocalDateTime.ToString("HH:mm", CultureInfo.InvariantCulture) },
        { new("revision", FieldType.Integer, "The number of the import"), version => version.Revision },
        { new("user", FieldType.Text, "Who ran the import"), version => version.By },
        { new("action", FieldType.Choice, "What it did to the document") { Words = Actions }, version => (long)version.Change + 1 },
        {
            TableField.Reference("document", RecordTables.Documents, "The document as it is now; nothing where it was removed since"),
            version => version.Document.Value
        },
        { TableField.DocumentKind("What it was then"), version => version.Kind },
        { new("document-date", FieldType.Date, "Its date then"), version => version.Date.DayNumber },
        { new("total", FieldType.Money, "The sum of its debits then"), version => version.Total.MinorUnits },
    };

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "changes",
        Meaning = "What each import added, changed and removed",
        Fields = [.. Own],
        Columns = ["date", "time", "revision", "user", "action", "kind", "document-date", "document.contact", "total"],
        Key = ["id", "revision"],
        Date = "date",
        Extent = context => context.Ledger.DocumentVersions().Select(DayOf).DefaultIfEmpty(context.Today.Date).ToList() is var days
            ? new DateRange(days.Min(), days.Max()) : default,
        Examples =
        [
            ("--where \"action <> 'added'\"", "what was ever changed or removed"),
            ("--group-by document.created-by --by kind --measure count", "who entered how many documents of which kind"),
        ],
        Read = (context, range) => [Own.BlockOf([.. context.Ledger.DocumentVersions().Where(version => range.Contains(DayOf(version)))])],
    };

    private static DateOnly DayOf(DocumentVersion version) => DateOnly.FromDateTime(version.At.LocalDateTime);
}
