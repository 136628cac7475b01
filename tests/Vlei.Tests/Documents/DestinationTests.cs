namespace Vlei.Tests.Documents;

/// <summary>Where documents go: several at once, whole or not at all, and never over somebody's work.</summary>
public sealed class DestinationTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Several_files_are_written_at_once_and_again_but_what_a_person_changed_is_not_written_over()
    {
        string[] show =
            ["show", "balance-sheet", "--book", "reedwater", "--to", "b.xlsx", "--to", "b.pdf", "--to", "b.html", "--to", "b.csv"];
        Assert.Equal("", _tool.Run(show).Done().Output);
        _tool.Run(show).Done();
        File.AppendAllText(_tool.PathOf("b.csv"), "mine\n");
        var before = File.ReadAllBytes(_tool.PathOf("b.xlsx"));
        var refused = _tool.Run([.. show, "--title", "Other"]);
        Assert.Equal(73, refused.Status);
        Assert.Contains("b.csv is there already, and is not as Vlei wrote it.", refused.Messages);
        Assert.Equal(before, File.ReadAllBytes(_tool.PathOf("b.xlsx")));
        _tool.Run([.. show, "--overwrite"]).Done();
        Assert.DoesNotContain("mine", File.ReadAllText(_tool.PathOf("b.csv")));
    }

    [Fact]
    public void What_is_written_at_the_same_time_is_all_remembered_as_written()
    {
        _tool.Run("show", "accounts", "--book", "reedwater", "--to", "B.HTML").Done();
        Assert.StartsWith("<!doctype html>", File.ReadAllText(_tool.PathOf("B.HTML")));
        var nowhere = _tool.Run("show", "accounts", "--book", "reedwater", "--to", "nowhere/b.csv");
        Assert.Equal(73, nowhere.Status);
        Assert.Contains("nowhere/b.csv cannot be written: there is no folder nowhere.", nowhere.Messages);
        string[] names = [.. Enumerable.Range(0, 12).Select(number => $"b{number}.csv")];
        Parallel.ForEach(
            names, new ParallelOptions { MaxDegreeOfParallelism = names.Length },
            name => _tool.Run("show", "accounts", "--book", "reedwater", "--to", name).Done());
        Assert.All(names, name => _tool.Run("show", "accounts", "--book", "reedwater", "--to", name).Done());
    }

    [Theory]
    [InlineData("xlsx")]
    [InlineData("ods")]
    [InlineData("pdf")]
    [InlineData("html")]
    [InlineData("json")]
    public void Where_there_is_no_room_nothing_is_left_under_the_name_and_what_was_there_stays(string ending)
    {
        _tool.Run("show", "balance-sheet", "--book", "reedwater", "--to", $"x.{ending}").Done();
        var before = File.ReadAllBytes(_tool.PathOf($"x.{ending}"));
        var text = Shell.Run(
            _tool.Folder, "sh", "-c",
            $"trap '' XFSZ; ulimit -f 8; '{Tool.Binary}' show general-ledger --period fy2026 --book reedwater --to "
                + $"x.{ending} 2>&1; echo status $?");
        Assert.Contains($"x.{ending} cannot be written", text);
        Assert.EndsWith("status 73\n", text);
        Assert.Equal(before, File.ReadAllBytes(_tool.PathOf($"x.{ending}")));
        Assert.Equal([$"x.{ending}"], Directory.EnumerateFiles(_tool.Folder, "x.*").Select(Path.GetFileName));
    }

    [Fact]
    public void What_is_written_is_handed_to_the_desktop_where_there_is_one()
    {
        _tool.Write("bin/xdg-open", "#!/bin/sh\necho \"$1\" >> opened\n");
        File.SetUnixFileMode(_tool.PathOf("bin/xdg-open"), UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        var path = ("PATH", $"{_tool.PathOf("bin")}:{Environment.GetEnvironmentVariable("PATH")}");
        _tool.Run([path], "show", "balance-sheet", "--book", "reedwater", "--to", "b.pdf", "--to", "b.html", "--open").Done();
        for (var waited = 0; waited < 100
            && (!File.Exists(_tool.PathOf("opened")) || File.ReadAllLines(_tool.PathOf("opened")).Length < 2); waited++)
        {
            Thread.Sleep(50);
        }

        Assert.Equal([_tool.PathOf("b.html"), _tool.PathOf("b.pdf")], File.ReadAllLines(_tool.PathOf("opened")).Order());
        var alone = _tool.Run([("PATH", "/nowhere")], "show", "balance-sheet", "--book", "reedwater", "--to", "b.pdf", "--open");
        Assert.Equal(66, alone.Status);
        Assert.Contains("b.pdf is written; it cannot be opened", alone.Messages);
    }

    [Theory]
    [InlineData("--format is for one file, and --to names several.", "--format", "pdf", "--to", "a.pdf", "--to", "b.pdf")]
    [InlineData("--to names a.pdf twice.", "--to", "a.pdf", "--to", "./a.pdf")]
    [InlineData("--open is for a file, and none is written.", "--open")]
    [InlineData("--overwrite is for a file, and none is written.", "--overwrite")]
    [InlineData("--to names no file.", "--to", "")]
    [InlineData("--to - names no file.", "--to", "-", "--format", "csv")]
    [InlineData("The ending of a.doc says no format.", "--to", "a.doc")]
    public void What_contradicts_itself_is_refused(string message, params string[] arguments)
    {
        var refused = _tool.Run(["show", "balance-sheet", "--book", "reedwater", .. arguments]);
        Assert.Equal(2, refused.Status);
        Assert.Contains(message, refused.Messages);
    }

    public void Dispose() => _tool.Dispose();
}
