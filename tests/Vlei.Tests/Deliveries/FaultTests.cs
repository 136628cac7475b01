using System.Diagnostics;
using System.Text;
using MimeKit;

namespace Vlei.Tests.Deliveries;

/// <summary>
/// Whatever goes wrong on the way: no letter is lost, none goes to anybody else, and none goes twice unless it was in the air; then it has
/// the same Message-ID.
/// </summary>
public sealed class FaultTests : IDisposable
{
    private const string Group =
        "period = \"2026-05\"\nformats = \"csv\"\nto = [\"a@example.org\", \"b@example.org\", \"c@example.org\"]\n"
            + "[[report]]\nreport = \"trial-balance\"\n";

    private readonly Tool _tool = new Tool().WithDemo();

    public FaultTests() => _tool.Write("reedwater/groups/three.toml", Group);

    public void Dispose() => _tool.Dispose();

    [Theory]
    [InlineData(new[] { "--greylist", "2" }, 3, 0)]
    [InlineData(new[] { "--drop", "before" }, 3, 0)]
    [InlineData(new[] { "--drop", "within" }, 3, 0)]
    [InlineData(new[] { "--drop", "after" }, 6, 0)]
    [InlineData(new[] { "--refuse", "b@example.org" }, 2, 1)]
    [InlineData(new[] { "--slow", "30" }, 3, 0)]
    public void What_a_server_does_not_take_now_is_tried_again_and_what_it_never_takes_has_failed(string[] like, int arrived, int failed)
    {
        using var box = new Postbox(_tool.PathOf("box"), like);
        _tool.Write("reedwater/mail.toml", box.Settings("timeout = 5\n"));
        var outcome = Run("send", "three", "--yes");
        for (var again = 0; again < 4 && outcome.Status == 75; again++)
        {
            // Time goes on: the pinned day is moved.
            outcome = Run("schedule", "due", "--clock", $"2026-07-0{again + 1}");
        }

        Assert.Equal(failed > 0 ? 1 : 0, Run("outbox", "--clock", "2026-07-06").Status);
        Assert.Equal(arrived, box.Letters.Count);
        AssertSound(box.Letters);
        if (failed > 0)
        {
            Assert.Contains("localhost says 550: 5.1.1 There is no b@example.org", Run("outbox").Output);
        }
    }

    [Fact]
    public void Without_a_server_it_is_tried_for_two_days_and_then_has_failed_and_a_full_one_is_tried_again()
    {
        int port;
        using (var full = new Postbox(_tool.PathOf("box"), "--full"))
        {
            _tool.Write("reedwater/mail.toml", full.Settings("timeout = 5\n"));
            Assert.Equal(75, Run("send", "three", "--yes").Status);
            Assert.Contains("There is no room", Run("outbox").Output);
            port = full.Port;
        }

        Assert.Equal(75, Run("schedule", "due", "--clock", "2026-07-01").Status);
        Assert.Contains("localhost, port", Run("outbox", "--clock", "2026-07-01").Output);
        Assert.Equal(1, Run("schedule", "due", "--clock", "2026-07-03").Status);
        Assert.Contains("Tried for two days:", Run("outbox", "--clock", "2026-07-03").Output);
        using var box = new Postbox(_tool.PathOf("box"), "--port", $"{port}");
        Run("outbox", "--retry", "1", "--clock", "2026-07-03").Done();
        Assert.Single(box.Letters);
        Run("outbox", "--withdraw", "2").Done();
        Run("outbox", "--withdraw", "3").Done();
        Run("outbox").Done();
    }

