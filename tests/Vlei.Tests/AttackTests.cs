using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text;

namespace Vlei.Tests;

/// <summary>
/// What somebody does who wants to break it, or to be let in: nothing is lost, nothing lies, and each fault has its words.
/// </summary>
public sealed class AttackTests : IDisposable
{
    private readonly Tool _tool = new();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Theory]
    [InlineData("book/records.db", "is a file of a book")]
    [InlineData("book/book.toml", "is a file of a book")]
    [InlineData("set/documents.csv", "is where the records are read from")]
    [InlineData("mine.txt", "is not as Vlei wrote it")]
    public void A_list_of_errors_takes_the_place_of_nothing_else(string target, string message)
    {
        MakeBook();
        _tool.Write("mine.txt", "my own\n");
        var before = File.ReadAllBytes(_tool.PathOf(target));
        foreach (var isBroken in new[] { false, true })
        {
            File.AppendAllText(_tool.PathOf("set/lines.csv"), isBroken ? "INV-9,4000,1.00\n" : "");
            var outcome = _tool.Run("import", "set", "--book", "book", "--errors", target);
            Assert.Equal((73, before.Length), (outcome.Status, new FileInfo(_tool.PathOf(target)).Length));
            Assert.Contains(message, outcome.Messages);
            Assert.Equal(before, File.ReadAllBytes(_tool.PathOf(target)));
        }

        // A list of one's own may be written again, and stays as it was where there is nothing to say.
        Assert.Equal(65, _tool.Run("import", "set", "--book", "book", "--errors", "errors.txt").Status);
        Assert.Contains("lines.csv:4:1", File.ReadAllText(_tool.PathOf("errors.txt")));
        Assert.Equal(65, _tool.Run("import", "set", "--book", "book", "--errors", "errors.txt").Status);
        Assert.Equal(
            73, _tool.Run("show", "accounts", "--book", "book", "--to", "book/book.toml", "--format", "csv", "--overwrite").Status);
    }

    [Fact]
    public void Records_that_this_program_did_not_make_are_no_empty_book()
    {
        MakeBook();
        var records = _tool.PathOf("book/records.db");
        var sound = File.ReadAllBytes(records);
        byte[] foreign = [.. sound];
        foreign.AsSpan(68, 4).Clear();
        foreach (var (bytes, words) in new[] { ([], "it is empty"), (Encoding.UTF8.GetBytes(new string('x', 4096)), "no file of records"),
            (foreign, "another program") })
        {
            File.WriteAllBytes(records, bytes);
            foreach (var command in new[] { "show balance-sheet", "import set", "check", "changes", "run month-end" })
            {
                var outcome = _tool.Run([.. command.Split(' '), "--book", "book"]);
                Assert.True(outcome.Status is 65 or 66, $"{command}: {outcome.Status} {outcome.Messages}");
                Assert.True(command.StartsWith("run", StringComparison.Ordinal) || outcome.Messages.Contains(words), outcome.Messages);
                Assert.Equal(bytes, File.ReadAllBytes(records));
            }
        }

        // A folder may be called like an address; what was begun and not ended is begun again.
        File.WriteAllBytes(records, sound);
        _tool.Run("init", "file:odd?mode=memory", "--name", "Odd", "--currency", "ZAR").Done();
        Assert.True(File.Exists(_tool.PathOf("file:odd?mode=memory/records.db")));
        _tool.Run("show", "accounts", "--book", "file:odd?mode=memory").Done();
        File.Delete(_tool.PathOf("file:odd?mode=memory/book.toml"));
        _tool.Run("init", "file:odd?mode=memory", "--name", "Odd", "--currency", "ZAR").Done();
        Assert.Equal(73, _tool.Run("init", "book", "--name", "Odd", "--currency", "ZAR").Status);
        Assert.Equal(73, _tool.Run("demo", "book").Status);
        Assert.Equal(sound, File.ReadAllBytes(records));
    }

    [Fact]
    public void What_several_do_at_once_is_all_there()
    {
        MakeBook();
        _tool.Run("save", "mine", "--from", "postings", "--book", "book").Done();
        string[][] changes =
            [["--top", "3"], ["--sort", "-debit"], ["--only", "kind=invoice"], ["--title", "Ours"], ["--where", "amount > 1"],
                ["--favourite"]];
        Parallel.ForEach(changes, change => _tool.Run(["save", "mine", "--book", "book", .. change]).Done());
        var text = File.ReadAllText(_tool.PathOf("book/reports/mine.toml"));
        Assert.All(["top", "sort", "only", "title", "where", "favourite"], key => Assert.Contains($"\n{key} = ", text));

        Parallel.ForEach(["profit-loss", "balance-sheet", "cash-flow", "trial-balance"], report =>
            _tool.Run("group", "all", "--add", report, "--book", "book").Done());
        Assert.Equal(4, File.ReadAllText(_tool.PathOf("book/groups/all.toml")).Split("[[report]]").Length - 1);

        var promised = new int[6];
        Parallel.For(0, promised.Length, place => promised[place] = _tool.Run(
            "promise", "INV-1", "--by", "2030-01-01", "--book", "book", "--clock", "2026-04-01").Status);
        Assert.Equal([0, 2, 2, 2, 2, 2], promised.Order());
    }

    [Fact]
    public void A_check_beside_an_import_reads_what_is_kept_and_is_in_nobodys_way()
    {
        _tool.Run("demo", "large", "--record-set", "--documents", "8000", "--years", "1").Done();
        _tool.Run("init", "busy", "--name", "Busy", "--currency", "ZAR").Done();
        var imported = new ConcurrentQueue<Outcome>();
        Parallel.Invoke(
            () => imported.Enqueue(_tool.Run("import", "large", "--book", "busy")),
            () =>
            {
                do
                {
                    _tool.Run("check", "--book", "busy").Done();
                }
                while (imported.IsEmpty);
            });
        Assert.Contains("revision 1", imported.Single().Done().Output);
    }

    [Fact]
    public void A_line_that_64_bits_do_not_hold_is_an_error_of_its_record()
    {
        MakeBook();
        _tool.Write("huge/documents.csv", "id,kind,date\nJ-1,journal,2026-01-01\n");
        _tool.Write(
            "huge/lines.csv", "document,account,debit,credit\nJ-1,1000,92233720368547758.07,-92233720368547758.07\nJ-1,4000,0.02,\n");
        var outcome = _tool.Run("import", "huge", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.Contains("is too large together with the other side", outcome.Messages);
    }

    [Fact]
    public void Ids_that_are_no_names_of_files_have_a_file_each()
    {
        var odd = new string('é', 250);
        _tool.Write("set/accounts.csv", "code,name,type\n1100,Trade,receivable\n4000,Sales,income\n");
        _tool.Write("set/contacts.csv", $"id,name,kind\n.x,One,customer\n_.x,Two,customer\n../x,Three,customer\n{odd},Four,customer\n");
        _tool.Write(
            "set/documents.csv", $"id,kind,date,contact\nA,invoice,2026-03-02,.x\nB,invoice,2026-03-02,_.x\nC,invoice,2026-03-02,../x\nD,"
            + $"invoice,2026-03-02,{odd}\n");
        _tool.Write(
            "set/lines.csv", "document,account,amount\n" + string.Concat("ABCD".Select(id => $"{id},1100,5.00\n{id},4000,-5.00\n")));
        _tool.Run("init", "book", "--name", "Test", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "book").Done();
        foreach (var _ in new[] { 1, 2 })
        {
            var outcome = _tool.Run(
                "show", "statement-of-account", "--period", "2026-03", "--book", "book", "--to", "out/", "--format", "csv").Done();
            Assert.Contains("4 files", outcome.Messages);
            Assert.Equal(4, Directory.GetFiles(_tool.PathOf("out")).Length);
        }

        _tool.Run("changes", "--book", "book", "--to", "imports.csv").Done();
        Assert.Contains(",added,changed,removed\n1,1,record,0,", File.ReadAllText(_tool.PathOf("imports.csv")));
        Assert.Contains("\"added\"", _tool.Run("changes", "--book", "book", "--format", "json").Done().Output);
    }

    [Fact]
    public void Nothing_is_let_in_by_a_name()
    {
        MakeBook();
        _tool.Write("words", "--help\n");
        Assert.Contains("There is no report", _tool.Run("show", "@words", "--book", "book").Messages);

        // What lies in the folder is not started, and what a terminal would obey is not said.
        File.SetUnixFileMode(_tool.Write("xdg-open", "#!/bin/sh\ntouch started\n"), (UnixFileMode)0b111_101_101);
        _tool.Run([("PATH", ".::/usr/local/nowhere")], "show", "accounts", "--book", "book", "--to", "a.csv", "--open");
        Assert.False(File.Exists(_tool.PathOf("started")));
        const string Obeyed = "\u001b]0;mine\u0007\u001b[2J\u009b31m";
        _tool.Write("book/reports/odd.toml", "from = \"accounts\"\ntitle = \"\\u001b[2Jodd\"\nquestion = \"\\u001b[2Jodd?\"\n");
        _tool.Write("book/groups/odd.toml", "title = \"\\u001b[2Jodd\"\n\n[[report]]\nreport = \"profit-loss\"\nnote = \"\\u001b[2J\"\n");
        foreach (var said in new[]
        {
            _tool.Run("show", Obeyed, "--book", "book"), _tool.Run("reports", "--book", "book"), _tool.Run("group", "--book", "book"),
            _tool.Run("group", "odd", "--book", "book"), _tool.Run("show", "accounts", "--book", "book", "--only", $"name={Obeyed}"),
            _tool.Run("show", "odd", "--book", "book"), _tool.Run("changes", "--book", "book"),
        })
        {
            Assert.DoesNotContain(said.Output + said.Messages, letter => char.IsControl(letter) && letter != '\n');
        }
    }

    [Fact]
    public void A_file_keeps_its_permissions_and_its_links_and_is_never_half_written()
    {
        MakeBook();
        _tool.Run("save", "mine", "--from", "postings", "--book", "book").Done();
        var path = _tool.PathOf("book/reports/mine.toml");
        File.Move(path, _tool.PathOf("elsewhere.toml"));
        File.CreateSymbolicLink(path, _tool.PathOf("elsewhere.toml"));
        File.SetUnixFileMode(_tool.PathOf("elsewhere.toml"), UnixFileMode.UserRead | UnixFileMode.UserWrite);
        _tool.Run("save", "mine", "--top", "3", "--book", "book").Done();
        Assert.NotNull(new FileInfo(path).LinkTarget);
        Assert.Contains("top = 3", File.ReadAllText(_tool.PathOf("elsewhere.toml")));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(_tool.PathOf("elsewhere.toml")));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(_tool.PathOf("book/records.db")));

        // An empty file is replaced like any other: its other name has nothing of it.
        Shell("touch empty.csv && ln empty.csv other.csv");
        _tool.Run("show", "accounts", "--book", "book", "--to", "empty.csv").Done();
        Assert.Equal(0, new FileInfo(_tool.PathOf("other.csv")).Length);
        Assert.NotEqual(0, new FileInfo(_tool.PathOf("empty.csv")).Length);
        Assert.Empty(Directory.GetFiles(_tool.Folder, ".vlei-*", SearchOption.AllDirectories));
        var name = new string('n', 251) + ".csv";
        _tool.Run("show", "accounts", "--book", "book", "--to", name).Done();
        Assert.True(File.Exists(_tool.PathOf(name)));
    }

    [Theory]
    [InlineData("show nothing --book book 2>&-", 66)]
    [InlineData("show nothing --book book 2>/dev/full", 66)]
    [InlineData("import set --book book 2>&-", 0)]
    [InlineData("show accounts --book book >/dev/full", 73)]
    [InlineData("show accounts --book book --logo pipe --format html", 65)]
    [InlineData("show accounts --book book --logo /dev/zero --format html", 65)]
    [InlineData("show looped --book book", 65)]
    [InlineData("show piped --book book", 65)]
    public void What_cannot_be_said_or_read_has_its_own_status(string command, int status)
    {
        MakeBook();
        Shell("mkfifo pipe && mkdir -p book/reports && ln -s looped.toml book/reports/looped.toml && mkfifo book/reports/piped.toml");
        Assert.Equal(status, Shell($"timeout 20 '{Tool.Binary}' {command}"));
    }

    [Fact]
    public void Where_a_person_has_no_home_nothing_is_made_in_the_folder_at_hand()
    {
        MakeBook();
        _tool.Run([("HOME", "here")], "show", "accounts", "--book", "book", "--to", "a.csv").Done();
        _tool.Run([("HOME", "here")], "save", "mine", "--from", "postings", "--book", "book").Done();
        Assert.False(Directory.Exists(_tool.PathOf("here")));

        // What is no file of notes, and accounts that are part of one another without end, are told.
        Directory.CreateDirectory(_tool.PathOf("book/promises.csv"));
        Assert.Contains("promises.csv is a folder", _tool.Run("show", "promises", "--book", "book").Messages);
        Directory.Delete(_tool.PathOf("book/promises.csv"));
        _tool.Write("deep/accounts.csv", "code,name,type,parent\n" + string.Concat(Enumerable.Range(1, 5000).Select(
            code => $"{code + 9000},Part,expense,{(code == 1 ? "" : $"{code + 8999}")}\n")));
        var deep = _tool.Run("import", "deep", "--book", "book");
        Assert.Equal(65, deep.Status);
        Assert.Contains("lies more than 32 levels deep", deep.Messages);
        _tool.Run("close", "2026-03", "--book", "book").Done();
    }

    [Fact]
    public void What_doubles_with_every_row_or_term_is_reckoned_at_once()
    {
        MakeBook();
        var layout = new StringBuilder(
            "statement = \"profit-loss\"\n\n[[row]]\nkey = \"k0\"\nlabel = \"K0\"\naccounts = [\"account.type=income\"]\neach = false\n");
        foreach (var row in Enumerable.Range(1, 24))
        {
            _ = layout.Append($"\n[[row]]\nkey = \"k{row}\"\nlabel = \"K{row}\"\nformula = \"k{row - 1} + k{row - 1}\"\n");
        }

        foreach (var row in Enumerable.Range(1, 40))
        {
            var of = row == 1 ? "k0 / k1" : $"r{row - 1} + r{row - 1}";
            _ = layout.Append($"\n[[row]]\nkey = \"r{row}\"\nlabel = \"R{row}\"\nformula = \"{of}\"\nshow = \"ratio\"\n");
        }

        _tool.Write("book/layouts/doubled.toml", layout.ToString());
        var shown = _tool.Run("show", "profit-loss", "--layout", "doubled", "--period", "2026-03", "--book", "book", "--format", "csv");
        Assert.True(shown.Status is 0 or 1, shown.Messages);
        Assert.Contains("\nk24,K24,total,0,1677721600.00\n", shown.Output);
        var sum = string.Join(" + ", Enumerable.Repeat("amount", 900));
        Assert.Contains(
            "90000.00",
            _tool.Run("show", "postings", "--columns", $"account,{sum}:Sum", "--period", "all", "--book", "book", "--format", "csv")
                .Done().Output);
        Assert.Equal(2, _tool.Run("show", "postings", "--where", string.Concat(Enumerable.Repeat("amount > 1 or ", 9000)) + "amount > 2",
            "--book", "book").Status);
    }

    // A book with one open invoice of 100.00, from the folder "set".
    [Theory]
    [InlineData("[1]", "no description of a record set")]
    [InlineData("{\"currency\":\"\\ud800\",\"resources\":[]}", "no Unicode")]
    [InlineData("{", "this is not JSON")]
    public void A_description_of_records_that_is_none_is_answered(string text, string words)
    {
        MakeBook();
        _tool.Write("set/datapackage.json", text);
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(words, outcome.Messages);
    }

    [Fact]
    public void A_log_that_cannot_be_read_is_not_passed_over()
    {
        Assert.SkipUnless(Environment.UserName == "root", "Only root can become somebody who may not write.");
        MakeBook();
        File.WriteAllText(_tool.PathOf("book/records.db-wal"), "not folded in yet");
        var text = Documents.Shell.Run(
            _tool.Folder, "sh", "-c",
            $"chmod 755 . && chmod -R a+rX,a-w book && runuser -u nobody "
                + $"-- '{Tool.Binary}' show balance-sheet --book book 2>&1; echo status $?");
        Assert.Contains("has a log beside it", text);
        Assert.EndsWith("status 66\n", text);
    }

    [Fact]
    public void An_import_whose_answer_nobody_can_hear_says_that_it_is_kept()
    {
        MakeBook();
        File.AppendAllText(_tool.PathOf("set/lines.csv"), "");
        _tool.Run("init", "other", "--name", "O", "--currency", "USD").Done();
        var text = Documents.Shell.Run(_tool.Folder, "sh", "-c", $"'{Tool.Binary}' import set --book other 2>&1 >&-; echo status $?");
        Assert.Contains("The records are imported, as revision 1; what that did cannot be written", text);
        Assert.EndsWith("status 73\n", text);
        Assert.Contains("1 so far", _tool.Run("changes", "--book", "other").Done().Output);
    }

    [Fact]
    public void A_file_that_may_not_grow_is_an_error_and_no_end_without_a_word()
    {
        _tool.WithDemo();
        var text = Documents.Shell.Run(
            _tool.Folder, "sh", "-c",
            $"ulimit -f 8; '{Tool.Binary}' show general-ledger --period fy2026 --book reedwater --to x.html 2>&1; echo status $?");
        Assert.Contains("x.html cannot be written", text);
        Assert.EndsWith("status 73\n", text);
        Assert.DoesNotContain(Directory.EnumerateFileSystemEntries(_tool.Folder), path => path.Contains("x.html") || path.EndsWith(".tmp"));
    }

    [Fact]
    public void A_report_of_a_library_shows_no_file_from_outside_of_it()
    {
        MakeBook();
        File.AppendAllText(_tool.PathOf("book/book.toml"), "library = \"../shared\"\n");
        _tool.Write("secret.png", "x");
        _tool.Write("shared/reports/leak.toml", $"from = \"balance-sheet\"\nlogo = \"{_tool.PathOf("secret.png")}\"\n");
        _tool.Write("shared/groups/leak.toml", "[[report]]\nreport = \"balance-sheet\"\nlogo = \"link.png\"\n");
        File.CreateSymbolicLink(_tool.PathOf("shared/link.png"), _tool.PathOf("secret.png"));
        foreach (var command in new[] { "show leak --to x.html", "run leak --period 2025" })
        {
            var outcome = _tool.Run([.. command.Split(' '), "--book", "book"]);
            Assert.Equal(65, outcome.Status);
            Assert.Contains("which is not in the library", outcome.Messages);
        }
    }

    [Fact]
    public void Amounts_whose_sum_cannot_be_shown_are_refused_with_the_account()
    {
        MakeBook();
        var half = "60000000000000000.00";
        File.AppendAllText(
            _tool.PathOf("set/documents.csv"),
            string.Concat(Enumerable.Range(1, 2).Select(number => $"BIG-{number},journal,2025-0{number}-01,\n")));
        File.AppendAllText(
            _tool.PathOf("set/lines.csv"),
            string.Concat(Enumerable.Range(1, 2).Select(number => $"BIG-{number},1000,{half}\nBIG-{number},4000,-{half}\n")));
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.Contains("more than 64 bits hold; most of it is on account 4000 Sales", outcome.Messages);
        _tool.Run("show", "balance-sheet", "--book", "book").Done();
    }

    [Fact]
    public void A_damaged_file_is_no_bug_whatever_byte_is_not_as_it_was()
    {
        _tool.WithDemo();
        var (records, dice) = (_tool.PathOf("reedwater/records.db"), new Random(11));
        var sound = File.ReadAllBytes(records);
        string[][] commands =
            [["show", "receivables-aging"], ["show", "documents", "--period", "all"], ["check"], ["changes", "--since", "1"],
                ["show", "general-ledger"]];
        for (var round = 0; round < 60; round++)
        {
            byte[] damaged = [.. sound];
            for (var times = dice.Next(1, 20); times > 0; times--)
            {
                dice.NextBytes(damaged.AsSpan(dice.Next(100, damaged.Length - 8), dice.Next(1, 8)));
            }

            File.WriteAllBytes(records, damaged);
            var outcome = _tool.Run([.. commands[round % commands.Length], "--book", "reedwater"]);
            Assert.True(outcome.Status is 0 or 1 or 65 or 73, $"round {round}: {outcome.Status} {outcome.Messages}");
        }
    }

    private void MakeBook()
    {
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n1100,Trade,receivable\n4000,Sales,income\n");
        _tool.Write("set/contacts.csv", "id,name,kind\nC1,One,customer\n");
        _tool.Write("set/documents.csv", "id,kind,date,contact\nINV-1,invoice,2026-03-02,C1\n");
        _tool.Write("set/lines.csv", "document,account,amount\nINV-1,1100,100.00\nINV-1,4000,-100.00\n");
        _tool.Run("init", "book", "--name", "Test", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "book").Done();
    }

    private int Shell(string command)
    {
        var start = new ProcessStartInfo("sh", ["-c", command]) { WorkingDirectory = _tool.Folder };
        Tool.SetUp(start, _tool.Folder);
        using var process = Process.Start(start)!;
        process.WaitForExit();
        return process.ExitCode;
    }
}
