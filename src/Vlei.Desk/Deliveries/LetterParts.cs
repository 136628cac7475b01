using MimeKit;

namespace Vlei.Desk.Deliveries;

/// <summary>Takes a letter apart again.</summary>
public static class LetterParts
{
    /// <summary>What goes along: names and bytes.</summary>
    public static IReadOnlyList<(string Name, byte[] Bytes)> Files(byte[] letter)
    {
        using var message = MimeMessage.Load(new MemoryStream(letter, writable: false));
        return
        [
            .. message.Attachments.OfType<MimePart>().Select(part =>
            {
                using var bytes = new MemoryStream();
                part.Content!.DecodeTo(bytes);
                return (Path.GetFileName(part.FileName!), bytes.ToArray());
            }),
        ];
    }

    /// <summary>Its words.</summary>
    public static string Text(byte[] letter)
    {
        using var message = MimeMessage.Load(new MemoryStream(letter, writable: false));
        return message.TextBody ?? "";
    }
}