    [Fact]
    public void Killed_at_any_moment_the_next_pass_goes_on_where_it_was()
    {
        // VLEI_KILLS=200 for a long look.
        var kills = int.Parse(Environment.GetEnvironmentVariable("VLEI_KILLS") ?? "12", CultureInfo.InvariantCulture);
        var random = new Random(19);
        using var box = new Postbox(_tool.PathOf("box"), "--slow", "4");
        _tool.Write("reedwater/mail.toml", box.Settings("timeout = 5\n"));
        _tool.Write("reedwater/groups/three.toml", Group + "[[schedule]]\nwhen = \"daily 07:00\"\n");
        _ = Run("schedule", "due", "--clock", "2026-06-01").Done();
        var day = new DateOnly(2026, 6, 1);
        var started = Stopwatch.StartNew();
        Due(day.AddDays(1)).WaitForExit();
        var usual = (int)started.ElapsedMilliseconds;
        Assert.Equal(3, box.Letters.Count);
        day = day.AddDays(1);
        for (var kill = 0; kill < kills; kill++)
        {
            day = day.AddDays(1);
            using var process = Due(day);
            if (!process.WaitForExit(random.Next(usual)))
            {
                process.Kill();
                process.WaitForExit();
            }
        }

        Run("schedule", "due", "--clock", $"{day:yyyy-MM-dd}").Done();
        Run("outbox", "--clock", $"{day:yyyy-MM-dd}").Done();

        // One letter to each for every day that was noted as due; days that were cut off before that are missed ones of the next.
        AssertSound(box.Letters);
        var noted = File.ReadLines(_tool.PathOf("reedwater/outbox/log.jsonl"))
            .Where(line => line.Contains("\"state\":\"Sent\"", StringComparison.Ordinal))
            .Select(line => System.Text.Json.JsonDocument.Parse(line).RootElement.GetProperty("delivery"))
            .Select(delivery => (Due: delivery.GetProperty("due").GetString(), To: delivery.GetProperty("to")[0].GetString())).ToList();
        Assert.Equal(noted.Count, noted.Distinct().Count());
        Assert.All(noted.GroupBy(sent => sent.Due), due => Assert.Equal(3, due.Count()));
        Assert.Equal(noted.Count, box.Letters.Select(letter => letter.MessageId).Distinct().Count());

        Process Due(DateOnly on) => _tool.Start([], "schedule", "due", "--clock", $"{on:yyyy-MM-dd}", "--book", "reedwater");
    }

    [Fact]
    public void Two_runners_never_do_the_same_one_and_a_damaged_letter_is_not_sent()
    {
        using var box = new Postbox(_tool.PathOf("box"), "--slow", "10");
        _tool.Write("reedwater/mail.toml", box.Settings());
        _tool.Write("reedwater/groups/three.toml", Group + "[[schedule]]\nwhen = \"daily 07:00\"\n");
        Run("schedule", "due", "--clock", "2026-05-01").Done();
        var runners = Enumerable.Range(0, 4)
            .Select(_ => _tool.Start([], "schedule", "due", "--clock", "2026-05-02", "--book", "reedwater")).ToList();
        runners.ForEach(runner =>
        {
            runner.WaitForExit();
            runner.Dispose();
        });
        Run("schedule", "due", "--clock", "2026-05-02").Done();
        Assert.Equal(3, box.Letters.Count);
        AssertSound(box.Letters);
        Run("schedule", "due", "--clock", "2026-05-01").Done();
        Assert.Equal(3, box.Letters.Count);

        // Held, and changed by somebody before it is approved.
        Assert.Equal(1, Run("send", "three", "--period", "2026-11", "--yes").Status);
        var letter = Directory.GetFiles(_tool.PathOf("reedwater/outbox/letters")).Max()!;
        File.WriteAllText(letter, File.ReadAllText(letter).Replace("a@example.org", "x@example.org", StringComparison.Ordinal)
            .Replace("c@example.org", "x@example.org", StringComparison.Ordinal));
        Assert.Equal(1, Run("outbox", "--approve", "6").Status);
        Assert.Contains("is not as it was written", Run("outbox").Output);
        Assert.Equal(3, box.Letters.Count);
    }

