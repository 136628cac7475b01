namespace Vlei.Tests;

/// <summary>Tax returns: every box is what the list of lines with tax comes to, on both bases, and traces to these lines.</summary>
public sealed class TaxReturnTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Every_box_is_what_its_lines_come_to_on_both_bases()
    {
        var book = new InProcess(_tool.PathOf("reedwater"));
        foreach (var basis in new[] { "accrual", "cash" })
        {
            foreach (var period in new[] { "2025-11", "2026-03", "2026-04/2026-05", "fy2026" })
            {
                string[] asked = ["--period", period, "--basis", basis];
                var boxes = book.Lines("vat-return", asked).ToDictionary(row => row[0], row => row[^1]);
                foreach (var (box, code, part) in new[]
                {
                    ("box-1", "S15", "base"), ("box-2", "S0", "base"), ("box-3", "S15", "tax"), ("box-4", "P15", "base"),
                    ("box-5", "P0", "base"),
                    ("box-6", "P15", "tax"),
                })
                {
                    var lines = book.Lines("tax", [.. asked, "--only", $"tax-code={code}", "--columns", part]);
                    Assert.Equal(
                        (box, lines.Where(row => row[2] == "record").Sum(row => row[^1].Length == 0 ? 0 : Number(row[^1]))),
                        (box, Number(boxes[box])));
                }

                Assert.Equal(Number(boxes["box-3"]) - Number(boxes["box-6"]), Number(boxes["box-7"]));
                using var open = book.Open("vat-return", asked);
                var report = open.Build();
                var trace = InProcess.Trace(open, report, "box-6", report.Columns[^1].Key);
                Assert.All(trace.Checks, check => Assert.True(check.Ok));
            }
        }
    }

    [Theory]
    [InlineData("[\"S15\", \"S0\"]", "[\"S15\"]", 1, "Every tax code stands in a box: S0/sales/tax Zero rate, sales stands in none")]
    [InlineData("[\"P15\"]", "[\"P16\"]", 65, "there is no tax code P16.\n      Did you mean P15?")]
    [InlineData("[\"S0\"]", "[\"S0\", \"S15\"]", 65, "S15/sales/base Standard rate, sales is in row box-1 already.")]
    [InlineData("side = \"sales\"", "side = \"sale\"", 65, "side is not \"sale\".\n      Did you mean sales?")]
    [InlineData("tax-codes = [\"S15\"]\nside = \"sales\"\npart = \"base\"", "accounts = [\"4000\"]", 65, "a tax-return has no accounts.")]
    public void A_layout_that_leaves_out_a_code_or_has_it_twice_is_told(string was, string becomes, int status, string message)
    {
        var path = _tool.PathOf("reedwater/layouts/vat-return.toml");
        var text = File.ReadAllText(path);
        var at = text.IndexOf(was, StringComparison.Ordinal);
        File.WriteAllText(path, text[..at] + becomes + text[(at + was.Length)..]);
        var outcome = _tool.Run("show", "tax-return", "--layout", "vat-return", "--period", "2026-05", "--book", "reedwater");
        Assert.Equal(status, outcome.Status);
        Assert.Contains(message, outcome.Output + outcome.Messages);
    }

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);
}
