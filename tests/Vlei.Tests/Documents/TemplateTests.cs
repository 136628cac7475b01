using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Vlei.Tests.Documents;

/// <summary>
/// A workbook that a person has given other looks is filled again: everything that was put there stays, and follows the report.
/// </summary>
public sealed class TemplateTests : IDisposable
{
    // Formulas that name places of the report in every way there is, and things that only look so.
    private static readonly string[] Formulas =
    [
        "'Profit and loss'!B10", "SUM('Profit and loss'!$B$7:$B$10)",
        "IF('Profit and loss'!B10>0,\"'Profit and loss'!B10\",\"B10\"\"\")", "COUNTA('Profit and loss'!A:A)",
        "SUM('Profit and loss'!$7:$7)",
        "LOG10(100)+B10", "Board!A1&\" \"&profit_and_loss", "SUM('Profit and loss'!B7:C9,'Profit and loss'!B11)", "1E5+0.5",
        "[1]Other!B10+'[Other.xlsx]Profit and loss'!B10", "SUM(Table1[[#All],[B10]])", "-B10^2%",
    ];

    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void The_same_report_again_leaves_every_formula_and_name_of_a_person_as_it_was()
    {
        Template("profit-loss --period 2026-05");
        Show("profit-loss --period 2026-05", "filled.xlsx");
        using var workbook = new WorkbookFile(_tool.PathOf("filled.xlsx"));
        Assert.Equal(
            Formulas.Select(formula => formula), Enumerable.Range(1, Formulas.Length)
                .Select(row => workbook.Cells("Board")[$"B{row}"].Formula));
        using var ours = new WorkbookFile(_tool.PathOf("ours.xlsx"));
        Assert.Equal(
            ours.Table("Profit and loss").Select(row => row.Select(cell => (cell?.Words ?? "", cell?.Number, cell?.Formula))),
            workbook.Table("Profit and loss").Select(row => row.Take(2).Select(cell => (cell?.Words ?? "", cell?.Number, cell?.Formula))));
    }

    [Theory]
    [InlineData("profit-loss --period 2026-05", "profit-loss --period 2026-04 --zeros", "Net profit", "Total income")]
    [InlineData("profit-loss --period 2026-03/2026-05 --by month", "profit-loss --period 2026-03/2026-06 --by month", "Net profit",
        "Total income")]
    [InlineData("receivables-aging --as-of 2026-05-31", "receivables-aging --as-of 2026-03-31", "Total", null)]
    [InlineData("sales-by-customer --period 2026-05 --top 5", "sales-by-customer --period 2026-04", "Total", null)]
    public void Another_report_fills_it_and_formulas_of_a_person_say_the_same_of_it(
        string first, string then, string result, string? section)
    {
        var old = Template(first, result, section);
        Show(then, "filled.xlsx");
        _tool.Run(["show", .. then.Split(' '), "--book", "reedwater", "--to", "then.json"]).Done();
        var json = JsonFigures.Read(_tool.PathOf("then.json"));
        var sheet = old.Sheet;
        using var filled = new WorkbookFile(_tool.PathOf("filled.xlsx"));
        Assert.Empty(filled.Faults);
        using var reckoned = new WorkbookFile(Office.Reckoned(_tool.Folder, "filled.xlsx")[0]);
        var table = reckoned.Table(sheet);
        Assert.Equal(json.Rows.Select(row => row.Label), table.Skip(1).Select(row => row[0]!.Words));
        Assert.Equal(json.Headings, table[0].Skip(1).Select(cell => cell!.Words));
        for (var row = 0; row < json.Rows.Count; row++)
        {
            Assert.All(
                Enumerable.Range(0, json.Headings.Count)
                    .Where(column => json.Rows[row].Cells[column] is { Value: not null, Kind: "money" }), column =>
                Assert.Equal((double)json.Rows[row].Cells[column].Number, table[row + 1][column + 1]!.Number!.Value, 6));
        }

        // What a person made of the report on another sheet is made of the report as it is now.
        var board = reckoned.Cells("Board");
        decimal FigureOf(string label, int column) => json.Rows.Last(row => row.Label == label).Cells[column].Number;
        Assert.Equal((double)FigureOf(result, 0), board["D1"].Number!.Value, 6);
        Assert.Equal((double)json.Rows.Sum(row => row.Cells[0].Value is null ? 0 : row.Cells[0].Number), board["D2"].Number!.Value, 6);
        Assert.Equal(section is null ? 0 : (double)FigureOf(section, 0), board["D3"].Number!.Value, 6);

        // What was filled down beside the table is there for every row, and says it of its own.
        var cells = filled.Cells(sheet);
        var beside = cells.Where(cell => cell.Value.Formula is { } formula && formula.EndsWith("*2", StringComparison.Ordinal))
            .ToDictionary(cell => cell.Key, cell => cell.Value.Formula!);
        Assert.Equal(json.Rows.Count(row => row.Kind != "heading"), beside.Count);
        Assert.All(beside, cell => Assert.Equal(RowOf(cell.Key), RowOf(cell.Value[..^2])));

        // Rows look as they looked, new ones as those of their kind.
        var looks = filled.Looks(sheet);
        Assert.Equal(old.LookOfResult, looks[$"A{RowOf(reckoned.Place("report", sheet).Last)}"]);
        Assert.Equal("kept", board["A20"].Words);
    }

