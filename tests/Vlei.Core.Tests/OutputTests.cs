using System.Globalization;
using System.Text;
using System.Text.Json;
using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>Random reports in every format: what is in the report is in the text, whatever its words and its width.</summary>
public class OutputTests
{
    private static readonly Gen<string> GenWords = Choose.One(
        "", "Oars", "Wednesday regatta of the lake", "Hull 31, \"Heron\"", "Ünïcödé", "=1+1", "a,b;c", "日本", "tab\tand\u0007bell",
        "Extraordinarily-long-hyphenated-name", "# no heading", "- no list", "12. no number", "===",
        "Re\u0301me\u0301-\U0001F6A3\U0001F6A3\U0001F6A3\U0001F6A3-日本の木の船の工房");

    private static readonly Gen<ReportColumn> GenColumn = Gen.Select(Gen.Enum<ColumnKind>(), GenWords, Gen.Enum<ColumnTie>(), Gen.Bool)
        .Select(
            (kind, heading, tie, isChange) => new ReportColumn(
                "", heading, kind)
            { Tie = tie, IsChange = isChange && kind == ColumnKind.Money });

    internal static readonly Gen<Report> GenReport =
        from columns in GenColumn.Array[1, 7]
        from rows in Gen.Select(
            GenWords, Gen.Enum<RowKind>(), Gen.Int[0, 2],
            Gen.Select(Gen.Long[-3_000_000_000, 3_000_000_000], Gen.Int[0, 4], GenWords).Array[columns.Length]).Array[0, 12]
        from decimals in Choose.One("ZAR", "JPY", "KWD")
        from words in GenWords.Array[0, 2]
        select new Report
        {
            Key = "test", Title = "Test", Book = "Book", Currency = Currency.TryFind(decimals, out var currency) ? currency
                : throw new InvalidOperationException(),
            Basis = AccountingBasis.Cash, Period = new DateRange(new DateOnly(2026, 1, 1), new DateOnly(2026, 3, 31)), AsOf = null,
            PeriodInWords = "Q1",
            Columns = [.. columns.Select((column, place) => column with { Key = $"k{place}" })],
            Rows =
            [
                .. rows.Select((row, place) => new ReportRow($"r{place}", row.Item1, row.Item2, row.Item3,
                    [
                        .. row.Item4.Select(
                            (cell, column) => row.Item2 == RowKind.Heading || cell.Item2 == 0 ? Cell.Empty
                                : CellOf(columns[column].Kind, cell.Item1, cell.Item3))])),
            ],
            Checks = [new ReportCheck("Ends meet", new Amount(5), new Amount(rows.Length), "")],
            Notes = [.. words.Where(word => word.Length > 0)], AddressedTo = [.. words], Foot = [.. words],
            OriginOf = (_, _) => null, Revision = 7,
        };

    [Fact]
    public void Text_shows_every_figure_whole_and_keeps_to_the_width_where_it_can() =>
        Gen.Select(GenReport, Gen.Int[1, 140], Gen.Bool).Sample((report, width, ascii) =>
    {
        var lines = Written(report, 0, new Surface(width, ascii, Colour: false)).Split('\n');
        var text = string.Join('\n', lines);
        Assert.DoesNotContain('\u0007', text);
        Assert.True(!ascii || text.All(char.IsAscii));
        foreach (var (row, column) in Figures(report))
        {
            Assert.Contains(
                Readable(report, row, column), lines.SelectMany(line => line.Split(' ', StringSplitOptions.RemoveEmptyEntries)));
        }

        // Wide enough for a label and the widest figure, nothing sticks out but what a person wrote as one line.
        var own = report.AddressedTo.Concat(report.Foot).ToHashSet();
        Assert.True(width < 60 || lines.Where(line => !own.Contains(line)).All(line => DisplayText.Width(line) <= width), text);
        Assert.DoesNotContain('\uFFFD', text);
        Assert.DoesNotContain(lines, line => line.TrimStart().StartsWith('\u0301'));

        // Without an end to the line, a row is one, whatever is in it.
        var endless = Written(report, 0, new Surface(null, ascii, Colour: false)).Split('\n');
        Assert.All(
            report.Rows.Where(row => row.Kind == RowKind.Record && row.Cells.Any(cell => cell.Units is not null)), row => Assert.Contains(
            endless, line => Enumerable.Range(0, report.Columns.Count).Where(column => row.Cells[column].Units is not null)
                .All(column => line.Contains(Readable(report, row, column), StringComparison.Ordinal))));
    });

