using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tables;

/// <summary>The table of what each import did to documents: which were added, changed and removed, when and by whom.</summary>
public static class ChangeTable
{
    private static readonly WordPool Actions = new(["", "added", "changed", "removed"]);

    /// <summary>The table.</summary>
    public static TableDefinition Definition { get; } = new()
    {
        Name = "changes",
        Meaning = "What each import did to documents: which were added, changed and removed, when and by whom",
        Fields =
        [
            new("id", FieldType.Text, "The id of the document"),
            new("date", FieldType.Date, "The day of the import"),
            new("time", FieldType.Text, "The time of day of the import, in UTC"),
            new("revision", FieldType.Integer, "The number of the import"),
            new("user", FieldType.Text, "Who ran the import"),
            new("action", FieldType.Choice, "What it did to the document") { Words = Actions },
            TableField.Reference("document", RecordTables.Documents, "The document as it is now; nothing where it was removed since"),
            TableField.DocumentKind("What it was then"),
            new("document-date", FieldType.Date, "Its date then"),
            new("total", FieldType.Money, "The sum of its debits then"),
        ],
        Columns = ["date", "time", "revision", "user", "action", "kind", "document-date", "document.contact", "total"],
        Key = ["id", "revision"],
        Date = "date",
        Extent = context => context.Ledger.DocumentVersions().Select(DayOf).DefaultIfEmpty(context.Today.Date).ToList() is var days
            ? new DateRange(days.Min(), days.Max()) : default,
        Examples =
        [
            ("--where \"action <> 'added'\"", "what was ever changed or removed"),
            ("--rows document.created-by --across kind --measure count", "who entered how many documents of which kind"),
        ],
        Read = (context, range) => [BlockOf([.. context.Ledger.DocumentVersions().Where(version => range.Contains(DayOf(version)))])],
    };

    private static DateOnly DayOf(DocumentVersion version) => DateOnly.FromDateTime(version.At.UtcDateTime);

    private static RowBlock BlockOf(List<DocumentVersion> versions) => new(versions.Count, name => [.. versions.Select(version => name switch
    {
        "date" => DayOf(version).DayNumber,
        "revision" => version.Revision,
        "action" => (long)version.Change + 1,
        "document" => version.Document,
        "kind" => version.Kind,
        "document-date" => version.Date.DayNumber,
        _ => version.Total.MinorUnits,
    })])
    {
        TextOf = (name, row) => name switch
        {
            "id" => versions[row].Id,
            "time" => versions[row].At.UtcDateTime.ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture),
            _ => versions[row].By,
        },
    };
}
