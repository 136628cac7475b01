using System.Text;
using Vlei.Records.Cells;
using Vlei.Tests.Documents;

namespace Vlei.Tests;

/// <summary>Workbooks as files of records: what stands in their cells comes in as from CSV, and messages name their cells.</summary>
public sealed class SpreadsheetTests : IDisposable
{
    private readonly Tool _tool = new();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Cells_are_read_as_those_who_typed_them_meant_them()
    {
        _tool.Write(
            "t.csv",
            "a,b,c,d,e,f\n1,2026-03-05,=1/0,text,0.3,=0.1+0.2\n,,,,,\n2,2026-03-06,,\"x\ny  z\",1234567.891,7\n,,,,,\n,,,,,last\n");
        Shell.Run(_tool.Folder, "soffice", "--headless", "--convert-to", "ods", "t.csv");
        Shell.Run(_tool.Folder, "soffice", "--headless", "--convert-to", "xlsx:Calc MS Excel 2007 XML", "t.csv");
        foreach (var name in new[] { "t.xlsx", "t.ods" })
        {
            var file = Spreadsheet.Open(_tool.PathOf(name));
            Assert.Equal(["t"], file.Sheets);
            foreach (var _ in new[] { 1, 2 })
            {
                using var reader = file.Sheet("t").Open();
                Assert.Equal(["a", "b", "c", "d", "e", "f"], reader.Headings);
                var rows = new List<string>();
                while (reader.Read())
                {
                    rows.Add($"{reader.Line}: " + string.Join('|', Enumerable.Range(0, 6).Select(column =>
                        Encoding.UTF8.GetString(reader.Cell(column)) + (reader.IsDay(column) ? " (day)" : ""))));
                }

                Assert.Equal(
                    ["2: 1|2026-03-05 (day)|#DIV/0!|text|0.3|0.3", "4: 2|2026-03-06 (day)||x\ny  z|1234567.891|7", "6: |||||last"],
                    rows);
            }
        }
    }

    [Fact]
    public void A_workbook_with_a_sheet_per_kind_of_record_gives_the_same_book_as_its_files()
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "300", "--years", "1").Done();
        RecordWorkbook.Write(_tool.PathOf("set"), _tool.PathOf("records.xlsx"));
        Shell.Run(_tool.Folder, "soffice", "--headless", "--convert-to", "ods", "records.xlsx");
        var books = new[] { "set", "records.xlsx", "records.ods" };
        var reports = books.Select(records =>
        {
            _tool.Run("init", $"of-{records}", "--name", "Test", "--currency", "ZAR").Done();
            _tool.Run("import", records, "--book", $"of-{records}").Done();
            var again = _tool.Run("import", "set", "--book", $"of-{records}").Done().Output;
            var changes = _tool.Run("changes", "--since", "1", "--book", $"of-{records}").Output;
            Assert.True(again.Contains("Nothing has changed"), $"{records}: {again}{changes}");
            return string.Concat(
                new[] { "lines", "documents", "receivables-aging", "trial-balance --basis cash", "budgets" }.Select(report =>
                _tool.Run(["show", .. report.Split(' '), "--period", "all", "--book", $"of-{records}", "--format", "csv"]).Output));
        }).ToList();
        Assert.Equal(reports[0], reports[1]);
        Assert.Equal(reports[0], reports[2]);
    }

    [Theory]
    [InlineData("lines.csv", ",1000,", ",1oo0,", "[records.xlsx]lines!B3: account \"1oo0\" is no account of this book.")]
    [InlineData("documents.csv", "date", "dote", "[records.xlsx]documents!C1: the column \"DOTE\" is unknown. Did you mean date?")]
    public void What_is_wrong_is_told_with_its_cell(string file, string was, string becomes, string message)
    {
        MakeWorkbook();
        var path = _tool.PathOf($"set/{file}");
        var text = File.ReadAllText(path);
        var place = text.IndexOf(was, StringComparison.Ordinal);
        File.WriteAllText(path, text[..place] + becomes + text[(place + was.Length)..]);
        RecordWorkbook.Write(_tool.PathOf("set"), _tool.PathOf("records.xlsx"));
        var outcome = _tool.Run("import", "records.xlsx", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(message, outcome.Messages);
    }

    [Fact]
    public void A_file_that_is_no_workbook_or_has_other_sheets_is_refused()
    {
        MakeWorkbook();
        RecordWorkbook.Write(_tool.PathOf("set"), _tool.PathOf("records.xlsx"));
        var sound = File.ReadAllBytes(_tool.PathOf("records.xlsx"));
        var dice = new Random(5);
        foreach (var round in Enumerable.Range(0, 40))
        {
            byte[] damaged = [.. sound];
            dice.NextBytes(damaged.AsSpan(dice.Next(damaged.Length - 16), dice.Next(1, 16)));
            File.WriteAllBytes(_tool.PathOf("records.xlsx"), round == 0 ? [1, 2, 3] : round == 1 ? [] : damaged);
            var outcome = _tool.Run("import", "records.xlsx", "--book", "book", "--dry-run");
            Assert.True(outcome.Status is 0 or 65, $"{round}: {outcome.Status} {outcome.Messages}");
        }

        File.Move(_tool.PathOf("set/contacts.csv"), _tool.PathOf("set/contatcs.csv"));
        RecordWorkbook.Write(_tool.PathOf("set"), _tool.PathOf("records.xlsx"));
        var other = _tool.Run("import", "records.xlsx", "--book", "book");
        Assert.Equal(65, other.Status);
        Assert.Contains("[records.xlsx]contatcs is not named after a kind of record.", other.Messages);
        Assert.Contains("Did you mean contacts?", other.Messages);
    }

    private void MakeWorkbook()
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "40", "--years", "1").Done();
        _tool.Run("init", "book", "--name", "Test", "--currency", "ZAR").Done();
    }
}
