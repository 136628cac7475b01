using System.Text.Json;

namespace Vlei.Tests;

/// <summary>What several reports say of the same thing is the same, whichever of them is asked.</summary>
public sealed class AgreementTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("2026-06-30")]
    [InlineData("2026-05-17")]
    [InlineData("2025-02-28")]
    [InlineData("2023-03-01")]
    public void What_is_owed_on_a_day_is_one_figure_wherever_it_stands(string day)
    {
        foreach (var (side, control, aging, list, people, habits) in new[]
        {
            (1, "1100", "receivables-aging", "open-receivables", "customer", "days-to-pay"),
            (-1, "2000", "payables-aging", "open-payables", "supplier", "days-to-pay-suppliers"),
        })
        {
            string[] period = ["--period", $"2023-03-01/{day}"];
            var owed = Cell(aging, "total", "total", "--as-of", day);
            Assert.Equal(owed, Cell(aging, "total", "total", "--as-of", day, "--summary", "--unapplied"));
            Assert.Equal(owed, Cell(aging, "total", "total", "--as-of", day, "--detail", "--age-by", "document", "--limits", "7"));
            Assert.Equal(owed, Cell(aging, "total", $"total({day})", "--as-of", "2026-06-29", "--compare", day));
            Assert.Equal(owed, Cell(list, "total", "open", "--as-of", day));
            Assert.Equal(owed, Cell(list, "total", "total", "--as-of", day) - Cell(list, "total", "settled", "--as-of", day));
            Assert.Equal(owed, Cell($"{people}-balances", "total", "closing", period));
            Assert.Equal(owed, Cell($"{people}-ledger", "total", "balance", period));
            Assert.Equal(owed, Cell(habits, "total", "open", period));
            Assert.Equal(owed, side * Cell("trial-balance", control, "closing", period));
        }

        Assert.Equal(
            Cell("receivables-aging", "total", "total", "--as-of", day),
            Cell("collection", "receivables", null, "--period", $"2023-03-01/{day}"));
        Assert.Equal(
            Cell("cash-flow", "closing-money", null, "--period", $"2023-03-01/{day}"),
            Cell("money-to-come", "opening", "balance", "--as-of", day));
        Assert.Equal(Cell("money-to-come", "opening", "balance", "--as-of", day), Cell("bills-to-pay", "opening", "left", "--as-of", day));
    }

    [Fact]
    public void Statements_of_account_add_up_to_what_is_owed()
    {
        _tool.Run("show", "statement-of-account", "--book", "reedwater", "--period", "2026-05", "--to", "all/", "--format", "csv").Done();
        var files = Directory.EnumerateFiles(_tool.PathOf("all"))
            .Select(path => File.ReadAllLines(path).Select(line => line.Split(',')).ToList()).ToList();
        decimal Sum(Func<string[], bool> isMeant) =>
            files.SelectMany(lines => lines).Where(isMeant).Sum(cells => decimal.Parse(cells[^1], CultureInfo.InvariantCulture));
        Assert.Equal(Cell("receivables-aging", "total", "total", "--as-of", "2026-05-31"), Sum(cells => cells[0] == "closing"));
        foreach (var bucket in new[] { "current", "1-30", "31-60", "61-90", "over-90" })
        {
            Assert.Equal(Cell("receivables-aging", "total", bucket, "--as-of", "2026-05-31"), Sum(cells => cells[0] == bucket));
        }
    }

    [Fact]
    public void Money_that_is_expected_is_what_is_open_less_what_is_disputed_and_in_credit()
    {
        string[] asked = ["--as-of", "2026-06-30"];
        var receipts = Cell("money-to-come", "total", "receipts", asked) + Cell("money-to-come", "disputed", "receipts", asked);
        var credits = Cell("open-receivables", "total", "open", [.. asked, "--only", "open=/-0.01"]);
        Assert.Equal(Cell("open-receivables", "total", "open", asked), receipts + credits);
        Assert.Equal(Cell("bills-to-pay", "total", "to-pay", asked), Cell("money-to-come", "total", "payments", asked));
        Assert.Equal(
            Cell("money-to-come", "total", "receipts", [.. asked, "--by", "month"]),
            Cell("money-to-come", "total", "receipts", [.. asked, "--as-usual"]) + Cell(
                "money-to-come", "later", "receipts", [.. asked, "--as-usual"]));
        Assert.Equal(Cell("receivables-aging", "total", "disputed", asked), Cell("money-to-come", "disputed", "receipts", asked));
        Assert.Equal(Cell("receivables-aging", "total", "promised", asked), Cell("open-receivables", "total", "promised", asked));
    }

    [Theory]
    [InlineData("accrual", "2026-05")]
    [InlineData("cash", "fy2026")]
    public void Lists_say_what_statements_say(string basis, string period)
    {
        string[] asked = ["--period", period, "--basis", basis];
        var income = Cell("profit-loss", "total-income", null, asked);
        foreach (var by in new[] { "customer", "item", "month", "project", "department" })
        {
            Assert.Equal(income, Cell($"sales-by-{by}", "total", "natural", asked));
            Assert.Equal(income, Cell($"sales-by-{by}", "total", "natural", [.. asked, "--detail"]));
            Assert.Equal(
                income,
                Cell($"sales-by-{by}", "total", "total", [.. asked, "--group-by", "account", "--by", "quarter", "--measure", "natural"]));
        }

        Assert.Equal(income, Cell("top-customers", "total", "natural", asked)
            + Cell("sales-by-customer", "total", "natural", [.. asked, "--only", "contact=none"]));
        foreach (var by in new[] { "supplier", "item", "month", "project", "department", "account" })
        {
            Assert.Equal(Cell("purchases-by-item", "total", "amount", asked), Cell($"purchases-by-{by}", "total", "amount", asked));
        }

        Assert.Equal(0, Cell("postings", "total", "debit", asked) - Cell("postings", "total", "credit", asked));
        Assert.Equal(Cell("trial-balance", "total", "debit", asked), Cell("postings", "total", "debit", asked));
        Assert.Equal(
            Cell("trial-balance", "2200", "debit", asked) - Cell("trial-balance", "2200", "credit", asked),
            Cell("postings", "total", "amount", [.. asked, "--only", "account=2200", "--columns", "+amount"]));
        Assert.Equal(
            Cell("tax", "total", "tax", [.. asked, "--only", "side=purchases"]) - Cell(
                "tax", "total", "tax", [.. asked, "--only", "side=sales"]),
            Cell("postings", "total", "amount", [.. asked, "--where", "tax-part = 'tax'", "--columns", "amount"]));
    }

    [Theory]
    [InlineData("2026-06-30")]
    [InlineData("2025-02-28")]
    public void Lists_as_of_a_day_say_what_balances_say(string day)
    {
        string[] asked = ["--as-of", day], period = ["--period", $"2023-03-01/{day}"];
        Assert.Equal(Cell("receivables-aging", "total", "total", asked), Cell("contacts", "total", "receivable", asked));
        Assert.Equal(Cell("payables-aging", "total", "total", asked), Cell("supplier-list", "total", "payable", asked));
        Assert.Equal(
            Cell("open-receivables", "total", "open", asked), Cell("open-items", "total", "open", [.. asked, "--only", "side=receivable"]));
        Assert.Equal(
            Cell("open-items", "total", "open", asked), Cell("documents", "total", "open", period));
        Assert.Equal(Cell("balance-sheet", "1200", null, asked), Cell("stock-on-hand", "total", "amount", asked));
        Assert.Equal(Cell("balance-sheet", "1000", null, asked), Cell("accounts", "1000", "balance", asked));
        Assert.Equal(
            Cell("open-receivables", "total", "settled", asked) + Cell("open-payables", "total", "settled", asked),
            Cell("open-items", "total", "settled", asked));
    }

    [Fact]
    public void Text_leaves_out_columns_that_say_nothing_and_files_have_them()
    {
        string[] asked = ["show", "open-receivables", "--book", "reedwater", "--only", "contact=L02"];
        var (text, csv) = (_tool.Run(asked).Done().Output, _tool.Run([.. asked, "--format", "csv"]).Done().Output);
        Assert.All(new[] { "Promised", "Disputed", "Promise", "Settled" }, heading => Assert.DoesNotContain(heading, text));
        Assert.Contains(",total,settled,open,promised,disputed,promise\n", csv);
        Assert.Contains(
            "  Disputed", _tool.Run("show", "open-receivables", "--book", "reedwater", "--only", "contact.name=Hester R*").Done().Output);
    }

    public void Dispose() => _tool.Dispose();

    // One figure of a report; 0 where there is no such row or nothing in it. The first column of figures where none is named.
    private decimal Cell(string report, string row, string? column, params string[] options)
    {
        var json = JsonDocument.Parse(
            _tool.Run(["show", report, "--book", "reedwater", "--format", "json", .. options]).Done().Output).RootElement;
        Assert.All(json.GetProperty("checks").EnumerateArray(), check => Assert.True(check.GetProperty("ok").GetBoolean()));
        var place = json.GetProperty("columns").EnumerateArray().Select(known => known.GetProperty("key").GetString()).ToList()
            .FindIndex(key => column is null || key == column);
        Assert.True(place >= 0, $"{report} has no column {column}");
        var found = json.GetProperty("rows").EnumerateArray().FirstOrDefault(known => known.GetProperty("key").GetString() == row);
        return found.ValueKind == JsonValueKind.Undefined || found.GetProperty("cells")[place].ValueKind == JsonValueKind.Null
            ? 0 : found.GetProperty("cells")[place].GetDecimal();
    }
}