    [Fact]
    public void Whatever_else_a_person_made_of_its_cells_follows_them()
    {
        Template("receivables-aging --as-of 2026-05-31", "Total", null);
        (string First, string Last) place;
        using (var ours = new WorkbookFile(_tool.PathOf("ours.xlsx")))
        {
            place = ours.Place("report", "Receivables aging");
        }

        var (first, last) = (RowOf(place.First), RowOf(place.Last));
        var (lastColumn, below) = (place.Last[..1], last + 4);
        using (var document = SpreadsheetDocument.Open(_tool.PathOf("template.xlsx"), isEditable: true))
        {
            var workbook = document.WorkbookPart!;
            var sheet = workbook.WorksheetParts.First(part => part.Worksheet!.Descendants<Pane>().Any());
            var worksheet = sheet.Worksheet!;
            var data = worksheet.GetFirstChild<SheetData>()!;
            data.Append(
                new Row(
                    new Cell
                    {
                        CellReference = $"A{below}", DataType = CellValues.InlineString,
                        InlineString = new InlineString(new Text("signed"))
                    })
                { RowIndex = (uint)below });
            worksheet.InsertAfter(new MergeCells(new MergeCell { Reference = $"A{below}:C{below}" }), data);
            worksheet.InsertAfter(
                new ConditionalFormatting(
                    new ConditionalFormattingRule(
                        new Formula($"B{first + 1}>$B${last}/10"))
                    { Type = ConditionalFormatValues.Expression, Priority = 1 })
                {
                    SequenceOfReferences = new ListValue<StringValue> { InnerText = $"B{first + 1}:{lastColumn}{last} A{below}" },
                }, worksheet.GetFirstChild<MergeCells>());
            workbook.Workbook!.DefinedNames!.Append(new DefinedName($"'Receivables aging'!$B${first + 1}:$B${last}") { Name = "mine" });
            workbook.Workbook.DefinedNames!.Append(new DefinedName($"'Receivables aging'!$A${below}") { Name = "signature" });
            var pivot = workbook.AddNewPart<PivotTableCacheDefinitionPart>();
            pivot.PivotCacheDefinition = new PivotCacheDefinition(
                new CacheSource(
                    new WorksheetSource { Sheet = "Receivables aging", Reference = $"A{first}:{lastColumn}{last}" })
                {
                    Type =
                        SourceValues.Worksheet
                }, new CacheFields { Count = 0 });
            workbook.AddNewPart<CalculationChainPart>().CalculationChain = new CalculationChain(
                new CalculationCell { CellReference = "A1", SheetId = 1 });
        }

        Show("receivables-aging --as-of 2026-03-31", "filled.xlsx");
        using var filled = new WorkbookFile(_tool.PathOf("filled.xlsx"));
        var now = filled.Place("report", "Receivables aging");
        var (growth, signed) = (RowOf(now.Last) - last, below + RowOf(now.Last) - last);
        Assert.NotEqual(0, growth);
        Assert.Equal("signed", filled.Cells("Receivables aging")[$"A{signed}"].Words);
        using var read = SpreadsheetDocument.Open(_tool.PathOf("filled.xlsx"), isEditable: false);
        var book = read.WorkbookPart!;
        var names = book.Workbook!.DefinedNames!.Elements<DefinedName>().Where(name => name.LocalSheetId is null)
            .ToDictionary(name => name.Name!.Value!, name => name.Text);
        Assert.Equal($"'Receivables aging'!$B${first + 1}:$B${RowOf(now.Last)}", names["mine"]);
        Assert.Equal($"'Receivables aging'!$A${signed}", names["signature"]);
        var page = book.WorksheetParts.First(part => part.Worksheet!.Descendants<Pane>().Any()).Worksheet!;
        Assert.Equal($"A{signed}:C{signed}", page.Descendants<MergeCell>().Single().Reference!.Value);
        Assert.Equal(
            $"B{first + 1}:{lastColumn}{RowOf(now.Last)} A{signed}",
            page.Descendants<ConditionalFormatting>().Single().SequenceOfReferences!.InnerText);
        Assert.Equal(
            $"B{first + 1}>$B${RowOf(now.Last)}/10", page.Descendants<Formula>()
                .Single(formula => formula.Text.Contains('>', StringComparison.Ordinal)).Text);
        var cache = book.GetPartsOfType<PivotTableCacheDefinitionPart>().Single().PivotCacheDefinition!;
        Assert.Equal($"A{first}:{lastColumn}{RowOf(now.Last)}", cache.Descendants<WorksheetSource>().Single().Reference!.Value);
        Assert.True(cache.RefreshOnLoad!.Value);
        Assert.Null(book.CalculationChainPart);
        Assert.True(book.Workbook.Descendants<CalculationProperties>().Single().FullCalculationOnLoad!.Value);
    }