    [Fact]
    public void Csv_has_a_line_for_every_row_and_json_every_cell() => GenReport.Sample(report =>
    {
        var table = Table(Written(report, 1, new Surface(null, false, false)));
        Assert.Equal(["row", "label", "kind", "level", .. report.Columns.Select(column => column.Key)], table[0]);
        Assert.Equal(report.Rows.Count, table.Count - 1);
        var json = JsonDocument.Parse(Written(report, 2, new Surface(null, false, false))).RootElement;
        Assert.Equal(
            report.Columns.Select(column => column.Heading), json.GetProperty("columns").EnumerateArray()
                .Select(column => column.GetProperty("heading").GetString()));
        Assert.Equal(report.Notes.Count > 0, json.TryGetProperty("notes", out _));
        foreach (var (row, line, element) in report.Rows.Zip(table.Skip(1), json.GetProperty("rows").EnumerateArray()))
        {
            Assert.Equal((row.Key, row.Label, $"{row.Level}"), (line[0], line[1], line[3]));
            Assert.Equal(
                (row.Key, row.Label, row.Level),
                (element.GetProperty("key").GetString(), element.GetProperty("label").GetString(),
                    element.GetProperty("level").GetInt32()));
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var exact = Exact(report, row, column);
                Assert.Equal(exact, line[4 + column]);
                var cell = element.GetProperty("cells")[column];
                Assert.Equal(exact.Length == 0 ? "" : exact, cell.ValueKind switch
                {
                    JsonValueKind.Null => "",
                    JsonValueKind.String => cell.GetString(),
                    _ => cell.GetRawText(),
                });
            }
        }
    });

    [Fact]
    public void Markdown_is_one_table_with_every_figure_and_no_markup_of_its_words() => GenReport.Sample(report =>
    {
        var whole = Written(report, 3, new Surface(null, false, false)).Split('\n');
        Assert.StartsWith("# ", whole[0]);
        Assert.DoesNotContain(whole.Skip(1), line => System.Text.RegularExpressions.Regex.IsMatch(line, @"^(#|[-+=]|\d+[.)] )"));
        var lines = whole.Where(line => line.StartsWith('|')).ToList();
        Assert.Equal(report.Rows.Count == 0 ? 0 : report.Rows.Count + 2, lines.Count);
        var cells = lines.Select(line => System.Text.RegularExpressions.Regex.Split(line, @"(?<!\\)\|").Length).Distinct().ToList();
        Assert.True(cells.Count <= 1, string.Join('\n', lines));
        foreach (var (row, line) in report.Rows.Zip(lines.Skip(2)))
        {
            Assert.All(
                Enumerable.Range(0, report.Columns.Count).Where(column => row.Cells[column].Units is not null),
                column => Assert.Contains(Readable(report, row, column), line));
        }
    });

    [Fact]
    public void Figures_of_a_report_and_of_a_pack_can_be_read_back() => Gen.Select(GenReport, GenReport).Sample((one, other) =>
    {
        var back = JsonReport.Read(
            new MemoryStream(Encoding.UTF8.GetBytes(Written(one, 2, new Surface(null, false, false)))), one.Currency);
        Assert.Equal((one.Revision, one.Columns.Count), (back.Revision, back.Columns.Count));
        foreach (var (row, read) in one.Rows.Zip(back.Rows))
        {
            Assert.Equal((row.Key, row.Label), (read.Key, read.Label));
            Assert.All(Enumerable.Range(0, one.Columns.Count), column => Assert.Equal(
                one.Columns[column].Kind == ColumnKind.Money ? row.Cells[column].Units : null, read.Cells[column].Units));
        }

        // All figures of both, a line each; and both reports whole.
        var pack = new ReportPack("p", "Pack", one, [("one", one), ("other", other)]);
        string Packed(int format)
        {
            using var stream = new MemoryStream();
            ReportFormat.All[format].WritePack(pack, stream, new Surface(null, false, false));
            return Encoding.UTF8.GetString(stream.ToArray());
        }

        var lines = Table(Packed(1).TrimEnd('\n'));
        Assert.Equal(
            1 + new[] { one, other }.Sum(
                report => report.Rows.Sum(row => row.Cells.Count(cell => cell is not { Units: null, Words: null }))), lines.Count);
        var json = JsonDocument.Parse(Packed(2)).RootElement;
        Assert.Equal(Written(other, 2, new Surface(null, false, false)), json.GetProperty("reports").GetProperty("other").GetRawText());
        Assert.Equal(Written(one, 2, new Surface(null, false, false)), json.GetProperty("cover").GetRawText());
    });

    private static Cell CellOf(ColumnKind kind, long units, string words) => kind switch
    {
        ColumnKind.Text => Cell.Of(words),
        ColumnKind.Date => Cell.Of(new DateOnly(2026, 1, 1).AddDays((int)(units % 10_000))),
        _ => new Cell(units),
    };

    private static IEnumerable<(ReportRow Row, int Column)> Figures(Report report) =>
        from row in report.Rows
        from column in Enumerable.Range(0, report.Columns.Count)
        where row.Cells[column].Units is not null
        select (row, column);

    // As the JSON of a report is specified: exactly the decimals of the currency, four for percentages and plain numbers.
    internal static string Exact(Report report, ReportRow row, int column)
    {
        var kind = report.Columns[column].Kind;
        return row.Cells[column].Units is not { } units ? row.Cells[column].Words ?? ""
            : kind == ColumnKind.Date ? DateOnly.FromDayNumber((int)units).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
            : Decimal(units, Decimals(report, kind)).ToString(
                kind == ColumnKind.Quantity ? "0.######" : $"F{Decimals(report, kind)}", CultureInfo.InvariantCulture);
    }

    internal static string Readable(Report report, ReportRow row, int column)
    {
        var (kind, units) = (report.Columns[column].Kind, row.Cells[column].Units!.Value);
        var shown = kind switch { ColumnKind.Percent => 1, ColumnKind.Ratio => 2, _ => Decimals(report, kind) };
        return kind == ColumnKind.Date ? Exact(report, row, column)
            : kind == ColumnKind.Quantity ? Decimal(units, 6).ToString("#,##0.######", CultureInfo.InvariantCulture)
            : Math.Round(Decimal(units, Decimals(report, kind)), shown, MidpointRounding.ToEven)
                .ToString($"N{shown}", CultureInfo.InvariantCulture) is var text
                && text.TrimStart('-').All(letter => letter is '0' or '.') ? text.TrimStart('-') : text;
    }

    private static decimal Decimal(long units, int decimals) => units / (decimal)Math.Pow(10, decimals);

    private static int Decimals(Report report, ColumnKind kind) => kind switch
    {
        ColumnKind.Money => report.Currency.Decimals,
        ColumnKind.Count => 0,
        ColumnKind.Quantity => 6,
        _ => 4,
    };

    private static string Written(Report report, int format, Surface look)
    {
        using var stream = new MemoryStream();
        ReportFormat.All[format].Write(report, stream, look);
        return Encoding.UTF8.GetString(stream.ToArray()).TrimEnd('\n');
    }

    // RFC 4180, read by hand.
    private static List<List<string>> Table(string csv)
    {
        var (rows, value, quoted) = (new List<List<string>> { new() }, new StringBuilder(), false);
        for (var place = 0; place < csv.Length; place++)
        {
            var letter = csv[place];
            if (quoted && letter == '"' && place + 1 < csv.Length && csv[place + 1] == '"')
            {
                value.Append(csv[++place]);
            }
            else if (letter == '"')
            {
                quoted = !quoted;
            }
            else if (!quoted && letter is ',' or '\n')
            {
                rows[^1].Add(value.ToString());
                value.Clear();
                if (letter == '\n')
                {
                    rows.Add([]);
                }
            }
            else
            {
                value.Append(letter);
            }
        }

        rows[^1].Add(value.ToString());
        return rows;
    }
}
