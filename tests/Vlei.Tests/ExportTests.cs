using Vlei.Core;

namespace Vlei.Tests;

/// <summary>
/// Records that go out come in again: the same book, the same reports; narrowed to a period, the same reports of that period.
/// </summary>
public sealed class ExportTests : IDisposable
{
    // What says when and how records came in, rather than what they say.
    private static readonly string[] OfImports = ["changes", "recorded-activity"];

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void A_whole_book_goes_out_and_comes_in_again()
    {
        _tool.Run("check", "--review", "2026-03", "--book", "reedwater", "--seen", "duplicate/BILL-00563", "--note", "Two deliveries");
        _tool.Run("export", "out", "--book", "reedwater").Done();
        Assert.Contains("Nothing has changed", _tool.Run("import", "out", "--book", "reedwater").Done().Output);
        Take("out", "again");
        var (book, again) = (new InProcess(_tool.PathOf("reedwater")), new InProcess(_tool.PathOf("again")));
        foreach (var report in StandardReports.All.Where(report => !OfImports.Contains(report.Key) && report.Each is null))
        {
            Assert.Equal(book.Lines(report.Key, []), again.Lines(report.Key, []));
        }

        foreach (var report in new[] { "profit-loss", "balance-sheet", "trial-balance", "cash-flow" })
        {
            Assert.Equal(
                book.Lines(report, "--basis", "cash", "--period", "all"), again.Lines(report, "--basis", "cash", "--period", "all"));
        }

        Assert.Equal(
            File.ReadAllText(_tool.PathOf("reedwater/promises.csv")), File.ReadAllText(_tool.PathOf("again/promises.csv")));
        var notes = File.ReadAllText(_tool.PathOf("again/promises.csv"));
        _tool.Run("import", "out", "--book", "again").Done();
        Assert.Equal(notes, File.ReadAllText(_tool.PathOf("again/promises.csv")));
    }

    [Theory]
    [InlineData("fy2026", true)]
    [InlineData("2026-05", false)]
    [InlineData("2025-11-10/2026-01-20", false)]
    public void A_period_goes_out_with_what_was_open_before_it_and_gives_the_same_reports(string period, bool isWholeYear)
    {
        _tool.Run("export", "out", "--period", period, "--book", "reedwater").Done();
        Take("out", "part");
        var (book, part) = (new InProcess(_tool.PathOf("reedwater")), new InProcess(_tool.PathOf("part")));
        foreach (var basis in new[] { "accrual", "cash" })
        {
            Same("profit-loss", "--period", period, "--basis", basis);
            Same("profit-loss", "--period", period, "--basis", basis, "--by", "month");
            Same("cash-flow", "--period", period, "--basis", "accrual");
            if (isWholeYear || basis == "accrual")
            {
                Same("trial-balance", "--period", period, "--basis", basis);
                Same("balance-sheet", "--period", period, "--basis", basis);
            }
        }

        foreach (var report in new[] { "receivables-aging", "payables-aging", "customer-balances", "supplier-balances" })
        {
            Same(report, "--period", period);
        }

        Same("lines", "--period", period, "--columns", "document,account,amount,contact,item,memo");
        Same("stock-on-hand", "--period", period);

        void Same(string report, params string[] typed) => Assert.Equal(book.Lines(report, typed), part.Lines(report, typed));
    }

    [Fact]
    public void A_selection_goes_out_alone_and_a_folder_that_is_not_empty_is_refused()
    {
        _tool.Run("export", "one", "--only", "contact=C0020", "--book", "reedwater").Done();
        var documents = File.ReadAllLines(_tool.PathOf("one/documents.csv")).Skip(1).ToList();
        Assert.NotEmpty(documents);
        Assert.All(documents, document => Assert.Contains(",C0020,", document));
        Assert.Equal(73, _tool.Run("export", "one", "--book", "reedwater").Status);
        Assert.Equal(2, _tool.Run("export", "two", "--only", "contct=C0020", "--book", "reedwater").Status);
        Assert.False(Directory.Exists(_tool.PathOf("two")));
    }

    private void Take(string records, string book)
    {
        _tool.Run(
            "init", book, "--name", "Reedwater Boatworks", "--currency", "ZAR", "--fiscal-year-start", "3", "--clock", "2026-06-30").Done();
        File.AppendAllText(_tool.PathOf($"{book}/book.toml"), "clock = 2026-06-30\n");
        _tool.Run("import", records, "--book", book).Done();
    }
}
