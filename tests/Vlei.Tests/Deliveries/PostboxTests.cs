using System.Net.Sockets;
using System.Text;

namespace Vlei.Tests.Deliveries;

/// <summary>The postbox itself: what RFC 5321 asks of a server, and what it is told to be like.</summary>
public sealed class PostboxTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("vlei-postbox-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public void A_conversation_goes_as_the_standard_has_it()
    {
        using var box = new Postbox(_folder);
        Assert.Equal(
            """
            220 localhost vlei-postbox
            250 localhost
            503 5.5.1 First MAIL and RCPT
            250 2.1.0 Fine
            250 2.1.5 Fine
            250 2.1.5 Fine
            354 Go on, and end with a point alone
            250 2.0.0 Taken
            502 5.5.2 That is not known here
            250 2.0.0 Fine
            221 2.0.0 Goodbye

            """,
            Say(
                box, "HELO me", "DATA", "MAIL FROM:<a@example.org>", "RCPT TO:<b@example.org>", "rcpt to:<c@example.org>", "DATA",
                "Subject: x\r\n\r\n..one point\r\nbody\r\n.", "VRFY b", "RSET", "QUIT"));
        Assert.Equal(
            "Return-Path: <a@example.org>\r\nDelivered-To: b@example.org\r\nDelivered-To: c@example.org\r\nSubject: x\r\n\r\n.one "
                + "point\r\nbody\r\n",
            File.ReadAllText(Directory.GetFiles(_folder).Single()));
    }

    [Fact]
    public void Letters_keep_their_numbers_when_it_is_started_again_and_many_come_at_once()
    {
        using (var box = new Postbox(_folder))
        {
            Parallel.For(
                0, 20, number => Say(box, "HELO me", "MAIL FROM:<a@b.c>", $"RCPT TO:<n{number}@b.c>", "DATA", $"{number}\r\n.", "QUIT"));
        }

        using var again = new Postbox(_folder);
        _ = Say(again, "HELO me", "MAIL FROM:<a@b.c>", "RCPT TO:<last@b.c>", "DATA", "last\r\n.", "QUIT");
        Assert.Equal(
            Enumerable.Range(1, 21).Select(number => $"{number:D6}.eml"),
            Directory.GetFiles(_folder).Select(path => Path.GetFileName(path)!).Order());
        Assert.Equal(21, again.Letters.SelectMany(Postbox.DeliveredTo).Distinct().Count());
    }

    [Theory]
    [InlineData("--full", "452 4.3.1", "MAIL FROM:<a@b.c>")]
    [InlineData("--refuse b@b.c", "550 5.1.1", "MAIL FROM:<a@b.c>", "RCPT TO:<b@b.c>")]
    [InlineData("--greylist 1", "450 4.7.1", "MAIL FROM:<a@b.c>", "RCPT TO:<b@b.c>")]
    public void It_is_like_it_is_told(string options, string answer, params string[] lines)
    {
        using var box = new Postbox(_folder, options.Split(' '));
        Assert.Contains($"\n{answer} ", Say(box, ["HELO me", .. lines, "QUIT"]), StringComparison.Ordinal);
        Assert.Empty(box.Letters);
    }

    [Fact]
    public void What_is_no_call_is_told()
    {
        foreach (var arguments in new[] { "", "--port x box", "box --drop never", "box --slow" })
        {
            using var process = System.Diagnostics.Process.Start(new System.Diagnostics.ProcessStartInfo(Postbox.Program, arguments)
            {
                RedirectStandardError = true, WorkingDirectory = _folder,
            })!;
            Assert.Contains("vlei-postbox DIR [options]", process.StandardError.ReadToEnd());
            process.WaitForExit();
            Assert.Equal(2, process.ExitCode);
        }
    }

    private static string Say(Postbox box, params string[] lines)
    {
        using var client = new TcpClient("127.0.0.1", box.Port);
        using var stream = client.GetStream();
        using var reader = new StreamReader(stream, Encoding.ASCII);
        var said = new StringBuilder(reader.ReadLine()).Append('\n');
        foreach (var line in lines)
        {
            stream.Write(Encoding.ASCII.GetBytes($"{line}\r\n"));
            said.Append(reader.ReadLine()).Append('\n');
        }

        return said.ToString();
    }
}
