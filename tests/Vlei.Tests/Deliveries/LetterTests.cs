using System.Text;
using MimeKit;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Tests.Deliveries;

/// <summary>
/// Letters of random words, as the postbox gets them: they say what was meant, and every server on the way can carry them.
/// </summary>
public sealed class LetterTests : IDisposable
{
    // What goes wrong in letters: points alone, long words, headers within, marks that are written backwards, and quotes.
    private static readonly string[] Pieces =
    [
        ".", "..", "From ", "Bcc: x@example.org", "\n", "\n\n", "=", "=?utf-8?q?x?=", "Ω", "日本語", "\u202e", "é", "e\u0301", "\"", "<b>",
        "&amp;",
        "{{", "}}", "word", " ", "\t", new string('x', 1200), "100 %", "Total: 1,234.50", "Rest: -0.50", "😀", "'", "\\",
    ];

    private readonly Tool _tool = new Tool().WithDemo();
    private readonly Postbox _box;

    public LetterTests()
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
    public void Any_words_arrive_as_they_were_meant_in_lines_that_every_server_takes()
    {
        var random = new Random(12);
        for (var round = 0; round < 12; round++)
        {
            var words = "Hello" + string.Concat(Enumerable.Range(0, random.Next(30)).Select(_ => Pieces[random.Next(Pieces.Length)]));
            var name = string.Concat(Enumerable.Range(0, 5).Select(_ => new[] { "Ann", "Ø", " ", "李", "-", "é" }[random.Next(6)]))
                .Trim(' ', '-');
            var to = name.Length == 0 ? "ann@example.org" : $"{name} <ann@example.org>";
            _tool.Run(
                "send", "bank-activity", "--period", "2026-05", "--formats", "csv", "--to", to, "--message", words, "--yes", "--book",
                "reedwater").Done();
            var letter = _box.Letters[round];
            var meant = words.Replace("{{", "{", StringComparison.Ordinal).Replace("}}", "}", StringComparison.Ordinal);
            Assert.StartsWith(Lines(meant), Lines(letter.TextBody!), StringComparison.Ordinal);
            Assert.Equal(name, letter.To.Mailboxes.Single().Name ?? "");
            Assert.Equal(["ann@example.org"], Postbox.DeliveredTo(letter));
            Assert.Null(letter.Headers["Bcc"]);
            var raw = File.ReadAllBytes(_tool.PathOf($"box/{round + 1:D6}.eml"));
            Assert.DoesNotContain(raw, octet => octet is 0 or > 126);
            Assert.All(Encoding.ASCII.GetString(raw).Split("\r\n"), line => Assert.True(line.Length <= 998 && !line.Contains('\n'), line));
            AssertPage(letter.HtmlBody!, meant);
        }
    }

