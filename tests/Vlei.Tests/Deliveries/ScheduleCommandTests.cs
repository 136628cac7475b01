namespace Vlei.Tests.Deliveries;

/// <summary><c>vlei schedule</c> as it is typed, and what every command says where nothing runs it.</summary>
public sealed class ScheduleCommandTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Schedules_are_added_and_taken_out_and_all_else_in_the_file_stays()
    {
        var path = _tool.PathOf("reedwater/groups/month-end.toml");
        var before = File.ReadAllText(path);
        Assert.Contains("Nothing is scheduled.", Run("schedule").Done().Output);
        var added = Run(
            "schedule", "add", "month-end", "--when", "monthly 3 07:00", "--time-zone", "Africa/Johannesburg", "--period", "last-month");
        Assert.Equal(0, added.Status);
        Assert.Contains("month-end.toml: next on Fri 2026-07-03 07:00 +02:00.", added.Messages);
        Run("schedule", "add", "month-end", "--when", "weekly sunday 18:00", "--to", "Eve <eve@example.org>").Done();
        Assert.StartsWith(before.TrimEnd(), File.ReadAllText(path), StringComparison.Ordinal);
        var listed = Run("schedule", "--next").Done().Output;
        Assert.Equal(11, listed.TrimEnd().Split('\n').Length);
        Assert.Contains("month-end  monthly 3 07:00 Africa/Johannesburg  Fri 2026-07-03 07:00 +02:00  never", listed);
        Assert.Equal(65, Run("schedule", "add", "month-end", "--when", "weekly sunday 18:00", "--to", "Eve <eve@example.org>").Status);
        Assert.Equal(2, Run("schedule", "add", "month-end", "--when", "weekly sonday 18:00").Status);
        Assert.Equal(66, Run("schedule", "add", "month-ende", "--when", "daily 18:00").Status);
        Assert.Equal(2, Run("schedule", "add", "month-end").Status);
        Assert.Equal(2, Run("schedule", "due", "month-end").Status);
        Assert.Equal(2, Run("schedule", "list", "--when", "daily 18:00").Status);
        Run("schedule", "remove", "month-end", "--when", "weekly sunday 18:00").Done();
        Run("schedule", "remove", "month-end").Done();
        Assert.Equal(before.TrimEnd(), File.ReadAllText(path).TrimEnd());
        Assert.Equal(66, Run("schedule", "remove", "month-end").Status);
        Run("save", "mine", "--from", "profit-loss", "--period", "last-month").Done();
        Run("schedule", "add", "mine", "--when", "daily 18:00", "--to", "folder:daily").Done();
        Run("schedule", "due").Done();
        Run("schedule", "due", "--clock", "2026-07-01").Done();
        Assert.Equal(["mine-2026-05.pdf"], Directory.GetFiles(_tool.PathOf("reedwater/daily")).Select(Path.GetFileName));
    }

    [Fact]
    public void What_nothing_runs_is_said_once_a_day_by_every_command_and_done_late()
    {
        using var box = new Postbox(_tool.PathOf("box"), "--refuse", "mara@reedwater.example");
        _tool.Write("reedwater/mail.toml", box.Settings("notify = \"me@reedwater.example\"\n"));
        Run("schedule", "add", "month-end", "--when", "monthly 3 07:00").Done();
        Run("schedule", "due").Done();
        const string Warning = "vlei: month-end was due on 2026-07-03 at 07:00, and nothing has run it";
        Assert.DoesNotContain(Warning, Run("show", "balance-sheet", "--clock", "2026-07-02").Done().Messages, StringComparison.Ordinal);
        Assert.Contains(Warning, Run("show", "balance-sheet", "--clock", "2026-07-04").Done().Messages);
        Assert.DoesNotContain(Warning, Run("show", "profit-loss", "--clock", "2026-07-04").Done().Messages, StringComparison.Ordinal);
        Assert.Contains(Warning, Run("check", "--clock", "2026-07-05").Messages);
        Assert.Contains(Warning[6..], Run("schedule", "--clock", "2026-07-05").Output);
        Assert.Equal(1, Run("schedule", "due", "--clock", "2026-07-05").Status);
        Assert.DoesNotContain(Warning, Run("show", "profit-loss", "--clock", "2026-07-06").Done().Messages, StringComparison.Ordinal);
        Assert.Contains("failed, late", Run("outbox", "--clock", "2026-07-06").Output);

        // Who is to know of it is told, once.
        var note = Assert.Single(box.Letters);
        Assert.Equal(["me@reedwater.example"], Postbox.DeliveredTo(note));
        Assert.Contains("There is no mara@reedwater.example", note.TextBody, StringComparison.Ordinal);
        Assert.Equal(1, Run("schedule", "due", "--clock", "2026-07-06").Status);
        Assert.Single(box.Letters);
        Run("outbox", "--withdraw", "1", "--clock", "2026-07-06").Done();
        Run("schedule", "due", "--clock", "2026-07-06").Done();
    }

    [Fact]
    public void A_page_goes_out_by_itself_as_it_stood_at_the_end_of_its_period_and_by_hand()
    {
        _tool.Write(
            "reedwater/pages/wall.toml", "title = \"On the wall\"\nto = \"folder:wall\"\nformats = [\"text\", \"pdf\"]\n"
                + "[[panel]]\nreport = \"profit-loss\"\nperiod = \"month-to-date\"\nrows = \"net-profit\"\n");
        Run("schedule", "add", "wall", "--when", "daily 07:00", "--period", "2026-05").Done();
        Run("schedule", "due").Done();
        Run("schedule", "due", "--clock", "2026-07-02").Done();
        var shown = Run("show", "wall", "--clock", "2026-05-31").Done().Output;
        Assert.Contains("As of 31 May 2026", shown, StringComparison.Ordinal);
        var sent = File.ReadAllText(_tool.PathOf("reedwater/wall/wall-2026-05.txt"));

        // Who reads it has no book to ask.
        Assert.Equal(shown.Split('\n').Where(line => !line.StartsWith("vlei ", StringComparison.Ordinal)), sent.Split('\n'));
        Assert.Contains("Net profit", _tool.Shell("pdftotext reedwater/wall/wall-2026-05.pdf -").Done().Output, StringComparison.Ordinal);
        Run("send", "wall", "--to", "folder:other", "--period", "2026-05", "--formats", "text", "--yes").Done();
        Assert.Equal(sent, File.ReadAllText(_tool.PathOf("reedwater/other/wall-2026-05.txt")));
        Run("send", "overview", "--to", "folder:other", "--yes").Done();
        Assert.True(File.Exists(_tool.PathOf("reedwater/other/overview-2026-06-30.pdf")));
        foreach (var (options, message) in new[]
        {
            ("--formats csv", "wall is a page of panels, which is no csv"), ("--by month", "--by is of a report, and wall is a page"),
            ("--message {profit-loss.net-profit}", "A page has no figures that a letter can name"),
        })
        {
            Assert.Contains(message, Run(["send", "wall", "--yes", .. options.Split(' ')]).Messages, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void It_is_installed_as_a_timer_or_a_line_of_crontab_and_taken_away_again()
    {
        foreach (var (program, text) in new[]
        {
            ("systemctl", "#!/bin/sh\necho \"$@\" >> systemctl.log\n"),
            ("crontab", "#!/bin/sh\nif [ \"$1\" = -l ]; then cat table 2> /dev/null; else cat > table; fi\n"),
        })
        {
            File.SetUnixFileMode(
                _tool.Write($"bin/{program}", text), UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }

        (string, string)[] path = [("PATH", $"{_tool.PathOf("bin")}:/usr/bin:/bin")];
        _tool.Run(path, "schedule", "install", "--book", "reedwater").Done();
        var units = Directory.GetFiles(_tool.PathOf(".config/systemd/user"));
        Assert.Equal([".service", ".timer"], units.Select(Path.GetExtension).Order(StringComparer.Ordinal));
        Assert.Contains(
            $"ExecStart=\"{Tool.Binary}\" \"schedule\" \"due\" \"--book\" \"{_tool.PathOf("reedwater")}\"",
            File.ReadAllText(units.Order(StringComparer.Ordinal).First()));
        Assert.Contains("--user enable --now vlei-schedule-", File.ReadAllText(_tool.PathOf("systemctl.log")));
        _tool.Run(path, "schedule", "install", "--remove", "--book", "reedwater").Done();
        Assert.Empty(Directory.GetFiles(_tool.PathOf(".config/systemd/user")));
        _tool.Write("table", "0 1 * * * mine\n");
        _tool.Run(path, "schedule", "install", "--cron", "--books", "reed*").Done();
        _tool.Run(path, "schedule", "install", "--cron", "--books", "reed*").Done();
        var table = File.ReadAllLines(_tool.PathOf("table"));
        Assert.Equal(3, table.Length);
        Assert.Equal($"*/5 * * * * '{Tool.Binary}' 'schedule' 'due' '--books' '{_tool.PathOf("reed*")}'", table[2]);
        _tool.Run(path, "schedule", "install", "--cron", "--remove", "--books", "reed*").Done();
        Assert.Equal("0 1 * * * mine\n", File.ReadAllText(_tool.PathOf("table")));
        Assert.Equal(66, _tool.Run(path, "schedule", "install", "--cron", "--remove", "--book", "reedwater").Status);
    }

    [Fact]
    public void It_runs_in_the_foreground_over_many_books_until_it_is_told_to_stop()
    {
        Tool.Copy(_tool.PathOf("reedwater"), _tool.PathOf("other"));
        foreach (var book in new[] { "reedwater", "other" })
        {
            _tool.Write(
                $"{book}/groups/now.toml",
                $"period = \"2026-05\"\nto = \"folder:../{book}-got\"\nformats = \"csv\"\n[[report]]\nreport = \"cash-flow\"\n"
                    + $"[[schedule]]\nwhen = \"* * * * *\"\n");
            File.WriteAllText(
                _tool.PathOf($"{book}/book.toml"), File.ReadAllText(_tool.PathOf($"{book}/book.toml"))
                    .Replace("clock = 2026-06-30", "", StringComparison.Ordinal));
            File.SetLastWriteTimeUtc(_tool.PathOf($"{book}/groups/now.toml"), DateTime.UtcNow.AddHours(-1));
        }

        _tool.Write("other/groups/broken.toml", "[[schedule]\n");
        using var process = _tool.Start([], "schedule", "run", "--books", "reedwater", "--books", "other");
        var lines = new List<string>();
        while (process.StandardError.ReadLine() is { } line && !line.StartsWith("pass ", StringComparison.Ordinal))
        {
            lines.Add(line);
        }

        Assert.Matches("^ready .* 2 books$", lines[0]);
        Assert.Contains(lines, line => line.Contains("broken.toml", StringComparison.Ordinal));
        Assert.True(File.Exists(_tool.PathOf("reedwater-got/now-2026-05.csv")));
        Assert.True(File.Exists(_tool.PathOf("other-got/now-2026-05.csv")));
        Documents.Shell.Run(_tool.Folder, "kill", "-TERM", $"{process.Id}");
        process.WaitForExit();
        Assert.Equal(0, process.ExitCode);
        Assert.Contains("stopped", process.StandardError.ReadToEnd());
    }

    [Fact]
    public void What_has_moved_since_it_was_sent_is_known_and_reports_are_printed()
    {
        using var box = new Postbox(_tool.PathOf("box"));
        _tool.Write("reedwater/mail.toml", box.Settings());
        Assert.Equal(66, Run("changes", "--since", "sent").Status);
        Run("send", "month-end", "--yes").Done();
        Run("export", "records").Done();
        var lines = _tool.PathOf("records/lines.csv");
        File.WriteAllText(
            lines, File.ReadAllText(lines).Replace("8102.00", "8420.00", StringComparison.Ordinal)
                .Replace("-8102", "-8420", StringComparison.Ordinal));
        Run("import", "records").Done();
        var moved = Run("changes", "--since", "sent:month-end", "profit-loss", "--period", "2026-05").Done();
        Assert.Contains(
            "Number 1, month-end for 2026-05, went to Mara Reed <mara@reedwater.example> with the records of revision 1.", moved.Messages);
        Assert.Equal(moved.Output, Run("changes", "--since", "1", "profit-loss", "--period", "2026-05").Done().Output);
        Assert.Equal(moved.Output, Run("changes", "--since", "sent:1", "profit-loss", "--period", "2026-05").Done().Output);
        File.SetUnixFileMode(
            _tool.Write("bin/lp", "#!/bin/sh\necho \"$@\" >> printed\nhead -c 4 >> printed\ncat > /dev/null\n"),
            UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        (string, string)[] path = [("PATH", $"{_tool.PathOf("bin")}:/usr/bin:/bin")];
        Assert.Equal("", _tool.Run(path, "show", "balance-sheet", "--print", "--book", "reedwater").Done().Output);
        _tool.Run(path, "run", "month-end", "--print", "Front", "--book", "reedwater").Done();
        Assert.Equal("-t Balance sheet\n%PDF-d Front -t Month end\n%PDF", File.ReadAllText(_tool.PathOf("printed")));
        Assert.Equal(73, _tool.Run([("PATH", "/nowhere")], "show", "balance-sheet", "--print", "--book", "reedwater").Status);
    }

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "reedwater"]);
}
