using System.Globalization;
using System.Text;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Records;

namespace Vlei.Desk.Exporting;

/// <summary>What an export wrote.</summary>
/// <param name="Counts">How many records of each kind.</param>
/// <param name="Before">How many of the documents are from before its period.</param>
/// <param name="HasOpening">Whether what was before is in an opening document.</param>
public sealed record ExportOutcome(IReadOnlyList<(RecordTable Table, long Count)> Counts, int Before, bool HasOpening);

/// <summary>
/// Writes the records of a book as a record set, whole or narrowed, with what was noted beside them: promises, and what was said about
/// findings.
/// </summary>
public sealed class RecordExport(ReportDesk desk)
{
    private readonly Dictionary<RecordTable, Dictionary<int, string>> _ids = [];

    /// <summary>
    /// Writes them into a folder, as a whole or not at all. Throws a <see cref="ProblemException"/> where it is not empty or cannot be
    /// written, or where the narrowing is not understood.
    /// </summary>
    /// <param name="folder">The folder.</param>
    /// <param name="period">The days; nothing for all.</param>
    /// <param name="narrowing">Options of lists that narrow the documents; none for all.</param>
    public ExportOutcome Write(string folder, DateRange? period, IReadOnlyDictionary<string, IReadOnlyList<string>> narrowing)
    {
        using var ledger = LedgerReader.Open(desk.Book);
        var documents = new ExportedDocuments(ledger, period, Chosen(ledger, narrowing));
        ExportOutcome? outcome = null;
        WholeFolder.Make(folder, unfinished =>
        {
            outcome = WriteInto(unfinished, ledger, documents);
            WriteNotes(unfinished, ledger, documents);
        });
        return outcome!;
    }

    // The documents that a list shows which is narrowed like that.
    private HashSet<int>? Chosen(LedgerReader ledger, IReadOnlyDictionary<string, IReadOnlyList<string>> narrowing)
    {
        if (narrowing.Count == 0)
        {
            return null;
        }

        var asked = new Dictionary<string, IReadOnlyList<string>>(narrowing) { [ReportOptions.Period.Name] = ["all"] };
        using var open = desk.Open(new ReportOrder("documents", asked) { IsStandard = true });
        HashSet<int> chosen = [.. open.Build().Rows.Where(row => row.Kind == RowKind.Record)
            .Select(row => ledger.FindDocument(row.Key)!.Value.Value)];
        return chosen.Count > 0 ? chosen
            : throw new ProblemException(ProblemKind.NotFound, "There are no such documents.", "vlei show documents, narrowed alike, shows what there is.");
    }

    private ExportOutcome WriteInto(string folder, LedgerReader ledger, ExportedDocuments documents)
    {
        var opening = documents.OpeningLines(desk.Settings.Calendar);
        var counts = new List<(RecordTable, long)>();
        using var writer = new RecordSetWriter(folder, desk.Settings.Name, desk.Settings.Currency);
        var before = 0;
        foreach (var table in RecordTables.All)
        {
            // The names of tags stand in the header, so that the records are gone through for them first.
            var tags = ledger.WholeRecords(table).Where(record => IsTaken(table, record, documents)).Where(record => !record.Row.Tags.IsEmpty)
                .SelectMany(record => TagText.Read(Encoding.UTF8.GetString(record.Row.Tags)).Keys).Distinct()
                .Order(StringComparer.Ordinal).ToList();
            writer.Begin(table, tags);
            var count = WriteOpening(writer, ledger, table, documents, opening, tags.Count);
            foreach (var record in ledger.WholeRecords(table).Where(record => IsTaken(table, record, documents)))
            {
                writer.Write(table, ValuesOf(ledger, record.Row, tags));
                count++;
                before += table == RecordTables.Documents && record.Row.Day(table.IndexOf("date")) < documents.Period?.From ? 1 : 0;
            }

            counts.Add((table, count));
        }

        writer.Complete();
        return new ExportOutcome(counts, before, opening.Count > 0);
    }

