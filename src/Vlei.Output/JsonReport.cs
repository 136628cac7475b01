using System.Buffers;
using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report as JSON, in the schema that scripts rest on: <c>vlei/report/1</c>. Money has exactly the currency's
/// decimals, percentages four. A column or a row is one line, so that two reports compare line by line.
/// </summary>
public static class JsonReport
{
    // Lines go out many at a time.
    private const int AtOnce = 1 << 16;

    private static readonly JsonWriterOptions Options = new()
    {
        Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private static readonly JsonWriterOptions OneLine = new() { Encoder = Options.Encoder };

    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream)
    {
        using (var json = new Utf8JsonWriter(stream, Options))
        {
            json.WriteStartObject();
            json.WriteString("schema", "vlei/report/1");
            json.WriteString("report", report.Key);
            json.WriteString("title", report.Title);
            json.WriteString("book", report.Book);
            json.WriteString("currency", report.Currency.Code);
            json.WriteString("basis", report.HasBothBases ? "both" : AccountingBases.NameOf(report.Basis));
            WritePeriod(json, report);
            if (report.Look.Subtitle is { } subtitle)
            {
                json.WriteString("subtitle", subtitle);
            }

            WriteWords(json, "addressed_to", report.AddressedTo);
            WriteWords(json, "narrowed", report.Narrowed);
            WriteWords(json, "notes", report.Notes);
            WriteLines(json, stream, "columns", report.Columns, (line, column) => WriteColumn(line, report, column));
            WriteLines(json, stream, "rows", RowsAhead.Of(report.Rows), (line, row) => WriteRow(line, report, row));
            WriteLines(json, stream, "checks", report.Checks, (line, check) => WriteCheck(line, report, check));
            WriteWords(json, "foot", report.Foot);
            WriteExplanation(json, report);
            if (report.Look.Footer is { } footer)
            {
                json.WriteString("footer", footer);
            }

            json.WriteNumber("revision", report.Revision);
            json.WriteEndObject();
        }

        stream.WriteByte((byte)'\n');
    }

