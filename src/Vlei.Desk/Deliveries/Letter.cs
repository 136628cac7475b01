using System.Globalization;
using System.Net;
using System.Text;
using MimeKit;
using Vlei.Books.Kept;
using Vlei.Core.Languages;

namespace Vlei.Desk.Deliveries;

/// <summary>A letter with what goes along, before it is written as mail has it.</summary>
/// <param name="Subject">The line for the subject.</param>
/// <param name="Text">Its words, with an empty line between paragraphs.</param>
/// <param name="Language">Its language.</param>
/// <param name="Files">What goes along: a name, and the bytes.</param>
internal sealed record Letter(string Subject, string Text, Language Language, IReadOnlyList<(string Name, byte[] Bytes)> Files)
{
    private const string WebStyle =
        "font-family:system-ui,-apple-system,'Segoe UI',sans-serif;font-size:15px;line-height:1.5;color:#1d2126;max-width:42em;margin:0";

    /// <summary>
    /// The letter as mail has it (RFC 5322, MIME): a text and a page of the same words, and the files behind them. The same letter has
    /// the same bytes; it is all in seven bits, so that no server on its way needs to change it.
    /// </summary>
    /// <param name="from">The sender.</param>
    /// <param name="to">The recipients.</param>
    /// <param name="plan">Who gets a copy, and where answers go.</param>
    /// <param name="id">Its Message-ID, without brackets.</param>
    /// <param name="at">Its date.</param>
    /// <param name="isBySelf">Whether nobody asked for it: then nobody answers it by a machine (RFC 3834).</param>
    public byte[] Write(
        Recipient from, IReadOnlyList<Recipient> to, DeliveryPlan plan, string id, DateTimeOffset at, bool isBySelf)
    {
        var message = new MimeMessage { Subject = Subject, Date = at, MessageId = id };
        message.From.Add(Address(from));
        message.To.AddRange(to.Select(Address));
        message.Cc.AddRange(plan.Copies.Select(Address));
        if (plan.ReplyTo is { } answers)
        {
            message.ReplyTo.Add(Address(answers));
        }

        message.Headers.Add(HeaderId.ContentLanguage, Language.Code);
        if (isBySelf)
        {
            message.Headers.Add(HeaderId.AutoSubmitted, "auto-generated");
        }

        var words = new MultipartAlternative { Part("plain", $"{Text}\n{FilesInWords()}"), Part("html", Page()) };
        words.Boundary = $"vlei-words-{id[..16]}";
        if (Files.Count == 0)
        {
            message.Body = words;
        }
        else
        {
            var mixed = new Multipart("mixed") { words };
            mixed.Boundary = $"vlei-files-{id[..16]}";
            foreach (var (name, bytes) in Files)
            {
                mixed.Add(new MimePart(MimeTypes.GetMimeType(name))
                {
                    Content = new MimeContent(new MemoryStream(bytes, writable: false)), FileName = name,
                    ContentDisposition = new ContentDisposition(ContentDisposition.Attachment) { FileName = name },
                    ContentTransferEncoding = ContentEncoding.Base64,
                });
            }

            message.Body = mixed;
        }

        message.Prepare(EncodingConstraint.SevenBit);
        using var written = new MemoryStream();
        var format = FormatOptions.Default.Clone();
        format.NewLineFormat = NewLineFormat.Dos;
        message.WriteTo(format, written);
        return written.ToArray();
    }

    /// <summary>A Message-ID that follows from a key, so that a letter that is sent once more can be recognised.</summary>
    public static string IdOf(string key, Recipient from) => $"{Hashes.Of(key)[..32]}@{from.Place[(from.Place.LastIndexOf('@') + 1)..]}";

    private static MailboxAddress Address(Recipient recipient)
    {
        var name = recipient.Text.LastIndexOf('<') is > 0 and var bracket ? recipient.Text[..bracket].Trim().Trim('"') : "";
        return new MailboxAddress(Encoding.UTF8, name, recipient.Place);
    }

    private static TextPart Part(string kind, string text)
    {
        var part = new TextPart(kind);
        part.SetText(Encoding.UTF8, text);
        part.ContentTransferEncoding = ContentEncoding.QuotedPrintable;
        return part;
    }

    private string FilesInWords() => Files.Count == 0 ? ""
        : $"\n{Language.Say("Attached")}:\n{string.Concat(Files.Select(file => $"  {file.Name} ({Size(file.Bytes.Length)})\n"))}";

    private string Page()
    {
        var page = new StringBuilder("<!doctype html>\n<html lang=\"").Append(Language.Code)
            .Append("\"><head><meta charset=\"utf-8\"><title>")
            .Append(WebUtility.HtmlEncode(Subject)).Append("</title></head>\n<body style=\"").Append(WebStyle).Append("\">\n");
        foreach (var paragraph in Text.ReplaceLineEndings("\n").Split("\n\n", StringSplitOptions.RemoveEmptyEntries))
        {
            page.Append(LetterPage.Of(paragraph.Trim('\n')));
        }

        if (Files.Count > 0)
        {
            page.Append("<p style=\"margin:2em 0 0;padding-top:.8em;border-top:1px solid #cfd4d9;color:#5b6570;font-size:13px\">")
                .Append(WebUtility.HtmlEncode(Language.Say("Attached"))).Append(": ")
                .Append(string.Join(", ", Files.Select(file => WebUtility.HtmlEncode($"{file.Name} ({Size(file.Bytes.Length)})"))))
                .Append("</p>\n");
        }

        return page.Append("</body></html>\n").ToString();
    }

    private static string Size(long bytes)
    {
        const int Thousand = 1000;
        var (number, unit) = bytes < Thousand * Thousand ? ((bytes + Thousand - 1) / Thousand, "kB")
            : ((bytes + (Thousand * Thousand / 2)) / (Thousand * Thousand), "MB");
        return $"{number.ToString(CultureInfo.InvariantCulture)} {unit}";
    }
}