    [Fact]
    public void The_same_letter_has_the_same_bytes_and_another_one_another_id()
    {
        foreach (var folder in new[] { "one", "two", "three" })
        {
            _tool.Run(
                "send", "month-end", "--period", folder == "three" ? "2026-04" : "2026-05", "--formats", "pdf,xlsx", "--dry-run",
                folder, "--book", "reedwater").Done();
        }

        var letters = new[] { "one", "two", "three" }.Select(folder => File.ReadAllBytes(_tool.PathOf($"{folder}/001.eml"))).ToList();
        Assert.Equal(letters[0], letters[1]);
        Assert.NotEqual(letters[0], letters[2]);
        using var letter = MimeMessage.Load(new MemoryStream(letters[0]), TestContext.Current.CancellationToken);
        Assert.Equal(new DateTimeOffset(2026, 6, 30, 12, 0, 0, TimeSpan.Zero).Date, letter.Date.Date);
        Assert.Equal(
            ["application/pdf", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"],
            letter.Attachments.Select(part => part.ContentType.MimeType));
        Assert.Equal("en", letter.Body!.Headers[HeaderId.ContentLanguage]);
        Assert.Null(letter.Headers[HeaderId.AutoSubmitted]);
    }

    [Theory]
    [InlineData("{title} of {book}", "T of B")]
    [InlineData("{{{title}}}", "{T}")]
    [InlineData("{ period }", "P")]
    [InlineData("no places", "no places")]
    [InlineData("{r.row}", "[r|row]")]
    [InlineData("{r.total.change(a,b)}", "[r|total|change(a,b)]")]
    [InlineData("{r.a b.2026-05 x}", "[r|a b|2026-05 x]")]
    [InlineData("{r.row.share.of.x}", "[r|row|share.of.x]")]
    public void Places_are_filled_in_and_doubled_braces_are_braces(string letter, string filled) => Assert.Equal(
        filled, LetterTemplate.Fill(letter, place => place.IsFigure ? $"[{string.Join('|', place.Words)}]" : place.Words[0] switch
        {
            "title" => "T",
            "book" => "B",
            "period" => "P",
            _ => "?",
        }));

    [Theory]
    [InlineData("{titel}", "Did you mean title?")]
    [InlineData("{}", "{REPORT.ROW}")]
    [InlineData("{a.}", "{REPORT.ROW}")]
    [InlineData("{", "Write it twice")]
    [InlineData("}", "Write it twice")]
    [InlineData("{title", "Write it twice")]
    public void What_is_no_place_is_refused(string letter, string advice) => Assert.Contains(
        advice, Assert.Throws<ProblemException>(() => LetterTemplate.Fill(letter, _ => "")).Advice, StringComparison.Ordinal);

    [Theory]
    [InlineData("mara@example.org", RecipientKind.Mail, "mara@example.org")]
    [InlineData("  mara@example.org ", RecipientKind.Mail, "mara@example.org")]
    [InlineData("Mara Meyer <mara@example.org>", RecipientKind.Mail, "mara@example.org")]
    [InlineData("\"Meyer, Mara\" <mara@example.org>", RecipientKind.Mail, "mara@example.org")]
    [InlineData("mara+books@sub.example.org", RecipientKind.Mail, "mara+books@sub.example.org")]
    [InlineData("folder:../shared files", RecipientKind.Folder, "../shared files")]
    [InlineData("printer", RecipientKind.Printer, "")]
    [InlineData("printer:Front desk", RecipientKind.Printer, "Front desk")]
    public void Recipients_are_what_they_say(string text, RecipientKind kind, string place)
    {
        var recipient = Recipient.Parse(text);
        Assert.Equal((kind, place), (recipient.Kind, recipient.Place));
        Assert.True(recipient.IsSameAs(Recipient.Parse(recipient.Text)));
    }

    [Fact]
    public void Random_texts_are_an_address_that_is_one_or_none_at_all()
    {
        const string Letters = "ab@.<>,\"' \r\n\t:;()[]\\\u0000éΩ-_+=%";
        var random = new Random(3);
        for (var round = 0; round < 20_000; round++)
        {
            var text = string.Concat(Enumerable.Range(0, random.Next(24)).Select(_ => Letters[random.Next(Letters.Length)]));
            try
            {
                var recipient = Recipient.Parse(text);
                Assert.DoesNotContain(
                    recipient.Place, letter => char.IsControl(letter) || char.IsWhiteSpace(letter) || letter is '<' or '>' or ',');
                Assert.Equal(
                    2, MailboxAddress.Parse(recipient.Place).Address.Split(
                        '@').Length - (recipient.Place.Count(letter => letter == '@') - 1));
            }
            catch (ProblemException none)
            {
                Assert.EndsWith("is no address.", none.Message, StringComparison.Ordinal);
                Assert.DoesNotContain(none.Message, char.IsControl);
            }
            catch (ParseException)
            {
                Assert.Fail($"\"{text}\" is taken, and is none");
            }
        }
    }

    private static string Lines(string text) => text.ReplaceLineEndings("\n").TrimEnd();

    // The page has the same words, and no tags of theirs.
    private static void AssertPage(string page, string meant)
    {
        var body = page[page.IndexOf("<body", StringComparison.Ordinal)..];
        var text = System.Net.WebUtility.HtmlDecode(System.Text.RegularExpressions.Regex.Replace(
            body, "<[^>]*>", "", System.Text.RegularExpressions.RegexOptions.None, TimeSpan.FromSeconds(5)));
        Assert.Equal(
            string.Concat(meant.Where(letter => !char.IsWhiteSpace(letter))).Replace("Total:", "Total", StringComparison.Ordinal)
                .Replace("Rest:", "Rest", StringComparison.Ordinal),
            string.Concat(text[..text.LastIndexOf("Attached", StringComparison.Ordinal)].Where(letter => !char.IsWhiteSpace(letter)))
                .Replace("Total:", "Total", StringComparison.Ordinal).Replace("Rest:", "Rest", StringComparison.Ordinal));
        Assert.DoesNotContain("<b>", body, StringComparison.Ordinal);
    }
}