    [Fact]
    public void What_a_full_disk_keeps_from_being_noted_is_not_sent()
    {
        if (Environment.UserName != "root")
        {
            Assert.Skip("mounting a small disk takes root");
        }

        using var box = new Postbox(_tool.PathOf("box"));
        _tool.Write("reedwater/mail.toml", box.Settings());
        Directory.CreateDirectory(_tool.PathOf("reedwater/outbox"));
        Documents.Shell.Run(_tool.Folder, "mount", "-t", "tmpfs", "-o", "size=64k", "tmpfs", _tool.PathOf("reedwater/outbox"));
        try
        {
            var outcome = Run("send", "month-end", "--formats", "pdf", "--yes");
            Assert.Equal(73, outcome.Status);
            Assert.Empty(box.Letters);
            Run("outbox").Done();
        }
        finally
        {
            Documents.Shell.Run(_tool.Folder, "umount", _tool.PathOf("reedwater/outbox"));
        }
    }

    [Fact]
    public void The_password_is_in_nothing_that_is_written_or_said()
    {
        const string Secret = "correct-horse-battery";
        using var box = new Postbox(_tool.PathOf("box"));
        foreach (var (place, status) in new[]
        {
            ("env:MAIL_SECRET", 75), ("file:secret", 75), ("command:printf %s correct-horse-battery", 75), (Secret, 78),
        })
        {
            _tool.Write("home/.config/vlei/mail.toml", box.Settings($"user = \"books\"\npassword = \"{place}\"\n"));
            var secret = _tool.Write("home/.config/vlei/secret", $"{Secret}\n");
            File.SetUnixFileMode(secret, UnixFileMode.UserRead | UnixFileMode.UserWrite);
            var outcome = _tool.Run(
                [("HOME", _tool.PathOf("home")), ("MAIL_SECRET", Secret)], "send", "three", "--yes", "--book", "reedwater");
            Assert.Equal(status, outcome.Status);
            Assert.DoesNotContain(Secret, outcome.Output + outcome.Messages, StringComparison.Ordinal);
        }

        File.SetUnixFileMode(
            _tool.PathOf("home/.config/vlei/secret"), UnixFileMode.UserRead | UnixFileMode.GroupRead | UnixFileMode.UserWrite);
        _tool.Write("home/.config/vlei/mail.toml", box.Settings("user = \"books\"\npassword = \"file:secret\"\n"));
        var refused = _tool.Run([("HOME", _tool.PathOf("home"))], "send", "three", "--yes", "--book", "reedwater");
        Assert.Equal(75, refused.Status);
        Assert.Contains("others may read", refused.Messages);
        _tool.Write("reedwater/mail.toml", box.Settings("user = \"books\"\npassword = \"command:touch stolen\"\n"));
        Assert.Equal(78, Run("send", "three", "--yes").Status);
        Assert.False(File.Exists(_tool.PathOf("stolen")));
        foreach (var path in Directory.EnumerateFiles(_tool.Folder, "*", SearchOption.AllDirectories)
            .Where(path => !path.Contains("/home/.config/vlei/", StringComparison.Ordinal)))
        {
            var text = Encoding.Latin1.GetString(File.ReadAllBytes(path));
            Assert.DoesNotContain(Secret, text, StringComparison.Ordinal);
            Assert.DoesNotContain(Convert.ToBase64String(Encoding.UTF8.GetBytes(Secret)), text, StringComparison.Ordinal);
        }
    }

    // Each letter is whole, and goes to the one that it is for; two of one Message-ID are the same letter.
    private static void AssertSound(IReadOnlyList<MimeMessage> letters)
    {
        Assert.All(letters, letter =>
        {
            Assert.Equal([letter.To.Mailboxes.Single().Address], Postbox.DeliveredTo(letter));
            Assert.Single(letter.Attachments);
        });
        Assert.All(
            letters.GroupBy(letter => letter.MessageId), same => Assert.Single(same.Select(letter => letter.To.ToString()).Distinct()));
    }

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "reedwater"]);
}
