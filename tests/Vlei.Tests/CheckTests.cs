namespace Vlei.Tests;

/// <summary>Damage is noticed, named and mended; it never turns into a figure.</summary>
public sealed class CheckTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void A_sound_book_passes()
    {
        var outcome = _tool.Run("check", "--book", "reedwater").Done();
        Assert.Equal(
            """
            ok      The store is whole
            ok      Every document sums to zero
            ok      Records are known again by what they say
            ok      Settlements fit what is open
            ok      Derived columns are what the records give
            ok      Promises and disputes are of documents that are there
            ok      What imports took in is proved
            ok      Profit and loss: Net profit = change in all other accounts
            ok      Balance sheet: Assets = liabilities + equity
            ok      Cash flow: Money at the end = balances of the money accounts
            ok      Movements in equity: Equity at the end = assets - liabilities
            ok      Changes in working capital: Working capital at the end = current assets - current liabilities
            ok      Tax return: The boxes hold every line with a tax code
            ok      Trial balance: Opening balances add up to zero
            ok      Trial balance: Debits = credits
            ok      Trial balance: Closing balances add up to zero
            ok      Receivables aging: Open items = balance of the control accounts
            ok      Payables aging: Open items = balance of the control accounts
            ok      Customer balances: Open items = balance of the control accounts
            ok      Supplier balances: Open items = balance of the control accounts
            ok      Collection: Open items = balance of the control accounts
            ok      Days to pay: Open items = balance of the control accounts
            ok      Days to pay suppliers: Open items = balance of the control accounts
            ok      Control accounts = open items

            """, outcome.Output);
    }

    [Fact]
    public void What_does_not_tie_is_named_with_its_first_month_and_document()
    {
        _tool.Sql(
            "reedwater",
            "UPDATE lines SET amount = amount + 5 WHERE line = 1 AND document = (SELECT key FROM documents_keys WHERE id = 'INV-00700')");
        var check = _tool.Run("check", "--rebuild", "--book", "reedwater", "--period", "2025-11/2026-03");
        Assert.Equal(1, check.Status);
        Assert.Contains("FAILED  Every document sums to zero\n        document INV-00700 sums to 0.05\n", check.Output);
        Assert.Contains(
            "FAILED  Balance sheet: Assets = liabilities + equity\n        30 Nov 2025 (accrual basis): expected ", check.Output);
        Assert.Contains("the first document that does not sum to zero is INV-00700, in 2025-11\n", check.Output);
        Assert.Contains("        Dec 2025 (cash basis): expected ", check.Output);
        Assert.Equal(1, _tool.Run("show", "balance-sheet", "--book", "reedwater", "--as-of", "2026-01").Status);
    }

    [Fact]
    public void A_settlement_of_a_document_that_is_not_there_is_told_and_all_else_is_checked()
    {
        _tool.Sql(
            "reedwater",
            "PRAGMA foreign_keys = OFF; UPDATE settlements SET \"to\" = 999999 WHERE key = (SELECT min(key) FROM settlements)");
        var check = _tool.Run("check", "--book", "reedwater");
        Assert.Equal(1, check.Status);
        Assert.Contains("a row of settlements refers to one that is not in documents_keys\n", check.Output);
        Assert.Contains("ok      Settlements fit what is open\n", check.Output);
    }

    [Fact]
    public void A_control_account_that_its_open_items_do_not_explain_is_named()
    {
        _tool.Sql(
            "reedwater",
            "UPDATE settlements SET \"to\" = (SELECT key FROM documents_keys WHERE id = 'TRF-00001') "
            + "WHERE key = (SELECT min(key) FROM settlements)");
        var check = _tool.Run("check", "--rebuild", "--book", "reedwater");
        Assert.Equal(1, check.Status);
        Assert.Matches(@"FAILED  Control accounts = open items\n        \d{4}-\d\d \(cash basis\): \d+ Trade", check.Output);
    }

    [Theory]
    [InlineData(
        "UPDATE derived_months SET sums = zeroblob(length(sums)) WHERE kind = 1 AND month = 202603",
        "2026-03 (cash)", true)]
    [InlineData(
        "UPDATE derived_columns SET data = substr(data, 2) WHERE kind = 0 AND month = 202603 AND name = 'amount'",
        "2026-03 (accrual)", true)]
    [InlineData(
        "DELETE FROM derived_columns WHERE kind = 0 AND month = 202603 AND name = 'day'", "2026-03 (accrual)", true)]
    [InlineData("DELETE FROM derived_months WHERE kind = 0 AND month = 202603", "2026-03 (accrual)", false)]
    [InlineData(
        "UPDATE derived_months SET rows = rows - 1 WHERE kind = 0 AND month = 202603", "2026-03 (accrual)",
        true)]
    [InlineData("UPDATE derived_columns SET data = substr(data, 2) WHERE kind = 2 AND month = 202603 AND name = 'document'",
        "2026-03 (items)", true, "receivables-aging")]
    [InlineData("UPDATE derived_columns SET checksum = 1 WHERE kind = 3 AND month = 202603 AND name = 'to'", "2026-03 (applications)",
        true, "receivables-aging")]
    [InlineData("DELETE FROM derived_months WHERE kind = 3 AND month = 202603", "2026-03 (applications)", false, "receivables-aging")]
    [InlineData(
        "UPDATE derived_columns SET data = substr(data, 2) WHERE kind = 4 AND month = 1",
        "documents 1 to 255 (texts)", false)]
    public void Damaged_columns_are_named_not_shown_and_rebuilt(
        string damage, string where, bool readerNotices, string report = "profit-loss")
    {
        string[] show = report == "profit-loss"
            ? ["show", report, "--book", "reedwater", "--period", "2026-03-05/2026-03-20", "--compare", "2026-03", "--format", "csv",
                "--basis", where.Contains("cash", StringComparison.Ordinal) ? "cash" : "accrual"]
            : ["show", report, "--book", "reedwater", "--as-of", "2026-04-15", "--detail", "--format", "csv"];
        var sound = _tool.Run(show).Done().Output;
        _tool.Sql("reedwater", damage);

        var shown = _tool.Run(show);
        if (readerNotices)
        {
            Assert.Equal((65, ""), (shown.Status, shown.Output));
            Assert.Equal(
                $"vlei: The derived columns of {where} are damaged; the records are not.\n      Run: vlei check --rebuild\n",
                shown.Messages);
        }

        var check = _tool.Run("check", "--book", "reedwater");
        Assert.Equal(1, check.Status);
        Assert.Contains(
            $"FAILED  Derived columns are what the records give\n        {where}: run vlei check --rebuild\n",
            check.Output);
        _tool.Run("check", "--rebuild", "--book", "reedwater").Done();
        Assert.Equal(sound, _tool.Run(show).Done().Output);
    }

    [Fact]
    public void A_record_that_was_changed_by_hand_is_found()
    {
        _tool.Sql(
            "reedwater",
            "UPDATE lines SET amount = amount + 1 WHERE document = (SELECT key FROM documents_keys WHERE id = 'INV-00100') AND line = 1");
        var check = _tool.Run("check", "--book", "reedwater");
        Assert.Equal(1, check.Status);
        Assert.Contains("FAILED  Every document sums to zero\n        document INV-00100 sums to 0.01\n", check.Output);
        Assert.Contains("FAILED  Derived columns", check.Output);
    }

    [Fact]
    public void A_file_that_is_no_database_or_too_new_is_answered()
    {
        _tool.Sql("reedwater", "PRAGMA user_version = 99");
        var tooNew = _tool.Run("show", "profit-loss", "--book", "reedwater");
        Assert.Equal(78, tooNew.Status);
        Assert.Contains("records.db has version 99", tooNew.Messages);
        File.WriteAllText(_tool.PathOf("reedwater/records.db"), new string('x', 5000));
        var damaged = _tool.Run("show", "profit-loss", "--book", "reedwater");
        Assert.Equal(65, damaged.Status);
        Assert.Contains("records.db is damaged", damaged.Messages);
        File.Delete(_tool.PathOf("reedwater/records.db"));
        Assert.Equal(66, _tool.Run("show", "profit-loss", "--book", "reedwater").Status);
    }

    public void Dispose() => _tool.Dispose();
}