    [Theory]
    [InlineData("2026-03/2026-06", 4)]
    [InlineData("2026-05/2026-06", 2)]
    [InlineData("2025-12/2026-11", 12)]
    public void A_table_that_a_person_made_of_its_cells_has_its_columns_and_new_ones_look_as_those_beside_them(string period, int months)
    {
        Template("profit-loss --period 2026-03/2026-05 --by month");
        (string First, string Last) place;
        using (var ours = new WorkbookFile(_tool.PathOf("ours.xlsx")))
        {
            place = ours.Place("report", "Profit and loss");
        }

        using (var document = SpreadsheetDocument.Open(_tool.PathOf("template.xlsx"), isEditable: true))
        {
            var sheet = document.WorkbookPart!.WorksheetParts.First(part => part.Worksheet!.Descendants<Pane>().Any());
            var part = sheet.AddNewPart<TableDefinitionPart>("rIdTable");
            string[] headings = ["Row", "Mar 2026", "Apr 2026", "May 2026", "Total"];
            part.Table = new Table(
                new AutoFilter { Reference = $"{place.First}:{place.Last}" },
                new TableColumns(
                    headings.Select((heading, number) => new TableColumn { Id = (uint)number + 1, Name = heading }))
                {
                    Count =
                        (uint)headings.Length
                },
                new TableStyleInfo { Name = "TableStyleLight1" })
            {
                Id = 1, Name = "Figures", DisplayName = "Figures", Reference = $"{place.First}:{place.Last}",
            };
            sheet.Worksheet!.Append(new TableParts(new TablePart { Id = "rIdTable" }) { Count = 1 });
        }

        _tool.Run(
            "show", "profit-loss", "--period", period, "--by", "month", "--book", "reedwater", "--template", "template.xlsx", "--to",
            "filled.xlsx", "--to", "filled.json").Done();
        using var filled = new WorkbookFile(_tool.PathOf("filled.xlsx"));
        Assert.Empty(filled.Faults);
        var json = JsonFigures.Read(_tool.PathOf("filled.json"));
        Assert.Equal(months + 1, json.Headings.Count);
        Assert.Equal(json.Headings, filled.Table("Profit and loss")[0].Skip(1).Select(cell => cell!.Words));
        using var read = SpreadsheetDocument.Open(_tool.PathOf("filled.xlsx"), isEditable: false);
        var page = read.WorkbookPart!.WorksheetParts.First(part => part.Worksheet!.Descendants<Pane>().Any());
        var table = page.TableDefinitionParts.Single().Table!;
        var (first, last) = filled.Place("report", "Profit and loss");
        Assert.Equal(($"{first}:{last}", $"{first}:{last}"), (table.Reference!.Value, table.AutoFilter!.Reference!.Value));
        Assert.Equal(["Row", .. json.Headings], table.TableColumns!.Elements<TableColumn>().Select(column => column.Name!.Value!));
        Assert.Equal(
            Enumerable.Range(1, months + 2).Select(number => (uint)number),
            table.TableColumns.Elements<TableColumn>().Select(column => column.Id!.Value));
        Assert.Equal((uint)months + 2, table.TableColumns.Count!.Value);

        // Every figure looks as those of its row do, and every column is as wide as one was.
        var looks = filled.Looks("Profit and loss");
        for (var row = RowOf(first) + 1; row <= RowOf(last); row++)
        {
            Assert.Single(
                json.Headings.Select((_, column) => $"{(char)('B' + column)}{row}")
                    .Where(cell => filled.Cells("Profit and loss").GetValueOrDefault(cell)?.Number is not null)
                    .Select(cell => looks[cell]).Distinct().Take(2).DefaultIfEmpty());
        }

        Assert.All(Enumerable.Range(1, months + 2), column => Assert.InRange(filled.WidthOf("Profit and loss", (uint)column), 8, 60));
    }

