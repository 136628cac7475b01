using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>
/// Looks that are kept: the files that they name are found from wherever a report is shown, and what makes no sense is told with
/// its place.
/// </summary>
public sealed partial class KeptLookTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData(".", "reedwater/inside.xlsx", "book", "inside.xlsx")]
    [InlineData("reedwater", "inside.xlsx", "book", "inside.xlsx")]
    [InlineData("reedwater/reports", "../inside.xlsx", "book", "inside.xlsx")]
    [InlineData("far", "inside.xlsx", "book", "inside.xlsx")]
    [InlineData("far", "outside.xlsx", "book", "/far/outside.xlsx")]
    [InlineData("reedwater", "inside.xlsx", "user", "/reedwater/inside.xlsx")]
    public void A_template_is_kept_as_it_is_seen_from_where_it_is_kept(string from, string file, string shelf, string kept)
    {
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--title", "Ours", "--book", "reedwater", "--to", "reedwater/inside.xlsx").Done();
        Directory.CreateDirectory(_tool.PathOf("far"));
        File.Copy(_tool.PathOf("reedwater/inside.xlsx"), _tool.PathOf("far/outside.xlsx"));
        Directory.CreateDirectory(_tool.PathOf("reedwater/reports"));
        File.WriteAllBytes(_tool.PathOf("reedwater/inside.png"), Logo.Png);
        File.WriteAllBytes(_tool.PathOf("far/outside.png"), Logo.Png);
        Inside(
            from,
            $"save board --from profit-loss --period last-month "
                + $"--template {file} --logo {file.Replace("xlsx", "png", StringComparison.Ordinal)} --in {shelf}");
        var text = File.ReadAllText(_tool.PathOf(shelf == "book" ? "reedwater/reports/board.toml" : ".config/vlei/reports/board.toml"));
        Assert.Equal(kept.StartsWith('/') ? _tool.Folder + kept : kept, Template().Match(text).Groups[1].Value);

        // A file of the same name where the person happens to be is another one.
        _tool.Write("decoy/inside.xlsx", "decoy");
        _tool.Write("decoy/inside.png", "decoy");
        Inside("decoy", "show board --to board.xlsx");
        using (var shown = new WorkbookFile(_tool.PathOf("decoy/board.xlsx")))
        {
            Assert.Equal(["Ours"], shown.Sheets);
        }

        // A copy that is kept elsewhere has the same one, and a change of something else leaves it.
        Inside("decoy", "save copy --from board --in user --depth 1");
        Inside("decoy", "save board --depth 0" + (shelf == "user" ? " --in user" : ""));
        Inside("decoy", "show copy --to copy.xlsx");
        Inside("decoy", "show board --to board.xlsx --overwrite");
        Inside("decoy", "save copy --unset template --in user");
        Assert.DoesNotContain("template", File.ReadAllText(_tool.PathOf(".config/vlei/reports/copy.toml")));
    }

    [Theory]
    [InlineData("negatives = \"red\"", "1:13: negatives does not take \"red\".")]
    [InlineData("font-size = \"big\"", "1:13: font-size does not take \"big\".")]
    [InlineData("chart = \"bar\"", "1:9: chart does not take \"bar\".")]
    [InlineData("widths = [\"label\"]", "1:10: widths does not take \"label\".")]
    [InlineData("accent = \"blue\"", "1:10: accent does not take \"blue\".")]
    [InlineData("scale = [\"units\"]", "1:9: scale is not written as it should be.")]
    public void What_makes_no_sense_is_told_with_its_place_in_a_book_in_a_kept_report_and_in_a_group(string line, string message)
    {
        var lines = File.ReadAllLines(_tool.PathOf("reedwater/book.toml")).ToList();
        File.WriteAllLines(_tool.PathOf("reedwater/book.toml"), [.. lines, "[look]", line]);
        Refused(78, $"reedwater/book.toml:{lines.Count + 2}", "show", "balance-sheet");
        File.WriteAllLines(_tool.PathOf("reedwater/book.toml"), [.. lines, "[look]", "colour = 1"]);
        var unknown = _tool.Run("show", "balance-sheet", "--book", "reedwater");
        Assert.Equal(78, unknown.Status);
        Assert.Contains($"reedwater/book.toml:{lines.Count + 2}:1: there is no key colour.", unknown.Messages);
        File.WriteAllLines(_tool.PathOf("reedwater/book.toml"), lines);
        _tool.Write("reedwater/reports/ours.toml", $"from = \"profit-loss\"\n{line}\n");
        Refused(65, "reedwater/reports/ours.toml:2", "show", "ours");
        _tool.Write("reedwater/groups/pack.toml", $"[[report]]\nreport = \"profit-loss\"\n{line}\n");
        Refused(65, "reedwater/groups/pack.toml:3", "run", "pack");

        void Refused(int status, string place, params string[] arguments)
        {
            var refused = _tool.Run([.. arguments, "--book", "reedwater"]);
            Assert.Equal(status, refused.Status);
            Assert.Contains($"{place}{message[1..]}", refused.Messages);
        }
    }

    [Fact]
    public void A_run_is_the_same_wherever_its_book_stands_and_what_it_looks_like_moves_no_figure()
    {
        File.WriteAllBytes(_tool.PathOf("reedwater/logo.png"), Logo.Png);
        _tool.Run(
            "save", "ours", "--from", "profit-loss", "--logo", "reedwater/logo.png", "--negatives", "brackets", "--book", "reedwater")
                .Done();
        _tool.Run("group", "pack", "--add", "ours", "--book", "reedwater").Done();
        _tool.Run("run", "pack", "--period", "2026-04", "--format", "html", "--book", "reedwater").Done();
        Tool.Copy(_tool.PathOf("reedwater"), _tool.PathOf("moved/book"));
        Directory.Delete(_tool.PathOf("moved/book/out"), recursive: true);
        _tool.Run("run", "pack", "--period", "2026-04", "--format", "html", "--book", "moved/book").Done();
        foreach (var name in new[] { "ours.html", "pack.html", ".run/run.json" })
        {
            Assert.Equal(
                File.ReadAllText(_tool.PathOf($"reedwater/out/pack/2026-04/{name}")),
                File.ReadAllText(_tool.PathOf($"moved/book/out/pack/2026-04/{name}")));
        }

        // With its logo gone the report is not made; without it, nothing has moved.
        File.Delete(_tool.PathOf("reedwater/logo.png"));
        Assert.Contains(
            $"there is no file {_tool.PathOf("reedwater/logo.png")}",
            _tool.Run("run", "pack", "--period", "2026-05", "--book", "reedwater").Output);
        _tool.Run("save", "ours", "--unset", "logo", "--book", "reedwater").Done();
        var again = _tool.Run("run", "pack", "--period", "2026-05", "--book", "reedwater").Done().Output;
        Assert.DoesNotContain("2026-04", again);
    }

    public void Dispose() => _tool.Dispose();

    // Runs the program in a folder on the book, with the person's own things in the folder of the test.
    private void Inside(string folder, string arguments) => Shell.Run(
        _tool.Folder, "sh", "-c",
        $"cd {folder} && XDG_CONFIG_HOME= XDG_STATE_HOME= \"{Tool.Binary}\" {arguments} --book \"{_tool.PathOf("reedwater")}\" 2>&1");

    [GeneratedRegex("template = \"(.*)\"")]
    private static partial Regex Template();
}
