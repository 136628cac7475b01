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
using Vlei.Records.Audit;

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
    private static readonly IReadOnlyDictionary<string, string> NoTags = new Dictionary<string, string>();

    private readonly Dictionary<RecordTable, Dictionary<int, string>> _ids = [];
    private IReadOnlyList<RecordRow>? _opening;

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

    /// <summary>Writes them as an audit file of the OECD's standard; see <see cref="AuditFileWriter"/>.</summary>
    /// <param name="stream">Where it goes.</param>
    /// <param name="period">The days; nothing for all.</param>
    /// <param name="version">The version of the program, which the file names.</param>
    public ExportOutcome WriteAuditFile(Stream stream, DateRange? period, string version)
    {
        using var ledger = LedgerReader.Open(desk.Book);
        var documents = new ExportedDocuments(ledger, period, null);
        var days = period ?? ledger.Extent ?? new DateRange(desk.Today.Date, desk.Today.Date);
        var header = new AuditHeader(
            desk.Settings.Name, desk.Settings.Currency.Code, DateOnly.FromDateTime(desk.Now.LocalDateTime), days.From, days.To, version);
        new AuditFileWriter(header, table => Texts(ledger, documents, table)).Write(stream);
        return Outcome(ledger, documents, [.. RecordTables.All.Where(table => table != RecordTables.Budgets)
            .Select(table => (table, Texts(ledger, documents, table).LongCount()))]);
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
            : throw new ProblemException(
                ProblemKind.NotFound, "There are no such documents.", "vlei show documents, narrowed alike, shows what there is.");
    }

    private ExportOutcome WriteInto(string folder, LedgerReader ledger, ExportedDocuments documents)
    {
        var counts = new List<(RecordTable, long)>();
        using var writer = new RecordSetWriter(folder, desk.Settings.Name, desk.Settings.Currency);
        foreach (var table in RecordTables.All)
        {
            // The names of tags stand in the header, so that the records are gone through for them first.
            var tags = ledger.WholeRecords(table).Where(record => IsTaken(table, record, documents))
                .Where(record => !record.Row.Tags.IsEmpty)
                .SelectMany(record => TagText.Read(Encoding.UTF8.GetString(record.Row.Tags)).Keys).Distinct()
                .Order(StringComparer.Ordinal).ToList();
            writer.Begin(table, tags);
            var count = 0L;
            foreach (var record in Texts(ledger, documents, table))
            {
                writer.Write(table, [.. record.Values, .. tags.Select(tag => record.Tags.GetValueOrDefault(tag, ""))]);
                count++;
            }

            counts.Add((table, count));
        }

        writer.Complete();
        return Outcome(ledger, documents, counts);
    }

    private ExportOutcome Outcome(LedgerReader ledger, ExportedDocuments documents, IReadOnlyList<(RecordTable, long)> counts) => new(
        counts,
        ledger.WholeRecords(RecordTables.Documents).Count(record => documents.Has(record.Key)
            && record.Row.Day(RecordTables.Documents.IndexOf("date")) < documents.Period?.From),
        Opening(documents).Count > 0);

    // The records of a table that are taken, after what all others before the period came to.
    private IEnumerable<RecordText> Texts(LedgerReader ledger, ExportedDocuments documents, RecordTable table) =>
        OpeningTexts(ledger, documents, table).Concat(ledger.WholeRecords(table).Where(record => IsTaken(table, record, documents))
            .Select(record => TextOf(ledger, record.Row)));

    private IReadOnlyList<RecordRow> Opening(ExportedDocuments documents) => _opening ??= documents.OpeningLines(desk.Settings.Calendar);

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

    private IEnumerable<RecordText> OpeningTexts(LedgerReader ledger, ExportedDocuments documents, RecordTable table)
    {
        if (documents.Period is not { } days || Opening(documents).Count == 0)
        {
            yield break;
        }

        var day = PeriodText.Iso(days.From.AddDays(-1));
        var id = $"opening-{day}";
        if (table == RecordTables.Documents)
        {
            var values = Enumerable.Repeat("", table.Fields.Count).ToArray();
            (values[table.IndexOf("id")], values[table.IndexOf("kind")], values[table.IndexOf("date")]) = (id, "opening", day);
            values[table.IndexOf("memo")] = "What documents before came to";
            yield return new RecordText(table, values, NoTags);
        }

        foreach (var (number, line) in (table == RecordTables.Lines ? Opening(documents) : []).Index())
        {
            string[] values = [.. TextOf(ledger, line).Values];
            (values[table.IndexOf("document")], values[table.IndexOf("line")]) = (id, (number + 1).ToString(CultureInfo.InvariantCulture));
            yield return new RecordText(table, values, NoTags);
        }
    }

    private RecordText TextOf(LedgerReader ledger, RecordRow row)
    {
        var values = new string[row.Table.Fields.Count];
        for (var field = 0; field < values.Length; field++)
        {
            values[field] = row.Has(field) ? TextOf(ledger, row, field) : "";
        }

        return new RecordText(row.Table, values, row.Tags.IsEmpty ? NoTags : TagText.Read(Encoding.UTF8.GetString(row.Tags)));
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
            _ids[table] = ids = ledger.ReadRecords(table, [table.Fields[0]])
                .ToDictionary(record => record.Key, record => record.Values[0].Text!);
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