    [Fact]
    public void A_workbook_whose_cells_do_not_say_where_they_are_is_filled_all_the_same()
    {
        Template("profit-loss --period 2026-05");
        Show("profit-loss --period 2026-04", "said.xlsx");
        using (var document = SpreadsheetDocument.Open(_tool.PathOf("template.xlsx"), isEditable: true))
        {
            foreach (var part in document.WorkbookPart!.WorksheetParts)
            {
                // Rows say it where one is left out before them, and so do cells.
                uint row = 0;
                foreach (var line in part.Worksheet!.Descendants<Row>())
                {
                    (row, line.RowIndex) = (line.RowIndex!, line.RowIndex! == row + 1 ? null : line.RowIndex);
                    var column = 'A' - 1;
                    foreach (var cell in line.Elements<Cell>())
                    {
                        (column, cell.CellReference) =
                            (cell.CellReference!.Value![0], cell.CellReference!.Value![0] == column + 1 ? null : cell.CellReference);
                    }
                }
            }
        }

        Show("profit-loss --period 2026-04", "filled.xlsx");
        using var said = new WorkbookFile(_tool.PathOf("said.xlsx"));
        using var filled = new WorkbookFile(_tool.PathOf("filled.xlsx"));
        Assert.Equal(said.Cells("Profit and loss"), filled.Cells("Profit and loss"));
    }

