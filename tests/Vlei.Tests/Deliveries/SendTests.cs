using MimeKit;

namespace Vlei.Tests.Deliveries;

/// <summary>
/// <c>vlei send</c> and <c>vlei outbox</c> against the postbox: what arrives is what was shown, to those it was meant for.
/// </summary>
public sealed class SendTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();
    private Postbox _box;

    public SendTests()
    {
        _box = new Postbox(_tool.PathOf("box"));
        _tool.Write("reedwater/mail.toml", _box.Settings());
    }

    public void Dispose()
    {
        _box.Dispose();
        _tool.Dispose();
    }

    [Fact]
    public void A_group_arrives_as_it_was_shown_with_its_figures_and_its_files_byte_by_byte()
    {
        Assert.Contains("Did you mean month-end?", Run("send", "month-ende").Messages);
        var asked = Run("send", "month-end", "--formats", "pdf,xlsx");
        Assert.Equal(2, asked.Status);
        Assert.Contains("Add --yes", asked.Messages);
        Assert.Empty(_box.Letters);
        var sent = Run("send", "month-end", "--formats", "pdf,xlsx", "--yes").Done();
        Assert.Equal(asked.Output, sent.Output);
        var letter = Assert.Single(_box.Letters);
        Assert.Equal(["mara@reedwater.example"], Postbox.DeliveredTo(letter));
        Assert.Equal("\"Mara Reed\" <mara@reedwater.example>", letter.To.ToString());
        Assert.Equal("Month end, May 2026 – Reedwater Boatworks", letter.Subject);
        var profit = Figure("profit-loss", "net-profit", "--period", "2026-05", "--basis", "cash");
        Assert.Contains($"\nResult, as it was paid: {profit}\n", letter.TextBody!.ReplaceLineEndings("\n"), StringComparison.Ordinal);
        Assert.Contains($"white-space:nowrap\">{profit}</td>", letter.HtmlBody, StringComparison.Ordinal);
        Assert.Contains("<p style=\"margin:0 0 1em\">Dear Mara,</p>", letter.HtmlBody, StringComparison.Ordinal);
        foreach (var (part, ending) in letter.Attachments.Cast<MimePart>().Zip(["pdf", "xlsx"]))
        {
            using var bytes = new MemoryStream();
            part.Content!.DecodeTo(bytes, TestContext.Current.CancellationToken);
            Assert.Equal($"month-end-2026-05.{ending}", part.FileName);
            Assert.Equal(File.ReadAllBytes(_tool.PathOf($"reedwater/out/month-end/2026-05/month-end.{ending}")), bytes.ToArray());
        }

        Assert.Contains("sent   2026-06-30 12:00  month-end  2026-05  Mara Reed <mara@reedwater.example>", Run("outbox").Done().Output);
        Assert.Contains("Revision       1", Run("outbox", "--show", "1").Done().Output);
        Assert.Contains("month-end", Run("outbox", "--period", "2026-06").Done().Output);
        Assert.Contains("Nothing was sent then.", Run("outbox", "--period", "2026-05").Done().Output);
        var kept = Run("outbox", "--letter", "1").Done().Output.ReplaceLineEndings("\n");
        using var raw = new MemoryStream();
        letter.WriteTo(raw, TestContext.Current.CancellationToken);
        Assert.EndsWith(kept, System.Text.Encoding.UTF8.GetString(raw.ToArray()).ReplaceLineEndings("\n"), StringComparison.Ordinal);
    }

    [Fact]
    public void Names_and_words_in_all_scripts_arrive_and_nothing_gets_into_a_header()
    {
        const string Words = "Καλημέρα Ølivia,\n\n.a point, 日本語, {{braces}} & <b>no tags</b>\nFrom here: \u200f\u05e9\u05dc\u05d5\u05dd";
        Run("send", "balance-sheet", "--to", "Ølivia Ωmega <olivia@example.org>", "--message", Words, "--yes").Done();
        var letter = Assert.Single(_box.Letters);
        Assert.StartsWith(
            "Καλημέρα Ølivia,\r\n\r\n.a point, 日本語, {braces} & <b>no tags</b>\r\nFrom here: ",
            letter.TextBody!.ReplaceLineEndings("\r\n"), StringComparison.Ordinal);
        Assert.Contains("{braces} &amp; &lt;b&gt;no tags&lt;/b&gt;", letter.HtmlBody, StringComparison.Ordinal);
        foreach (var hostile in new[]
        {
            "a@example.org\r\nBcc: b@example.org", "a@example.org, b@example.org", "a@example.org\nb", "<script>@example.org", "a@",
            "@b", "a b@c.d",
            "folder:", "nobody",
        })
        {
            var refused = Run("send", "balance-sheet", "--to", hostile, "--yes");
            Assert.Equal(2, refused.Status);
            Assert.Contains("is no address.", refused.Messages);
        }

        Assert.Single(_box.Letters);
    }

    [Fact]
    public void Each_gets_a_letter_of_their_own_unless_together_and_copies_and_answers_go_where_they_should()
    {
        var group = _tool.PathOf("reedwater/groups/month-end.toml");
        var text = File.ReadAllText(group).Replace(
            "to = [\"Mara Reed <mara@reedwater.example>\"]",
            "to = [\"a@example.org\", \"b@example.org\"]\ncc = [\"c@example.org\"]\nreply-to = \"answers@example.org\"",
            StringComparison.Ordinal);
        File.WriteAllText(group, text);
        Run("send", "month-end", "--yes").Done();
        Assert.Equal(
            [["a@example.org", "c@example.org"], ["b@example.org", "c@example.org"]],
            _box.Letters.Select(letter => Postbox.DeliveredTo(letter).ToArray()));
        Assert.All(_box.Letters, letter => Assert.Equal("answers@example.org", letter.ReplyTo.ToString()));
        File.WriteAllText(group, text.Replace("formats =", "together = true\nformats =", StringComparison.Ordinal));
        Run("send", "month-end", "--yes").Done();
        Assert.Equal(["a@example.org", "b@example.org", "c@example.org"], Postbox.DeliveredTo(_box.Letters[2]));
        Assert.Equal(3, _box.Letters.Count);
        _tool.Write("reedwater/mail.toml", _box.Settings("allow = [\"@example.org\"]\n"));
        Run("send", "month-end", "--yes").Done();
        var refused = Run("send", "month-end", "--yes", "--to", "eve@elsewhere.example");
        Assert.Equal(78, refused.Status);
        Assert.Contains("mail.toml does not allow eve@elsewhere.example.", refused.Messages);
    }

    [Fact]
    public void Statements_go_to_each_customer_alone_in_their_own_language_and_who_has_no_address_is_listed()
    {
        Run("export", "records").Done();
        var contacts = File.ReadAllLines(_tool.PathOf("records/contacts.csv"));
        var columns = contacts[0].Split(',').ToList();
        Assert.DoesNotContain("tag.language", columns);
        var email = columns.IndexOf("email");
        var changed = contacts.Skip(1).Select((line, place) =>
        {
            var cells = SplitCsv(line);
            cells[email] = place % 7 == 3 ? "" : $"customer{place}@example.org";
            return string.Join(',', cells.Append(place % 2 == 0 ? "de" : "")
                .Select(
                    cell => cell.Contains(',') || cell.Contains('"') || cell.Contains('\n')
                        ? $"\"{cell.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : cell));
        });
        File.WriteAllText(_tool.PathOf("records/contacts.csv"), string.Join('\n', changed.Prepend(contacts[0] + ",tag.language")) + "\n");
        Run("import", "records").Done();
        var dry = Run("send", "statement-of-account", "--period", "last-month", "--dry-run", "letters").Done();
        Assert.Empty(_box.Letters);
        Run("send", "statement-of-account", "--period", "last-month", "--yes").Done();
        var owed = Run("show", "statement-of-account", "--period", "last-month", "--to", "each/", "--format", "csv").Done();
        var files = Directory.GetFiles(_tool.PathOf("each"));
        var without = dry.Output.Split('\n').Count(line => line.StartsWith("No address: ", StringComparison.Ordinal));
        Assert.True(without > 0);
        Assert.Equal(files.Length, _box.Letters.Count + without);
        Assert.Equal(Directory.GetFiles(_tool.PathOf("letters")).Length, _box.Letters.Count);
        var lines = File.ReadAllLines(_tool.PathOf("records/contacts.csv")).Skip(1).Select(SplitCsv)
            .Where(cells => cells[email].Length > 0).ToDictionary(cells => cells[email]);
        foreach (var letter in _box.Letters)
        {
            var to = Assert.Single(Postbox.DeliveredTo(letter));
            var contact = lines[to];
            Assert.Equal($"statement-of-account-{contact[0]}-2026-05.pdf", Assert.Single(letter.Attachments).ContentDisposition?.FileName);
            Assert.StartsWith(
                contact[^1] == "de" ? "Kontoauszug, Mai 2026" : "Statement of account, May 2026", letter.Subject, StringComparison.Ordinal);
            Assert.StartsWith(contact[^1] == "de" ? "Guten Tag" : "Good day", letter.TextBody, StringComparison.Ordinal);
        }

        _tool.Write("reedwater/mail.toml", _box.Settings("max-letters = 5\n"));
        Assert.Contains("allows 5 at once", Run("send", "statement-of-account", "--period", "last-month", "--yes").Messages);
        Assert.NotNull(owed);
    }

    [Fact]
    public void A_packet_with_a_failed_check_is_held_until_it_is_approved_and_what_is_too_large_is_left_out()
    {
        // Records of the future, so that the period has not ended in them.
        var held = Run("send", "month-end", "--period", "2026-11", "--yes");
        Assert.Equal(1, held.Status);
        Assert.Contains("HELD     The period has not begun yet.", held.Output);
        Assert.Empty(_box.Letters);
        Assert.Equal(1, Run("outbox").Status);
        Assert.Equal(2, Run("outbox", "--retry", "1").Status);
        Run("outbox", "--approve", "1").Done();
        Assert.Single(_box.Letters);
        Assert.Contains("Approved: The period has not begun yet.", Run("outbox", "--show", "1").Output);
        Assert.Equal(2, Run("outbox", "--withdraw", "1").Status);
        Assert.Equal(66, Run("outbox", "--show", "9").Status);
        _tool.Write("reedwater/mail.toml", _box.Settings("max-size = 1\n"));
        _tool.Write(
            "reedwater/groups/large.toml",
            "to = \"a@example.org\"\nformats = [\"html\", \"pdf\"]\nperiod = \"fy2026\"\n[[report]]\nreport = \"general-ledger\"\n");
        Run("send", "large", "--yes").Done();
        var letter = _box.Letters[1];
        Assert.Contains(" is too large to be sent, and is left out.", letter.TextBody, StringComparison.Ordinal);
        Assert.True(letter.Attachments.Count() < 2);
    }

    [Fact]
    public void Folders_and_printers_get_the_files_and_a_file_of_somebody_is_not_written_over()
    {
        _tool.Write("bin/lp", "#!/bin/sh\nprintf '%s\\n' \"$*\" > printed\ncat > printed.pdf\n");
        File.SetUnixFileMode(_tool.PathOf("bin/lp"), UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        (string, string)[] path = [("PATH", $"{_tool.PathOf("bin")}:/usr/bin:/bin")];
        _tool.Run(
            path, "send", "month-end", "--to", "folder:../shared", "--to", "printer:Front", "--formats", "xlsx", "--yes", "--book",
            "reedwater").Done();
        Assert.Empty(_box.Letters);
        var produced = _tool.PathOf("reedwater/out/month-end/2026-05/month-end");
        Assert.Equal(File.ReadAllBytes($"{produced}.xlsx"), File.ReadAllBytes(_tool.PathOf("shared/month-end-2026-05.xlsx")));
        Assert.Equal("-d Front -t month-end-2026-05.pdf\n", File.ReadAllText(_tool.PathOf("printed")));
        Assert.Equal(File.ReadAllBytes($"{produced}.pdf"), File.ReadAllBytes(_tool.PathOf("printed.pdf")));
        _tool.Write("shared/month-end-2026-05.xlsx", "mine");
        Assert.Equal(1, Run("send", "month-end", "--to", "folder:../shared", "--formats", "xlsx", "--yes").Status);
        Assert.Equal("mine", File.ReadAllText(_tool.PathOf("shared/month-end-2026-05.xlsx")));
        Assert.Contains("is not as Vlei wrote it", Run("outbox").Output);
        _tool.Write("bin/lp", "#!/bin/sh\necho 'no such printer' >&2\nexit 1\n");
        Assert.Equal(75, _tool.Run(path, "send", "balance-sheet", "--to", "printer", "--yes", "--book", "reedwater").Status);
        Assert.Contains("no such printer", Run("outbox").Output);
    }

    [Theory]
    [InlineData("message = \"{nothing}\"", ":2:11: There is nothing to put in the place of {nothing}.")]
    [InlineData("message = \"{balance-sheet.assets}\"", ":2:11: {balance-sheet.assets} is of no report that goes along.")]
    [InlineData("message = \"a { b\"", ":2:11: The letter has a { that belongs to no other.")]
    [InlineData("hold = \"cheks\"", ":2:1: hold is not \"cheks\".\n      Did you mean checks?")]
    [InlineData("to = [\"a@example.org\", \"A@Example.org\"]", ":2:1: A@Example.org is there twice.")]
    [InlineData("cc = \"printer\"", ":2:1: printer is no address of mail, as cc needs.")]
    [InlineData("[[schedule]]\nwhen = \"dayly 07:00\"\nto = \"a@example.org\"",
        ":3:8: \"dayly 07:00\" is no time of a schedule.\n      Did you mean daily?")]
    [InlineData("[[schedule]]\nwhen = \"daily 07:00\"", ":2:1: it is not said where it goes.")]
    [InlineData("[[schedule]]\nwhen = \"daily 07:00\"\ntime-zone = \"Afrika/Johannesburg\"",
        "there is no time zone Afrika/Johannesburg.\n      Did you mean Africa/Johannesburg?")]
    [InlineData("[[shedule]]", "there is no table shedule.")]
    public void What_a_group_says_of_its_delivery_is_checked_when_it_is_read(string said, string message)
    {
        _tool.Write("reedwater/groups/g.toml", $"title = \"G\"\n{said}\n[[report]]\nreport = \"profit-loss\"\n");
        var refused = Run("group", "g");
        Assert.Equal(65, refused.Status);
        Assert.Contains(message, refused.Messages);
    }

    [Fact]
    public void What_a_book_that_serves_as_library_sends_is_no_matter_of_the_books_that_it_serves()
    {
        using var tool = new Tool().WithDemo(withClients: true);
        tool.Write("mail.toml", _box.Settings());
        var refused = tool.Run("send", "month-end", "--yes", "--book", "reedwater/clients/larkfield");
        Assert.Equal(2, refused.Status);
        Assert.Contains("It is not said where it goes.", refused.Messages);
        tool.Run("schedule", "add", "month-end", "--when", "daily 07:00", "--book", "reedwater").Done();
        Assert.Contains("Nothing is scheduled.", tool.Run("schedule", "--books", "reedwater/clients/*").Done().Output);
        Assert.Contains("by itself daily 07:00", tool.Run("group", "month-end", "--book", "reedwater").Done().Output);
        Assert.Equal(78, tool.Run("send", "month-end", "--to", "a@example.org", "--yes", "--book", "reedwater/clients/larkfield").Status);
        tool.Write("reedwater/clients/larkfield/mail.toml", _box.Settings());
        tool.Run("send", "month-end", "--to", "a@example.org", "--yes", "--book", "reedwater/clients/larkfield").Done();
        Assert.StartsWith("Good day", Assert.Single(_box.Letters).TextBody, StringComparison.Ordinal);
    }

    private static List<string> SplitCsv(string line)
    {
        var (cells, cell, isQuoted) = (new List<string>(), new System.Text.StringBuilder(), false);
        foreach (var letter in line)
        {
            if (letter == '"')
            {
                isQuoted = !isQuoted;
            }
            else if (letter == ',' && !isQuoted)
            {
                cells.Add(cell.ToString());
                cell.Clear();
            }
            else
            {
                cell.Append(letter);
            }
        }

        return [.. cells, cell.ToString()];
    }

    private string Figure(string report, string row, params string[] options)
    {
        var line = Run(["show", report, "--format", "csv", .. options]).Done().Output.Split('\n')
            .First(line => line.StartsWith($"{row},", StringComparison.Ordinal));
        return decimal.Parse(line.Split(',')[^1], CultureInfo.InvariantCulture).ToString("#,##0.00", CultureInfo.InvariantCulture);
    }

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "reedwater"]);
}