    private static void WriteExplanation(Utf8JsonWriter json, Report report)
    {
        if (report.Explanation is not { } explanation)
        {
            return;
        }

        json.WriteStartObject("explanation");
        json.WriteString("row", explanation.Row.English);
        json.WriteString("against", explanation.Against);
        json.WriteString("change", Exact(explanation.Change));
        json.WriteStartArray("reasons");
        foreach (var (name, change, remark) in explanation.Reasons)
        {
            json.WriteStartObject();
            json.WriteString("name", name.English);
            json.WriteString("change", Exact(change));
            json.WriteString("remark", remark);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteString("rest", Exact(explanation.Others?.Change ?? Amount.Zero));
        json.WriteEndObject();

        string Exact(Amount amount) => DecimalText.Write(amount.MinorUnits, report.Currency.Decimals);
    }

    /// <summary>Writes several reports, each in the schema of its own: <c>vlei/pack/1</c>.</summary>
    public static void WritePack(ReportPack pack, Stream stream)
    {
        using (var json = new Utf8JsonWriter(stream, Options))
        {
            json.WriteStartObject();
            json.WriteString("schema", "vlei/pack/1");
            json.WriteString("group", pack.Name);
            json.WriteString("title", pack.Title);
            json.WritePropertyName("cover");
            json.WriteRawValue(pack.Cover is { } cover ? Whole(cover) : "null"u8);
            json.WriteStartObject("reports");
            foreach (var (name, report) in pack.Reports)
            {
                json.WritePropertyName(name);
                json.WriteRawValue(Whole(report));
            }

            json.WriteEndObject();
            json.WriteEndObject();
        }

        stream.WriteByte((byte)'\n');

        ReadOnlySpan<byte> Whole(Report report)
        {
            var whole = new MemoryStream();
            Write(report, whole);
            return whole.GetBuffer().AsSpan(0, (int)whole.Length - 1);
        }
    }

    /// <summary>
    /// Reads the figures of a report back: its columns and rows, and what it was made of. Throws a <see cref="JsonException"/>
    /// where it is none.
    /// </summary>
    /// <param name="stream">The report as it was written.</param>
    /// <param name="currency">The currency of its money.</param>
    public static Report Read(Stream stream, Currency currency)
    {
        using var json = JsonDocument.Parse(stream);
        var root = json.RootElement;
        List<ReportColumn> columns =
        [
            .. root.GetProperty("columns").EnumerateArray().Select(column => new ReportColumn(
                column.GetProperty("key").GetString()!, column.GetProperty("heading").GetString()!,
                Figures.KindOf(column.GetProperty("kind").GetString()!))),
        ];
        return new Report
        {
            Key = root.GetProperty("report").GetString()!,
            Title = root.GetProperty("title").GetString()!,
            Book = root.GetProperty("book").GetString()!,
            Currency = currency,
            Basis = root.GetProperty("basis").GetString() == AccountingBases.NameOf(AccountingBasis.Cash) ? AccountingBasis.Cash
                : AccountingBasis.Accrual,
            Period = null,
            AsOf = null,
            PeriodInWords = "",
            Columns = columns,
            Rows = [.. root.GetProperty("rows").EnumerateArray().Select(row => RowOf(row, columns, currency))],
            Checks = [],
            OriginOf = (_, _) => null,
            Revision = root.GetProperty("revision").GetInt64(),
        };
    }

    private static ReportRow RowOf(JsonElement row, List<ReportColumn> columns, Currency currency)
    {
        var shows = row.TryGetProperty("shows", out var shown) ? Figures.KindOf(shown.GetString()!) : (ColumnKind?)null;
        ImmutableArray<Cell> cells =
        [
            .. row.GetProperty("cells").EnumerateArray().Select(
                (cell, place) => cell.ValueKind == JsonValueKind.Number && columns[place].Kind == ColumnKind.Money && shows is null
                && DecimalText.Read(
                    System.Text.Encoding.UTF8.GetBytes(cell.GetRawText()), currency.Decimals,
                    out var units) == DecimalTextResult.Read ? new Cell(units) : Cell.Empty),
        ];
        if (cells.Length != columns.Count)
        {
            throw new JsonException("A row does not have as many cells as there are columns.");
        }

        return new ReportRow(
            row.GetProperty("key").GetString()!, row.GetProperty("label").GetString()!,
            RowKinds.Named(row.GetProperty("kind").GetString()!), row.GetProperty("level").GetInt32(), cells)
        {
            InsteadOfMoney = shows,
        };
    }

    private static void WritePeriod(Utf8JsonWriter json, Report report)
    {
        if (report.Period is { } period)
        {
            json.WriteStartObject("period");
            json.WriteString("from", PeriodText.Iso(period.From));
            json.WriteString("to", PeriodText.Iso(period.To));
            json.WriteEndObject();
        }
        else
        {
            json.WriteNull("period");
        }

        json.WriteString("as_of", report.AsOf is { } day ? PeriodText.Iso(day) : null);
    }

    // Only where there are any: what says nothing needs no key.
    private static void WriteWords(Utf8JsonWriter json, string name, IReadOnlyList<string> words)
    {
        if (words.Count > 0)
        {
            json.WriteStartArray(name);
            foreach (var word in words)
            {
                json.WriteStringValue(word);
            }

            json.WriteEndArray();
        }
    }

    // Line by line past the writer, which would keep all of them: it is told of the list as one value that it need not read.
    private static void WriteLines<T>(
        Utf8JsonWriter json, Stream stream, string name, IEnumerable<T> values, Action<Utf8JsonWriter, T> write)
    {
        json.WritePropertyName(name);
        json.WriteRawValue("[", skipInputValidation: true);
        json.Flush();
        var lines = new ArrayBufferWriter<byte>();
        using var line = new Utf8JsonWriter(lines, OneLine);
        var isFirst = true;
        foreach (var value in values)
        {
            lines.Write(isFirst ? "\n    "u8 : ",\n    "u8);
            isFirst = false;
            line.WriteStartObject();
            write(line, value);
            line.WriteEndObject();
            line.Flush();
            line.Reset();
            if (lines.WrittenCount > AtOnce)
            {
                stream.Write(lines.WrittenSpan);
                lines.ResetWrittenCount();
            }
        }

        lines.Write(isFirst ? "]"u8 : "\n  ]"u8);
        stream.Write(lines.WrittenSpan);
    }

    private static void WriteColumn(Utf8JsonWriter json, Report report, ReportColumn column)
    {
        json.WriteString("key", column.Key);
        json.WriteString("heading", column.Heading);
        json.WriteString("kind", Figures.NameOf(column.Kind));
        if (column.Range is { } range && report.AsOf is null)
        {
            json.WriteString("from", PeriodText.Iso(range.From));
            json.WriteString("to", PeriodText.Iso(range.To));
        }
    }

    private static void WriteRow(Utf8JsonWriter json, Report report, ReportRow row)
    {
        json.WriteString("key", row.Key);
        json.WriteString("label", row.Label);
        json.WriteString("kind", RowKinds.NameOf(row.Kind));
        json.WriteNumber("level", row.Level);
        if (row.InsteadOfMoney is { } kind)
        {
            json.WriteString("shows", Figures.NameOf(kind));
        }

        if (row.Group is { } groups)
        {
            WriteWords(json, "group", groups);
        }

        json.WriteStartArray("cells");
        Span<char> room = stackalloc char[DecimalText.Longest];
        for (var column = 0; column < row.Cells.Length; column++)
        {
            var (units, text) = row.Cells[column];
            if (units is null && text is null)
            {
                json.WriteNullValue();
                continue;
            }

            var exact = units is { } number ? Figures.Exact(report, row, column, number, room) : text;
            if (report.Columns[column].Kind is ColumnKind.Text or ColumnKind.Date)
            {
                json.WriteStringValue(exact);
            }
            else
            {
                json.WriteRawValue(exact, skipInputValidation: units is not null);
            }
        }

        json.WriteEndArray();
    }

    private static void WriteCheck(Utf8JsonWriter json, Report report, ReportCheck check)
    {
        json.WriteString("name", report.Checks.Count == 1 || check.Column.Length == 0 ? check.Name : $"{check.Name} ({check.Column})");
        json.WriteBoolean("ok", check.Ok);
        WriteMoney("expected", check.Expected);
        WriteMoney("actual", check.Actual);

        void WriteMoney(string name, Amount amount)
        {
            json.WritePropertyName(name);
            json.WriteRawValue(DecimalText.Write(amount.MinorUnits, report.Currency.Decimals));
        }
    }
}
