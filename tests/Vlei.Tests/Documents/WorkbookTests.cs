namespace Vlei.Tests.Documents;

/// <summary>Workbooks: live formulas that come to what the report says, links that lead there and back, words that stay words.</summary>
public sealed class WorkbookTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void LibreOffice_works_every_formula_out_to_what_stands_in_the_cell()
    {
        string[] reports =
        [
            "profit-loss --period 2026-Q1 --by month --compare prior-year --change --share income",
            "profit-loss --period 2026-05 --compare budget --change --share row --by department",
            "balance-sheet --as-of 2026-05-31 --compare prior-year --change --share assets", "cash-flow --period fy2026 --by quarter",
            "trial-balance --period 2026-05",
            "receivables-aging --as-of 2026-05-31 --detail --share row",
            "sales-by-customer --period 2026 --compare prior-year --change", "general-ledger --period 2026-05 --only account=1020,1030",
            "lines --period 2026-05 --only account.type=income --group-by department,item --columns date,contact,quantity,natural "
                + "--share group", "sales-by-item --period 2026-Q1 --group-by item --by month --measure natural --share column",
        ];
        for (var number = 0; number < reports.Length; number++)
        {
            _tool.Run(
                ["show", .. reports[number].Split(' '), "--book", "reedwater", "--to", $"w{number}.xlsx", "--to", $"o{number}.ods"]).Done();
        }

        string[] files = [.. Enumerable.Range(0, reports.Length).SelectMany(number => new[] { $"w{number}.xlsx", $"o{number}.ods" })];
        var (saved, formulas) = (Office.Reckoned(_tool.Folder, files), 0);
        for (var number = 0; number < files.Length; number++)
        {
            using var theirs = new WorkbookFile(saved[number]);
            var reckoned = theirs.Cells(theirs.Sheets[0]);
            foreach (var (place, cell) in Ours(files[number]).Where(cell => cell.Value.Formula is not null))
            {
                formulas++;
                var other = reckoned[place];
                Assert.True(
                    other.Number is { } sum && Math.Abs(sum - cell.Number!.Value) <= 1e-9 * Math.Max(1, Math.Abs(sum)),
                    $"{files[number]}, {reports[number / 2]}, {place}: {cell.Formula} is {other.Number}{other.Words}, not {cell.Number}");
            }
        }

        Assert.InRange(formulas, 2000, 100_000);
    }

    [Fact]
    public void Totals_changes_and_percentages_are_formulas_and_single_accounts_are_figures()
    {
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--compare", "prior-year", "--change", "--share", "income", "--book",
            "reedwater", "--to", "p.xlsx").Done();
        using var workbook = new WorkbookFile(_tool.PathOf("p.xlsx"));
        var table = workbook.Table("Profit and loss");
        var kinds = table.Skip(1).Select(
            row => (Label: row[0]!.Words!, Formulas: row.Skip(1).Select(cell => cell?.Formula is not null).ToList()))
                .ToDictionary(row => row.Label, row => row.Formulas);
        Assert.Equal([false, false, true, true, true], kinds["Repairs"]);
        Assert.All(
            new[] { "Total income", "Gross profit", "Total expenses", "Net profit" }, label => Assert.All(kinds[label], Assert.True));
        Assert.StartsWith("SUM(", table.Single(row => row[0]!.Words == "Total income")[1]!.Formula);
    }

    [Fact]
    public void Every_figure_leads_to_its_records_which_add_up_to_it_and_back_and_on_to_their_documents()
    {
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--basis", "cash", "--book", "reedwater", "--with-detail", "documents",
            "--to", "d.xlsx").Done();
        using var workbook = new WorkbookFile(_tool.PathOf("d.xlsx"));
        Assert.Empty(workbook.Faults);
        Assert.Equal(["Profit and loss", "Records", "Documents"], workbook.Sheets);
        var (report, records, documents) = (workbook.Cells("Profit and loss"), workbook.Cells("Records"), workbook.Cells("Documents"));
        var back = workbook.Links("Records");
        var figures = workbook.Links("Profit and loss").Where(link => report[link.Key].Number is not null).ToList();
        Assert.Equal(report.Count(cell => cell.Value.Number is not null), figures.Count);
        foreach (var (cell, target) in figures)
        {
            var heading = Target(target).Cell;
            Assert.Equal($"'Profit and loss'!{cell}", back[heading]);

            // Down to the next heading there are records, and what they come to.
            var total = Enumerable.Range(int.Parse(heading[1..], CultureInfo.InvariantCulture) + 1, 10_000)
                .First(row => records[$"A{row}"].Words == "Total");
            var amount = records.Where(
                other => other.Key.EndsWith($"{total}", StringComparison.Ordinal)
                    && other.Key.TrimStart("ABCDEFGHIJ".ToCharArray()) == $"{total}" && other.Value.Number is not null)
                        .OrderBy(other => other.Key).Last();
            Assert.Equal(report[cell].Number, amount.Value.Number);
        }

        var toDocuments = back.Where(link => link.Value.StartsWith("'Documents'", StringComparison.Ordinal)).ToList();
        Assert.NotEmpty(toDocuments);
        Assert.All(toDocuments, link => Assert.Equal(records[link.Key].Words, documents[Target(link.Value).Cell].Words));
    }

    [Fact]
    public void A_group_is_one_workbook_whose_contents_lead_to_every_sheet_and_each_back()
    {
        _tool.Run("run", "month-end", "--book", "reedwater", "--format", "xlsx").Done();
        using var workbook = new WorkbookFile(_tool.PathOf("reedwater/out/month-end/2026-05/month-end.xlsx"));
        Assert.Empty(workbook.Faults);
        Assert.Equal("Month end", workbook.Sheets[0]);
        Assert.Equal(10, workbook.Sheets.Count);
        var links = workbook.Links("Month end").Values.Select(target => Target(target).Sheet).ToList();
        Assert.Equal(workbook.Sheets.Skip(1), links);
        Assert.All(workbook.Sheets.Skip(1), sheet => Assert.Contains("'Month end'!A1", workbook.Links(sheet).Values));

        // A page of panels stands before it; without a cover there is a list of what there is.
        var group = File.ReadAllText(_tool.PathOf("reedwater/groups/month-end.toml"));
        _tool.Write("reedwater/groups/fronted.toml", $"front = \"summary\"\n{group}");
        _tool.Write("reedwater/groups/bare.toml", $"cover = false\n{group}");
        _tool.Run("run", "fronted", "--book", "reedwater", "--to", "fronted.xlsx").Done();
        _tool.Run("run", "bare", "--book", "reedwater", "--to", "bare.xlsx").Done();
        using var fronted = new WorkbookFile(_tool.PathOf("fronted.xlsx"));
        Assert.Empty(fronted.Faults);
        Assert.Equal(["Summary", .. workbook.Sheets], fronted.Sheets);
        var summary = fronted.Cells("Summary");
        var profit = summary.First(cell => cell.Value.Words == "Net profit").Key;
        Assert.Equal(75159.17, summary[$"B{profit[1..]}"].Number);
        using var bare = new WorkbookFile(_tool.PathOf("bare.xlsx"));
        Assert.Empty(bare.Faults);
        Assert.Equal(["Contents", .. workbook.Sheets.Skip(1)], bare.Sheets);
        Assert.Equal(bare.Sheets.Skip(1), bare.Links("Contents").Values.Select(target => Target(target).Sheet));
    }

    [Fact]
    public void A_group_has_the_records_of_those_reports_that_ask_for_them_each_on_sheets_of_its_own()
    {
        _tool.Write("reedwater/groups/pack.toml", """
            period = "last-month"

            [[report]]
            report = "profit-loss"
            with-detail = true
            depth = 0

            [[report]]
            report = "balance-sheet"
            depth = 0

            [[report]]
            report = "profit-loss"
            name = "again"
            with-detail = "documents"
            depth = 0
            basis = "cash"
            """);
        _tool.Run("run", "pack", "--book", "reedwater", "--format", "xlsx,html,pdf").Done();
        string Path(string name) => _tool.PathOf($"reedwater/out/pack/2026-05/{name}");
        using var workbook = new WorkbookFile(Path("pack.xlsx"));
        Assert.Empty(workbook.Faults);
        var sheets = workbook.Sheets;
        Assert.Equal(
            (7, 2, 1),
            (sheets.Count, sheets.Count(sheet => sheet.StartsWith("Records", StringComparison.Ordinal)),
                sheets.Count(sheet => sheet.StartsWith("Documents", StringComparison.Ordinal))));
        Assert.Equal(sheets.Count, sheets.Select(sheet => sheet.ToUpperInvariant()).Distinct().Count());

        // Every link leads to a cell that is there, on a sheet that is there.
        foreach (var sheet in sheets)
        {
            Assert.All(workbook.Links(sheet).Values.Select(Target), target =>
            {
                Assert.Contains(target.Sheet, sheets);
                Assert.Contains(target.Cell, workbook.Cells(target.Sheet).Keys);
            });
        }

        Assert.All(
            sheets.Where(sheet => sheet.StartsWith("Profit", StringComparison.Ordinal)),
            sheet => Assert.Contains(workbook.Links(sheet).Values, target => target.Contains("Records", StringComparison.Ordinal)));
        Assert.DoesNotContain(workbook.Links("Balance sheet").Values, target => target.Contains("Records", StringComparison.Ordinal));
        var page = File.ReadAllText(Path("pack.html"));
        Assert.Equal(3, page.Split("<section class=\"records\">").Length - 1);
        var names = page.Split(" id=\"").Skip(1).Select(part => part[..part.IndexOf('"', StringComparison.Ordinal)]).ToList();
        Assert.Equal(names.Count, names.Distinct().Count());
        Assert.Empty(page.Split("href=\"#").Skip(1).Select(part => part[..part.IndexOf('"', StringComparison.Ordinal)]).Except(names));
        Shell.Run(_tool.Folder, "qpdf", "--check", Path("pack.pdf"));

        // What would be too much is refused before anything is written.
        var refused = _tool.Run("show", "lines", "--period", "all", "--book", "reedwater", "--with-detail", "--to", "lines.xlsx");
        Assert.Equal(2, refused.Status);
        Assert.Contains("rows, and the records behind every figure of them would be too many.", refused.Messages);
        Assert.False(File.Exists(_tool.PathOf("lines.xlsx")));
    }

    [Fact]
    public void What_looks_like_a_formula_or_markup_stays_text_in_every_format()
    {
        _tool.Write("set/accounts.csv", "code,name,type\n1000,\"=1+1\",bank\n4000,\"<b>&amp; +49 \u0001|*x*_x0041_\",income\n");
        _tool.Write("set/documents.csv", "id,kind,date\n@D,cash-sale,2026-03-14\n");
        _tool.Write("set/lines.csv", "document,account,amount,memo\n@D,1000,5.00,\"-2+3\"\n@D,4000,-5.00,\"\t=cmd()\"\n");
        _tool.Run("init", "odd", "--name", "<Odd> & \"Sons\"", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "odd").Done();
        string[] files = ["o.xlsx", "o.html", "o.pdf", "o.md", "o.csv", "o.json", "o.txt"];
        _tool.Run(["show", "postings", "--period", "2026-03", "--book", "odd", .. files.SelectMany(file => new[] { "--to", file })]).Done();
        using (var workbook = new WorkbookFile(_tool.PathOf("o.xlsx")))
        {
            Assert.Empty(workbook.Faults);
            var words = workbook.Cells(workbook.Sheets[0]).Values;
            Assert.All(words, cell => Assert.True(cell.Formula is null || !cell.Formula.Contains("cmd", StringComparison.Ordinal)));
            Assert.Contains(words, cell => cell.Words == "-2+3");
        }

        var page = File.ReadAllText(_tool.PathOf("o.html"));
        Assert.Contains("&lt;b&gt;&amp;amp; +49", page);
        Assert.DoesNotContain("<b>", page);
        Assert.DoesNotContain('\u0001', File.ReadAllText(_tool.PathOf("o.md")) + File.ReadAllText(_tool.PathOf("o.txt")) + page);
        Shell.Run(_tool.Folder, "qpdf", "--check", "o.pdf");
        Assert.Contains("<b>&amp; +49", Shell.Run(_tool.Folder, "pdftotext", "-layout", "o.pdf", "-"));
        var safe = _tool.Run(
            "show", "postings", "--period", "2026-03", "--book", "odd", "--format", "csv", "--csv-style", "safe,plain,headings")
                .Done().Output.Split('\n');
        Assert.StartsWith("label,Date,", safe[0]);
        Assert.All(
            safe.Skip(1).SelectMany(NaiveRecords.Values).Where(value => value.Length > 0 && "=+-@\t".Contains(value[0])),
            value => Assert.True(decimal.TryParse(value, CultureInfo.InvariantCulture, out _), value));
        Assert.Contains(safe.SelectMany(NaiveRecords.Values), value => value == "'@D");
    }

    [Fact]
    public void A_group_is_one_open_document_too_whose_words_lead_where_those_of_the_workbook_do()
    {
        _tool.Run("run", "month-end", "--book", "reedwater", "--format", "xlsx,ods").Done();
        using var workbook = new WorkbookFile(_tool.PathOf("reedwater/out/month-end/2026-05/month-end.xlsx"));
        var spreadsheet = new OpenDocumentFile(_tool.PathOf("reedwater/out/month-end/2026-05/month-end.ods"));
        Assert.Equal(workbook.Sheets, spreadsheet.Sheets);
        Assert.All(workbook.Sheets, sheet => Assert.Equal(
            workbook.Links(sheet).Values.Select(target => $"#{target.Replace('!', '.')}"), spreadsheet.Links(sheet)));
    }

    public void Dispose() => _tool.Dispose();

    private Dictionary<string, FileCell> Ours(string file)
    {
        if (file.EndsWith(".ods", StringComparison.Ordinal))
        {
            var spreadsheet = new OpenDocumentFile(_tool.PathOf(file));
            return spreadsheet.Cells(spreadsheet.Sheets[0]).ToDictionary(
                cell => string.Create(CultureInfo.InvariantCulture, $"{(char)('A' + cell.Key.Column - 1)}{cell.Key.Row}"),
                cell => cell.Value);
        }

        using var workbook = new WorkbookFile(_tool.PathOf(file));
        return workbook.Cells(workbook.Sheets[0]);
    }

    private static (string Sheet, string Cell) Target(string target) =>
        target.LastIndexOf('!') is var at ? (target[1..(at - 1)].Replace("''", "'", StringComparison.Ordinal), target[(at + 1)..])
            : default;
}
