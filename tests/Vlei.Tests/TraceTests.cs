using System.Collections.Concurrent;
using System.Text.Json;

namespace Vlei.Tests;

/// <summary>Every figure of every statement of the demo, traced by the program, adds up to itself.</summary>
public sealed class TraceTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss --period 2026-05 --compare prior-year --change --percent income --basis cash")]
    [InlineData("profit-loss --period 2026-03-10/2026-05-20 --by department --compare budget")]
    [InlineData("balance-sheet --as-of 2026-05-20 --compare prior-period --change")]
    [InlineData("balance-sheet --as-of 2026-05-31 --basis cash --percent assets")]
    [InlineData("cash-flow --period 2026-Q1 --basis cash --compare prior-year")]
    [InlineData("cash-flow --period 2026-05 --method direct --by contact --depth 1 --only contact=S*")]
    [InlineData("equity-movements --period fy2026 --compare prior-year --change")]
    [InlineData("trial-balance --period 2026-05 --basis cash")]
    [InlineData("general-ledger --period 2026-05-20/2026-05-31 --only account=1020,1200 --basis cash")]
    [InlineData("receivables-aging --as-of 2026-05-31 --unapplied --only contact.name=H..M")]
    [InlineData("payables-aging --as-of 2026-05-31 --detail --limits 30")]
    [InlineData("receivables-aging --as-of 2026-05-31 --compare prior-year --change --percent column --top 4")]
    [InlineData("open-payables --as-of 2026-05-31")]
    [InlineData("supplier-balances --period 2026-05 --summary")]
    [InlineData("customer-ledger --period 2026-05 --only contact.name=Heron*,Hester*")]
    [InlineData("statement-of-account --period 2026-05 --only contact=C0001")]
    [InlineData("money-to-come --as-of 2026-05-31 --by month --as-usual")]
    [InlineData("bills-to-pay --as-of 2026-05-31")]
    public void Every_cell_traces_to_its_own_sum(string options)
    {
        string[] asked = [.. options.Split(' '), "--book", "reedwater", "--format", "json"];
        var report = JsonDocument.Parse(_tool.Run(["show", .. asked]).Done().Output).RootElement;
        var columns = report.GetProperty("columns").EnumerateArray().ToList();
        var figures = (from row in report.GetProperty("rows").EnumerateArray()
                       from column in Enumerable.Range(0, columns.Count)
                       where row.GetProperty("cells")[column].ValueKind == JsonValueKind.Number
                           && columns[column].GetProperty("kind").GetString() != "count"
                       select (Row: row.GetProperty("key").GetString()!, Column: columns[column], Cell: row.GetProperty("cells")[column].GetDecimal())).ToList();
        Assert.NotEmpty(figures);
        var wrong = new ConcurrentBag<string>();
        Parallel.ForEach(figures, figure =>
        {
            var (row, column) = (figure.Row, figure.Column.GetProperty("key").GetString()!);
            var outcome = _tool.Run(["trace", .. asked, "--row", row, "--column", column]);
            if (outcome.Status != 0 || !AddsUp(outcome.Output, figure.Column, figure.Cell))
            {
                wrong.Add($"{row}, {column}: {outcome.Messages}");
            }
        });
        Assert.Empty(wrong);
    }

    [Fact]
    public void A_trace_is_as_approved()
    {
        Snapshot.Matches("trace.txt", _tool.Run(
            "trace", "profit-loss", "--book", "reedwater", "--period", "2026-05", "--basis", "cash", "--compare", "prior-year",
            "--change", "--row", "Boats built to order", "--column", "Change").Done().Output);
        Snapshot.Matches("trace.json", _tool.Run(
            "trace", "balance-sheet", "--book", "reedwater", "--as-of", "2026-03-10", "--row", "1020", "--format", "json").Done().Output);
    }

    public void Dispose() => _tool.Dispose();

    // The postings add up to the check, and, where the figure is money, to the figure.
    private static bool AddsUp(string json, JsonElement column, decimal cell)
    {
        var trace = JsonDocument.Parse(json).RootElement;
        var check = trace.GetProperty("checks")[0];
        var sum = trace.GetProperty("rows").EnumerateArray().Where(row => row.GetProperty("kind").GetString() == "record")
            .Sum(row => row.GetProperty("cells").EnumerateArray().TakeLast(2).First().GetDecimal());
        return check.GetProperty("ok").GetBoolean() && check.GetProperty("expected").GetDecimal() == sum
            && (column.GetProperty("kind").GetString() != "money" || sum == cell);
    }
}
