using System.Xml;
using System.Xml.Linq;
using System.Xml.Schema;

namespace Vlei.Tests.Audit;

/// <summary>
/// Audit files keep to the structure of the standard, whole or of a period; read back, they give the same reports in both bases; what does
/// not come to their control totals is named.
/// </summary>
public sealed class AuditFileTests : IDisposable
{
    private static readonly XNamespace Space = "urn:OECD:StandardAuditFile-Tax:2.00";

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Theory]
    [InlineData("all")]
    [InlineData("fy2026")]
    [InlineData("2026-05")]
    public void An_audit_file_keeps_to_the_structure_and_gives_the_same_reports(string period)
    {
        _tool.Run("export", "--audit-file", "audit.xml", "--period", period, "--book", "reedwater").Done();
        Validate(_tool.PathOf("audit.xml"));
        var bytes = File.ReadAllBytes(_tool.PathOf("audit.xml"));
        _tool.Run("export", "--audit-file", "audit.xml", "--period", period, "--book", "reedwater").Done();
        Assert.Equal(bytes, File.ReadAllBytes(_tool.PathOf("audit.xml")));
        NewBook("again");
        File.Copy(_tool.PathOf("reedwater/promises.csv"), _tool.PathOf("again/promises.csv"));
        _tool.Run("import", "audit.xml", "--book", "again").Done();
        var (book, again) = (new InProcess(_tool.PathOf("reedwater")), new InProcess(_tool.PathOf("again")));
        foreach (var basis in new[] { "accrual", "cash" })
        {
            foreach (var report in new[] { "profit-loss", "balance-sheet", "trial-balance", "sales-by-item", "tax-by-code" }
                .Where(report => period != "2026-05" || report is "profit-loss" or "sales-by-item" or "tax-by-code"))
            {
                Assert.Equal(
                    book.Lines(report, "--period", period, "--basis", basis), again.Lines(report, "--period", period, "--basis", basis));
            }
        }

        foreach (var report in new[] { "receivables-aging", "payables-aging", "cash-flow", "customer-ledger", "project-profit" })
        {
            Assert.Equal(book.Lines(report, "--period", period), again.Lines(report, "--period", period));
        }

        Assert.Contains("Nothing has changed", _tool.Run("import", "audit.xml", "--book", "again").Done().Output);
    }

    [Theory]
    [InlineData("TotalDebit", "TotalDebit is 1, but their debits come to")]
    [InlineData("NumberOfEntries", "NumberOfEntries is 1, but entries there are")]
    [InlineData("ClosingDebitBalance", "its closing balance is 1, but the entries come to")]
    [InlineData("DefaultCurrencyCode", "the file is in 1; the book is in ZAR")]
    public void What_does_not_come_to_a_control_total_is_named_and_nothing_is_taken_in(string element, string message)
    {
        _tool.Run("export", "--audit-file", "audit.xml", "--period", "2026-05", "--book", "reedwater").Done();
        var file = XDocument.Load(_tool.PathOf("audit.xml"), LoadOptions.PreserveWhitespace);
        file.Descendants(Space + element).First(found => found.Ancestors(Space + "SourceDocuments").FirstOrDefault() is null).Value = "1";
        file.Save(_tool.PathOf("audit.xml"), SaveOptions.DisableFormatting);
        NewBook("again");
        var outcome = _tool.Run("import", "audit.xml", "--book", "again");
        Assert.Equal(65, outcome.Status);
        Assert.Contains("audit.xml:", outcome.Messages);
        Assert.Contains(message, outcome.Messages);
        Assert.Contains("nothing was imported", outcome.Messages);
    }

    [Fact]
    public void Accounts_of_one_name_stay_apart_and_what_others_say_in_accounts_alone_becomes_an_opening_document()
    {
        NewBook("again");
        _tool.Write("audit.xml", """
            <AuditFile xmlns="urn:OECD:StandardAuditFile-Tax:2.00">
              <Header><AuditFileVersion>2.00</AuditFileVersion><DefaultCurrencyCode>ZAR</DefaultCurrencyCode>
                <SelectionCriteria><SelectionStartDate>2026-03-01</SelectionStartDate></SelectionCriteria></Header>
              <MasterFiles><GeneralLedgerAccounts>
                <Account><AccountID>1000</AccountID><AccountDescription>Bank</AccountDescription><GroupingCategory>bank</GroupingCategory>
                  <OpeningDebitBalance>50.00</OpeningDebitBalance><ClosingDebitBalance>45.00</ClosingDebitBalance></Account>
                <Account><AccountID>1001</AccountID><AccountDescription>Bank</AccountDescription><GroupingCategory>bank</GroupingCategory>
                  <OpeningDebitBalance>7.00</OpeningDebitBalance><ClosingDebitBalance>12.00</ClosingDebitBalance></Account>
                <Account><AccountID>3900</AccountID><AccountDescription>Kept</AccountDescription>
                  <GroupingCategory>retained-earnings</GroupingCategory>
                  <OpeningCreditBalance>57.00</OpeningCreditBalance><ClosingCreditBalance>57.00</ClosingCreditBalance></Account>
              </GeneralLedgerAccounts></MasterFiles>
              <GeneralLedgerEntries><NumberOfEntries>1</NumberOfEntries><TotalDebit>5.00</TotalDebit><TotalCredit>5.00</TotalCredit>
                <Journal><Transaction><TransactionID>T1</TransactionID><TransactionDate>2026-03-09</TransactionDate>
                  <Line><RecordID>1</RecordID><AccountID>1001</AccountID><DebitAmount><Amount>5.00</Amount></DebitAmount></Line>
                  <Line><RecordID>2</RecordID><AccountID>1000</AccountID><CreditAmount><Amount>5.00</Amount></CreditAmount></Line>
                </Transaction></Journal></GeneralLedgerEntries>
            </AuditFile>
            """);
        _tool.Run("import", "audit.xml", "--book", "again").Done();
        Assert.Equal(
            [["1000", "50.00", "45.00"], ["1001", "7.00", "12.00"], ["3900", "-57.00", "-57.00"]],
            new InProcess(_tool.PathOf("again")).Lines("trial-balance", "--period", "2026-03").Where(row => row[2] == "account")
                .Select(row => new[] { row[0], row[4], row[^1] }));
        _tool.Write("audit.xml", "<AuditFile><Header>");
        Assert.Contains("this is not XML", _tool.Run("import", "audit.xml", "--book", "again").Messages);
    }

    private void NewBook(string name)
    {
        _tool.Run("init", name, "--name", "Reedwater Boatworks", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        File.AppendAllText(_tool.PathOf($"{name}/book.toml"), "clock = 2026-06-30\n");
    }

    private static void Validate(string path)
    {
        var settings = new XmlReaderSettings { ValidationType = ValidationType.Schema };
        settings.Schemas.Add(Space.NamespaceName, Path.Combine(Tool.Root, "tests", "Vlei.Tests", "Audit", "audit-file.xsd"));
        var faults = new List<string>();
        settings.ValidationEventHandler += (_, fault) => faults.Add($"{fault.Exception.LineNumber}: {fault.Message}");
        settings.ValidationFlags |= XmlSchemaValidationFlags.ReportValidationWarnings;
        using var xml = XmlReader.Create(path, settings);
        while (xml.Read())
        {
        }

        Assert.Empty(faults.Take(5));
    }
}
