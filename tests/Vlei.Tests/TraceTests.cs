using System.Text.Json;
using Vlei.Core.Reports;

namespace Vlei.Tests;

/// <summary>Every figure of every statement of the demo, traced by the program, adds up to itself.</summary>
public sealed class TraceTests : IDisposable
{
    private const int OfProgram = 8;

    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss --period 2026-05 --compare prior-year --change --share income --basis cash")]
    [InlineData("profit-loss --period 2026-03-10/2026-05-20 --by department --compare budget")]
    [InlineData("balance-sheet --as-of 2026-05-20 --compare prior-period --change")]
    [InlineData("balance-sheet --as-of 2026-05-31 --basis cash --share assets")]
    [InlineData("cash-flow --period 2026-Q1 --basis cash --compare prior-year")]
    [InlineData("cash-flow --period 2026-05 --method direct --by contact --depth 1 --only contact=S*")]
    [InlineData("equity-movements --period fy2026 --compare prior-year --change")]
    [InlineData("working-capital --period 2026-Q1 --by month --basis cash")]
    [InlineData("trial-balance --period 2026-05 --basis cash")]
    [InlineData("general-ledger --period 2026-05-20/2026-05-31 --only account=1020,1200 --basis cash")]
    [InlineData("receivables-aging --as-of 2026-05-31 --unapplied --only contact.name=H/M")]
    [InlineData("payables-aging --as-of 2026-05-31 --detail --limits 30")]
    [InlineData("receivables-aging --as-of 2026-05-31 --compare prior-year --change --share column --top 4")]
    [InlineData("open-payables --as-of 2026-05-31")]
    [InlineData("supplier-balances --period 2026-05 --summary")]
    [InlineData("customer-ledger --period 2026-05 --only contact.name=Heron*,Hester*")]
    [InlineData("statement-of-account --period 2026-05 --only contact=C0001")]
    [InlineData("money-to-come --as-of 2026-05-31 --by month --as-usual")]
    [InlineData("bills-to-pay --as-of 2026-05-31")]
    public void Every_cell_traces_to_its_own_sum(string options)
    {
        var asked = options.Split(' ');
        using var open = new InProcess(_tool.PathOf("reedwater")).Open(asked[0], asked[1..]);
        var report = open.Build();
        var figures = (from row in report.Rows
                       from column in report.Columns.Select((column, place) => (column.Key, column.Kind, place))
                       where row.Cells[column.place].Units is not null
                           && column.Kind is not (ColumnKind.Count or ColumnKind.Date or ColumnKind.Text)
                       select (Row: row.Key, Column: column.Key, IsMoney: column.Kind == ColumnKind.Money,
                           Units: row.Cells[column.place].Units!.Value)).ToList();
        Assert.NotEmpty(figures);
        foreach (var (row, column, isMoney, units) in figures)
        {
            var trace = InProcess.Trace(open, report, row, column);
            var amounts = trace.Rows.Where(line => line.Kind == RowKind.Record).Sum(line => line.Cells[^2].Units ?? 0);
            Assert.True(
                trace.Checks[0].Ok && trace.Checks[0].Expected.MinorUnits == amounts && (!isMoney || amounts == units), $"{row}, {column}");
        }

        // The program itself says the same of a few of them.
        foreach (var (row, column, isMoney, units) in figures.Where((_, place) => place % Math.Max(1, figures.Count / OfProgram) == 0))
        {
            var trace = JsonDocument.Parse(
                _tool.Run(["trace", .. asked, "--book", "reedwater", "--format", "json", "--row", row, "--column", column])
                    .Done().Output).RootElement;
            var sum = trace.GetProperty("rows").EnumerateArray().Where(line => line.GetProperty("kind").GetString() == "record")
                .Sum(line => line.GetProperty("cells").EnumerateArray().TakeLast(2).First().GetDecimal());
            Assert.True(
                trace.GetProperty("checks")[0].GetProperty("ok").GetBoolean() && (!isMoney || sum == units / 100m), $"{row}, {column}");
        }
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
}
