using System.Text.Json;

namespace Vlei.Tests;

/// <summary>
/// The statements of the demo, month by month and in both bases, against each other: what one says, the others say too.
/// </summary>
public sealed class TieOutTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("accrual")]
    [InlineData("cash")]
    public void Statements_agree_with_one_another_in_every_month(string basis)
    {
        var profit = Figures("profit-loss", basis, "net-profit");
        var equity = Figures("balance-sheet", basis, "total-equity");
        var assets = Figures("balance-sheet", basis, "total-assets");
        var whole = Figures("balance-sheet", basis, "total-liabilities-and-equity");
        var banks = Figures("balance-sheet", basis, "total-bank");
        var cash = Figures("balance-sheet", basis, "total-cash");
        var cards = Figures("balance-sheet", basis, "total-card");
        var closing = Figures("cash-flow", basis, "closing-money");
        var opening = Figures("cash-flow", basis, "opening-money");
        var flowProfit = Figures("cash-flow", basis, "net-profit");
        var financing = Figures("cash-flow", basis, "3100");
        Assert.Equal(40, profit.Count);
        Assert.Equal(profit, flowProfit);
        Assert.Equal(assets, whole);
        for (var month = 0; month < profit.Count; month++)
        {
            Assert.Equal(banks[month] + cash[month] - cards[month], closing[month]);
            if (month > 0)
            {
                Assert.Equal(closing[month - 1], opening[month]);

                // Equity moves by the profit and by what the owner takes out; nothing else touches it in this book.
                Assert.Equal(equity[month] - equity[month - 1], profit[month] + financing[month]);
            }
        }
    }

    [Fact]
    public void The_trial_balance_ends_where_the_balance_sheet_stands_and_starts_where_the_one_before_ended()
    {
        var sheet = Rows("balance-sheet", "--as-of", "2026-04-30", "--basis", "cash");
        var april = Rows("trial-balance", "--period", "2026-04", "--basis", "cash");
        var may = Rows("trial-balance", "--period", "2026-05", "--basis", "cash");
        foreach (var code in new[] { "1000", "1010", "1020", "1200", "1510", "1700", "3100" })
        {
            var sign = code == "3100" ? -1 : 1;
            Assert.Equal(sign * sheet[code][0], april[code][3]);
            Assert.Equal(april[code][3], may[code][0]);
        }

        Assert.Equal(-sheet["retained-earnings"][0], april["3900"][3]);
        Assert.Equal(0, april["total"][0]);
        Assert.Equal(april["total"][1], april["total"][2]);
        var profitAndLoss = april.Where(row => row.Key[0] is >= '4' and <= '8').Sum(row => row.Value[3]);
        Assert.Equal(sheet["current-earnings"][0], -profitAndLoss);
    }

    public void Dispose() => _tool.Dispose();

    private List<decimal> Figures(string report, string basis, string row)
    {
        var cells = Rows(report, "--period", "2023-03/2026-06", "--by", "month", "--basis", basis, "--zeros")[row];
        return report == "balance-sheet" ? cells : cells[..^1];
    }

    private Dictionary<string, List<decimal>> Rows(string report, params string[] options)
    {
        var json = _tool.Run(["show", report, "--book", "reedwater", "--format", "json", .. options]).Done().Output;
        return JsonDocument.Parse(json).RootElement.GetProperty("rows").EnumerateArray()
            .Where(row => row.GetProperty("kind").GetString() != "heading")
            .ToDictionary(
                row => row.GetProperty("key").GetString()!,
                row => row.GetProperty("cells").EnumerateArray().Select(cell => cell.GetDecimal()).ToList());
    }
}