    [Fact]
    public void A_workbook_that_LibreOffice_saved_is_filled_with_its_chart_and_its_records()
    {
        _tool.Run(
            "show", "profit-loss", "--period", "2026-04", "--compare", "prior-year", "--book", "reedwater", "--chart", "--with-detail",
            "--to", "april.xlsx").Done();
        _ = Office.Saved(_tool.Folder, "april.xlsx");
        string[] show =
            ["show", "profit-loss", "--period", "2026-05", "--compare", "prior-year", "--book", "reedwater", "--template",
                "saved/april.xlsx", "--to", "may.xlsx"];
        var without = _tool.Run(show);
        Assert.Equal(65, without.Status);
        Assert.Contains("Add --with-detail, or take that sheet out of it.", without.Messages);
        _tool.Run([.. show, "--with-detail"]).Done();
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--compare", "prior-year", "--book", "reedwater", "--with-detail", "--to",
            "plain.xlsx").Done();
        using var may = new WorkbookFile(_tool.PathOf("may.xlsx"));
        using var plain = new WorkbookFile(_tool.PathOf("plain.xlsx"));
        Assert.Equal(plain.Sheets, may.Sheets);
        Assert.All(plain.Sheets, sheet => Assert.Equal(
            plain.Cells(sheet).Where(cell => cell.Value is not { Words: null or "", Number: null })
                .Select(cell => (cell.Key, cell.Value.Words, cell.Value.Number)),
            may.Cells(sheet).Where(cell => cell.Value is not { Words: null or "", Number: null })
                .Select(cell => (cell.Key, cell.Value.Words, cell.Value.Number))));
        Assert.All(
            plain.Sheets, sheet => Assert.Equal(
                plain.Links(sheet).Where(link => !link.Value.EndsWith("!A1", StringComparison.Ordinal)).OrderBy(link => link.Key),
                may.Links(sheet).Where(link => !link.Value.EndsWith("!A1", StringComparison.Ordinal)).OrderBy(link => link.Key)));
        var references = may.Chart.Descendants().Where(element => element.LocalName == "f").Select(element => element.InnerText).ToList();
        Assert.NotEmpty(references);
        Assert.DoesNotContain(may.Chart.Descendants(), element => element.LocalName == "numCache");
    }

    [Fact]
    public void A_kept_report_has_its_template_wherever_it_is_run_from_and_a_group_too()
    {
        Template("profit-loss --period 2026-05");
        File.Move(_tool.PathOf("template.xlsx"), _tool.PathOf("reedwater/board.xlsx"));
        _tool.Run(
            "save", "board", "--from", "profit-loss", "--period", "last-month", "--template", "reedwater/board.xlsx", "--book",
            "reedwater").Done();
        Assert.Contains("template = \"board.xlsx\"", File.ReadAllText(_tool.PathOf("reedwater/reports/board.toml")));
        _tool.Run("group", "owners", "--add", "board", "--book", "reedwater").Done();
        _tool.Run("run", "owners", "--format", "xlsx,pdf", "--period", "2026-04", "--book", "reedwater").Done();
        using var workbook = new WorkbookFile(_tool.PathOf("reedwater/out/owners/2026-04/board.xlsx"));
        Assert.Equal(["Profit and loss", "Board"], workbook.Sheets);
        Assert.Contains(workbook.Cells("Profit and loss").Values, cell => cell.Words == "April 2026");

        // Without it the others are made, and it is told.
        _tool.Run("group", "owners", "--add", "balance-sheet", "--book", "reedwater").Done();
        File.Delete(_tool.PathOf("reedwater/board.xlsx"));
        var run = _tool.Run("run", "owners", "--format", "xlsx,pdf", "--period", "2026-03", "--book", "reedwater");
        Assert.Equal(65, run.Status);
        Assert.Contains("there is no file", run.Output);
        Assert.True(File.Exists(_tool.PathOf("reedwater/out/owners/2026-03/balance-sheet.xlsx")));
        Assert.False(File.Exists(_tool.PathOf("reedwater/out/owners/2026-03/board.pdf")));
    }

    [Fact]
    public void What_cannot_be_filled_is_refused_and_nothing_is_written()
    {
        _tool.Write("text.xlsx", "no workbook");
        using (var bare = SpreadsheetDocument.Create(_tool.PathOf("bare.xlsx"), SpreadsheetDocumentType.Workbook))
        {
            bare.AddWorkbookPart().Workbook = new Workbook(new Sheets());
        }

        foreach (var (template, message) in new[]
        {
            ("text.xlsx", "text.xlsx is no workbook that can be read"),
            ("bare.xlsx", "bare.xlsx has no cells named report, so it is not said where the report belongs."),
            ("none.xlsx", "--template: there is no file none.xlsx."),
        })
        {
            var refused = _tool.Run("show", "profit-loss", "--book", "reedwater", "--template", template, "--to", "x.xlsx");
            Assert.Equal(template == "none.xlsx" ? 66 : 65, refused.Status);
            Assert.Contains(message, refused.Messages);
            Assert.Empty(Directory.EnumerateFiles(_tool.Folder, "x.xlsx*"));
        }

        Assert.Equal(2, _tool.Run("show", "profit-loss", "--book", "reedwater", "--template", "text.xlsx").Status);
        Assert.Equal(66, _tool.Run("save", "board", "--from", "profit-loss", "--template", "none.xlsx", "--book", "reedwater").Status);
    }

    [Fact]
    public void What_was_made_for_another_report_or_has_no_place_for_what_is_asked_is_refused_in_words()
    {
        void Made(string options, string file) =>
            _tool.Run(["show", .. options.Split(' '), "--book", "reedwater", "--to", file]).Done();
        Made("profit-loss --period 2026-05", "profit.xlsx");
        Made("lines --period 2026-04", "lines.xlsx");
        Made("profit-loss --period 2026-05 --with-detail", "records.xlsx");
        foreach (var (options, template, message) in new[]
        {
            ("balance-sheet --as-of 2026-05", "profit.xlsx", "was made for another report: none of its rows is one of Balance sheet."),
            ("profit-loss --period 2026-06", "lines.xlsx", "was made for another report: none of its rows is one of Profit and loss."),
            ("profit-loss --period 2026-06 --with-detail", "profit.xlsx", "has no place for the records behind figures."),
            ("profit-loss --period 2026-06 --with-detail documents", "records.xlsx", "has no place for the documents of records."),
        })
        {
            var refused = _tool.Run(
                ["show", .. options.Split(' '), "--template", template, "--book", "reedwater", "--to", "filled.xlsx"]);
            Assert.Equal(65, refused.Status);
            Assert.Contains(message, refused.Messages.ReplaceLineEndings(" ").Replace("      ", ""));
            Assert.False(File.Exists(_tool.PathOf("filled.xlsx")));
        }

        // Another month of a list has none of its rows, and is filled all the same.
        Made("lines --period 2026-05 --template lines.xlsx", "may.xlsx");
        Made("lines --period 2026-05", "plain.xlsx");
        using var filled = new WorkbookFile(_tool.PathOf("may.xlsx"));
        using var plain = new WorkbookFile(_tool.PathOf("plain.xlsx"));
        Assert.Empty(filled.Faults);
        Assert.Equal(plain.Table(plain.Sheets[0]).Count, filled.Table(filled.Sheets[0]).Count);
    }

    public void Dispose() => _tool.Dispose();

    private static int RowOf(string cell) => int.Parse(string.Concat(cell.Where(char.IsAsciiDigit)), CultureInfo.InvariantCulture);

    private void Show(string options, string file) =>
        _tool.Run(["show", .. options.Split(' '), "--book", "reedwater", "--template", "template.xlsx", "--to", file]).Done();

    // A workbook as a person leaves it: other looks, a sheet of one's own, a column beside the table.
    private (string Sheet, uint LookOfResult) Template(string options, string result = "Net profit", string? section = "Total income")
    {
        _tool.Run(["show", .. options.Split(' '), "--book", "reedwater", "--to", "ours.xlsx"]).Done();
        string sheet;
        (string First, string Last) place;
        Dictionary<string, FileCell> cells;
        using (var ours = new WorkbookFile(_tool.PathOf("ours.xlsx")))
        {
            (sheet, cells) = (ours.Sheets[0], ours.Cells(ours.Sheets[0]));
            place = ours.Place("report", sheet);
        }

        File.Copy(_tool.PathOf("ours.xlsx"), _tool.PathOf("template.xlsx"), overwrite: true);
        using var document = SpreadsheetDocument.Open(_tool.PathOf("template.xlsx"), isEditable: true);
        var workbook = document.WorkbookPart!;
        var data = workbook.WorksheetParts.First().Worksheet!.GetFirstChild<SheetData>()!;
        var beside = (char)(place.Last[0] + 2);
        uint look = 0;
        foreach (var row in data.Elements<Row>()
            .Where(row => row.RowIndex! > (uint)RowOf(place.First) && row.RowIndex! <= (uint)RowOf(place.Last)))
        {
            if (cells.TryGetValue($"B{row.RowIndex}", out var figure) && figure.Number is not null)
            {
                row.Append(new Cell { CellReference = $"{beside}{row.RowIndex}", CellFormula = new CellFormula($"B{row.RowIndex}*2") });
            }

            // A look that nothing else has: that of the title.
            if (row.RowIndex! == (uint)RowOf(place.Last))
            {
                row.Elements<Cell>().First().StyleIndex = look = data.Elements<Row>().First().Elements<Cell>().First().StyleIndex!;
            }
        }

        var lines = Formulas.Select(
            (formula, number) => new Row(
                new Cell { CellReference = $"B{number + 1}", CellFormula = new CellFormula(formula) })
            { RowIndex = (uint)number + 1 })
                    .ToList();
        string CellOf(string label) => $"'{sheet}'!B{RowOf(cells.Last(cell => cell.Value.Words == label && cell.Key[0] == 'A').Key)}";
        lines[0].Append(new Cell { CellReference = "D1", CellFormula = new CellFormula(CellOf(result)) });
        lines[1]
            .Append(
                new Cell
                {
                    CellReference = "D2",
                    CellFormula = new CellFormula($"SUM('{sheet}'!B{RowOf(place.First) + 1}:B{RowOf(place.Last)})")
                });
        lines[2].Append(new Cell { CellReference = "D3", CellFormula = new CellFormula(section is null ? "0" : CellOf(section)) });
        lines.Add(
            new Row(
                new Cell
                {
                    CellReference = "A20", DataType = CellValues.InlineString,
                    InlineString = new InlineString(new Text("kept"))
                })
            { RowIndex = 20 });
        var part = workbook.AddNewPart<WorksheetPart>();
        part.Worksheet = new Worksheet(new SheetData(lines));
        workbook.Workbook!.Sheets!.Append(new Sheet { Name = "Board", SheetId = 9, Id = workbook.GetIdOfPart(part) });
        return (sheet, look);
    }
}