    private static bool IsTaken(RecordTable table, (int Key, RecordRow Row) record, ExportedDocuments documents)
    {
        if (table == RecordTables.Budgets && documents.Period is { } days)
        {
            var month = record.Row.String(table.IndexOf("month"));
            return string.CompareOrdinal(month, Month(days.From)) >= 0 && string.CompareOrdinal(month, Month(days.To)) <= 0;
        }

        return table == RecordTables.Settlements
            ? documents.Has((int)record.Row.Number(table.IndexOf("from"))) && documents.Has((int)record.Row.Number(table.IndexOf("to")))
            : (table != RecordTables.Documents && table != RecordTables.Lines) || documents.Has(record.Key);
    }

    private static string Month(DateOnly day) => day.ToString("yyyy-MM", CultureInfo.InvariantCulture);

    private long WriteOpening(
        RecordSetWriter writer, LedgerReader ledger, RecordTable table, ExportedDocuments documents, IReadOnlyList<RecordRow> lines, int tags)
    {
        if (lines.Count == 0 || documents.Period is not { } days)
        {
            return 0;
        }

        var day = PeriodText.Iso(days.From.AddDays(-1));
        var id = $"opening-{day}";
        if (table == RecordTables.Documents)
        {
            var values = new string?[table.Fields.Count + tags];
            (values[table.IndexOf("id")], values[table.IndexOf("kind")], values[table.IndexOf("date")]) = (id, "opening", day);
            values[table.IndexOf("memo")] = "What documents before came to";
            writer.Write(table, values);
            return 1;
        }

        foreach (var line in table == RecordTables.Lines ? lines : [])
        {
            var values = ValuesOf(ledger, line, Enumerable.Repeat("", tags).ToList());
            values[table.IndexOf("document")] = id;
            writer.Write(table, values);
        }

        return table == RecordTables.Lines ? lines.Count : 0;
    }

    private string?[] ValuesOf(LedgerReader ledger, RecordRow row, List<string> tags)
    {
        var fields = row.Table.Fields;
        var values = new string?[fields.Count + tags.Count];
        for (var field = 0; field < fields.Count; field++)
        {
            values[field] = row.Has(field) ? TextOf(ledger, row, field) : "";
        }

        var own = row.Tags.IsEmpty ? null : TagText.Read(Encoding.UTF8.GetString(row.Tags));
        for (var tag = 0; tag < tags.Count; tag++)
        {
            values[fields.Count + tag] = own?.GetValueOrDefault(tags[tag]) ?? "";
        }

        return values;
    }

    private string TextOf(LedgerReader ledger, RecordRow row, int field) => row.Table.Fields[field].Type switch
    {
        FieldType.Money => DecimalText.Write(row.Number(field), desk.Settings.Currency.Decimals),
        FieldType.Decimal => DecimalText.Write(row.Number(field), RecordField.DecimalPlaces).TrimEnd('0').TrimEnd('.'),
        FieldType.Integer => row.Number(field).ToString(CultureInfo.InvariantCulture),
        FieldType.Boolean => row.Number(field) != 0 ? "true" : "false",
        FieldType.Reference => IdOf(ledger, RecordTables.Named(row.Table.Fields[field].Target!), (int)row.Number(field)),
        _ => row.String(field),
    };

    private string IdOf(LedgerReader ledger, RecordTable table, int key)
    {
        if (!_ids.TryGetValue(table, out var ids))
        {
            _ids[table] = ids = ledger.ReadRecords(table, [table.Fields[0]]).ToDictionary(record => record.Key, record => record.Values[0].Text!);
        }

        return ids[key];
    }

    private void WriteNotes(string folder, LedgerReader ledger, ExportedDocuments documents)
    {
        PromiseFile.Write(desk.Book, Path.Combine(folder, RecordSet.PromisesName), [.. PromiseFile.Read(desk.Book)
            .Where(promise => ledger.FindDocument(promise.Document) is { } document && documents.Has(document.Value))]);
        MarkFile.Write(Path.Combine(folder, RecordSet.MarksName), MarkFile.Read(desk.Book));
    }
}
